import { AXIS_ID, ORIGIN_ID, locator, linesOf } from '@lathica/core/sketch'
import { evaluate } from '@lathica/core/route'
import { addSize, constrain } from '@lathica/core/edit'
import { describe, expect, it } from 'vitest'
import { inBox, pickAt } from '../src/board/pick'
import { ToolBench, VIEW } from './support/bench'

/** A two-step half-section, tied as the chain ties it but without sizes. */
function drawn(): ToolBench {
  const bench = new ToolBench().use('chain')
  bench.click(0, 0).click(0, 9).click(24, 9).click(24, 14).click(40, 14).click(40, 0)
  return bench.use('pick')
}
const px = (x: number, y: number) => ({ x: 500 + 10 * x, y: 500 - 10 * y })

describe('what lies under the pointer', () => {
  it('is a point before the line it ends, and the axis last', () => {
    const { sketch } = drawn()
    const [first, second] = linesOf(sketch)
    expect(pickAt(sketch, VIEW, px(0.2, 9.3))).toBe(first?.to)
    expect(pickAt(sketch, VIEW, px(12, 9.3))).toBe(second?.id)
    expect(pickAt(sketch, VIEW, px(12, 0.2))).toBe(AXIS_ID)
    expect(pickAt(sketch, VIEW, px(12, 5))).toBeUndefined()
  })

  it('is the drawn point where it lies on the datum point', () => {
    const { sketch } = drawn()
    expect(pickAt(sketch, VIEW, px(0, 0))).toBe(linesOf(sketch)[0]?.from)
    expect(pickAt(new ToolBench().sketch, VIEW, px(0.3, 0))).toBe(ORIGIN_ID)
  })

  it('is in a box when all of it is, or when the box touches it', () => {
    const { sketch } = drawn()
    const ids = inBox(sketch, { x: -1, y: 8 }, { x: 30, y: 20 }, false)
    expect(ids).toEqual([sketch.entities[1]?.id, sketch.entities[2]?.id])
    expect(inBox(sketch, { x: 30, y: 20 }, { x: -1, y: 8 }, false)).toEqual(ids)
    const touched = inBox(sketch, { x: -1, y: 8 }, { x: 30, y: 20 }, true)
    expect(touched.length).toBeGreaterThan(ids.length)
    expect(touched).toEqual(expect.arrayContaining(ids))
  })
})

