import { pointAt } from '../geometry'
import { asksSomething, noteStates } from '../notes'
import { once } from '../once'
import { callsOf, type PartState } from '../route'
import type { Asked } from './asked'
import { contentsOf, drawingOf, type SheetContent } from './content'

/** Something that the drawing asks of the piece: a size or call-out, or a note. */
export interface Requirement {
  /** Of its label. */
  readonly id: string
  readonly number: number
  /** Which sheet it stands on, from 0. */
  readonly sheet: number
  /** Of sizes and call-outs. */
  readonly asked?: Asked
}

/**
 * Everything the sheets ask of a piece, each once, in the order of the numbers. A number that was given once is kept, and
 * one whose requirement is gone is not given again; new ones follow, from the left end of the part to the right.
 */
export const requirementsOf = once((state: PartState): readonly Requirement[] => {
  const found = new Map<string, Omit<Requirement, 'number'>>()
  for (const content of contentsOf(state)) {
    if (!content) continue
    for (const one of requiredOn(content)) if (!found.has(one.id)) found.set(one.id, one)
  }
  const kept = drawingOf(state.part).plan?.numbers ?? []
  const known = new Set(kept)
  const order = [...kept, ...[...found.keys()].filter((id) => !known.has(id))]
  return order.flatMap((id, i) => {
    const one = found.get(id)
    return one ? [{ ...one, number: i + 1 }] : []
  })
})

/** The numbers of labels. */
export const numbersOf = once(
  (state: PartState): ReadonlyMap<string, number> =>
    new Map(requirementsOf(state).map((r) => [r.id, r.number])),
)

function requiredOn(content: SheetContent): Omit<Requirement, 'number'>[] {
  const { state, index, asked, beside, isHere, hidden } = content
  const sizes = asked
    .filter((a) => a.shows.length > 0)
    .map((a) => ({ a, at: placeOf(a) }))
    .sort((p, q) => rankOf(p.a) - rankOf(q.a) || p.at - q.at)
    .map(({ a }) => ({ id: a.id, sheet: index, asked: a }))
  const words = beside
    .filter((a) => a.shows.length > 0)
    .map((a) => ({ id: a.id, sheet: index, asked: a }))
  const notes = noteStates(state)
    .filter(({ note }) => asksSomething(note.kind) && (note.body === '' || isHere(note.body)))
    .sort((a, b) => (a.foot?.at.x ?? Infinity) - (b.foot?.at.x ?? Infinity) || 0)
    .map(({ note }) => ({ id: `note/${note.id}`, sheet: index }))
  const calls = callsOf(state).flatMap((c, i) =>
    isHere(c.body) ? [{ id: `call/${i}`, sheet: index }] : [],
  )
  return [...sizes, ...words, ...notes, ...calls].filter((r) => !hidden.has(r.id))
}

/** Views are read one after another: along the axis, sections across, from the ends. */
const rankOf = ({ shape }: Asked): number =>
  ({ end: 2, section: 1, onSection: 1 })[shape.kind as 'end' | 'section' | 'onSection'] ?? 0

/** Where along the axis something is asked. */
function placeOf({ shape }: Asked): number {
  switch (shape.kind) {
    case 'along':
    case 'radial':
    case 'slant':
      return (shape.from.x + shape.to.x) / 2
    case 'radius':
      return pointAt(shape.arc, 0.5).x
    case 'section':
    case 'onSection':
      return shape.at
    case 'across':
    case 'angle':
    case 'place':
    case 'end':
      return shape.at.x
  }
}
