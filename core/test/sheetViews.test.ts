import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { drawnPlaces, drawSheet, type Drawing } from '../src/drawing'
import { changeEnlarged, changeSheet, enlarge, takeOffLabel } from '../src/edit'
import { readPartFile, writeDrawingSvg } from '../src/formats'
import { radiusOf } from '../src/geometry'
import {
  PLAIN_DRAWING,
  PLAIN_SHEET,
  type DrawnSize,
  type MoveStep,
  type Part,
  type SheetSetup,
} from '../src/part'
import { evaluate } from '../src/route'
import { cornersOf, edgeKey, edgesOf } from '../src/section'
import { addNote } from '../src/notes'
import type { KnurlForm } from '../src/standards'
import { createRandom } from '../src/solver'
import { must } from './support/parts'
import { overlapsOn, readSheet, type ReadGroup } from './support/sheetReader'
import { shaftPart } from './support/shafts'

function demo(name: string): Part {
  const url = new URL(`../../demo/${name}.lathica.json`, import.meta.url)
  const read = readPartFile(readFileSync(url, 'utf8'))
  if (!read.ok) throw new Error(read.problem.message)
  return read.value
}

function drawn(
  part: Part,
  change: Partial<SheetSetup> = {},
): Drawing & { groups: Drawing['groups'] } {
  const drawing = { ...PLAIN_DRAWING, sheets: [{ ...PLAIN_SHEET, ...change }] }
  const made = drawSheet(evaluate({ ...part, drawing }))
  if (!made) throw new Error('nothing is drawn')
  return made
}

const readOf = (drawing: Drawing): ReadGroup[] => readSheet(writeDrawingSvg(drawing, 'Rod'))

const viewOn = (groups: readonly ReadGroup[]): ReadGroup => {
  const view = groups.find((g) => g.role === 'view')
  if (!view) throw new Error('there is no view')
  return view
}

const saidOn = ({ labels }: Drawing): string[] => [...labels.values()].map((l) => l.said).sort()

/** Level wide lines above the centre line, from the left. */
function landsOn(view: ReadGroup) {
  const axis = view.lines.get('centre')?.[0]?.a.y ?? NaN
  return (view.lines.get('wide') ?? [])
    .filter(({ a, b }) => Math.abs(a.y - b.y) < 1e-6 && a.y < axis - 1e-6)
    .map(({ a, b }) => ({ from: Math.min(a.x, b.x), to: Math.max(a.x, b.x), radius: axis - a.y }))
    .sort((a, b) => a.from - b.from)
}

const ROD = shaftPart([
  { diameter: 12, length: 20 },
  { diameter: 16, length: 300 },
  { diameter: 10, length: 24 },
])

describe('a long plain stretch', () => {
  it('is broken where the part needs less paper then, and its length stands all the same', () => {
    const [broken, whole] = [drawn(ROD), drawn(ROD, { long: 'whole' })]
    expect(broken.paper.width).toBeLessThan(whole.paper.width)
    expect(broken.scale.by).toBe(whole.scale.by)
    expect(saidOn(broken)).toEqual(saidOn(whole))
    const lands = landsOn(viewOn(readOf(broken)))
    expect(lands.map((l) => l.radius)).toEqual([6, 8, 8, 5].map((r) => expect.closeTo(r, 6)))
    // In the gap the axis goes on, and nothing else.
    const [, left, right] = lands
    expect((right?.from ?? 0) - (left?.to ?? 0)).toBeCloseTo(3, 6)
    expect(landsOn(viewOn(readOf(whole)))).toHaveLength(3)
  })

  it('is as it is where the part has room for it', () => {
    const short = shaftPart([
      { diameter: 12, length: 20 },
      { diameter: 16, length: 60 },
    ])
    expect(readOf(drawn(short))).toEqual(readOf(drawn(short, { long: 'whole' })))
  })

  it('is left open between its two lines, whatever the part', () => {
    const random = createRandom(11)
    const between = (from: number, to: number): number => from + Math.floor(random() * (to - from))
    let count = 0
    for (let i = 0; i < 40; i++) {
      const part = shaftPart([
        { diameter: between(8, 16), length: between(5, 40) },
        { diameter: between(17, 30), length: between(100, 900) },
        { diameter: between(31, 40), length: between(5, 30) },
        { diameter: between(8, 16), length: between(5, 900) },
      ])
      const [drawing, whole] = [drawn(part), drawn(part, { long: 'whole' })]
      const groups = readOf(drawing)
      expect(overlapsOn(groups)).toEqual([])
      expect(saidOn(drawing)).toEqual(saidOn(whole))
      const view = viewOn(groups)
      const lands = landsOn(view)
      lands.slice(1).forEach((land, n) => {
        const before = lands[n]
        if (!before || land.from - before.to < 1) return
        count += 1
        // Each of the two lines goes aside by less than a millimetre.
        const [from, to] = [before.to + 1, land.from - 1]
        const inGap = [...view.lines]
          .filter(([kind]) => kind !== 'centre')
          .flatMap(([, lines]) => lines)
          .filter(({ a, b }) => Math.max(a.x, b.x) > from && Math.min(a.x, b.x) < to)
        expect(inGap).toEqual([])
      })
    }
    expect(count).toBeGreaterThan(10)
  })

  it('keeps notes, sections and drawn sizes with what they are of', () => {
    const state = evaluate(ROD)
    const section = state.bodies[0]?.section
    const ends = cornersOf(section ?? { regions: [] }).filter((c) => c.at.y > 1)
    const far = ends.reduce((a, b) => (b.at.x > a.at.x ? b : a))
    const drawing = drawn(ROD)
    const right = Math.max(...landsOn(viewOn(readOf(drawing))).map((l) => l.to))
    const place = drawing.places.find((p) => p.key === far.key)
    expect(place?.at.x).toBeCloseTo(right, 6)
  })
})

