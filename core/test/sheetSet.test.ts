import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import {
  asksToSee,
  askedOf,
  drawSheet,
  drawSheets,
  isKept,
  nextMark,
  type Drawing,
} from '../src/drawing'
import { addSheet, changeSheet, drawSize, release, removeSheet, takeOffLabel } from '../src/edit'
import { radiusOf, sweepOf } from '../src/geometry'
import { readPartFile, toDocument, writeDrawingSvg } from '../src/formats'
import { PLAIN_DRAWING, PLAIN_SHEET, type Part, type Revision } from '../src/part'
import { evaluate } from '../src/route'
import { overlapsOn, readSheet } from './support/sheetReader'
import { createRandom } from '../src/solver'
import { randomSteps, shaftPart } from './support/shafts'

function demo(name: string): Part {
  const url = new URL(`../../demo/${name}.lathica.json`, import.meta.url)
  const read = readPartFile(readFileSync(url, 'utf8'))
  if (!read.ok) throw new Error(read.problem.message)
  return read.value
}

type Made = ReturnType<ReturnType<typeof changeSheet>['run']>
function done(made: Made): Part {
  if (!made.ok) throw new Error(made.problem.message)
  return made.value
}

function sheetOf(part: Part, index = 0): Drawing {
  const drawing = drawSheet(evaluate(part), undefined, index)
  if (!drawing) throw new Error('nothing is drawn')
  return drawing
}

const saidOn = (drawing: Drawing): string[] => [...drawing.labels.values()].map((l) => l.said)

