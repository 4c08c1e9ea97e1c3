import { once } from '../once'
import type { Note, Part } from '../part'
import { fail, type Problem } from '../result'
import type { PartState } from '../route'
import { edgeKey, edgesOf, liesOnAxis, type Section, type SectionEdge } from '../section'
import type { NoteRules } from './kind'
import { NOTE_KINDS } from './kinds'

/** A note, and how it stands on the part. */
export interface NoteState {
  readonly note: Note
  readonly words: string
  /** The pieces of its face; none where it is said of all faces, or its face is gone. */
  readonly edges: readonly SectionEdge[]
  readonly problem?: Problem
}

export const notesOf = (part: Part): readonly Note[] => part.notes ?? []

/** What of all kinds is asked: the registry knows which rules are of which note. */
const rulesOf = (kind: Note['kind']): NoteRules => NOTE_KINDS[kind] as NoteRules

/** The pieces of a face at the end of the route. */
export function faceEdges(
  state: Pick<PartState, 'bodies'>,
  body: string,
  on: string,
): readonly SectionEdge[] {
  const section = state.bodies.find((b) => b.bodyId === body)?.section
  return (section && byKey(section).get(on)) ?? []
}

/** The pieces of each face of a section, by its key. */
const byKey = once((section: Section): ReadonlyMap<string, readonly SectionEdge[]> => {
  const found = new Map<string, SectionEdge[]>()
  for (const edge of edgesOf(section)) {
    if (liesOnAxis(edge)) continue
    const key = edgeKey(edge.name)
    const pieces = found.get(key)
    if (pieces) pieces.push(edge)
    else found.set(key, [edge])
  }
  return found
})

/** Every note of a part against the part as it stands at the end of its route. */
export const noteStates = once((state: PartState): readonly NoteState[] => {
  const { part } = state
  const all = notesOf(part)
  return all.map((note): NoteState => {
    const isOfAll = note.kind === 'surface' && note.on === ''
    const edges = isOfAll ? [] : faceEdges(state, note.body, note.on)
    const rules = rulesOf(note.kind)
    if (!isOfAll && edges.length === 0) {
      const problem = fail(
        'note.gone',
        `The face of this ${rules.name} is gone.`,
        'Pick another face for it, or bring back the step that made it.',
      )
      return { note, words: plainWords(note), edges, problem: problem.problem }
    }
    return { note, edges, ...rules.tell(note, { part, edges, all }) }
  })
})

/** What a note says by itself. */
function plainWords(note: Note): string {
  switch (note.kind) {
    case 'thread':
      return note.callout
    case 'datum':
      return note.letter
    case 'frame':
      return note.zone
    case 'surface':
      return `${note.parameter} ${note.value}`
    case 'treatment':
    case 'text':
      return note.words
  }
}
