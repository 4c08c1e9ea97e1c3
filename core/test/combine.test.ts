import * as fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  EMPTY_SECTION,
  combine,
  distance,
  edgeKey,
  edgesOf,
  lengthOf,
  loopsOf,
  mirroredSection,
  sectionArea,
  solidProperties,
  tangentAt,
  vec,
  VERTEX_TOLERANCE,
  type Effect,
  type Section,
} from '../src'
import { anySection, disc, outlineOf, rectangle } from './support/sections'

const made = (a: Section, b: Section, effect: Effect): Section => {
  const result = combine(a, b, effect)
  if (!result) throw new Error('the outline came out open')
  return result
}
const keys = (s: Section): string[] => [...new Set(edgesOf(s).map((e) => edgeKey(e.name)))].sort()

describe('adding, cutting and keeping what is common', () => {
  test('a groove as wide as its land takes the land away and leaves no sliver', () => {
    const shaft = outlineOf([
      { at: vec(0, 0) },
      { at: vec(0, 10) },
      { at: vec(5, 10) },
      { at: vec(5, 12) },
      { at: vec(9, 12) },
      { at: vec(9, 10) },
      { at: vec(20, 10) },
      { at: vec(20, 0) },
    ])
    const cut = made(shaft, rectangle(5, 10, 9, 12, 't'), 'cut')
    expect(sectionArea(cut)).toBeCloseTo(200, 12)
    expect(cut.regions).toHaveLength(1)
    expect(edgesOf(cut).every((e) => lengthOf(e.piece) > 1)).toBe(true)
  })

  test('a shared shoulder and diameter join without an edge between them', () => {
    const joined = made(rectangle(0, 0, 10, 8), rectangle(10, 0, 16, 5, 't'), 'add')
    expect(joined.regions).toHaveLength(1)
    expect(sectionArea(joined)).toBeCloseTo(110, 12)
    expect(edgesOf(joined)).toHaveLength(7)
  })

  test('a cut through the middle leaves two regions, and one of everything none', () => {
    const bar = rectangle(0, 0, 30, 6)
    const parted = made(bar, rectangle(12, 0, 14, 20, 't'), 'cut')
    expect(parted.regions).toHaveLength(2)
    expect(made(bar, rectangle(-1, -0, 31, 7, 't'), 'cut').regions).toHaveLength(0)
    expect(made(bar, bar, 'cut')).toEqual(EMPTY_SECTION)
    expect(sectionArea(made(bar, bar, 'common'))).toBeCloseTo(180, 12)
  })

  test('an arc that touches a face leaves it whole', () => {
    const ring = made(rectangle(0, 2, 20, 10), disc(8, 6, 4, 't'), 'cut')
    expect(sectionArea(ring)).toBeCloseTo(160 - 16 * Math.PI, 9)
    // Touching above and below, the hole parts the material.
    expect(ring.regions.length + loopsOf(ring).length).toBeGreaterThan(2)
    const inside = made(rectangle(0, 2, 20, 10), disc(8, 6, 3, 't'), 'cut')
    expect(inside.regions[0]?.holes).toHaveLength(1)
  })

  test('edges keep the names of the steps that made them', () => {
    const cut = made(rectangle(0, 0, 30, 6), rectangle(10, 4, 14, 9, 't'), 'cut')
    expect(keys(cut)).toEqual(['s/e0', 's/e1', 's/e2', 's/e3', 't/e0', 't/e1', 't/e3'])
  })

  test('what is filled again is one edge again where it has one name', () => {
    const bar = rectangle(0, 0, 30, 6)
    const plug = rectangle(10, 0, 14, 9, 't')
    const again = made(made(bar, plug, 'cut'), made(bar, plug, 'common'), 'add')
    expect(edgesOf(again)).toHaveLength(4)
  })
})

describe('of any two sections', () => {
  test('the areas of what is joined and what is common add up', () => {
    fc.assert(
      fc.property(anySection('a'), anySection('b'), (a, b) => {
        const [sum, common] = [made(a, b, 'add'), made(a, b, 'common')]
        const cut = made(a, b, 'cut')
        const [areaA, areaB] = [sectionArea(a), sectionArea(b)]
        const scale = areaA + areaB
        const errors = [
          sectionArea(sum) + sectionArea(common) - scale,
          sectionArea(cut) + sectionArea(common) - areaA,
        ]
        expect(Math.max(...errors.map(Math.abs))).toBeLessThan(1e-9 * scale)
        expect([sum, common, cut].flatMap((s) => faultOf(s) ?? [])).toEqual([])
      }),
      { numRuns: 2_000, seed: 20 },
    )
  })

  test('the order of two cuts does not matter', () => {
    fc.assert(
      fc.property(anySection('a'), anySection('b'), anySection('c'), (a, b, c) => {
        const one = made(made(a, b, 'cut'), c, 'cut')
        const other = made(made(a, c, 'cut'), b, 'cut')
        expect(sectionArea(one)).toBeCloseTo(sectionArea(other), 8)
        expect(one.regions.length).toBe(other.regions.length)
      }),
      { numRuns: 1000 },
    )
  })

  test('mirrored twice they are themselves, with the same volume either way', () => {
    fc.assert(
      fc.property(anySection('a'), fc.integer({ min: -5, max: 30 }), (a, x) => {
        const image = mirroredSection(a, x, 'm')
        const [v, w] = [solidProperties(a), solidProperties(image)]
        expect((w?.volume ?? 0) / (v?.volume ?? 1)).toBeCloseTo(1, 12)
        expect(w?.centreX).toBeCloseTo(2 * x - (v?.centreX ?? 0), 9)
        const back = mirroredSection(image, x, 'm')
        expect(sectionArea(made(back, a, 'cut'))).toBeCloseTo(0, 9)
      }),
      { numRuns: 200 },
    )
  })
})

/** What is wrong with a section: loops close, outer ones run counter-clockwise, no edge is a sliver. */
function faultOf(section: Section): string | undefined {
  for (const loop of loopsOf(section)) {
    for (const [i, { piece }] of loop.entries()) {
      const next = loop[(i + 1) % loop.length]?.piece
      if (distance(piece.to, next?.from ?? vec(0, 0)) > VERTEX_TOLERANCE) return 'an open loop'
      if (!(lengthOf(piece) > VERTEX_TOLERANCE)) return 'a sliver'
      if (!Number.isFinite(tangentAt(piece, 0.5).x)) return 'no number'
    }
  }
  for (const { outer, holes } of section.regions) {
    if (sectionArea({ regions: [{ outer, holes: [] }] }) <= 0) return 'an outline turned round'
    for (const hole of holes) {
      if (sectionArea({ regions: [{ outer: hole, holes: [] }] }) >= 0) return 'a hole turned round'
    }
  }
  return undefined
}