describe('a set of sheets', () => {
  it('is made of the one sheet of an older file', () => {
    const { plan: _, ...drawing } = demo('spindle').drawing ?? PLAIN_DRAWING
    const part = { ...demo('spindle'), drawing }
    const document = JSON.parse(JSON.stringify(toDocument(part))) as Record<string, unknown>
    const { title, sheets } = document['drawing'] as {
      title: object
      sheets: Record<string, unknown>[]
    }
    const [own] = sheets
    const old: Record<string, unknown> = { ...own, title }
    for (const field of [
      ...['id', 'name', 'body', 'sections', 'picture', 'lengths', 'origin'],
      ...['balloons', 'hidden', 'drawn'],
    ]) {
      Reflect.deleteProperty(old, field)
    }
    Reflect.deleteProperty(document, 'drawing')
    const read = readPartFile(JSON.stringify({ ...document, version: 16, sheet: old }))
    expect(read.ok && read.value.drawing).toEqual(part.drawing)
    // Without a sheet there is nothing to take over.
    const plain = readPartFile(JSON.stringify({ ...document, version: 16 }))
    expect(plain.ok && plain.value.drawing).toBeUndefined()
    const none = readPartFile(
      JSON.stringify({ ...document, version: 17, drawing: { title, sheets: [], revisions: [] } }),
    )
    expect(!none.ok && none.problem.message).toContain('it needs a sheet')
  })

  it('has every size once, also where a body has a sheet of its own', () => {
    const part = demo('float')
    const [first, second] = part.bodies
    const all = done(addSheet({ body: second?.id ?? '' }).run(part))
    expect(first && second).toBeTruthy()
    const [whole, apart] = drawSheets(evaluate(all))
    if (!whole || !apart) throw new Error('a sheet is missing')
    const shown = [whole, apart].flatMap((d) => [...d.labels.values()].flatMap((l) => l.shows))
    const { asked, beside } = askedOf(evaluate(part))
    const values = new Set([...asked, ...beside].flatMap((a) => a.shows))
    expect([...shown].sort()).toEqual([...values].sort())
    expect(apart.told).toEqual([])
    // Of all bodies once more they stand there twice, and that is told.
    const twice = done(addSheet().run(part))
    expect(sheetOf(twice, 1).told.join()).toContain('stand on a sheet before this one')
    const less = done(removeSheet('sheet').run(all))
    expect(drawSheets(evaluate(less))).toHaveLength(1)
    expect(removeSheet(less.drawing?.sheets[0]?.id ?? '').run(less).ok).toBe(false)
  })

  it('shows keyways and flats on sections across, each value once', () => {
    const part = demo('winding-spindle')
    const asks = asksToSee(evaluate(part))
    expect(asks.map((a) => a.cut?.at).filter((at) => at !== undefined)).toHaveLength(2)
    const sheet = sheetOf(part)
    const views = sheet.groups.filter((g) => g.role === 'view').map((g) => g.said)
    expect(views).toEqual(expect.arrayContaining(['Section A–A', 'Section B–B']))
    expect(overlapsOn(readSheet(writeDrawingSvg(sheet, part.name)))).toEqual([])
    const none = done(changeSheet('sheet', { sections: 'none' }).run(part))
    const plain = sheetOf(none)
    expect(plain.groups.some((g) => g.said.startsWith('Section'))).toBe(false)
    const shows = (d: Drawing): string[] => [...d.labels.values()].flatMap((l) => l.shows).sort()
    expect(shows(plain)).toEqual(shows(sheet))
  })

  it('lets lengths run from one face over each other, and covers nothing', () => {
    const part = demo('spindle')
    const running = done(changeSheet('sheet', { lengths: 'running' }).run(part))
    const groups = readSheet(writeDrawingSvg(sheetOf(running), part.name))
    expect(overlapsOn(groups)).toEqual([])
    const of = (said: string) => {
      const id = [...sheetOf(running).labels].find(([, l]) => l.said === said)?.[0]
      return groups.find((g) => g.id === id)
    }
    // One head each, on one line, as far apart as the faces; the others have two heads.
    const [short, long] = [of('24'), of('112 ±0.15')]
    const [a, b] = [short?.heads[0], long?.heads[0]]
    expect([short?.heads.length, long?.heads.length]).toEqual([1, 1])
    expect(a && b && [b.x - a.x, b.y - a.y]).toEqual([expect.closeTo(88, 6), expect.closeTo(0, 6)])
    expect(short?.texts.every((t) => t.upright)).toBe(true)
    expect(of('34 ±0.1')?.heads).toHaveLength(2)
    const shows = (p: Part): string[] =>
      [...sheetOf(p).labels.values()].flatMap((l) => l.shows).sort()
    expect(shows(running)).toEqual(shows(part))
  })

  it('shows a thread from the end it looks to as three quarters of a circle, and no other', () => {
    const arcsOn = (end: 'left' | 'right') => {
      const part = done(changeSheet('sheet', { ends: end }).run(demo('spindle')))
      const sheet = sheetOf(part)
      const view = sheet.groups.find((g) => g.said === `View from the ${end}`)
      return (view?.items ?? []).flatMap((i) =>
        i.kind === 'stroke' && i.line === 'narrow'
          ? i.runs.flat().flatMap((p) => (p.kind === 'arc' ? [p] : []))
          : [],
      )
    }
    const arcs = arcsOn('right')
    expect(arcs.reduce((sum, a) => sum + Math.abs(sweepOf(a)), 0)).toBeCloseTo(1.5 * Math.PI, 9)
    // M16 × 1.5: the root of the bolt, d − 1.226869 P (ISO 724).
    for (const arc of arcs) expect(2 * radiusOf(arc)).toBeCloseTo(16 - 1.226869 * 1.5, 3)
    expect(arcsOn('left')).toEqual([])
  })

  it('keeps letters of sections apart from those of datums', () => {
    const part = demo('winding-spindle')
    const face = (part.route.find((s) => s.kind === 'slot') as { on: string; body: string }) ?? {}
    const datum = {
      kind: 'datum',
      id: 'note99',
      letter: 'A',
      body: face.body,
      on: face.on,
    } as const
    const views = sheetOf({ ...part, notes: [datum] }).groups.map((g) => g.said)
    expect(views).toContain('Section B–B')
    expect(views).not.toContain('Section A–A')
  })

  it('has badges that cover nothing', () => {
    for (const name of ['spindle', 'gauge-cover', 'guide-roller', 'float']) {
      const part = done(changeSheet('sheet', { balloons: true }).run(withSheet(demo(name))))
      const sheet = sheetOf(part)
      expect(overlapsOn(readSheet(writeDrawingSvg(sheet, part.name)))).toEqual([])
      const groups = readSheet(writeDrawingSvg(sheet, part.name))
      for (const [id, label] of sheet.labels) {
        if (label.number === undefined) continue
        const words = groups.find((g) => g.id === id)?.texts.map((t) => t.words)
        expect(words).toContain(String(label.number))
      }
    }
  })
})

