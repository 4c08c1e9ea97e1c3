import { cornerWords, faceWords } from '../route'
import type { UnitSettings } from '../units'
import { NOTE_KINDS } from './kinds'
import type { NoteState } from './states'

/** Where a note stands, in words. */
export function noteWhere({ note, edges, corner, foot }: NoteState, units: UnitSettings): string {
  if (corner) return cornerWords(corner, units)
  const [edge] = edges
  if (edge) return faceWords(edge, units)
  if (note.on !== '' || foot) return 'gone'
  return `all other ${NOTE_KINDS[note.kind].stands === 'corner' ? 'edges' : 'faces'}`
}
