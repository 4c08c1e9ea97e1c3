import { locator } from '@lathica/core/sketch'
import { evaluate } from '@lathica/core/route'
import { describe, expect, it } from 'vitest'
import { ToolBench } from './support/bench'

const start = () => new ToolBench().use('chain')

describe('the chain tool', () => {
  it('draws a half-section that closes on the axis, and ties only what it said', () => {
    const bench = start().click(0, 0).click(0.2, 9).click(24, 9.3)
    expect(bench.state?.hint).toContain('next corner')
    bench.click(24.3, 0.2)
    expect(bench.lines).toHaveLength(3)
    expect(bench.ties).toEqual(['axial', 'coincident', 'pointOn', 'radial', 'radial'])
    expect(bench.state?.hint).toContain('where the outline begins')
    const profile = evaluate(bench.part).sketches.get(bench.sketch.id)?.profile
    expect(profile?.section.regions).toHaveLength(1)
    expect(profile?.faults).toEqual([])
  })

  it('says in words what it would take before it is taken', () => {
    const bench = start()
    expect(bench.move(0.3, 0.2).words).toBe('on the datum point')
    expect(bench.move(7, 0.3).words).toBe('on the axis')
    expect(bench.move(7, 4).words).toBe('')
    bench.click(0, 0)
    expect(bench.move(0.3, 9).words).toBe('radial')
    bench.click(0.3, 9)
    expect(bench.move(20, 9.4).words).toBe('axial')
    expect(bench.move(20, 15).words).toBe('')
    bench.click(20, 9.4)
    expect(bench.move(20.2, 0.3).words).toBe('radial · on the axis')
  })

  it('refuses every suggestion while Shift is held', () => {
    const bench = start().click(0.3, 0.2, true).click(0.5, 9, true).click(20, 9.4, true)
    expect(bench.ties).toEqual([])
    const [first] = bench.sketch.points
    expect(first).toMatchObject({ x: 0.3, y: 0.2 })
    expect(bench.move(20.3, 0.1, true).words).toBe('')
  })

  it('goes on from where an end was put, and ends on a point that is there', () => {
    const bench = start().click(0, 0).click(0, 9).click(30, 9)
    bench.key('Enter')
    expect(bench.state?.hint).toContain('where the outline begins')
    bench.click(30, 9).click(30, 14).click(0, 9)
    expect(bench.lines).toHaveLength(4)
    expect(bench.sketch.points).toHaveLength(4)
    expect(bench.state?.hint).toContain('where the outline begins')
  })

  it('ends by a double press on the last corner, without a line of no length', () => {
    const bench = start().click(0, 0).click(0, 9).click(30, 9).press(30, 9)
    expect(bench.lines).toHaveLength(2)
    expect(bench.told).toEqual([])
    expect(bench.state?.hint).toContain('where the outline begins')
  })

  it('takes a second press on its first corner for a slip, not for an end', () => {
    const bench = start().click(5, 0).press(5.1, 0)
    expect(bench.lines).toHaveLength(0)
    expect(bench.told).toEqual([])
    expect(bench.click(5, 8).sketch.entities).toHaveLength(1)
  })

  it('steps back from the chain with Esc, then has nothing left to step back from', () => {
    const bench = start().click(0, 0).click(0, 9)
    bench.escape()
    expect(bench.state?.hint).toContain('where the outline begins')
    expect(bench.lines).toHaveLength(1)
    bench.escape()
    expect(bench.state).toBeUndefined()
  })

  it('goes on from the corner before when the last line is undone', () => {
    const bench = start().click(0, 0).click(0, 9)
    const before = bench.part
    bench.click(30, 9)
    bench.part = before
    bench.state = bench.state?.refresh?.()
    bench.click(22, 9)
    expect(bench.lines).toHaveLength(2)
    const [a, b] = bench.lines
    expect(b?.from).toBe(a?.to)
  })

  it('starts afresh at the same place when its very first line is undone', () => {
    const bench = start()
    const before = bench.part
    bench.click(4, 0).click(4, 9)
    bench.part = before
    bench.state = bench.state?.refresh?.()
    bench.click(4, 7)
    expect(bench.lines).toHaveLength(1)
    const locate = locator(bench.sketch)
    const [line] = bench.lines
    expect(locate(line?.from ?? '')).toMatchObject({ x: 4, y: 0 })
  })

  it('puts an end onto a line that is there, where a level way meets it', () => {
    const bench = start().click(0, 0).click(0, 20).key('Enter')
    bench.click(30, 0).click(30, 8)
    expect(bench.move(0.3, 8.2).words).toBe('axial · on line 1')
    bench.click(0.3, 8.2)
    const last = bench.sketch.points.at(-1)
    expect(last?.x).toBeCloseTo(0, 9)
    expect(last?.y).toBeCloseTo(8, 9)
    expect(bench.ties.filter((k) => k === 'pointOn')).toHaveLength(2)
  })

  it('refuses to draw the same line twice, and says so', () => {
    const bench = start().click(0, 0).click(0, 9).key('Enter').click(0, 9)
    bench.click(0, 0)
    expect(bench.lines).toHaveLength(1)
    expect(bench.told.join()).toContain('already')
  })
})
