import { describe, expect, it } from 'vitest'
import { stationsOfPlan } from '../src/inspect'
import { cutsOf, figuresOfCut } from '../src/inspect/crossCut'
import { PART_FRAME, place, turnedFrame, vec } from '../src/geometry'
import {
  closedFigures,
  lookingOut,
  prismTool,
  rectangleOf,
  slotOf,
  turnedTool,
  type SolidPlan,
  type SolidTool,
} from '../src/solid'
import { outlineOf } from './support/sections'

/** A bar of a radius from nought on, with a bore if it is wide. */
const bar = (radius: number, length: number, bore = 0) =>
  outlineOf(
    [
      [0, bore],
      [length, bore],
      [length, radius],
      [0, radius],
    ].map(([x = 0, y = 0]) => ({ at: vec(x, y) })),
  )
const planOf = (base: SolidPlan['base'], tools: readonly SolidTool[]): SolidPlan => ({
  base,
  ops: [{ kind: 'combine', step: 's1', effect: 'cut', tools }],
})
const hole = (far: number, angle: number, radius: number, deep: number): SolidTool => {
  const section = outlineOf(
    [
      [-1, 0],
      [deep, 0],
      [deep, radius],
      [-1, radius],
    ].map(([x = 0, y = 0]) => ({ at: vec(x, y) })),
  )
  const at = place(far * Math.cos(angle), far * Math.sin(angle), 0)
  return turnedTool(section, { at, x: place(1, 0, 0), z: place(0, 0, 1) }, `@${angle}`)
}
const figuresAt = (plan: SolidPlan, x: number) => {
  const section = cutsOf(plan)?.at(x)
  if (!section) throw new Error('nothing is cut there')
  return figuresOfCut(section)
}

describe('what a plane square to the axis cuts of a solid', () => {
  it('is a circle less the circles of its holes', () => {
    const plan = planOf(bar(20, 10, 5), [hole(12, 0.3, 2, 6), hole(12, 0.3 + Math.PI, 2, 6)])
    const { area, least, most, inner, outer } = figuresAt(plan, 3)
    expect(area).toBeCloseTo(Math.PI * (400 - 25 - 8), 9)
    const ring = (Math.PI / 4) * (20 ** 4 - 5 ** 4)
    const own = 2 * (Math.PI / 4) * 2 ** 4
    expect(most).toBeCloseTo(ring - own, 7)
    expect(least).toBeCloseTo(ring - own - 2 * Math.PI * 4 * 144, 7)
    expect([inner, outer]).toEqual([expect.closeTo(5, 9), expect.closeTo(20, 9)])
    // Behind the holes nothing of them is left.
    expect(figuresAt(plan, 8).area).toBeCloseTo(Math.PI * 375, 9)
  })

  it('is a circle less a segment at a flat, and its reach tells the flat', () => {
    const out = 7
    const flat = prismTool(
      rectangleOf('f', vec(out, -30), vec(30, 30)),
      turnedFrame(PART_FRAME, 1),
      0,
      5,
    )
    const plan = planOf(bar(10, 20), [
      flat,
      { ...flat, frame: turnedFrame(PART_FRAME, 1 + Math.PI), mark: '@2' },
    ])
    const half = Math.acos(out / 10)
    const segment = 100 * (half - Math.sin(half) * Math.cos(half))
    const { area, inner } = figuresAt(plan, 2)
    expect(area).toBeCloseTo(Math.PI * 100 - 2 * segment, 9)
    expect(inner).toBe(0)
    expect(figuresAt(plan, 6).area).toBeCloseTo(Math.PI * 100, 9)
  })

  it('is a circle less what is within the walls of a keyway, at its round ends less of it', () => {
    const key = prismTool(slotOf('k', 2, 14, 4), lookingOut(0.7), 8, 20)
    const plan = planOf(bar(10, 20), [key])
    const taken = (half: number): number => {
      const under = (w: number): number =>
        (w * Math.sqrt(100 - w * w) + 100 * Math.asin(w / 10)) / 2
      return 2 * under(half) - 8 * 2 * half
    }
    expect(figuresAt(plan, 8).area).toBeCloseTo(Math.PI * 100 - taken(2), 9)
    const half = Math.sqrt(4 - 1.5 ** 2)
    expect(figuresAt(plan, 2.5).area).toBeCloseTo(Math.PI * 100 - taken(half), 9)
    expect(figuresAt(plan, 1).area).toBeCloseTo(Math.PI * 100, 9)
  })

  it('is a circle less a strip where a hole goes across', () => {
    const section = outlineOf(
      [
        [-30, 0],
        [30, 0],
        [30, 3],
        [-30, 3],
      ].map(([x = 0, y = 0]) => ({ at: vec(x, y) })),
    )
    const plan = planOf(bar(10, 20), [turnedTool(section, lookingOut(0.4, 9), '')])
    const half = Math.sqrt(9 - 4)
    const strip = 2 * (half * Math.sqrt(100 - half * half) + 100 * Math.asin(half / 10))
    expect(figuresAt(plan, 11).area).toBeCloseTo(Math.PI * 100 - strip, 9)
    expect(figuresAt(plan, 11).inner).toBeCloseTo(half, 9)
  })

  it('sums up to the volume that is known otherwise, with everything at once', () => {
    const key = prismTool(slotOf('k', 22, 34, 4), lookingOut(0.7), 17, 40)
    const plan = planOf(bar(20, 60, 4), [hole(12, 2, 2, 9), key, hole(12, 4, 1.5, 12)])
    const volume = closedFigures(plan)?.volume ?? 0
    const stations = stationsOfPlan(plan, volume, 4000) ?? []
    let sum = 0
    stations.slice(1).forEach((s, i) => {
      const before = stations[i] ?? s
      sum += ((s.x - before.x) * (s.area + before.area)) / 2
    })
    expect(Math.abs(sum - volume)).toBeLessThan(1e-6 * volume)
    expect(stations.at(-1)?.volume).toBeCloseTo(volume, 6)
    // Two at every place where something ends, one from either side.
    const atEnd = stations.filter((s) => Math.abs(s.x - 9) < 1e-9)
    expect(atEnd).toHaveLength(2)
    expect((atEnd[1]?.area ?? 0) - (atEnd[0]?.area ?? 0)).toBeCloseTo(Math.PI * 4, 9)
  })

  it('is not told where it would be other curves, or the kernel alone knows the solid', () => {
    const cone = outlineOf(
      [
        [-30, 0],
        [30, 0],
        [30, 3],
        [-30, 2],
      ].map(([x = 0, y = 0]) => ({ at: vec(x, y) })),
    )
    expect(cutsOf(planOf(bar(10, 20), [turnedTool(cone, lookingOut(0.4, 9), '')]))).toBeUndefined()
    const rounded: SolidPlan = {
      base: bar(10, 20),
      ops: [
        {
          kind: 'edges',
          step: 's',
          sets: [{ of: { kind: 'step', step: 'r' }, work: { kind: 'round', radius: 1 } }],
        },
      ],
    }
    expect(stationsOfPlan(rounded, 1, 100)).toBeUndefined()
  })
})