describe('the pick tool', () => {
  it('picks by a click, adds and takes away with Shift, and lets go on empty paper', () => {
    const bench = drawn()
    const [, land, , second] = bench.lines
    bench.click(12, 9)
    expect(bench.picks).toEqual([land?.id])
    bench.click(32, 14, true)
    expect(bench.picks).toEqual([land?.id, second?.id])
    bench.click(12, 9, true)
    expect(bench.picks).toEqual([second?.id])
    bench.click(60, 30)
    expect(bench.picks).toEqual([])
  })

  it('lights what it would pick', () => {
    const bench = drawn().move(12, 9)
    expect(bench.hover).toBe(bench.lines[1]?.id)
    bench.move(60, 30)
    expect(bench.hover).toBeUndefined()
  })

  it('picks with a box what lies wholly inside, and adds to the picks with Shift', () => {
    const bench = drawn()
    bench.move(-3, 20).press(-3, 20).move(10, 10).move(30, 5)
    expect(bench.state?.overlay?.box).toBeDefined()
    bench.release(30, 5)
    expect(bench.picks).toHaveLength(2)
    bench.press(22, 20).move(45, 12, true).release(45, 12, true)
    expect(bench.picks).toHaveLength(3)
  })

  it('lets a box go with Esc and leaves the picks alone', () => {
    const bench = drawn().click(12, 9)
    bench.press(-3, 20).move(30, 5).escape()
    expect(bench.picks).toHaveLength(1)
    expect(bench.state?.overlay).toBeUndefined()
  })

  it('drags a land out and takes it as one edit; the ties hold all the way', () => {
    const bench = drawn()
    const land = bench.lines[1]
    bench.press(12, 9).move(12, 10).move(12, 11).move(12, 12)
    expect(bench.shown).toBeDefined()
    const during = locator(bench.sketch)
    expect(during(land?.from ?? '').y).toBeCloseTo(12, 6)
    expect(during(land?.to ?? '').y).toBeCloseTo(12, 6)
    bench.release(12, 12)
    expect(bench.shown).toBeUndefined()
    expect(bench.labels.filter((l) => l === 'move')).toHaveLength(1)
    expect(locator(bench.sketch)(land?.from ?? '').y).toBeCloseTo(12, 6)
  })

  it('puts a drag back with Esc', () => {
    const bench = drawn()
    const before = bench.part
    bench.press(12, 9).move(12, 12).escape()
    expect(bench.shown).toBeUndefined()
    bench.release(12, 12)
    expect(bench.part).toBe(before)
  })

  it('takes a press that hardly moves for a click', () => {
    const bench = drawn()
    const before = bench.part
    bench.press(12, 9).move(12.2, 9.1).release(12.2, 9.1)
    expect(bench.part).toBe(before)
    expect(bench.picks).toHaveLength(1)
  })

  it('says why what is sized cannot be dragged', () => {
    const bench = drawn()
    const land = bench.lines[1]
    bench.do(addSize(bench.sketch.id, { kind: 'diameter', point: land?.from ?? '' }, '18'))
    bench.do(addSize(bench.sketch.id, { kind: 'length', line: land?.id ?? '' }, '24'))
    bench.use('pick').press(12, 9).move(12, 12)
    expect(bench.told.join()).toContain('Nothing about this can move')
    expect(bench.shown).toBeUndefined()
  })

  it('moves all that is picked when one of the picks is dragged', () => {
    const bench = drawn()
    const [, first, , second] = bench.lines
    bench.picks = [first?.id ?? '', second?.id ?? '']
    bench.use('pick').press(12, 9).move(12, 10.5).move(12, 11).release(12, 11)
    const locate = locator(bench.sketch)
    expect(locate(first?.from ?? '').y).toBeCloseTo(11, 6)
    expect(locate(second?.from ?? '').y).toBeCloseTo(16, 6)
  })
})

describe('the constraint tools', () => {
  it('act at once on picks that fit', () => {
    const bench = new ToolBench().use('chain').click(3, 2, true).click(20, 6, true).key('Enter')
    bench.picks = [bench.lines[0]?.id ?? '']
    bench.use('tie:axial')
    expect(bench.ties).toEqual(['axial'])
    expect(bench.state).toBeUndefined()
    const [a, b] = bench.sketch.points
    expect(a?.y).toBeCloseTo(b?.y ?? NaN, 9)
  })

  it('wait for picks, act as soon as those fit, and go on', () => {
    const bench = new ToolBench().use('chain')
    bench.click(3, 5, true).click(20, 6, true).key('Enter')
    bench.click(22, 7, true).click(30, 12, true).key('Enter')
    bench.use('tie:coincident')
    expect(bench.state?.hint).toContain('two points')
    bench.click(20, 6)
    expect(bench.ties).toEqual([])
    bench.click(22, 7)
    expect(bench.ties).toEqual(['coincident'])
    expect(bench.picks).toEqual([])
    expect(bench.state?.hint).toContain('two points')
  })

  it('step back with Esc: first the picks, then the tool', () => {
    const bench = drawn().use('tie:pointOn')
    bench.click(24, 14)
    expect(bench.picks).toHaveLength(1)
    bench.escape()
    expect(bench.picks).toEqual([])
    bench.escape()
    expect(bench.state).toBeUndefined()
  })

  it('refuse what holds already, by name, and change nothing', () => {
    const bench = drawn()
    const before = bench.sketch.constraints
    bench.picks = [bench.lines[1]?.id ?? '']
    bench.use('tie:axial')
    expect(bench.told.join()).toContain('holds already')
    expect(bench.sketch.constraints).toEqual(before)
  })

  it('hold points still when they are fixed', () => {
    const bench = drawn()
    const point = bench.lines[1]?.from ?? ''
    bench.do(constrain(bench.sketch.id, 'fixed', [point]))
    const freedoms = evaluate(bench.part).sketches.get(bench.sketch.id)?.solution.pointFreedoms
    expect(freedoms?.get(point)).toBe(0)
  })
})
