import { open, rm } from 'node:fs/promises'
import { bodyParser } from '@koa/bodyparser'
import type { Context, Middleware } from 'koa'
import { NO_ROOM } from '../jobs/room'
import { HttpProblem } from './problem'
import { LARGEST_BODY } from './validate'

/** Reads small bodies in JSON where they are asked for. */
export const jsonBody = (): Middleware =>
  bodyParser({ enableTypes: ['json'], jsonLimit: LARGEST_BODY, jsonStrict: true }) as Middleware

/** A body in JSON as it came, unread, for a thread that reads it. @throws HttpProblem when it is too large or none */
export async function jsonBytes(ctx: Context): Promise<Uint8Array<ArrayBuffer>> {
  const isPlain = ctx.get('content-encoding') === '' || ctx.get('content-encoding') === 'identity'
  if (!ctx.is('json') || !isPlain) {
    throw new HttpProblem(400, 'body.json', 'The request is not JSON.', 'Send JSON.')
  }
  const chunks: Buffer[] = []
  for await (const chunk of upTo(ctx, LARGEST_BODY, 'This is too large to be saved.')) {
    chunks.push(chunk)
  }
  // A copy of its own can be handed over; a small buffer shares its memory with others.
  return new Uint8Array(Buffer.concat(chunks))
}

/** Writes a body to a file as it comes. @throws HttpProblem when it is larger than so many bytes, or there is no room */
export async function bodyToFile(ctx: Context, path: string, most: number): Promise<void> {
  const file = await open(path, 'w')
  try {
    for await (const chunk of upTo(ctx, most, 'This file is too large.')) await file.write(chunk)
    await file.close()
  } catch (error) {
    await file.close()
    await rm(path, { force: true })
    if ((error as NodeJS.ErrnoException).code !== 'ENOSPC') throw error
    throw new HttpProblem(507, NO_ROOM.code, NO_ROOM.message, NO_ROOM.mend)
  }
}

/** A body piece by piece, up to so many bytes. */
async function* upTo(ctx: Context, most: number, message: string): AsyncGenerator<Buffer> {
  let size = 0
  for await (const chunk of ctx.req.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > most) {
      ctx.req.resume()
      throw new HttpProblem(413, 'body.large', message, 'Make it smaller, or coarser.')
    }
    yield chunk
  }
}
