import { toProblem } from '../http/errors'
import { newPartBody, savePartBody } from '@lathica/core/wire'
import { checkBody } from '../http/validate'
import { storable, type PartText } from '../partText'

/** A body as it came, in JSON: of a new part, or of one that is saved. */
export interface AcceptTask {
  readonly kind: 'new' | 'save'
  readonly bytes: Uint8Array
}

/** What is stored; or what is wrong, as the answer says it. */
export type Accepted =
  | {
      readonly ok: true
      readonly part: PartText
      /** The revision that is saved over, of a part that is saved. */
      readonly revision: number
    }
  | {
      readonly ok: false
      readonly status: number
      readonly code: string
      readonly message: string
      readonly mend: string
    }

export function accept({ kind, bytes }: AcceptTask): Accepted {
  try {
    const body = parsed(bytes)
    const { document, revision } =
      kind === 'save'
        ? checkBody(savePartBody, body)
        : { ...checkBody(newPartBody, body), revision: 0 }
    return { ok: true, part: storable(document), revision }
  } catch (error) {
    const { status, code, message, mend } = toProblem(error)
    // What is no fault of the body's is one of the program's own.
    if (status >= 500) throw error
    return { ok: false, status, code, message, mend }
  }
}

function parsed(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes)) as unknown
  } catch {
    throw Object.assign(new Error('not JSON'), { status: 400 })
  }
}
