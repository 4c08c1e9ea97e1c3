import { addSize } from '@lathica/core/edit'
import { describe, expect, it } from 'vitest'
import { ToolBench } from './support/bench'

function drawn(): ToolBench {
  const bench = new ToolBench().use('chain')
  bench.click(0, 0).click(0, 9).click(24, 9).click(30, 14).click(40, 14).click(40, 0)
  return bench.use('size')
}
const line = (bench: ToolBench, i: number) => bench.lines[i]

describe('the size tool', () => {
  it('takes a land’s length where the label goes outside, its diameter towards the axis', () => {
    const bench = drawn().click(12, 9)
    expect(bench.move(12, 20).words).toBe('length')
    expect(bench.move(12, 4).words).toMatch(/^diameter/)
    bench.press(12, 20)
    expect(bench.fields).toEqual([
      { kind: 'new', offer: { kind: 'length', line: line(bench, 1)?.id } },
    ])
    expect(bench.picks).toEqual([])
    bench.click(12, 9).click(12, 4)
    expect(bench.fields[1]).toEqual({
      kind: 'new',
      offer: { kind: 'diameter', point: line(bench, 1)?.from },
    })
  })

  it('takes a slanted line’s extent above it, its angle below and its length beside it', () => {
    const bench = drawn().click(27, 11.5)
    expect(bench.move(27, 20).words).toMatch(/^axial distance/)
    expect(bench.move(28, 10).words).toMatch(/^angle/)
    expect(bench.move(26, 13).words).toBe('length')
  })

  it('goes round the measures that fit with Tab', () => {
    const bench = drawn().click(12, 9).move(12, 20)
    const seen = [bench.words]
    bench.key('Tab')
    seen.push(bench.words)
    bench.key('Tab')
    seen.push(bench.words)
    bench.key('Tab')
    seen.push(bench.words)
    expect(seen).toEqual(['length', 'diameter', 'radial distance', 'length'])
  })

  it('measures between two things, and from the datum point', () => {
    const bench = drawn().click(0, 9).click(30, 14)
    expect(bench.words).toMatch(/^axial distance · from point \d to point \d$/)
    expect(bench.move(40, 12).words).toMatch(/^radial distance/)
    expect(bench.move(40, 30).words).toMatch(/^straight distance/)
    bench.click(20, 25)
    expect(bench.fields[0]).toMatchObject({ kind: 'new', offer: { kind: 'axialDistance' } })
  })

  it('starts over with the second thing where the two have no measure in common', () => {
    const bench = drawn().click(12, 9).click(35, 14)
    expect(bench.picks.length).toBeGreaterThan(0)
    expect(bench.state?.overlay?.offer).toBeDefined()
  })

  it('opens the size that is there instead of a second one', () => {
    const bench = drawn()
    const land = line(bench, 1)?.id ?? ''
    bench.do(addSize(bench.sketch.id, { kind: 'length', line: land }, '24'))
    bench.use('size').click(12, 9).click(12, 20)
    expect(bench.fields).toEqual([{ kind: 'size', id: bench.sketch.sizes[0]?.id }])
  })

  it('begins with what is picked', () => {
    const bench = drawn()
    bench.picks = [line(bench, 1)?.id ?? '']
    bench.use('size').move(12, 20)
    expect(bench.words).toBe('length')
  })

  it('steps back with Esc: first what is picked', () => {
    const bench = drawn().click(12, 9).escape()
    expect(bench.picks).toEqual([])
    expect(bench.state?.hint).toContain('to measure')
    bench.escape()
    expect(bench.state).toBeUndefined()
  })

  it('asks for a second thing where one alone has no measure', () => {
    const bench = drawn().click(20, 0)
    expect(bench.state?.overlay).toBeUndefined()
    expect(bench.state?.hint).toContain('second thing')
    bench.click(30, 14)
    expect(bench.words).toMatch(/^diameter/)
  })

  it('says what it measures between, and goes on with Tab to what lies in the same place', () => {
    // Where two lines meet a click takes their point; the lines were meant as well as that.
    const bench = drawn().click(12, 9).click(40, 14.4)
    const said = new Set<string>()
    for (let i = 0; i < 8; i++) {
      said.add(bench.words.split(' · ')[1] ?? '')
      bench.key('Tab')
    }
    expect(said.size).toBeGreaterThan(1)
    said.forEach((words) => expect(words).toMatch(/^from line \d to (point|line) \d$/))
  })

  it('lets go of what it had when empty paper is clicked first', () => {
    const bench = drawn()
    bench.picks = ['axis']
    bench.use('size').click(70, 30)
    expect(bench.picks).toEqual([])
    expect(bench.fields).toEqual([])
  })
})
