import { describe, expect, it } from 'vitest'
import type { SketchSpline } from '@lathica/core/sketch'
import { ToolBench } from './support/bench'

const curves = (bench: ToolBench): SketchSpline[] =>
  bench.sketch.entities.flatMap((e) => (e.kind === 'spline' ? [e] : []))
const placesOf = (bench: ToolBench, n = 0): string[] => {
  const found = curves(bench)[n]
  const ids = found ? [found.from, ...found.by, found.to] : []
  return ids.map((id) => {
    const p = bench.sketch.points.find((q) => q.id === id)
    return `${p?.x.toFixed(1)} ${p?.y.toFixed(1)}`
  })
}

describe('a free curve', () => {
  it('runs through what is clicked; Enter ends it, Esc too', () => {
    for (const end of ['Enter', 'Escape'] as const) {
      const bench = new ToolBench().use('curve').click(0, 20).click(12, 31).click(30, 24)
      if (end === 'Enter') bench.key('Enter')
      else bench.escape()
      expect(placesOf(bench)).toEqual(['0.0 20.0', '12.0 31.0', '30.0 24.0'])
      expect(curves(bench)[0]?.way).toBe('through')
      expect(bench.state?.hint).toContain('where the curve begins')
    }
  })

  it('ends by a second press on its last place, and on a point that is there', () => {
    const bench = new ToolBench()
      .use('curve')
      .click(0, 20)
      .click(12, 31)
      .click(30, 24)
      .click(30, 24)
    expect(placesOf(bench)).toHaveLength(3)
    // On from the loose end it is the same curve; back to its start another one closes it.
    bench.click(30, 24).click(44, 12).key('Enter')
    expect(curves(bench)).toHaveLength(1)
    expect(placesOf(bench)).toHaveLength(4)
    bench.click(44, 12).click(20, 4).click(0, 20)
    const [one, two] = curves(bench)
    expect([two?.from, two?.to]).toEqual([one?.to, one?.from])
  })

  it('takes its last place back, and is nothing with one', () => {
    const bench = new ToolBench().use('curve').click(0, 20).click(12, 31).click(60, 60)
    bench.key('Backspace').click(30, 24).key('Enter')
    expect(placesOf(bench)).toEqual(['0.0 20.0', '12.0 31.0', '30.0 24.0'])
    bench.click(50, 9).key('Backspace')
    bench.key('Enter')
    expect(curves(bench)).toHaveLength(1)
  })

  it('keeps what was clicked when it cannot end where it is told to', () => {
    const bench = new ToolBench().use('curve').click(0, 20).click(12, 31).click(30, 24)
    bench.click(0, 20).key('Enter')
    expect(curves(bench)).toHaveLength(0)
    bench.key('Enter')
    expect(placesOf(bench)).toEqual(['0.0 20.0', '12.0 31.0', '30.0 24.0'])
  })

  it('goes over a frame by Tab, before it begins or on the way', () => {
    const bench = new ToolBench().use('curve').key('Tab').click(0, 20).click(12, 31)
    bench.click(30, 24).key('Tab').key('Tab').click(40, 8).key('Enter')
    expect(curves(bench)[0]?.way).toBe('frame')
    expect(placesOf(bench)).toHaveLength(4)
  })

  it('is a piece of a chain, which goes on straight from its end', () => {
    const bench = new ToolBench().use('chain').click(0, 0).click(0, 16)
    bench.key('Tab').key('Tab').key('Tab')
    bench.click(14, 30).click(40, 12).key('Tab').click(40, 0)
    expect(bench.sketch.entities.map((e) => e.kind)).toEqual(['line', 'spline', 'line'])
    const [line, curve, last] = bench.sketch.entities
    expect(line?.kind === 'line' && curve?.kind === 'spline' && line.to === curve.from).toBe(true)
    expect(last?.kind === 'line' && curve?.kind === 'spline' && last.from === curve.to).toBe(true)
  })

  it('passes through the chain’s modes and back where nothing is clicked', () => {
    const bench = new ToolBench().use('chain').click(0, 0).click(0, 16)
    bench.key('Tab').key('Tab').key('Tab').key('Tab').click(20, 16)
    expect(bench.sketch.entities.map((e) => e.kind)).toEqual(['line', 'line'])
  })

  it('gets points where it is clicked, its shape kept', () => {
    const bench = new ToolBench().use('curve').click(0, 20).click(30, 20).key('Enter')
    bench.use('curvePoint').click(12, 20)
    expect(placesOf(bench)).toEqual(['0.0 20.0', '12.0 20.0', '30.0 20.0'])
    bench.click(12, 60)
    expect(placesOf(bench)).toHaveLength(3)
  })

  it('is pushed by a point, with Shift along the axis or square to it', () => {
    const bench = new ToolBench().use('curve').click(0, 20).click(12, 31).click(30, 24).key('Enter')
    bench.use('pick')
    bench.press(12, 31).move(14, 40).move(14, 40, true).release(14, 40, true)
    expect(placesOf(bench)[1]).toBe('12.0 40.0')
    bench.press(12, 40).move(18, 41).move(20, 41).release(20, 41)
    expect(placesOf(bench)[1]).toBe('20.0 41.0')
  })
})
