import { describe, expect, it } from 'vitest'
import { Places, createRandom } from '../src'

describe('places by number', () => {
  it('gives equal places one number, in the order they come', () => {
    const places = new Places()
    expect([places.numberOf(1, 2, 3), places.numberOf(3, 2, 1), places.numberOf(1, 2, 3)]).toEqual([
      0, 1, 0,
    ])
    expect([...places.positions]).toEqual([1, 2, 3, 3, 2, 1])
  })

  it('takes nought without its sign, and numbers as they are in single precision', () => {
    const places = new Places()
    expect(places.numberOf(0, 0, 0)).toBe(places.numberOf(-0, 0, -0))
    expect(places.numberOf(0.1, 0, 0)).toBe(places.numberOf(Math.fround(0.1), 0, 0))
    expect(places.numberOf(0.1, 0, 0)).not.toBe(places.numberOf(0.1 + 1e-8, 0, 0))
  })

  it('agrees with a table by words for many places', () => {
    const next = createRandom(7)
    const places = new Places()
    const known = new Map<string, number>()
    for (let i = 0; i < 20_000; i++) {
      const [x = 0, y = 0, z = 0] = Array.from({ length: 3 }, () => Math.round(next() * 24) / 8 - 1)
      const key = `${x + 0} ${y + 0} ${z + 0}`
      if (!known.has(key)) known.set(key, known.size)
      expect(places.numberOf(x, y, z)).toBe(known.get(key))
    }
    expect(places.count).toBe(known.size)
    expect(places.positions).toHaveLength(3 * known.size)
  })
})
