import { METRIC } from '@lathica/core/units'
import { ORIGIN_ID } from '@lathica/core/sketch'
import { createRandom } from '@lathica/core/solver'
import { createPart, type Part } from '@lathica/core/part'
import {
  addReference,
  changeSize,
  drawDraft,
  perform,
  steppedShaft,
  type Command,
  type SizeOffer,
} from '@lathica/core/edit'
import { describe, expect, it } from 'vitest'
import { legible } from '../src/board/sizes/crowd'
import { layoutSizes, type SizeDrawing } from '../src/board/sizes/layout'
import type { View } from '../src/board/view'
import { demoPart } from '../../core/test/support/demo'
import { ToolBench, VIEW } from './support/bench'

function layout(part: Part, view: View): SizeDrawing[] {
  const [sketch] = part.sketches
  if (!sketch) return []
  const top = Math.max(...sketch.points.map((p) => p.y))
  return layoutSizes(sketch, sketch.sizes, view, top, part.units)
}

function boxOf({ label, width, upright }: SizeDrawing) {
  const [x, y] = upright ? [9, width / 2] : [width / 2, 9]
  return { left: label.x - x, right: label.x + x, top: label.y - y, bottom: label.y + y }
}

function overlaps(a: SizeDrawing, b: SizeDrawing): boolean {
  const [p, q] = [boxOf(a), boxOf(b)]
  return p.left < q.right && p.right > q.left && p.top < q.bottom && p.bottom > q.top
}

describe('sizes that can be read', () => {
  const drawing = (id: string, x: number, y: number): SizeDrawing => ({
    ...{ id, text: '20', reference: false, label: { x, y }, width: 30 },
    ...{ lines: [], witnesses: [], arrows: [] },
  })

  it('are those in the pane that lie on no earlier one; what is asked for goes first', () => {
    const all = [
      drawing('a', 50, 50),
      drawing('b', 60, 52),
      drawing('c', 200, 50),
      drawing('d', -9, 5),
    ]
    const plain = legible(all, new Set(), 300, 100)
    expect(plain.shown.map((d) => d.id)).toEqual(['a', 'c'])
    expect(plain.hidden).toBe(1)
    const asked = legible(all, new Set(['b', 'd']), 300, 100)
    expect(asked.shown.map((d) => d.id)).toEqual(['b', 'c', 'd'])
  })

  it('never lie on one another, however many there are', () => {
    const random = createRandom(3)
    const many = Array.from({ length: 400 }, (_, i) =>
      drawing(String(i), 700 * random(), 380 * random()),
    )
    const { shown, hidden } = legible(many, new Set(), 700, 380)
    expect(shown.length + hidden).toBe(400)
    expect(shown.some((d, i) => shown.slice(i + 1).some((o) => overlaps(d, o)))).toBe(false)
  })
})

