import { pointAt } from '../geometry'
import { asksSomething, noteStates } from '../notes'
import { once } from '../once'
import { callsOf, type PartState } from '../route'
import type { Asked, Shape } from './asked'
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
  const found = askedOnce(state)
  return numberedIds(state).flatMap((id, i) => {
    const one = found.get(id)
    return one ? [{ ...one, number: i + 1 }] : []
  })
})

/** The ids of all that has a number, in their order, also of what is gone: those that are kept first. */
export const numberedIds = once((state: PartState): readonly string[] => {
  const kept = drawingOf(state.part).plan?.numbers ?? []
  const known = new Set(kept)
  return [...kept, ...numbersAnew(state).filter((id) => !known.has(id))]
})

/** The ids of all that is asked, in the order it would be numbered by itself. */
export const numbersAnew = (state: PartState): string[] => [...askedOnce(state).keys()]

/** Everything the sheets ask, by its id, on the first sheet that it stands on. */
const askedOnce = once((state: PartState) => {
  const found = new Map<string, Omit<Requirement, 'number'>>()
  for (const content of contentsOf(state)) {
    if (!content) continue
    for (const one of requiredOn(content)) if (!found.has(one.id)) found.set(one.id, one)
  }
  return found
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
const rankOf = ({ shape }: Asked): number => RANKS[shape.kind] ?? 0
const RANKS: Partial<Record<Shape['kind'], number>> = { section: 1, onSection: 1, end: 2, onEnd: 2 }

/** Where along the axis something is asked. */
function placeOf(asked: Asked): number {
  const { shape } = asked
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
    case 'onEnd':
      return placeOf({ ...asked, shape: shape.of })
  }
}
