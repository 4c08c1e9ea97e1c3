import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import Papa from 'papaparse'
import { describe, expect, test } from 'vitest'
import {
  EXPORTERS,
  createPart,
  evaluate,
  perform,
  readPartFile,
  sectionArea,
  setValue,
  type Part,
} from '../src'

function demo(name: string): Part {
  const file = fileURLToPath(new URL(`../../demo/${name}.lathica.json`, import.meta.url))
  const read = readPartFile(readFileSync(file, 'utf8'))
  if (!read.ok) throw new Error(read.problem.message)
  return read.value
}

function written(id: string, part: Part): string {
  const made = EXPORTERS.find((e) => e.id === id)?.write(evaluate(part), {
    ...{ tolerance: 0.01, at: new Date(0) },
  })
  if (!made?.ok) throw new Error(made?.problem.message)
  return String(made.value)
}

type Place = readonly [number, number]

/** Places along a path of moves, lines, arcs of circles and cubics (SVG 1.1, section 8.3 and appendix F.6). */
function placesOf(path: string): Place[][] {
  const runs: Place[][] = []
  let here: Place = [0, 0]
  for (const [, command, rest = ''] of path.matchAll(/([MLACZ])([^MLACZ]*)/g)) {
    const n = (rest.match(/-?[\d.]+/g) ?? []).map(Number)
    const run = runs.at(-1)
    const to = [n.at(-2) ?? 0, n.at(-1) ?? 0] as const
    if (command === 'M') runs.push([to])
    else if (command === 'L') run?.push(to)
    else if (command === 'C') {
      const [a = 0, b = 0, c = 0, d = 0] = n
      for (let i = 1; i <= 200; i++) {
        const [t, s] = [i / 200, 1 - i / 200]
        const w = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t] as const
        run?.push([
          w[0] * here[0] + w[1] * a + w[2] * c + w[3] * to[0],
          w[0] * here[1] + w[1] * b + w[2] * d + w[3] * to[1],
        ])
      }
    } else if (command === 'A') {
      const [r = 0, , , large = 0, sweep = 0] = n
      const [dx, dy] = [(here[0] - to[0]) / 2, (here[1] - to[1]) / 2]
      const off = Math.sqrt(Math.max(0, (r * r) / (dx * dx + dy * dy) - 1))
      const side = large === sweep ? -1 : 1
      const [cx, cy] = [
        side * off * dy + (here[0] + to[0]) / 2,
        -side * off * dx + (here[1] + to[1]) / 2,
      ]
      const from = Math.atan2(here[1] - cy, here[0] - cx)
      let turn = Math.atan2(to[1] - cy, to[0] - cx) - from
      if (sweep === 1 && turn < 0) turn += 2 * Math.PI
      if (sweep === 0 && turn > 0) turn -= 2 * Math.PI
      for (let i = 1; i <= 200; i++) {
        const angle = from + (turn * i) / 200
        run?.push([cx + r * Math.cos(angle), cy + r * Math.sin(angle)])
      }
    }
    if (command !== 'Z') here = to
  }
  return runs
}

const areaOf = (run: readonly Place[]): number =>
  run.reduce((sum, [x, y], i) => {
    const [u, v] = run[(i + 1) % run.length] ?? [x, y]
    return sum + (x * v - u * y) / 2
  }, 0)

