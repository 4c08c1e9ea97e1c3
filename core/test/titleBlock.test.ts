import { describe, expect, it } from 'vitest'
import { drawSheet } from '../src/drawing'
import { changeBlock } from '../src/edit'
import { readMark, readPartFile, toDocument, writeDrawingSvg } from '../src/formats'
import {
  PLAIN_BLOCK,
  PLAIN_DRAWING,
  refuseBlock,
  sumOf,
  type BlockMark,
  type Part,
  type TitleBlock,
} from '../src/part'
import { evaluate } from '../src/route'
import { must } from './support/parts'
import { readSheet } from './support/sheetReader'
import { shaftPart } from './support/shafts'

const PART: Part = {
  ...shaftPart([{ diameter: 20, length: 60 }]),
  drawing: {
    ...PLAIN_DRAWING,
    title: { ...PLAIN_DRAWING.title, number: 'SP-9', owner: 'Skerry Point' },
  },
}

const cell = (over: Partial<TitleBlock['cells'][number]>) => ({
  ...({
    row: 0,
    column: 0,
    down: 1,
    across: 1,
    shows: 'words',
    label: '',
    words: '',
    letter: 3,
  } as const),
  ...over,
})

const OWN: TitleBlock = {
  name: 'workshop',
  rows: [20, 10],
  columns: [60, 50],
  cells: [
    cell({ across: 2, shows: 'title', label: 'what it is', letter: 5 }),
    cell({ row: 1, shows: 'number', label: 'no.' }),
    cell({ row: 1, column: 1, words: 'boat shed, bench 2' }),
  ],
}

const titleOn = (part: Part) => {
  const drawing = drawSheet(evaluate(part))
  if (!drawing) throw new Error('nothing is drawn')
  const group = readSheet(writeDrawingSvg(drawing, part.name)).find((g) => g.role === 'title')
  return { drawing, texts: group?.texts.map((t) => t.words) ?? [], group }
}

function markOf(svg: string): { mark: BlockMark; told: readonly string[] } {
  const read = readMark(svg)
  if (!read.ok) throw new Error(read.problem.message)
  return read.value
}

describe('a title block of one’s own', () => {
  it('stands on the sheet with its fields and words, and the plain one comes back', () => {
    const own = must(PART, changeBlock(OWN))
    expect(titleOn(own).texts).toEqual([
      'what it is',
      'Spindle',
      'no.',
      'SP-9',
      'boat shed, bench 2',
    ])
    expect(titleOn(must(own, changeBlock(undefined))).texts).toEqual(titleOn(PART).texts)
  })

  it('leaves the views the room that it does not take up', () => {
    const low = must(PART, changeBlock({ ...OWN, rows: [20, 10] }))
    const high = must(PART, changeBlock({ ...OWN, rows: [80, 20] }))
    const axisOf = (part: Part): number => titleOn(part).drawing.places[0]?.at.y ?? 0
    expect(axisOf(high)).toBeGreaterThan(axisOf(low) + 20)
  })

  it('goes through the part file', () => {
    const { mark } = markOf('<svg><path d="M0 0L10 0L10 10Z"/></svg>')
    const own = must(PART, changeBlock({ ...OWN, mark }))
    const read = readPartFile(JSON.stringify(toDocument(own)))
    expect(read.ok && read.value.drawing?.block).toEqual({ ...OWN, mark })
  })

  it('is the plain one where nothing is wished, which is sound and 180 mm wide', () => {
    expect(refuseBlock(PLAIN_BLOCK)).toBeUndefined()
    expect(sumOf(PLAIN_BLOCK.columns)).toBe(180)
  })

  it.each([
    ['cells that cover each other', { cells: [cell({ across: 2 }), cell({ column: 1 })] }],
    ['a cell beyond the grid', { cells: [cell({ down: 3 })] }],
    ['a cell of no row', { cells: [cell({ down: 0 })] }],
    ['a column too narrow', { columns: [60, 1] }],
    ['a column that is no number', { columns: [60, NaN] }],
    ['no rows', { rows: [], cells: [] }],
    ['a block wider than A4', { columns: [100, 100] }],
    ['a block that fills the sheet', { rows: [90, 60] }],
  ])('is refused with a mend: %s', (_, over) => {
    const refused = refuseBlock({ ...OWN, ...over })
    expect(refused?.ok).toBe(false)
    expect(refused && !refused.ok && refused.problem.mend).toMatch(/\.$/)
    expect(changeBlock({ ...OWN, ...over }).run(PART).ok).toBe(false)
    const document = toDocument({
      ...PART,
      drawing: { ...PLAIN_DRAWING, block: { ...OWN, ...over } },
    })
    expect(readPartFile(JSON.stringify(document)).ok).toBe(false)
  })
})