describe('a view cut open', () => {
  it('shows what is hollow, and no more', () => {
    const part = demo('spindle')
    const view = viewOn(readOf(drawn(part)))
    const axis = view.lines.get('centre')?.[0]
    const xs = landsOn(view).flatMap((l) => [l.from, l.to])
    const [left, right] = [Math.min(...xs), Math.max(...xs)]
    // The centre holes at both ends are 6 mm and 5 mm deep; hatching slants.
    const hatch = (view.lines.get('narrow') ?? []).filter(
      ({ a, b }) => Math.abs(Math.abs(a.x - b.x) - Math.abs(a.y - b.y)) < 1e-6 && a.y !== b.y,
    )
    expect(hatch.length).toBeGreaterThan(4)
    for (const { a, b } of hatch) {
      expect(Math.max(a.y, b.y)).toBeLessThan((axis?.a.y ?? 0) + 1e-6)
      const nearest = Math.min(
        ...[a, b].map((p) => Math.min(Math.abs(p.x - left), Math.abs(p.x - right))),
      )
      expect(nearest).toBeLessThan(13)
    }
    const outside = viewOn(readOf(drawn(part, { view: 'outside' })))
    expect((outside.lines.get('narrow') ?? []).length).toBeLessThan(
      (view.lines.get('narrow') ?? []).length,
    )
  })

  it('is a half section where all is hollow', () => {
    const part = demo('ink-flask')
    const cut = (change: Partial<SheetSetup>) => viewOn(readOf(drawn(part, change))).lines
    const [local, half] = [cut({ view: 'local' }), cut({ view: 'half' })]
    expect(local.get('wide')?.length).toBe(half.get('wide')?.length)
    expect(local.get('narrow')?.length).toBe(half.get('narrow')?.length)
  })
})

describe('a place drawn larger by hand', () => {
  const part = { ...demo('spindle'), drawing: { ...PLAIN_DRAWING, sheets: [PLAIN_SHEET] } }
  const corners = cornersOf(evaluate(part).bodies[0]?.section ?? { regions: [] })
  const shoulder = corners.find((c) => Math.abs(c.at.x - 66) < 1 && c.at.y > 15)
  const place = { body: evaluate(part).bodies[0]?.bodyId ?? '', corner: shoulder?.key ?? '' }
  const detailsOn = (of: Part): string[] =>
    drawSheet(evaluate(of))?.groups.flatMap((g) =>
      g.said.startsWith('Detail') && g.role === 'view' ? [g.said] : [],
    ) ?? []

  it('has a letter, a circle and the sizes in it, and is changed and taken off', () => {
    const larger = must(part, enlarge('sheet', place, 4))
    const id = larger.drawing?.sheets[0]?.enlarged[0]?.id ?? ''
    expect(detailsOn(larger)).toHaveLength(detailsOn(part).length + 1)
    const { labels } = drawSheet(evaluate(larger)) ?? {}
    expect(labels?.get(id)?.said).toMatch(/^Detail [A-Z]$/)
    expect(overlapsOn(readOf(drawSheet(evaluate(larger)) as Drawing))).toEqual([])
    const changed = must(larger, changeEnlarged('sheet', id, { scale: '10:1', radius: 3 }))
    expect(detailsOn(changed).some((said) => said.endsWith('10:1'))).toBe(true)
    expect(detailsOn(must(changed, takeOffLabel('sheet', id)))).toEqual(detailsOn(part))
  })

  it('is refused twice, and with no circle', () => {
    const larger = must(part, enlarge('sheet', place, 4))
    expect(enlarge('sheet', place, 4).run(larger).ok).toBe(false)
    const id = larger.drawing?.sheets[0]?.enlarged[0]?.id ?? ''
    expect(changeEnlarged('sheet', id, { radius: 0 }).run(larger).ok).toBe(false)
  })

  it('is told where its edge is gone, or its scale is none', () => {
    const gone = must(part, enlarge('sheet', { ...place, corner: 'step99/gone' }, 4))
    expect(drawSheet(evaluate(gone))?.told.join()).toContain('lost its edge')
    const larger = must(part, enlarge('sheet', place, 4))
    const id = larger.drawing?.sheets[0]?.enlarged[0]?.id ?? ''
    const odd = must(larger, changeEnlarged('sheet', id, { scale: 'large' }))
    expect(drawSheet(evaluate(odd))?.told.join()).toContain('“large” is no scale')
  })
})

