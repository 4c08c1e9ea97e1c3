import type { Part } from '../part'
import { cornerWords, faceWords, solidFaceWords } from '../route'
import { NOTE_KINDS } from './kinds'
import type { NoteState } from './states'

/** Where a note stands, in words. */
export function noteWhere(
  { note, edges, corner, foot }: NoteState,
  { units, route }: Pick<Part, 'units' | 'route'>,
): string {
  if (corner) return cornerWords(corner, units)
  const [edge] = edges
  if (edge) return faceWords(edge, units)
  if (foot) return solidFaceWords(note.on, route)
  if (note.on !== '') return 'gone'
  return `all other ${NOTE_KINDS[note.kind].stands === 'corner' ? 'edges' : 'faces'}`
}