describe('sizes on the drawing', () => {
  it.each([
    ['spindle', { lie: 'lying', scale: 3.9, origin: { x: 36, y: 210 } }],
    ['spindle', { lie: 'lying', scale: 1.4, origin: { x: 36, y: 210 } }],
    ['cord-drum', { lie: 'lying', scale: 5, origin: { x: 200, y: 210 } }],
    ['winding-grip', { lie: 'lying', scale: 5, origin: { x: 200, y: 210 } }],
    ['line-sheave', { lie: 'lying', scale: 2.4, origin: { x: 300, y: 210 } }],
    ['counterweight', { lie: 'standing', scale: 2.6, origin: { x: 260, y: 440 } }],
    ['ink-flask', { lie: 'standing', scale: 4, origin: { x: 260, y: 440 } }],
  ] as [string, View][])('of the %s never lie on one another (%o)', (name, view) => {
    const drawings = layout(demoPart(name), view).filter((d) => d.arc === undefined)
    expect(drawings.length).toBeGreaterThan(4)
    const pairs = drawings.flatMap((a, i) => drawings.slice(i + 1).map((b) => [a, b] as const))
    expect(pairs.filter(([a, b]) => overlaps(a, b)).map(([a, b]) => `${a.text} ${b.text}`)).toEqual(
      [],
    )
  })

  it('of a ring whose axis lies beyond the pane are half lines up to the break, with one arrow each', () => {
    const part = demoPart('spindle')
    const view: View = { lie: 'lying', scale: 3.9, origin: { x: 36, y: 600 } }
    const [sketch] = part.sketches
    if (!sketch) throw new Error('the spindle is drawn')
    const edge = 20
    const drawings = layoutSizes(sketch, sketch.sizes, view, 22, part.units, edge)
    const across = drawings.filter((d) => d.text.startsWith('⌀'))
    expect(across.length).toBeGreaterThan(4)
    for (const { label, arrows, lines } of across) {
      expect(arrows).toHaveLength(1)
      const outs = [label, ...lines.flat()].map(({ y }) => view.origin.y - y)
      expect(Math.min(...outs)).toBeGreaterThan(edge)
    }
    const pairs = across.flatMap((a, i) => across.slice(i + 1).map((b) => [a, b] as const))
    expect(pairs.filter(([a, b]) => overlaps(a, b)).map(([a, b]) => `${a.text} ${b.text}`)).toEqual(
      [],
    )
  })

  it('of random shafts never lie on one another either', () => {
    const random = createRandom(11)
    for (let round = 0; round < 25; round++) {
      const bench = new ToolBench().use('chain').click(0, 0)
      let x = 0
      const count = 2 + Math.floor(random() * 6)
      for (let i = 0; i < count; i++) {
        const r = 4 + Math.round(random() * 20) + (i % 2) * 3
        bench.click(x, r)
        x += 2 + random() * 12
        bench.click(x, r)
      }
      bench.click(x, 0)
      const lands = bench.lines.filter((_, i) => i % 2 === 1)
      const offers = lands.flatMap((e): SizeOffer[] => [
        { kind: 'length', line: e.id },
        { kind: 'diameter', point: e.from },
      ])
      bench.do(...offers.map((o) => addReference(bench.sketch.id, o)))
      const drawings = layout(bench.part, { ...VIEW, scale: 3 + random() * 20 })
      const bad = drawings.flatMap((a, i) => drawings.slice(i + 1).filter((b) => overlaps(a, b)))
      expect(bad.map((d) => d.text)).toEqual([])
    }
  })

  it('keep clear of the outline: lengths outside it, diameters beyond its mirror image', () => {
    const part = demoPart('spindle')
    const view: View = { lie: 'lying', scale: 3.9, origin: { x: 36, y: 210 } }
    for (const d of layout(part, view)) {
      const { top, bottom } = boxOf(d)
      const clear =
        bottom < view.origin.y - 22 * view.scale || top > view.origin.y + 22 * view.scale
      expect([d.text, clear]).toEqual([d.text, true])
    }
  })

  it('stand upright where many lands follow closely, each on its own line', () => {
    const steps = Array.from({ length: 24 }, (_, i) => ({
      diameter: { formula: String(20 + (i % 2) * 6), value: 20 + (i % 2) * 6 },
      length: { formula: '8', value: 8 },
    }))
    const shaft = perform(
      createPart({ name: 'Spindle' }),
      drawDraft('draw', 'sketch2', steppedShaft({ at: { x: 0, y: 0 }, point: ORIGIN_ID }, steps)),
    )
    if (!shaft.ok) throw new Error(shaft.problem.message)
    const view: View = { lie: 'lying', scale: 3, origin: { x: 60, y: 210 } }
    const across = layout(shaft.value, view).filter((d) => d.text.startsWith('⌀'))
    expect(across).toHaveLength(24)
    expect(across.every((d) => d.upright)).toBe(true)
    // None is sent away beside the part, and leaders do not cross.
    const columns = across.map((d) => d.label.x)
    expect(Math.min(...columns)).toBeGreaterThan(60)
    expect(Math.max(...columns)).toBeLessThan(60 + 24 * 8 * 3)
    expect([...columns].sort((a, b) => a - b)).toEqual(columns)
    const bad = across.filter((d, i) => across.slice(i + 1).some((o) => overlaps(d, o)))
    expect(bad).toEqual([])
  })

  it('put long lengths outside short ones', () => {
    const drawings = layout(demoPart('spindle'), {
      lie: 'lying',
      scale: 3.9,
      origin: { x: 36, y: 210 },
    })
    const level = (text: string): number => drawings.find((d) => d.text === text)?.label.y ?? NaN
    expect(level('112 ±0.15')).toBeLessThan(level('24'))
    expect(level('25')).toBe(level('24'))
  })

  it('are told in the part’s unit, references in parentheses, diameters by their sign', () => {
    const bench = new ToolBench()
      .use('chain')
      .click(0, 0)
      .click(0, 12.7)
      .click(50.8, 12.7)
      .key('Enter')
    const [, land] = bench.lines
    bench.do(addReference(bench.sketch.id, { kind: 'length', line: land?.id ?? '' }))
    bench.do(addReference(bench.sketch.id, { kind: 'diameter', point: land?.from ?? '' }))
    const texts = (units: Part['units']) =>
      layoutSizes(bench.sketch, bench.sketch.sizes, VIEW, 13, units).map((d) => d.text)
    expect(texts(METRIC)).toEqual(['(50.8)', '(⌀25.4)'])
    expect(texts({ ...METRIC, length: 'in' })).toEqual(['(2)', '(⌀1)'])
  })

  it('show the value of a formula, not its text', () => {
    const must = (part: Part, command: Command): Part => {
      const result = perform(part, command)
      if (!result.ok) throw new Error(result.problem.message)
      return result.value
    }
    const part = demoPart('spindle')
    const [sketch] = part.sketches
    const size = sketch?.sizes.find((s) => s.formula === '24' && s.kind === 'length')
    const changed = must(part, changeSize(sketch?.id ?? '', size?.id ?? '', '2*10 + 3.5'))
    const drawings = layout(changed, VIEW)
    expect(drawings.find((d) => d.id === size?.id)?.text).toBe('23.5')
  })

  it('draw the arc of an angle between its two directions', () => {
    const drawings = layout(demoPart('counterweight'), {
      lie: 'standing',
      scale: 3,
      origin: { x: 260, y: 440 },
    })
    const angle = drawings.find((d) => d.arc)
    expect(angle?.text).toBe('52°')
    const arc = angle?.arc
    if (!arc) throw new Error('the angle has an arc')
    for (const end of [arc.from, arc.to]) {
      expect(Math.hypot(end.x - arc.centre.x, end.y - arc.centre.y)).toBeCloseTo(arc.radius, 6)
    }
  })
})
