import { readFileSync } from 'node:fs'
import { beforeAll, expect, test } from 'vitest'
import {
  askedOf,
  asksToSee,
  drawSheet,
  END_AXIS,
  endSpots,
  keyOf,
  type SeenFrom,
  type SeenLines,
  type SheetLabel,
} from '@lathica/core/drawing'
import { readPartFile } from '@lathica/core/formats'
import { PLAIN_DRAWING, PLAIN_SHEET, type DrawnSize, type SheetSetup } from '@lathica/core/part'
import { lengthOf, radiusOf, sweepOf, type ArcPiece, type Piece } from '@lathica/core/geometry'
import type { PartState } from '@lathica/core/route'
import { shaftPart } from '../../core/test/support/shafts'
import { seenBy, settlePlans, type Kernel } from '../src'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

function demo(name: string): PartState {
  const text = readFileSync(new URL(`../../demo/${name}.lathica.json`, import.meta.url), 'utf8')
  const read = readPartFile(text)
  if (!read.ok) throw new Error(read.problem.message)
  return settlePlans(read.value, (plan) => kernel.weigh(plan))
}

/** What nothing hides, looked at without a cut. */
function linesOf(state: PartState, seen: SeenLines, from: SeenFrom): readonly Piece[] {
  const ask = asksToSee(state).find((a) => a.from === from && !a.cut)
  return (ask && seen.get(keyOf(ask))?.lines) ?? []
}

/** How much of a circle of a radius about a place is drawn, in turns. */
function turnsOf(pieces: readonly Piece[], x: number, y: number, radius: number): number {
  const own = pieces.filter(
    (p): p is ArcPiece =>
      p.kind === 'arc' &&
      Math.hypot(p.centre.x - x, p.centre.y - y) < 1e-6 &&
      Math.abs(radiusOf(p) - radius) < 1e-6,
  )
  return own.reduce((sum, p) => sum + Math.abs(sweepOf(p)), 0) / (2 * Math.PI)
}

test('holes of a circle are whole circles where they are seen, and nothing where they are not', () => {
  const state = demo('end-bearing-housing')
  expect(asksToSee(state).map((a) => [a.from, a.cut !== undefined])).toEqual([
    ['along', false],
    ['along', true],
    ['right', false],
    ['askew', true],
  ])
  const seen = seenBy(kernel, state)
  const right = linesOf(state, seen, 'right')
  for (let i = 0; i < 6; i++) {
    const angle = ((30 + 60 * i) * Math.PI) / 180
    // The side of the half-section is up, and angles grow to the left.
    const [x, y] = [-37 * Math.sin(angle), 37 * Math.cos(angle)]
    expect(turnsOf(right, x, y, 3.3)).toBeCloseTo(1, 9)
    expect(turnsOf(right, x, y, 5.5)).toBeCloseTo(1, 9)
  }
  expect(turnsOf(right, 0, 40, 2)).toBeCloseTo(1, 9)
  expect(turnsOf(right, 0, 0, 12)).toBeCloseTo(1, 9)
  // The wider part of the bore opens on the other side.
  expect(turnsOf(right, 0, 0, 17.5)).toBe(0)
  const left = kernel.see(
    state.bodies.flatMap((b) => (b.plan ? [b.plan] : [])),
    { from: 'left' },
  ).lines
  expect(turnsOf(left, 0, 0, 17.5)).toBeCloseTo(1, 9)
  // Neither counterbores nor blind holes come through.
  const first = [37 * Math.sin(Math.PI / 6), 37 * Math.cos(Math.PI / 6)] as const
  expect(turnsOf(left, ...first, 3.3)).toBeCloseTo(1, 9)
  expect(turnsOf(left, ...first, 5.5)).toBe(0)
  expect(turnsOf(left, 0, 40, 2)).toBe(0)
})

test('flats, keyways and cross holes are seen from beside as they are', () => {
  const state = demo('winding-spindle')
  const along = linesOf(state, seenBy(kernel, state), 'along')
  // The cross hole looks to the viewer, 12 from the left end: its mouth is a space curve, in chords.
  const off = ({ x, y }: { x: number; y: number }): number => Math.hypot(x - 12, y) - 2.5
  const round = along.filter((p) => Math.abs(off(p.from)) < 0.01 && Math.abs(off(p.to)) < 0.01)
  const length = round.reduce((sum, p) => sum + Math.hypot(p.to.x - p.from.x, p.to.y - p.from.y), 0)
  expect(length / (5 * Math.PI)).toBeCloseTo(1, 2)
  const level = along.filter((p) => p.kind === 'line' && Math.abs(p.from.y - p.to.y) < 1e-6)
  const heights = level.map((p) => Math.abs(p.from.y))
  // Flats 13 apart, and the lands beside them.
  for (const y of [6.5, 8, 12, 15]) expect(heights.some((h) => Math.abs(h - y) < 1e-6)).toBe(true)
  const drawing = drawSheet(state, seenBy(kernel, state))
  expect(drawing?.told).toEqual([])
})

