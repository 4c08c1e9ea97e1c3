import { storedPart, toDocument } from '@lathica/core/formats'
import { HttpProblem } from './http/problem'

/** A part as it is stored. */
export interface PartText {
  readonly name: string
  /** Its document, in JSON. */
  readonly text: string
}

/**
 * A document as it is stored, once it was seen to come back as it is: written, read and compared.
 * @throws HttpProblem that says what is wrong with it
 */
export function storable(document: unknown): PartText {
  const read = storedPart(document)
  if (!read.ok) {
    const { code, message, mend } = read.problem
    throw new HttpProblem(422, code, message, mend)
  }
  const text = JSON.stringify(toDocument(read.value))
  const { name } = read.value
  // What is written as it came was read just now.
  if (text === JSON.stringify(document)) return { name, text }
  const back = storedPart(JSON.parse(text))
  const isSame = back.ok && JSON.stringify(toDocument(back.value)) === text
  if (!isSame) {
    const why = back.ok ? 'It would come back as something else.' : back.problem.message
    throw new HttpProblem(
      422,
      'part.unstorable',
      `This part could not be read again if it were stored. ${why}`,
      'Undo the last change and save again.',
    )
  }
  return { name, text }
}
