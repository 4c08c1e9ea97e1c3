import { radiusOf, type Vec } from '@lathica/core/geometry'
import { locator, pieceOf, piecesOf } from '@lathica/core/sketch'
import { describe, expect, it } from 'vitest'
import { ToolBench } from './support/bench'

/** A pin of 40 × ⌀18 from the axis round to the axis. */
function pin(): ToolBench {
  return new ToolBench().use('chain').click(0, 0).click(0, 9).click(40, 9).click(40, 0)
}

const ids = (bench: ToolBench): string[] => bench.sketch.entities.map((e) => e.id)
const kinds = (bench: ToolBench): string[] => bench.sketch.entities.map((e) => e.kind)
const endsOf = (bench: ToolBench, n: number): [Vec, Vec] => {
  const pieces = piecesOf(bench.sketch.entities[n] ?? fail(), locator(bench.sketch))
  return [pieces[0]?.from ?? fail(), pieces.at(-1)?.to ?? fail()]
}
const fail = (): never => {
  throw new Error('nothing is drawn there')
}
const places = (bench: ToolBench): string[] =>
  bench.sketch.points.map((p) => `${p.x.toFixed(2)} ${p.y.toFixed(2)}`)

describe('trim, extend and split', () => {
  /** A long line crossed by two short ones. */
  const crossed = (): ToolBench =>
    new ToolBench()
      .use('chain')
      .click(0, 20)
      .click(60, 20)
      .key('Enter')
      .click(20, 10, true)
      .click(20.2, 30, true)
      .key('Enter')
      .click(40, 10, true)
      .click(40.2, 30, true)
      .key('Enter')

  it('shows the stretch that would go, and cuts it away', () => {
    const bench = crossed().use('trim').move(30, 20)
    const [stretch] = bench.state?.overlay?.rubber ?? []
    expect(stretch?.from.x).toBeCloseTo(20.1, 6)
    expect(stretch?.to.x).toBeCloseTo(40.1, 6)
    bench.press(30, 20)
    expect(kinds(bench)).toHaveLength(4)
    expect(endsOf(bench, 0)[1].x).toBeCloseTo(20.1, 4)
    bench.press(10, 20)
    expect(kinds(bench)).toHaveLength(3)
  })

  it('takes away what nothing crosses, and does nothing beside', () => {
    const bench = pin().use('trim').click(20, 9)
    expect(kinds(bench)).toHaveLength(2)
    bench.click(20, 30)
    expect(kinds(bench)).toHaveLength(2)
  })

  it('draws an end out to what it meets, and divides where one clicks', () => {
    const bench = crossed().use('trim').click(50, 20).use('extend').click(38, 20)
    expect(bench.told).not.toEqual([])
    bench.use('split').click(10, 20)
    expect(kinds(bench)).toHaveLength(4)
  })
})

describe('round and bevel', () => {
  it('ask for a radius at a corner, and remember it for the next', () => {
    const bench = pin().use('fillet').click(40, 9)
    expect(bench.state?.entry?.fields[0]).toMatchObject({ label: 'radius', sign: 'R' })
    expect(bench.state?.entry?.preview?.(['3'])?.rubber?.length).toBeGreaterThan(0)
    bench.type('3')
    const arc = bench.sketch.entities.find((e) => e.kind === 'arc')
    const piece = arc && pieceOf(arc, locator(bench.sketch))
    expect(piece?.kind === 'arc' && radiusOf(piece)).toBeCloseTo(3, 8)
    bench.click(0, 9)
    expect(bench.state?.entry?.fields[0]?.text).toBe('3')
    bench.escape()
    expect(bench.state?.entry).toBeUndefined()
  })

  it('refuse what does not fit, and ends of chains that are no corner', () => {
    const bench = pin().use('chamfer').click(40, 9).type('50')
    expect(bench.told).toHaveLength(1)
    expect(kinds(bench)).toHaveLength(3)
    bench.type('2')
    expect(kinds(bench)).toHaveLength(4)
    bench.use('chamfer').click(0, 0)
    expect(bench.state?.entry).toBeUndefined()
  })
})