test('a cut across a keyway and flats is outlined exactly, whatever stands before it', () => {
  const state = demo('winding-spindle')
  const seen = seenBy(kernel, state)
  const cuts = asksToSee(state).flatMap((ask) =>
    ask.cut && ask.from === 'left' ? [seen.get(keyOf(ask))] : [],
  )
  expect(cuts).toHaveLength(2)
  const around = cuts.map((c) => (c?.cuts.flat() ?? []).reduce((sum, p) => sum + lengthOf(p), 0))
  // ⌀30 with a keyway 8 wide and 4 deep: the arc that is left, its two sides, its floor.
  const half = Math.asin(4 / 15)
  const side = 15 * Math.cos(half) - 11
  const keyway = 15 * (2 * Math.PI - 2 * half) + 2 * side + 8
  // ⌀16 with two flats 13 apart: two chords and two arcs.
  const flat = Math.acos(6.5 / 8)
  const flats = 2 * 2 * 8 * Math.sin(flat) + 2 * 8 * (Math.PI - 2 * flat)
  expect(around.sort((a, b) => b - a)).toEqual([
    expect.closeTo(keyway, 6),
    expect.closeTo(flats, 6),
  ])
})

test('a section along the axis is that of the solid: its holes are cut, what lies behind is seen', () => {
  const state = demo('end-bearing-housing')
  const ask = asksToSee(state).find((a) => a.cut && a.from === 'along')
  const cut = ask && seenBy(kernel, state).get(keyOf(ask))
  // A pin hole ⌀4, 8 deep, lies in the plane, 40 above the axis.
  const levels = (cut?.cuts.flat() ?? []).filter(
    (p) => p.kind === 'line' && Math.abs(p.from.y - p.to.y) < 1e-6 && lengthOf(p) > 1e-6,
  )
  for (const y of [38, 42]) {
    const wall = levels.filter((p) => Math.abs(p.from.y - y) < 1e-6)
    expect(wall.reduce((sum, p) => sum + lengthOf(p), 0)).toBeCloseTo(8, 6)
  }
  // The edge of the bore runs right over the axis behind the cut.
  const upright = (cut?.lines ?? []).filter(
    (p) =>
      Math.abs(p.from.x - p.to.x) < 1e-6 &&
      Math.max(Math.abs(p.from.y), Math.abs(p.to.y)) < 12 + 1e-6,
  )
  const shoulder = upright.filter((p) => Math.abs(p.from.x - 15) < 1e-6)
  expect(shoulder.reduce((sum, p) => sum + lengthOf(p), 0)).toBeCloseTo(24, 6)
})

test('a picture askew shows lengths of all three ways alike, with a quarter cut out', () => {
  const part = shaftPart([{ diameter: 40, length: 30 }])
  const sheets = [{ ...PLAIN_SHEET, picture: 'quarter' as const }]
  const state = settlePlans({ ...part, drawing: { ...PLAIN_DRAWING, sheets } }, (plan) =>
    kernel.weigh(plan),
  )
  const [ask] = asksToSee(state)
  expect(ask?.from).toBe('askew')
  const seen = seenBy(kernel, state)
  const picture = ask && seen.get(keyOf(ask))
  // Both faces of the quarter, 20 by 30, without the edge that they share (ISO 5456-3: √(2/3) of each length).
  const around = (picture?.cuts.flat() ?? []).reduce((sum, p) => sum + lengthOf(p), 0)
  expect(around).toBeCloseTo(2 * (20 + 30 + 20) * Math.sqrt(2 / 3), 6)
  // The ends are ellipses whose long way is as long as the circle’s diameter.
  const points = (picture?.lines ?? []).flatMap((p) => [p.from, p.to])
  const off = points.map((p) => Math.hypot(p.x, p.y))
  expect(Math.max(...off.filter((_, i) => (points[i]?.x ?? 0) < 0))).toBeCloseTo(20, 2)
  expect(drawSheet(state, seen)?.told).toEqual([])
  expect(drawSheet(state)?.told.join()).toContain('The picture is not drawn yet')
})

