import type { Context } from 'koa'
import type { PartText } from '../partText'
import type { Threads } from '../threads'
import { jsonBytes } from './body'
import { HttpProblem } from './problem'

/** Larger bodies than this, in bytes, are read apart from the others: a part of 3,000 lines takes about 1 MB. */
const LARGE = 1_000_000

/** A document that takes longer than this to be read, in ms, is refused. */
const LONGEST = 30_000

/**
 * The part in the body of a request, checked in a thread.
 * @throws HttpProblem when it is none, cannot be stored, or takes too much to be read
 */
export async function acceptedPart(
  ctx: Context,
  threads: Threads,
  kind: 'new' | 'save',
): Promise<{ readonly part: PartText; readonly revision: number }> {
  const bytes = await jsonBytes(ctx)
  const accepted = await threads
    .run(
      bytes.length > LARGE ? 'acceptLarge' : 'accept',
      { kind, bytes },
      { signal: AbortSignal.timeout(LONGEST), transfer: [bytes.buffer] },
    )
    .catch((error: unknown) => {
      const { name, code } = error as { name?: unknown; code?: unknown }
      if (name !== 'AbortError' && name !== 'TimeoutError' && code !== 'ERR_WORKER_OUT_OF_MEMORY')
        throw error
      throw new HttpProblem(
        422,
        'part.heavy',
        'This part takes longer to be read than the server waits.',
        'Undo the last change and save again.',
      )
    })
  if (accepted.ok) return accepted
  throw new HttpProblem(accepted.status, accepted.code, accepted.message, accepted.mend)
}
