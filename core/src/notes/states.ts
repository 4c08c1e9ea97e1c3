import { once } from '../once'
import { SAID_OF_ALL, type Note, type Part } from '../part'
import { fail, type Problem } from '../result'
import type { PartState } from '../route'
import {
  cornersOf,
  edgeKey,
  edgesOf,
  liesOnAxis,
  type Corner,
  type Section,
  type SectionEdge,
} from '../section'
import { leftNormal, lengthOf, pointAt, vec, type Place, type Vec } from '../geometry'
import { isFaceOf } from '../names'
import type { Cell, NoteRequirement, NoteRules } from './kind'
import { NOTE_KINDS } from './kinds'
import { saidTwice } from './twice'

/** A note, and how it stands on the part. */
export interface NoteState {
  readonly note: Note
  readonly words: string
  /** The pieces of its face; none where it is said of all faces or of a corner, or its face is gone. */
  readonly edges: readonly SectionEdge[]
  readonly corner?: Corner
  /** Where it stands on the half-section, and the way out of the material there; in space of what is no full turn. */
  readonly foot: { readonly at: Vec; readonly out: Vec; readonly inSpace?: Place } | undefined
  readonly problem?: Problem
}

export const notesOf = (part: Part): readonly Note[] => part.notes ?? []

/** What of all kinds is asked: the registry knows which rules are of which note. */
const rulesOf = (kind: Note['kind']): NoteRules => NOTE_KINDS[kind] as NoteRules

/** The cells of a note's plate. */
export const noteCells = (note: Note, words: string): readonly Cell[] =>
  rulesOf(note.kind).cells?.(note, words) ?? [{ words }]

/** Whether a kind of note asks something of the piece: datums, colours and mating parts do not. */
export const asksSomething = (kind: Note['kind']): boolean => rulesOf(kind).requires !== undefined

/** What a note asks of the piece, and how that is looked at; undefined where it asks nothing. */
export const requirementOf = (note: Note, part: Part): NoteRequirement | undefined =>
  rulesOf(note.kind).requires?.(note, part)

export const mayBeOfAll = (kind: Note['kind']): boolean => SAID_OF_ALL.some((k) => k === kind)

/** In the middle of the longest piece of a face. */
function faceFoot(edges: readonly SectionEdge[]): NoteState['foot'] {
  const [first, ...more] = edges
  if (!first) return undefined
  const longest = more.reduce((a, b) => (lengthOf(b.piece) > lengthOf(a.piece) ? b : a), first)
  const inwards = leftNormal(longest.piece, 0.5)
  return { at: pointAt(longest.piece, 0.5), out: vec(-inwards.x, -inwards.y) }
}

/** Of a face of a hole, a flat, a slot: where the step that made it tells its size. */
function solidFoot(state: PartState, { body, on }: Note): NoteState['foot'] {
  const step = state.steps.find((s) => s.status === 'done' && isFaceOf(s.stepId, on))
  const size = step?.sizes.find((s) => s.body === body)
  const isLifted = state.bodies.some((b) => b.bodyId === body && b.plan)
  if (!size || !isLifted) return undefined
  const { x, y, z } = size.at
  return { at: vec(z, Math.hypot(x, y)), out: vec(0, 1), inSpace: size.at }
}

/** At a corner, half way between the directions out of its two faces. */
function cornerFoot({ at, arriving, leaving }: Corner): NoteState['foot'] {
  const [a, b] = [leftNormal(arriving.piece, 1), leftNormal(leaving.piece, 0)]
  const size = Math.hypot(a.x + b.x, a.y + b.y) || 1
  return { at, out: vec(-(a.x + b.x) / size, -(a.y + b.y) / size) }
}

/** A corner at the end of the route. */
export function cornerCalled(
  state: Pick<PartState, 'bodies'>,
  body: string,
  on: string,
): Corner | undefined {
  const section = state.bodies.find((b) => b.bodyId === body)?.section
  return section && cornersOf(section).find((c) => c.key === on)
}

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
    const rules = rulesOf(note.kind)
    const isOfAll = note.on === '' && mayBeOfAll(note.kind)
    const corner = rules.stands === 'corner' ? cornerCalled(state, note.body, note.on) : undefined
    const edges = rules.stands === 'corner' ? [] : faceEdges(state, note.body, note.on)
    const solid = edges.length === 0 && !corner ? solidFoot(state, note) : undefined
    const foot = corner ? cornerFoot(corner) : (solid ?? faceFoot(edges))
    if (!isOfAll && !foot) {
      const what = rules.stands ?? 'face'
      const problem = fail(
        'note.gone',
        `The ${what} of this ${rules.name} is gone.`,
        `Pick another ${what} for it, or bring back the step that made it.`,
      )
      return { note, words: rules.plain(note), edges, foot, problem: problem.problem }
    }
    const stands = { edges, ...(corner ? { corner } : {}), ...(solid ? { isSolid: true } : {}) }
    const told = rules.tell(note, { part, all, ...stands })
    const twice =
      told.problem || rules.twice === undefined ? undefined : saidTwice(note, all, rules.twice)
    return { note, foot, ...stands, ...told, ...(twice ? { problem: twice } : {}) }
  })
})
