import { renamed } from '../../constraints'
import { fail, succeed, type Result } from '../../result'
import { distance, type Vec } from '../../geometry'
import { settle, sketchStates } from '../../route'
import { endsOf, locator, withPoints, type Sketch } from '../../sketch'
import { disagreementWith } from './disagreement'
import { sketchCommand, withSketch, type Command } from '../command'
import { placeDraft, withConstraint, withTiesThatFit } from './draft'
import { without } from './remove'
import type { Part } from '../../part'
import type { ProfileFault } from '../../section'

/** The end of a fault's entity that lies where the fault is. */
function looseEnd(sketch: Sketch, fault: ProfileFault): string | undefined {
  const locate = locator(sketch)
  const entity = sketch.entities.find((e) => fault.entities.includes(e.id))
  return (entity ? [...endsOf(entity)] : []).sort(
    (p, q) => distance(locate(p), fault.at) - distance(locate(q), fault.at),
  )[0]
}

/** Loose ends of an outline, two and two as they lie nearest to one another. */
function nearestLooseEnds(
  sketch: Sketch,
  faults: readonly ProfileFault[],
  at: Vec,
): readonly [string, string] | undefined {
  const locate = locator(sketch)
  const ends = faults.flatMap((f) => (f.kind === 'open' ? (looseEnd(sketch, f) ?? []) : []))
  const near = (to: Vec) => (p: string, q: string) =>
    distance(locate(p), to) - distance(locate(q), to)
  const [first] = [...ends].sort(near(at))
  if (first === undefined) return undefined
  const [second] = ends.filter((p) => p !== first).sort(near(locate(first)))
  return second === undefined ? undefined : [first, second]
}

/**
 * Closes a gap of an outline at a place: pulls the two loose ends together, or draws a line between.
 */
export function closeGap(sketchId: string, at: Vec, how: 'pull' | 'line'): Command {
  return {
    label: 'close gap',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      const faults = sketchStates(part).get(sketchId)?.profile.faults ?? []
      const pair = sketch && nearestLooseEnds(sketch, faults, at)
      if (!pair) {
        return fail('gap.none', 'There is no second loose end to go to.', 'Draw on to the axis.')
      }
      const [a, b] = pair
      const locate = locator(sketch)
      if (how === 'line') {
        const drawn = placeDraft(part, sketchId, {
          points: { '~a': { at: locate(a), point: a }, '~b': { at: locate(b), point: b } },
          entities: [{ id: '~l', kind: 'line', from: '~a', to: '~b', role: 'outline' }],
        })
        return drawn.ok ? succeed(drawn.value.part) : drawn
      }
      const { sketch: tied, id } = withConstraint(sketch, { kind: 'coincident', a, b })
      const next = withSketch(part, tied)
      return disagreementWith(next, sketchId, [id])
        ? fail('gap.held', 'Constraints or sizes hold these ends apart.', 'Draw a line between.')
        : succeed(next)
    },
  }
}

/** Makes doubled lines one: what stood on the second stands on the first, where it still fits. */
export function mergeDoubled(sketchId: string, ids: readonly string[]): Command {
  return {
    label: 'merge doubled lines',
    run: (part): Result<Part> => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      const [first, second] = ids.map((id) => sketch?.entities.find((e) => e.id === id))
      if (!sketch || !first || !second) {
        return fail('merge.gone', 'These lines are gone.', 'Look again at what is doubled.')
      }
      const locate = locator(sketch)
      const place = new Map(
        endsOf(second).map((p) => [
          p,
          [...endsOf(first)].sort(
            (a, b) => distance(locate(a), locate(p)) - distance(locate(b), locate(p)),
          )[0],
        ]),
      )
      const rename = (id: string): string => (id === second.id ? first.id : (place.get(id) ?? id))
      const one = { ...sketch, entities: sketch.entities.filter((e) => e !== second) }
      const moved: Sketch = {
        ...one,
        entities: one.entities.map((e) => withPoints(e, rename)),
        constraints: [],
        sizes: one.sizes.map((s) => renamed(s, rename)),
      }
      const gone = new Set([...place].flatMap(([from, to]) => (from === to ? [] : [from])))
      const bare = withSketch(part, without(moved, gone))
      const ties = one.constraints.map(({ id: _, ...tie }) => renamed(tie, rename))
      const sound = ties.filter((tie) => !('a' in tie && 'b' in tie && tie.a === tie.b))
      return succeed(withTiesThatFit(bare, sketchId, sound))
    },
  }
}

/** Deletes curves that have no length; their ends become one. */
export function dropZeroLength(sketchId: string, ids: readonly string[]): Command {
  return sketchCommand('delete', sketchId, (sketch) => {
    const zero = sketch.entities.filter((e) => ids.includes(e.id))
    const into = new Map(
      zero.flatMap((e) => (e.kind === 'circle' ? [] : [[e.to, e.from] as const])),
    )
    const rename = (id: string): string => into.get(id) ?? id
    const left = without(sketch, new Set(ids))
    return succeed({ ...left, entities: left.entities.map((e) => withPoints(e, rename)) })
  })
}

/** What a size would measure if it did not drive: the value at which it disagrees with nothing. */
export function fittingValue(part: Part, sketchId: string, sizeId: string): number | undefined {
  const sketch = part.sketches.find((s) => s.id === sketchId)
  if (!sketch) return undefined
  const sizes = sketch.sizes.map((s) => (s.id === sizeId ? { ...s, reference: true } : s))
  const state = sketchStates(settle(withSketch(part, { ...sketch, sizes }))).get(sketchId)
  return state?.solution.solved === true ? state.measured.get(sizeId) : undefined
}
