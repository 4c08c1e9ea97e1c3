// @vitest-environment jsdom
import { describe, expect, test, vi } from 'vitest'
import { edgesOf } from '@lathica/core/section'
import { leftNormal, pointAt } from '@lathica/core/geometry'
import { Covered } from '../src/board/paint/covered'
import { overlap, type Plate } from '../src/board/paint/plate'
import type { NoteMark, Scene } from '../src/board/paint/scene'
import { evaluate } from '@lathica/core/route'
import { demoPart } from '../../core/test/support/demo'

vi.spyOn(HTMLCanvasElement.prototype, 'getContext').mockImplementation(
  () => ({ measureText: (text: string) => ({ width: 7.2 * text.length }) }) as never,
)
const { layPlates } = await import('../src/board/paint/lay')

/** A deterministic scatter of numbers from 0 to 1. */
function scatter(seed: number): () => number {
  let state = seed
  return () => {
    state = (state * 1664525 + 1013904223) % 4294967296
    return state / 4294967296
  }
}

describe('what outlines cover', () => {
  test('never misses a plate that has a place within an outline, nor sees one that is clear of it', () => {
    const next = scatter(7)
    for (let round = 0; round < 300; round++) {
      const many = 3 + Math.floor(next() * 6)
      // Star-shaped about its middle, so that inside is told by angle alone.
      const middle = { x: 150 + 100 * next(), y: 100 + 100 * next() }
      const radii = Array.from({ length: many }, () => 20 + 70 * next())
      const outline = radii.map((r, i) => ({
        x: middle.x + r * Math.cos((2 * Math.PI * i) / many),
        y: middle.y + r * Math.sin((2 * Math.PI * i) / many),
      }))
      const covered = new Covered(400, 300, [outline])
      const plate: Plate = { x: 350 * next(), y: 270 * next(), width: 40, height: 20 }
      const far = (p: { x: number; y: number }): number =>
        Math.hypot(p.x - middle.x, p.y - middle.y)
      const corners = [0, 0.5, 1].flatMap((u) =>
        [0, 0.5, 1].map((v) => ({ x: plate.x + u * plate.width, y: plate.y + v * plate.height })),
      )
      const least = Math.min(...radii)
      const inner = least * Math.cos(Math.PI / many)
      if (corners.some((c) => far(c) < inner - 1)) expect(covered.has(plate)).toBe(true)
      const nearest = {
        x: Math.max(plate.x, Math.min(plate.x + plate.width, middle.x)),
        y: Math.max(plate.y, Math.min(plate.y + plate.height, middle.y)),
      }
      if (far(nearest) > Math.max(...radii) + 8) expect(covered.has(plate)).toBe(false)
    }
  })

  test('a line covers what it runs through, and nothing beside it', () => {
    const covered = new Covered(200, 100, [
      [
        { x: 10, y: 50 },
        { x: 190, y: 50 },
      ],
    ])
    expect(covered.has({ x: 80, y: 40, width: 20, height: 20 })).toBe(true)
    expect(covered.has({ x: 80, y: 60, width: 20, height: 20 })).toBe(false)
    expect(covered.has({ x: 80, y: 20, width: 20, height: 20 })).toBe(false)
  })
})

describe('plates of notes', () => {
  const section = evaluate(demoPart('spindle')).bodies[0]?.section
  if (!section) throw new Error('there is a spindle')
  const edges = edgesOf(section)
  const marks = (many: number): NoteMark[] =>
    Array.from({ length: many }, (_, i) => {
      const piece = edges[i % edges.length]?.piece
      if (!piece) throw new Error('there are edges')
      const inwards = leftNormal(piece, 0.5)
      return {
        ...{ id: `note${i}`, at: pointAt(piece, 0.5), out: { x: -inwards.x, y: -inwards.y } },
        ...{ cells: [{ words: 'Ra 0.8' }], label: undefined, wrong: false },
      }
    })
  const scene = (notes: readonly NoteMark[], width = 900, height = 620, scale = 4): Scene =>
    ({
      ...{ width, height, notes, marks: [], sizes: [], general: [], sections: [section] },
      view: { lie: 'lying', scale, origin: { x: 40, y: height / 2 } },
    }) as unknown as Scene

  test('lie on no other and off the part while there is room', () => {
    const { notes } = layPlates(scene(marks(14)))
    expect(notes).toHaveLength(14)
    notes.forEach(({ plate }, i) => {
      for (const other of notes.slice(i + 1)) expect(overlap(plate, other.plate)).toBe(false)
    })
  })

  test('are all there, however many and however narrow the pane', () => {
    expect(layPlates(scene(marks(120))).notes).toHaveLength(120)
    const inside = layPlates(scene(marks(40), 760, 130, 2)).notes
    expect(inside).toHaveLength(40)
    for (const { plate } of inside) {
      expect(plate.y).toBeGreaterThanOrEqual(2)
      expect(plate.y + plate.height).toBeLessThanOrEqual(128)
    }
  })

  test('that were put by hand stand there, and the others keep clear of them', () => {
    const [first, ...more] = marks(10)
    if (!first) throw new Error('there is one')
    const { notes } = layPlates(scene([{ ...first, label: { x: 5, y: 20 } }, ...more]))
    const put = notes.find((n) => n.mark.id === first.id)
    if (!put) throw new Error('it is laid')
    expect(put.plate.x + put.plate.width / 2).toBeCloseTo(put.foot.x + 20, 9)
    expect(put.plate.y + put.plate.height / 2).toBeCloseTo(put.foot.y - 80, 9)
    for (const { plate, mark } of notes) {
      if (mark.id !== first.id) expect(overlap(plate, put.plate)).toBe(false)
    }
  })
})
