import { combine, sectionArea, type Section } from '@lathica/core/section'
import type { Kind } from '../kind'
import type { Random } from '../random'
import { moved, sectionOf, smallerDrawn, star, stepped, type Drawn } from './make'
import { clippedArea, pathsOf, perimeterOf } from './polygons'

interface Pair {
  readonly first: Drawn
  readonly second: Drawn
}

const CHORD = 1e-3

function make(random: Random): Pair {
  const grid = random.pick([0, 0, 1, 2])
  const shape = (): Drawn =>
    random.chance(0.25) ? stepped(random) : star(random, grid, random.pick([0, 0, 0.3, 0.6]))
  const first = shape()
  const other = random.below(4)
  if (other === 0) {
    // The same again, hardly moved: what all but coincides.
    const by = random.pick([-1, 1]) * 10 ** random.between(-9, -3)
    return {
      first,
      second: random.chance(0.5) ? moved(first, by, 0) : moved(first, by, Math.abs(by)),
    }
  }
  if (other === 1) {
    // Some corners in common.
    const second = first.map((s) =>
      random.chance(0.6)
        ? s
        : {
            to: { x: s.to.x + random.between(-3, 3), y: Math.abs(s.to.y + random.between(-3, 3)) },
            bulge: s.bulge,
          },
    )
    return { first, second }
  }
  return { first, second: shape() }
}

const EFFECTS = ['add', 'cut', 'common'] as const

function fault({ first, second }: Pair): string | undefined {
  let [a, b]: Section[] = []
  try {
    ;[a, b] = [sectionOf(first, 'a'), sectionOf(second, 'b')]
  } catch (error) {
    return `threw while it was drawn: ${String(error)}`
  }
  if (!a || !b || a.regions.length === 0 || b.regions.length === 0) return undefined
  const [p, q] = [pathsOf(a, CHORD), pathsOf(b, CHORD)]
  const round = perimeterOf(a) + perimeterOf(b)
  const near = round * 2.5 * CHORD + 1e-4
  for (const [one, two, x, y] of [
    [a, b, p, q],
    [b, a, q, p],
  ] as const) {
    for (const effect of EFFECTS) {
      let result: Section | undefined
      try {
        result = combine(one, two, effect)
      } catch (error) {
        return `${effect} threw: ${String(error)}`
      }
      if (!result) return `${effect} has no result`
      const area = sectionArea(result)
      const wanted = clippedArea(x, y, effect)
      if (Math.abs(area - wanted) > near) return `${effect}: ${area}, polygons say ${wanted}`
      if (result.regions.some((r) => r.outer.length === 0)) return `${effect} has an empty region`
      // Used again, it is the same as it was.
      const again = combine(result, result, 'add')
      if (
        result.regions.length > 0 &&
        (!again || Math.abs(sectionArea(again) - area) > 1e-5 * round)
      ) {
        return `${effect}, added to itself: ${again ? sectionArea(again) : 'nothing'} instead of ${area}`
      }
    }
  }
  return undefined
}

export const booleans: Kind<Pair> = {
  name: 'booleans',
  batch: 20,
  make,
  fault,
  *smaller({ first, second }) {
    for (const f of smallerDrawn(first)) yield { first: f, second }
    for (const s of smallerDrawn(second)) yield { first, second: s }
  },
}