describe('lengths that run from a chosen edge', () => {
  const steps = [10, 14, 18, 22].map((d, i) => ({ diameter: d + 4, length: 10 + 3 * i }))
  const part = shaftPart(steps)
  const state = evaluate(part)
  const body = state.bodies[0]?.bodyId ?? ''
  const at = cornersOf(state.bodies[0]?.section ?? { regions: [] }).find(
    (c) => Math.abs(c.at.x - 10) < 1e-6 && c.at.y > 1,
  )

  it('begin there', () => {
    const originAt = { body, corner: at?.key ?? '' }
    const drawing = drawn(part, { lengths: 'running', origin: 'edge', originAt })
    expect(drawing.told).toEqual([])
    const place = drawing.places.find((p) => p.key === at?.key)
    // The circle where they begin stands under the edge.
    const rings = drawing.groups.flatMap((g) =>
      g.role !== 'size'
        ? []
        : g.items.flatMap((i) =>
            i.kind === 'stroke'
              ? i.runs.flat().flatMap((p) => (p.kind === 'arc' ? [p.centre.x] : []))
              : [],
          ),
    )
    expect(rings.length).toBeGreaterThan(0)
    for (const x of rings) expect(x).toBeCloseTo(place?.at.x ?? NaN, 6)
  })

  it('say when it is gone', () => {
    const change = {
      lengths: 'running',
      origin: 'edge',
      originAt: { body, corner: 'step3/gone' },
    } as const
    expect(drawn(part, change).told.join()).toContain('The edge that lengths ran from is gone')
    const asked = changeSheet('sheet', change).run({ ...part, drawing: PLAIN_DRAWING })
    expect(asked.ok).toBe(true)
  })
})

describe('sizes of a body that is moved later', () => {
  it('stand where it is now', () => {
    const plain = shaftPart([
      { diameter: 30, length: 20 },
      { diameter: 20, length: 40 },
    ])
    const move: MoveStep = {
      ...{ kind: 'move', id: 'step9', number: 20, aside: false, body: 'body1', into: 'body1' },
      ...{ along: '55', turn: '', beside: '', towards: '' },
    }
    const moved: Part = { ...plain, route: [...plain.route, move] }
    const [still, now] = [plain, moved].map((part) => {
      const groups = readOf(drawn(part))
      // How far it is moved is a size, too.
      const left = landsOn(viewOn(groups))[0]?.from ?? NaN
      return groups
        .filter((g) => g.role === 'size' && !g.id.startsWith('step/step9'))
        .map((g) => [g.id, ...g.heads.map((h) => Math.round((h.x - left) * 1e6) / 1e6)])
    })
    // The drawing of it is the same wherever it stands.
    expect(now).toEqual(still)
    expect(evaluate(moved).steps.at(-1)?.status).toBe('done')
  })
})