describe('a section as SVG', () => {
  test.each(['spindle', 'float', 'ink-funnel', 'line-sheave', 'counterweight'])(
    'of the %s fills what the section fills, above the axis and below it',
    (name) => {
      const part = demo(name)
      const fills = [...written('svg', part).matchAll(/fill-rule="evenodd"[^>]* d="([^"]*)"/g)]
      const bodies = evaluate(part).bodies.filter((b) => !b.reference)
      expect(fills).toHaveLength(bodies.length)
      bodies.forEach((body, i) => {
        const runs = placesOf(fills[i]?.[1] ?? '')
        const [above, below] = [runs.slice(0, runs.length / 2), runs.slice(runs.length / 2)]
        const area = sectionArea(body.section)
        const filled = (half: readonly Place[][]): number =>
          Math.abs(half.reduce((sum, run) => sum + areaOf(run), 0))
        expect(filled(above) / area).toBeCloseTo(1, 4)
        expect(filled(below) / area).toBeCloseTo(1, 4)
        expect(above.flat().every(([, y]) => y <= 1e-6)).toBe(true)
        expect(below.flat().every(([, y]) => y >= -1e-6)).toBe(true)
      })
    },
  )

  test('has its true size, the edges without the axis, and the circles of its end', () => {
    const text = written('svg', demo('spindle'))
    const [, width, height] = /width="([\d.]+)mm" height="([\d.]+)mm"/.exec(text) ?? []
    // 171 long, ⌀44, twice 5 beside, and 15 between the views.
    expect([Number(width), Number(height)]).toEqual([171 + 44 + 10 + 15, 44 + 10])
    const edges = / fill="none" stroke-width="0.5" stroke-linecap="round" d="([^"]*)"/.exec(text)
    const runs = placesOf(edges?.[1] ?? '')
    expect(runs).toHaveLength(2)
    expect(runs.every((run) => Math.abs(run[0]?.[1] ?? 1) < 1e-9)).toBe(true)
    expect(text).toContain('r="22"')
    expect(text).toMatch(/r="14" stroke-width="0.25" stroke-dasharray/)
    expect(text).toContain('<title>Spindle</title>')
  })

  test('stands upright where the part does, and says what it does not show', () => {
    expect(written('svg', demo('float'))).toContain('rotate(-90)')
    expect(written('svg', demo('spindle'))).not.toContain('rotate')
    expect(written('svg', demo('end-bearing-housing'))).toContain(
      'holes, flats and slots are not shown',
    )
    const named = { ...demo('spindle'), name: 'Spindle <A> & "B"' }
    expect(written('svg', named)).toContain('<title>Spindle &lt;A&gt; &amp; &quot;B&quot;</title>')
  })
})

describe('sizes as CSV', () => {
  const rows = (part: Part): Record<string, string>[] =>
    Papa.parse<Record<string, string>>(written('csv', part), { header: true, skipEmptyLines: true })
      .data

  test('are all of a part, with what they come to', () => {
    const part = demo('spindle')
    const all = rows(part)
    expect(all).toHaveLength(
      part.values.length + part.sketches.reduce((sum, s) => sum + s.sizes.length, 0),
    )
    const first = all.find((row) => row['name'] === 'dia1')
    expect(first).toMatchObject({ of: 'profile A', formula: '20 k6', value: '20', unit: 'mm' })
  })

  test('are in the units of the part, and say what is wrong', () => {
    const inch: Part = { ...demo('spindle'), units: { length: 'in', angle: 'rad', mass: 'lb' } }
    const state = evaluate(inch).sketches.get(inch.sketches[0]?.id ?? '')
    const size = inch.sketches[0]?.sizes[1]
    const row = rows(inch).find((r) => r['name'] === size?.name)
    expect(row?.['unit']).toBe('in')
    expect(Number(row?.['value'])).toBeCloseTo((state?.measured.get(size?.id ?? '') ?? 0) / 25.4, 9)
    const made = perform(
      demo('spindle'),
      setValue({ name: 'wall', formula: '2*3', measure: 'length' }),
    )
    if (!made.ok) throw new Error(made.problem.message)
    expect(rows(made.value)[0]).toMatchObject({
      of: 'part',
      name: 'wall',
      value: '6',
      kind: 'typed',
    })
    const { part } = { part: made.value }
    const broken = { ...part, values: part.values.map((v) => ({ ...v, formula: '2*' })) }
    expect(rows(broken)[0]).toMatchObject({ name: 'wall', value: '', kind: 'wrong' })
  })

  test('are refused where there are none', () => {
    const made = EXPORTERS.find((e) => e.id === 'csv')?.write(
      evaluate(createPart({ name: 'Empty' })),
      {
        ...{ tolerance: 0.01, at: new Date(0) },
      },
    )
    expect(made).toMatchObject({ ok: false, problem: { code: 'export.nothing' } })
  })
})
