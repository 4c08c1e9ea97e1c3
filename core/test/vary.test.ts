import { describe, expect, test } from 'vitest'
import { distance, type Vec } from '@lathica/core/geometry'
import { locator, type Sketch } from '@lathica/core/sketch'
import { createRandom, createVariation, solve, withPositions } from '@lathica/core/solver'
import { randomStretches, turnedSketch } from './support/turned'

/** Where a sketch's points come to when one size has another value, by the solver for editing. */
function solvedAt(sketch: Sketch, values: ReadonlyMap<string, number>): (id: string) => Vec {
  const { solved, positions } = solve(sketch, new Map(values))
  if (!solved) throw new Error('the sketch does not solve')
  return (id) => positions.get(id) ?? { x: NaN, y: NaN }
}

/** Random profiles that are solved, with their values. */
function profiles(
  count: number,
  seed: number,
): readonly (readonly [Sketch, Map<string, number>])[] {
  const random = createRandom(seed)
  return Array.from({ length: count }, () => {
    const { sketch, values } = turnedSketch(randomStretches(random), 0, random)
    const { solved, positions } = solve(sketch, values)
    if (!solved) throw new Error('a profile does not solve')
    return [withPositions(sketch, positions), values] as const
  })
}

describe('how a sketch moves with its sizes', () => {
  test('agrees with small changes to 1e-6, on 1,000 random profiles', () => {
    const random = createRandom(5)
    let worst = 0
    let compared = 0
    for (const [sketch, values] of profiles(1000, 17)) {
      const ids = [...values.keys()]
      const size = ids[Math.floor(random() * ids.length)] ?? ''
      const motion = createVariation(sketch, values).motionBy(size)
      if (!motion) throw new Error('a size drives nothing')
      const step = 2e-4
      const value = values.get(size) ?? NaN
      const [more, less] = [value + step, value - step].map((v) =>
        solvedAt(sketch, new Map([...values, [size, v]])),
      )
      for (const { id } of sketch.points) {
        const [p, q] = [more?.(id), less?.(id)]
        const told = motion.get(id)
        if (!p || !q || !told) throw new Error('a point is missing')
        const found = { x: (p.x - q.x) / (2 * step), y: (p.y - q.y) / (2 * step) }
        worst = Math.max(worst, distance(found, told) / Math.max(1, Math.hypot(told.x, told.y)))
        compared++
      }
    }
    expect(compared).toBeGreaterThan(8000)
    expect(worst).toBeLessThan(1e-6)
  }, 120_000)

  test('leads to the same places as solving anew, with many values changed at once', () => {
    const random = createRandom(23)
    let worst = 0
    for (const [sketch, values] of profiles(100, 4)) {
      const others = new Map([...values].map(([id, v]) => [id, v * (1 + 0.004 * (random() - 0.5))]))
      const place = createVariation(sketch, values).placesAt(others)
      if (!place) throw new Error('there is no such place')
      const solved = solvedAt(sketch, others)
      for (const { id } of sketch.points) worst = Math.max(worst, distance(place(id), solved(id)))
    }
    expect(worst).toBeLessThan(1e-7)
  })

  test('a size of nothing moves nothing, and a place that is not there is told', () => {
    const [[sketch, values] = never()] = profiles(1, 9)
    const variation = createVariation(sketch, values)
    expect(variation.motionBy('none')).toBeUndefined()
    expect(variation.repeated).toEqual([])
    const still = variation.placesAt(new Map()) ?? never()
    const locate = locator(sketch)
    for (const { id } of sketch.points) expect(distance(still(id), locate(id))).toBeLessThan(1e-9)
    expect(variation.placesAt(new Map([[[...values.keys()][1] ?? '', 1e12]]))).toBeUndefined()
  })
})

function never(): never {
  throw new Error('there is nothing')
}