describe('mirror and flip', () => {
  it('mirrors about a line and keeps both alike; Tab flips instead', () => {
    const bench = pin()
    const before = ids(bench)
    bench.use('centreLine').click(60, 0).click(60, 30)
    bench.picks = before
    bench.use('mirror').move(60, 15)
    expect(bench.words).toBe('mirror about line 4')
    expect(bench.state?.overlay?.rubber).toHaveLength(3)
    bench.press(60, 15)
    expect(kinds(bench)).toHaveLength(7)
    expect(bench.ties.filter((t) => t === 'symmetric').length).toBeGreaterThan(2)
    bench.picks = before
    bench.use('mirror').key('Tab').move(60, 15)
    expect(bench.words).toBe('flip about line 4')
  })

  it('waits for picks first when there are none, and for a line after', () => {
    const bench = pin().use('mirror')
    expect(bench.state?.hint).toContain('Click what to mirror')
    bench.click(20, 9).key('Enter')
    expect(bench.state?.hint).toContain('mirror about')
    bench.click(70, 70)
    expect(kinds(bench)).toHaveLength(3)
  })
})

describe('repeat', () => {
  it('copies at a pitch along the axis, and says what is wrong with the values', () => {
    const bench = new ToolBench().use('chain').click(0, 20).click(3, 24, true).click(6, 20, true)
    bench.picks = ids(bench)
    bench.use('repeat').type('1', '')
    expect(bench.told.at(-1)).toContain('2 to')
    bench.type('', '8')
    expect(bench.told.at(-1)).toContain('missing')
    expect(bench.state?.entry?.preview?.(['3', '8'])?.rubber).toHaveLength(4)
    bench.type('3', '8')
    expect(kinds(bench)).toHaveLength(6)
    expect(bench.sketch.sizes).toMatchObject([{ kind: 'axialDistance', formula: '8' }])
    expect(bench.ties).toContain('repeat')
  })

  it('goes square to the axis after a click on it', () => {
    const bench = new ToolBench().use('chain').click(0, 20).click(3, 24, true).click(6, 20, true)
    bench.picks = ids(bench)
    bench.use('repeat').click(30, 0).type('2', '9')
    expect(bench.sketch.sizes).toMatchObject([{ kind: 'radialDistance' }])
  })
})

describe('move, copy, rotate and scale', () => {
  it('move by two places, or by typed distances, and not by nothing', () => {
    const bench = new ToolBench().use('rectangle').click(10, 10).click(20, 16)
    const before = places(bench)
    bench.picks = ids(bench)
    bench.use('move').type('0', '0')
    expect(bench.told.at(-1)).toContain('moves nothing')
    bench.type('5', '2')
    expect(places(bench)[0]).toBe('15.00 12.00')
    bench.picks = ids(bench)
    bench.use('move').click(40, 40).click(35, 38)
    expect(places(bench)).toEqual(before)
  })

  it('copies keep their constraints among themselves', () => {
    const bench = new ToolBench().use('rectangle').click(10, 10).click(20, 16)
    const ties = bench.ties.length
    bench.picks = ids(bench)
    bench.use('copy').type('30', '0')
    expect(kinds(bench)).toHaveLength(8)
    expect(bench.ties).toHaveLength(2 * ties)
  })

  it('rotate and scale about a place, by pointing and by typing', () => {
    const bench = new ToolBench().use('chain').click(10, 10).click(20, 10).key('Enter')
    bench.picks = ids(bench)
    bench.use('scale').click(10, 10).type('0')
    expect(bench.told.at(-1)).toContain('greater than zero')
    bench.type('2')
    expect(endsOf(bench, 0)[1].x).toBeCloseTo(30, 6)
    bench.picks = ids(bench)
    bench.use('rotate').click(10, 10).click(30, 10).click(10, 30)
    const [from, to] = endsOf(bench, 0)
    expect(to.x - from.x).toBeCloseTo(0, 6)
    expect(to.y - from.y).toBeCloseTo(20, 6)
  })
})

describe('offset', () => {
  it('draws a chain beside a chain, on the side of the pointer', () => {
    const bench = new ToolBench().use('chain').click(10, 20).click(40, 20).click(40, 35)
    bench.use('pick')
    bench.picks = ids(bench)
    bench.use('offset').move(30, 30).type('4')
    expect(kinds(bench)).toHaveLength(4)
    const [from] = endsOf(bench, 2)
    expect(from.y).toBeCloseTo(24, 6)
  })
})