const withSheet = (part: Part): Part =>
  part.drawing ? part : done(changeSheet(PLAIN_SHEET.id, {}).run(part))

describe('what a sheet leaves open', () => {
  const shaft = shaftPart([
    { diameter: 20, length: 30 },
    { diameter: 40, length: 12 },
    { diameter: 25, length: 50 },
  ])

  it('is nothing where every face is reached by sizes', () => {
    expect(sheetOf(shaft).told).toEqual([])
  })

  it('is told of a length and of a diameter that are taken off', () => {
    const { labels } = sheetOf(shaft)
    const idOf = (said: string): string => [...labels].find(([, l]) => l.said === said)?.[0] ?? ''
    const short = done(takeOffLabel('sheet', idOf('12')).run(withSheet(shaft)))
    expect(sheetOf(short).told).toEqual([
      '1 label was taken off this sheet.',
      expect.stringMatching(/^No size tells where the faces stand that are/),
    ])
    const thin = done(takeOffLabel('sheet', idOf('⌀25')).run(withSheet(shaft)))
    expect(sheetOf(thin).told[1]).toMatch(/^No size tells ⌀25:/)
    // Its corner can be told by a size that is drawn instead.
    const corner = sheetOf(thin).places.find((p) => Math.abs(p.at.y) > 0)
    const drawn = sheetOf(thin).places.flatMap((p) => {
      const made = drawSize('sheet', {
        kind: 'across',
        end: '',
        body: p.body,
        from: p.key,
        to: p.key,
      })
      return [sheetOf(done(made.run(thin)))]
    })
    expect(corner).toBeDefined()
    expect(drawn.some((d) => saidOn(d).includes('(⌀25)') && d.told.length === 1)).toBe(true)
  })

  it('counts what repeats and what is equal, and sees what is symmetric', () => {
    expect(saidOn(sheetOf(demo('cord-drum')))).toEqual(
      expect.arrayContaining(['2 × 5', '3 × 6', '3 × R3.25', '4 × 3']),
    )
    const sheave = sheetOf(demo('line-sheave'))
    expect(sheave.told).toEqual([])
    expect(saidOn(sheave)).toEqual(expect.arrayContaining(['26', '14', '8']))
  })

  it('is a drawn size whose edge is gone', () => {
    const drawn = drawSize('sheet', {
      kind: 'along',
      end: '',
      body: 'body1',
      from: 'a/b',
      to: 'b/c',
    })
    expect(sheetOf(done(drawn.run(withSheet(shaft)))).told.join()).toContain('has lost an edge')
    expect(drawn.run(done(drawn.run(withSheet(shaft)))).ok).toBe(false)
  })
})

