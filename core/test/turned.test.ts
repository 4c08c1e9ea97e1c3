import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { createRandom, entityMap, measureSize, solve, startDrag } from '../src'
import { mixedStretches, randomStretches, turnedSketch } from './support/turned'

const seeds = fc.integer({ min: 0, max: 2 ** 31 })

describe('profiles of lines and arcs', () => {
  it('come to their sizes and to the shape meant, from a fifth of each piece away', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const random = createRandom(seed)
        const { sketch, values, intended } = turnedSketch(randomStretches(random), 0.2, random)
        const { solved, freedoms, positions, disagreements } = solve(sketch, values)
        expect({ solved, freedoms, disagreements }).toEqual({
          solved: true,
          freedoms: 0,
          disagreements: [],
        })
        const locate = (id: string): { x: number; y: number } => positions.get(id) ?? { x: 0, y: 0 }
        const lines = entityMap(sketch)
        for (const s of sketch.sizes) {
          expect(measureSize(s, lines, locate)).toBeCloseTo(values.get(s.id) ?? NaN, 10)
        }
        for (const [id, p] of intended) {
          expect(Math.hypot(p.x - locate(id).x, p.y - locate(id).y)).toBeLessThan(1e-7)
        }
      }),
      { numRuns: 200 },
    )
  })

  it('keep everything else in place while one land is dragged and brought back', () => {
    const { sketch, values } = turnedSketch(mixedStretches(40))
    const freed = sketch.sizes.filter((s) => s.kind === 'diameter')[2]
    if (freed?.kind !== 'diameter') throw new Error('the profile has diameters')
    const loose = { ...sketch, sizes: sketch.sizes.filter((s) => s !== freed) }
    const session = startDrag(loose, new Map([...values].filter(([id]) => id !== freed.id)), [
      freed.point,
    ])
    const lines = entityMap(loose)
    for (const y of [0.5, 1.5, -1, 0]) {
      const places = session.move({ x: 0, y })
      const locate = (id: string): { x: number; y: number } => places.get(id) ?? { x: 0, y: 0 }
      for (const s of loose.sizes) {
        expect(measureSize(s, lines, locate)).toBeCloseTo(values.get(s.id) ?? NaN, 8)
      }
      const start = sketch.points.find((p) => p.id === freed.point)?.y ?? NaN
      expect(locate(freed.point).y - start).toBeCloseTo(y, 8)
    }
  })
})