describe('a mark', () => {
  /** The area that ink covers, by the shoelace rule over the corners of straight paths. */
  function areaOf({ paths, width }: BlockMark, wide: number): number {
    const points = paths.flatMap(({ d }) => [...d.matchAll(/[ML](-?\d+) (-?\d+)/g)])
    const at = points.map(([, x, y]) => [Number(x), Number(y)] as const)
    const twice = at.reduce((sum, [x, y], i) => {
      const [u, v] = at[(i + 1) % at.length] ?? [0, 0]
      return sum + x * v - u * y
    }, 0)
    return (Math.abs(twice) / 2) * (wide / width) ** 2
  }

  it('keeps the shape of what is drawn, through groups and transforms', () => {
    const plain = markOf('<svg><rect x="5" y="5" width="40" height="10"/></svg>').mark
    expect(plain.width / plain.height).toBeCloseTo(4, 3)
    expect(areaOf(plain, 40)).toBeCloseTo(400, 1)
    const turned = markOf(
      '<svg viewBox="0 0 9 9"><g transform="translate(3 4) rotate(90)"><g transform="scale(2)"><rect width="40" height="10"/></g></g></svg>',
    ).mark
    expect(turned.height / turned.width).toBeCloseTo(4, 3)
    expect(areaOf(turned, 20)).toBeCloseTo(1600, 0)
  })

  it('knows ink, paper and lines, arcs and parabolas as cubics', () => {
    const { mark } = markOf(
      '<svg><circle cx="5" cy="5" r="5"/><path fill="#fff" d="M2 2Q5 8 8 2z"/><line x1="0" y1="9" x2="10" y2="9" stroke="red"/><path fill="none" d="M0 0h3"/></svg>',
    )
    expect(mark.paths.map((p) => p.tone)).toEqual(['ink', 'paper', 'line'])
    for (const { d } of mark.paths) expect(d).toMatch(/^M[MLCZ\d .-]*$/)
    expect(mark.paths[1]?.d).toContain('C')
  })

  it('is drawn in its cell, as large as it fits', () => {
    const { mark } = markOf('<svg><rect width="40" height="10"/></svg>')
    const block = { ...OWN, mark, cells: [cell({ shows: 'mark' })] }
    const { drawing } = titleOn(must(PART, changeBlock(block)))
    const title = drawing.groups.find((g) => g.role === 'title')
    const fills = title?.items.flatMap((i) => (i.kind === 'fill' ? i.loops.flat() : [])) ?? []
    const xs = fills.flatMap((p) => [p.from.x, p.to.x])
    const ys = fills.flatMap((p) => [p.from.y, p.to.y])
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(57.6, 2)
    expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(14.4, 2)
  })

  it('keeps nothing of a file that would do something, and tells what it left out', () => {
    const hostile = `<?xml version="1.0"?>
      <svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" onload="steal()">
        <script>steal()</script>
        <style>@import url(http://example.test/x.css);</style>
        <image href="http://example.test/x.png" width="9" height="9"/>
        <use xlink:href="http://example.test/x.svg#a"/>
        <foreignObject><iframe src="javascript:steal()"/></foreignObject>
        <a href="javascript:steal()"><text>press</text></a>
        <path onclick="steal()" style="fill:url(http://example.test/)" d="M0 0L9 0L9 9Z"/>
        <path d="M0 0L9 0 javascript:steal()"/>
      </svg>`
    const { mark, told } = markOf(hostile)
    const kept = JSON.stringify(mark)
    expect(kept).not.toMatch(/steal|http|javascript|url|on\w+=/i)
    expect(told.join()).toContain('1 × script')
    expect(told.join()).toContain('1 × image')
    const part = must(PART, changeBlock({ ...OWN, mark, cells: [cell({ shows: 'mark' })] }))
    const svg = writeDrawingSvg(titleOn(part).drawing, part.name)
    expect(svg).not.toMatch(/steal|example\.test|javascript|<script|<image|<use/i)
  })

  it.each([
    [
      'words that grow without end',
      '<!DOCTYPE svg [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><svg><text>&b;</text></svg>',
    ],
    ['no drawing', 'GIF89a'],
    ['an empty one', '<svg></svg>'],
    ['a picture alone', '<svg><image href="x.png"/></svg>'],
    ['a path that goes nowhere', '<svg><path d="M5 5"/></svg>'],
    ['figures that are none', '<svg><path d="M1e400 0L2 2L3 0Z"/></svg>'],
    ['one too large', `<svg>${' '.repeat(600_000)}</svg>`],
    ['one too fine', `<svg><path d="M0 0${'L1234 5678'.repeat(9000)}"/></svg>`],
  ])('is refused with a mend: %s', (_, svg) => {
    const read = readMark(svg)
    expect(read.ok).toBe(false)
    expect(!read.ok && read.problem.mend).toMatch(/\.$/)
  })

  it('is refused in a part file where it is more than figures', () => {
    const { mark } = markOf('<svg><rect width="4" height="1"/></svg>')
    const bad = { ...mark, paths: [{ tone: 'ink', d: 'M0 0"/><script>steal()</script>' }] }
    const drawing = { ...PLAIN_DRAWING, block: { ...OWN, mark: bad as BlockMark } }
    expect(readPartFile(JSON.stringify(toDocument({ ...PART, drawing }))).ok).toBe(false)
  })
})
