import { describe, expect, it } from 'vitest'
import { randomFrom } from '../../fuzz/random'
import { displaced, wellPosed } from '../../fuzz/sketches/make'
import { residuals } from '../../fuzz/sketches/oracle'
import { freedomsAt, smallerSketches, type Asked } from '../../fuzz/sketches/smaller'
import { solve } from '../src/solver'

const made = Array.from({ length: 12 }, (_, seed) => {
  const random = randomFrom(100 + seed)
  const whole = wellPosed(random, 5)
  return { ...whole, sketch: displaced(whole, 0.02, random) }
})

describe('sketches that were found at random are made smaller', () => {
  it('to ones that hold at the place meant, with the freedoms the solver finds', () => {
    for (const { sketch, values, intended } of made) {
      for (const less of smallerSketches({ sketch, values: [...values] })) {
        if (less.sketch.points.length === 0) continue
        const wanted = new Map(less.values)
        const off = residuals(less.sketch, wanted, intended).map((r) => Math.abs(r.off))
        expect(Math.max(0, ...off)).toBeLessThan(1e-9)
        const there = less.sketch.points.map((p) => ({ ...p, ...intended.get(p.id) }))
        const { solved, freedoms } = solve({ ...less.sketch, points: there }, wanted)
        expect(solved).toBe(true)
        expect(freedoms).toBe(freedomsAt(less.sketch, intended))
      }
    }
  })

  it('down to what a fault needs and nothing else', () => {
    for (const { sketch, values } of made) {
      const wrong = sketch.sizes[0]?.id
      if (wrong === undefined) continue
      const isFaulty = (asked: Asked): boolean => asked.sketch.sizes.some((s) => s.id === wrong)
      let found: Asked = { sketch, values: [...values] }
      for (let next: Asked | undefined = found; next; found = next ?? found) {
        next = [...smallerSketches(found)].find(isFaulty)
      }
      expect(found.sketch.sizes.map((s) => s.id)).toEqual([wrong])
      expect(found.sketch.constraints).toEqual([])
      expect(found.values.map(([id]) => id)).toEqual([wrong])
      expect(found.sketch.entities.length).toBeLessThanOrEqual(2)
    }
  })
})