describe('shapes', () => {
  it.each([
    [
      'rectangle',
      [
        [10, 10],
        [30, 20],
      ],
      ['line', 'line', 'line', 'line'],
    ],
    [
      'circle',
      [
        [20, 20],
        [26, 20],
      ],
      ['circle'],
    ],
    [
      'arc',
      [
        [10, 10],
        [30, 10],
        [20, 16],
      ],
      ['arc'],
    ],
    [
      'slot',
      [
        [10, 20],
        [30, 20],
        [30, 24],
      ],
      ['line', 'arc', 'line', 'arc'],
    ],
  ] as const)('%s by clicks', (tool, clicks, drawn) => {
    const bench = new ToolBench().use(tool)
    for (const [x, y] of clicks) bench.click(x, y)
    expect(
      kinds(bench)
        .filter((k) => drawn.includes(k as never))
        .sort(),
    ).toEqual([...drawn].sort())
    expect(bench.told).toEqual([])
  })

  it('take typed sizes, which stay as sizes, and refuse nought', () => {
    const bench = new ToolBench().use('circle').click(20, 20).type('0')
    expect(bench.told.at(-1)).toContain('greater than zero')
    bench.type('12')
    expect(bench.sketch.sizes).toMatchObject([{ kind: 'curveDiameter', formula: '12' }])
    bench.use('rectangle').click(40, 10).type('14', '5')
    expect(bench.sketch.sizes.map((s) => s.formula)).toEqual(['12', '14', '5'])
  })

  it('go round their ways with Tab, and step back with Esc', () => {
    const bench = new ToolBench().use('rectangle')
    const first = bench.state?.hint
    bench.key('Tab')
    expect(bench.state?.hint).not.toBe(first)
    bench.click(20, 20).click(26, 23)
    expect(bench.sketch.points.some((p) => p.x < 15)).toBe(true)
    bench.click(40, 20).escape()
    expect(bench.state?.hint).toContain('centre')
  })
})

describe('a stepped shaft from typed pairs', () => {
  it('is laid on an empty Enter, after one pair at a time or all in a row', () => {
    const bench = new ToolBench().use('stepped')
    const { entry } = bench.state ?? {}
    expect(entry?.more?.(['20, 24'])).toEqual(['20, 24; '])
    expect(entry?.more?.(['20, 24; '])).toBeUndefined()
    expect(entry?.more?.(['20'])).toBeUndefined()
    expect(entry?.preview?.(['20, 24; 28, 34'])?.rubber).toHaveLength(5)
    bench.type('20, 24; 28, 34; ')
    expect(kinds(bench)).toHaveLength(5)
    expect(bench.sketch.sizes.map((s) => s.formula)).toEqual(['20', '24', '28', '34'])
  })

  it.each([
    ['', 'no pair yet'],
    ['20', 'is not a pair'],
    ['20, 24, 8', 'is not a pair'],
    ['20, 0', 'has no size'],
    ['20, wall', 'Step 1'],
    ['20, 24; 30, 5 +', 'Step 2'],
  ])('answers “%s” with a sentence', (text, sentence) => {
    const bench = new ToolBench().use('stepped').type(text)
    expect(bench.told.at(-1)).toContain(sentence)
    expect(kinds(bench)).toEqual([])
  })
})

describe('sizes by where their label goes', () => {
  it('across a centre line are spans, on this side of it distances', () => {
    const bench = new ToolBench().use('centreLine').click(30, 0).click(30, 40)
    bench.use('chain').click(10, 10).click(10, 30).key('Enter').escape()
    bench.use('size').click(10, 20).click(30, 20)
    expect(bench.move(45, 20).words).toMatch(/^span/)
    expect(bench.move(20, 20).words).toMatch(/^distance/)
    bench.press(45, 20)
    expect(bench.fields.at(-1)).toMatchObject({ kind: 'new', offer: { kind: 'span' } })
  })

  it('of angles stay in the sector they were put into', () => {
    const bench = new ToolBench().use('chain').click(10, 10).click(30, 20).key('Enter')
    bench.use('size').click(20, 15).click(60, 0)
    bench.move(20, 8).press(20, 8)
    const [first] = bench.fields
    bench.use('size').click(20, 15).click(60, 0)
    bench.move(-40, 3).press(-40, 3)
    const [, second] = bench.fields
    expect(first?.kind === 'new' && first.offer).toMatchObject({ kind: 'angle' })
    expect(first?.kind === 'new' && first.label).toBeDefined()
    expect(second?.kind === 'new' && second.offer).not.toEqual(first?.kind === 'new' && first.offer)
  })
})