describe('a released drawing', () => {
  const shaft = withSheet(
    shaftPart([
      { diameter: 20, length: 30 },
      { diameter: 40, length: 12 },
    ]),
  )
  const released = (part: Part, mark: string): Part => {
    const labels = [...sheetOf(part).labels].flatMap(([id, { said }]) =>
      isKept(id) ? [{ id, said }] : [],
    )
    const revision: Revision = { mark, words: 'made wider', date: '2026-11-30', by: '', labels }
    return done(release(revision).run(part))
  }
  const widened = (part: Part, from: string, to: string): Part => ({
    ...part,
    sketches: part.sketches.map((s) => ({
      ...s,
      sizes: s.sizes.map((z) => (z.formula === from ? { ...z, formula: to } : z)),
    })),
  })
  /** The marks that stand by what labels say. */
  const marksOn = (part: Part): Record<string, string> => {
    const drawing = sheetOf(part)
    const groups = readSheet(writeDrawingSvg(drawing, part.name))
    const marked = [...drawing.labels].flatMap(([id, { said }]) => {
      const words = groups.find((g) => g.id === id)?.texts.map((t) => t.words) ?? []
      const mark = words.find((w) => /^[A-Z]$/.test(w))
      return mark === undefined ? [] : [[said, mark] as const]
    })
    return Object.fromEntries(marked)
  }

  it('marks what was changed since, and by the last release', () => {
    const a = released(shaft, 'A')
    expect(marksOn(a)).toEqual({})
    const changed = widened(a, '40', '42')
    expect(marksOn(changed)).toEqual({ '⌀42': 'B' })
    const b = released(changed, 'B')
    expect(marksOn(b)).toEqual({ '⌀42': 'B' })
    expect(b.drawing?.title).toMatchObject({ revision: 'B', date: '2026-11-30' })
    expect(marksOn(widened(b, '12', '14'))).toEqual({ '⌀42': 'B', '14': 'C' })
    expect(release({ mark: 'B', words: '', date: '', by: '', labels: [] }).run(b).ok).toBe(false)
  })

  it('tells what is gone, and lists its revisions', () => {
    const a = released(shaft, 'A')
    const id = [...sheetOf(a).labels].find(([, l]) => l.said === '⌀40')?.[0] ?? ''
    const less = sheetOf(done(takeOffLabel('sheet', id).run(a)))
    expect(less.told).toContain('Gone since revision A: ⌀40.')
    const table = readSheet(writeDrawingSvg(less, 'Spindle')).find((g) => g.id === 'revisions')
    expect(table?.texts.map((t) => t.words)).toEqual(
      expect.arrayContaining(['A', 'made wider', '2026-11-30']),
    )
  })

  it('has marks without letters that look like figures, past Z too, and none twice', () => {
    const of = (n: number): Revision[] =>
      Array.from({ length: n }, (_, i) => ({
        ...{ mark: `x${i}`, words: '', date: '', by: '', labels: [] },
      }))
    expect([0, 1, 7, 8].map((n) => nextMark(of(n)))).toEqual(['A', 'B', 'H', 'J'])
    expect(nextMark(of(22))).toBe('AA')
    expect(nextMark(of(23))).toBe('AB')
    expect(nextMark(of(1), ['B', 'C'])).toBe('D')
  })
})

describe('a sheet of what is hard to draw', () => {
  const on = (part: Part): Drawing => {
    const drawing = sheetOf(part)
    expect(overlapsOn(readSheet(writeDrawingSvg(drawing, part.name)))).toEqual([])
    return drawing
  }

  it('shows a millimetre beside three metres', () => {
    const rod = shaftPart([
      { diameter: 40, length: 3000 },
      { diameter: 30, length: 1 },
      { diameter: 20, length: 60 },
    ])
    const drawing = on(rod)
    expect(drawing.told).toEqual([])
    expect(saidOn(drawing)).toEqual(expect.arrayContaining(['3000', '1', '60']))
  })

  it('says which paper or scale is needed where the wished ones are too small', () => {
    const steps = Array.from({ length: 20 }, (_, i) => ({
      ...{ diameter: 20 + (i % 3) * 8, length: 12 + i },
    }))
    const tight = done(
      changeSheet('sheet', { paper: 'A4', scale: '1:1' }).run(withSheet(shaftPart(steps))),
    )
    const drawing = on(tight)
    const [told = ''] = drawing.told
    const [, paper = ''] =
      /^At 1:1 the views do not fit on A4: they do on (A\d)\.$/.exec(told) ?? []
    expect(drawing.labels.size).toBe(40)
    // What is told holds.
    const mended = on(done(changeSheet('sheet', { paper: paper as 'A3' }).run(tight)))
    expect(mended.told).toEqual([])
    expect(mended.labels.size).toBe(40)
    const rod = shaftPart([{ diameter: 60, length: 150 }])
    const large = { paper: 'A4', scale: '5:1' } as const
    const [said] = on(done(changeSheet('sheet', large).run(withSheet(rod)))).told
    const [, scale = ''] = /they do at ([\d:]+), or on A\d\.$/.exec(said ?? '') ?? []
    expect(on(done(changeSheet('sheet', { ...large, scale }).run(withSheet(rod)))).told).toEqual([])
  })

  it('leaves out of very many sizes only what it tells', () => {
    const random = createRandom(3)
    const drawing = on(shaftPart(randomSteps(60, random)))
    const told = /^(\d+) labels? found no room/.exec(drawing.told.join())?.[1] ?? '0'
    expect(drawing.labels.size).toBe(120 - Number(told))
    expect(Number(told)).toBeLessThan(12)
  })
})