test.each(['lying', 'standing'] as const)(
  'sizes of sketches on an end stand where the end shows them: a %s part',
  (lie) => {
    const text = readFileSync(
      new URL('../../demo/gauge-cover.lathica.json', import.meta.url),
      'utf8',
    )
    const read = readPartFile(text)
    if (!read.ok) throw new Error(read.problem.message)
    const state = settlePlans({ ...read.value, lie }, (plan) => kernel.weigh(plan))
    const seen = seenBy(kernel, state)
    const lines = linesOf(state, seen, 'right')
    const corners = lines.flatMap((p) => [p.from, p.to, ...(p.kind === 'arc' ? [p.centre] : [])])
    const { asked, beside } = askedOf(state)
    expect(beside).toEqual([])
    const drawn = asked.flatMap(({ shape }) =>
      shape.kind === 'onEnd' && (shape.of.kind === 'along' || shape.of.kind === 'radial')
        ? [shape.of]
        : [],
    )
    expect(drawn).toHaveLength(8)
    for (const { kind, from, to } of drawn) {
      const axis = kind === 'along' ? ('x' as const) : ('y' as const)
      for (const end of [from, to]) {
        const isOnAxis = Math.abs(end[axis]) < 1e-9
        // The bottom of the sloping post is what is seen widest.
        expect(isOnAxis || corners.some((c) => Math.abs(c[axis] - end[axis]) < 1e-6)).toBe(true)
      }
    }
    // All of them are drawn, and none is told in words.
    const drawing = drawSheet(state, seen)
    const saids = [...(drawing?.labels.values() ?? [])].map((l) => l.said)
    expect(saids).toEqual(
      expect.arrayContaining(['14', '18', '3 high, draft 5°', '4 × ⌀4.5, ⌵ ⌀9 × 90°']),
    )
    expect([...(drawing?.labels.values() ?? [])].filter((l) => l.isFixed)).toEqual([])
  },
)

test('what an end shows is told in words, with its name, where no end is drawn', () => {
  const state = demo('gauge-cover')
  const sheet = { ...PLAIN_SHEET, ends: 'none' } as const
  const told = { ...state, part: { ...state.part, drawing: { ...PLAIN_DRAWING, sheets: [sheet] } } }
  const labels = [...(drawSheet(told, seenBy(kernel, told))?.labels.values() ?? [])]
  const fixed = labels.filter((l) => l.isFixed).map((l) => l.said)
  expect(fixed).toHaveLength(10)
  expect(fixed.filter((said) => /^\S.*: 18$/.test(said))).toHaveLength(1)
})

test('sizes are drawn between what an end shows, each way it can be measured, and follow what they are of', () => {
  const state = demo('end-bearing-housing')
  const spots = endSpots(state, 'body1', 'right')
  // Six holes on ⌀74, the first at 30°: two of them are 37 apart, and 60° about the axis.
  const middles = spots.filter(
    ({ what, at }) => what === 'point' && Math.abs(Math.hypot(at.x, at.y) - 37) < 1e-9,
  )
  expect(middles).toHaveLength(6)
  const [one, other] = middles
  const hole = spots.find((s) => s.what === 'ring' && s.middle === one?.middle)
  if (!one || !other || !hole) throw new Error('the holes are gone')
  const own = { body: 'body1', end: 'right', from: one.key, to: other.key } as const
  const drawn: DrawnSize[] = [
    { ...own, id: 'drawn1', kind: 'apart' },
    { ...own, id: 'drawn2', kind: 'along' },
    { ...own, id: 'drawn3', kind: 'radial' },
    { ...own, id: 'drawn4', kind: 'angle' },
    { ...own, id: 'drawn5', kind: 'across', from: hole.key, to: hole.key },
    { ...own, id: 'drawn6', kind: 'apart', from: END_AXIS },
    { ...own, id: 'drawn7', kind: 'apart', from: 'gone' },
  ]
  const sheeted = (of: PartState, ends: SheetSetup['ends']): PartState => {
    const sheet = { ...PLAIN_SHEET, ends, drawn }
    return { ...of, part: { ...of.part, drawing: { ...PLAIN_DRAWING, sheets: [sheet] } } }
  }
  const saidBy = (of: PartState): Record<string, string> => {
    const labels = drawSheet(of, seenBy(kernel, of))?.labels ?? new Map<string, SheetLabel>()
    const ids = [...labels].filter(([id]) => id.startsWith('drawn'))
    return Object.fromEntries(ids.map(([id, { said }]) => [id, said]))
  }
  const [dx, dy] = [Math.abs(one.at.x - other.at.x), Math.abs(one.at.y - other.at.y)]
  const [level, upright, across] = [dx, dy, 2 * hole.radius].map((mm) =>
    String(Number(mm.toFixed(3))),
  )
  expect(saidBy(sheeted(state, 'auto'))).toEqual({
    ...{ drawn1: '(37)', drawn2: `(${level})`, drawn3: `(${upright})`, drawn4: '(60°)' },
    ...{ drawn5: `(⌀${across})`, drawn6: '(37)' },
  })
  const drawing = drawSheet(sheeted(state, 'auto'), seenBy(kernel, state))
  expect(drawing?.told.join()).toContain('1 size that was drawn has lost an edge')
  // Only what is seen there is offered: the holes and the axis, by their place on the paper.
  const offered = drawing?.places.filter((p) => p.end === 'right') ?? []
  expect(offered.filter((p) => middles.some((m) => m.key === p.key))).toHaveLength(6)
  expect(offered.length).toBeLessThan(spots.length)
  // Where that end is not shown, that is told.
  const without = sheeted(state, 'none')
  expect(drawSheet(without, seenBy(kernel, without))?.told.join()).toContain(
    '6 sizes were drawn on the view from an end that this sheet does not have',
  )
})