describe('what a drawing shows of a face', () => {
  it('is a knurl in part, its lines as its form has them', () => {
    const rod = shaftPart([
      { diameter: 30, length: 40 },
      { diameter: 20, length: 30 },
    ])
    const state = evaluate(rod)
    const land = edgesOf(state.bodies[0]?.section ?? { regions: [] }).find(
      ({ piece }) => Math.abs(piece.from.y - 15) < 1e-6 && Math.abs(piece.to.y - 15) < 1e-6,
    )
    const on = land ? edgeKey(land.name) : ''
    const narrowOn = (form: KnurlForm | undefined) => {
      const note = form && { kind: 'knurl' as const, body: 'body1', on, form, pitch: '0.8' }
      return viewOn(readOf(drawn(note ? must(rod, addNote(note)) : rod))).lines.get('narrow') ?? []
    }
    expect(narrowOn(undefined)).toEqual([])
    const angles: readonly (readonly [KnurlForm, readonly number[]])[] = [
      ['RAA', [0]],
      ['RGE', [-30, 30]],
      ['RKE', [0, 90]],
    ]
    for (const [form, ways] of angles) {
      const lines = narrowOn(form)
      expect(lines.length).toBeGreaterThan(2)
      const told = lines.map(({ a, b }) => {
        const turn = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI
        return Math.round(turn > 90.5 ? turn - 180 : turn < -89.5 ? turn + 180 : turn)
      })
      expect([...new Set(told)].sort((p, q) => p - q)).toEqual(ways)
    }
  })

  it('is a ball where an arc lies about the axis', () => {
    const part = demo('float')
    const [shell, ...others] = part.sketches
    const arc = shell?.entities.find((e) => e.kind === 'arc')
    if (!shell || !arc) throw new Error('the dome is gone')
    const size = {
      ...{ kind: 'radius', id: 's99', name: 'dome', curve: arc.id, formula: '' },
      ...{ reference: true, label: { x: 0, y: 0 } },
    } as const
    const sketch = { ...shell, sizes: [...shell.sizes, size] } as typeof shell
    expect(saidOn(drawn({ ...part, sketches: [sketch, ...others] }))).toContain('(SR40)')
  })
})

describe('sizes that are drawn', () => {
  it('are angles between faces and radii of rounded ones, as measured', () => {
    const part = demo('spindle')
    const state = evaluate(part)
    const places = drawn(part).places
    // A chamfer of 45° beside the land it is on, and the rounded shoulder.
    const edges = edgesOf(state.bodies[0]?.section ?? { regions: [] })
    const slanted = edges.find(
      ({ piece: { kind, from, to } }) =>
        kind === 'line' && Math.abs(Math.abs(from.x - to.x) - Math.abs(from.y - to.y)) < 1e-6,
    )
    const level = edges.find(
      ({ piece: { kind, from, to } }) =>
        kind === 'line' && Math.abs(from.y - 22) < 1e-6 && Math.abs(to.y - 22) < 1e-6,
    )
    const round = edges.find(({ piece }) => piece.kind === 'arc' && radiusOf(piece) > 1.4)
    if (!slanted || !level || !round) throw new Error('the faces are gone')
    const [a, b, c] = [slanted, level, round].map((e) => edgeKey(e.name))
    expect(places.map((p) => p.key)).toEqual(expect.arrayContaining([a, b, c]))
    const own = { body: 'body1', id: '' }
    const sheet: Partial<SheetSetup> = {
      drawn: [
        { ...own, id: 'drawn1', kind: 'angle', end: '', from: a ?? '', to: b ?? '' },
        { ...own, id: 'drawn2', kind: 'radius', end: '', from: c ?? '', to: c ?? '' },
        { ...own, id: 'drawn3', kind: 'angle', end: '', from: b ?? '', to: b ?? '' },
      ],
    }
    const made = drawn(part, sheet)
    expect(saidOn(made)).toEqual(expect.arrayContaining(['(45°)', '(R1.5)']))
    expect(overlapsOn(readOf(made))).toEqual([])
    // What has no angle is told as lost.
    expect(made.told.join()).toContain('1 size that was drawn has lost an edge')
  })

  it('are between two bodies as well, and lost with either', () => {
    const part = demo('guide-roller')
    const state = evaluate(part)
    const [one, other] = state.bodies.map((b) => drawnPlaces(state, b.bodyId)[0])
    if (!one || !other) throw new Error('the bodies are gone')
    const size: DrawnSize = {
      ...{ id: 'drawn1', body: one.body, from: one.key, to: other.key, other: other.body },
      ...{ kind: 'radial', end: '' },
    }
    const apart = Math.abs(one.at.y - other.at.y)
    expect(apart).toBeGreaterThan(0.1)
    const said = `(${Number(apart.toFixed(3))})`
    expect(saidOn(drawn(part, { drawn: [size] }))).toContain(said)
    const gone = drawn(part, { drawn: [{ ...size, other: 'body99' }] })
    expect(gone.told.join()).toContain('1 size that was drawn has lost an edge')
  })
})
