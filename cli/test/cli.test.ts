import { execFile } from 'node:child_process'
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { PartReport } from '@lathica/core/inspect'
import { readPartFile, toDocument } from '@lathica/core/formats'
import { createRepository, openDatabase, storable } from '@lathica/server'
import { spindleVolume } from './support/pappus'
import { main } from '../src/main'

const SPINDLE = fileURLToPath(new URL('../../demo/spindle.lathica.json', import.meta.url))

let folder: string
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'lathica-cli-'))
})
afterEach(async () => {
  await rm(folder, { recursive: true })
})

async function call(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  const written = { out: '', err: '' }
  const stream = (to: 'out' | 'err') => ({
    write: (chunk: string | Uint8Array) => {
      written[to] += typeof chunk === 'string' ? chunk : Buffer.from(chunk).toString('latin1')
    },
  })
  const code = await main(args, { stdout: stream('out'), stderr: stream('err') })
  return { code, ...written }
}

async function file(name: string, text: string): Promise<string> {
  const path = join(folder, name)
  await writeFile(path, text)
  return path
}

/** The demo spindle with its text changed. */
async function changedSpindle(change: (text: string) => string): Promise<string> {
  return file('changed.lathica.json', change(await readFile(SPINDLE, 'utf8')))
}

const VOLUME = spindleVolume()

describe('lathica inspect', () => {
  it('tells mass properties with full digits as JSON', async () => {
    const { code, out } = await call('inspect', SPINDLE, '--json')
    expect(code).toBe(0)
    const report = JSON.parse(out) as PartReport
    const [body] = report.bodies
    expect(body?.volume_mm3).toBeCloseTo(VOLUME, 6)
    expect(body?.mass_g).toBeCloseTo(VOLUME * 7.85e-3, 8)
    expect(body?.material).toBe('steel C45')
    expect(body?.bounds_mm).toEqual({ from: 0, to: 171, diameter: 44 })
    expect(body?.inertia_g_mm2.axis).toBeGreaterThan(0)
    expect(report.sketches).toEqual([
      { name: 'A', freedoms: 0, conflicts: [], regions: 1, faults: [] },
    ])
    expect(report.steps.map((s) => `${s.number} ${s.kind} ${s.status}`)).toEqual([
      '10 revolve done',
      '20 groove done',
      '30 fillet done',
      '40 chamfer done',
      '50 centre done',
      '60 centre done',
    ])
  })

  it('tells the same as text for people', async () => {
    const { code, out } = await call('inspect', SPINDLE)
    expect(code).toBe(0)
    expect(out).toContain('body 1, steel C45')
    expect(out).toMatch(/mass\s+825\.037 g/)
    expect(out).toContain('profile A: 0 freedoms left, 1 region')
    expect(out).toContain('step 10 revolve: done')
  })

  it('exits 1 and names who disagrees when sizes cannot all hold', async () => {
    const path = await changedSpindle((text) => {
      const part = JSON.parse(text) as { sketches: { sizes: object[]; points: { id: string }[] }[] }
      const [sketch] = part.sketches
      const extra = { id: 's99', kind: 'diameter', point: 'p2', name: 'extra', formula: '21' }
      sketch?.sizes.push({ ...extra, reference: false })
      return JSON.stringify(part)
    })
    const { code, out } = await call('inspect', path)
    expect(code).toBe(1)
    expect(out).toContain('conflict: These cannot all hold')
    expect(out).toContain('extra = ⌀21')
  })

  it('exits 1 when a step is not known, and keeps telling the rest', async () => {
    const path = await changedSpindle((text) =>
      text.replace('"kind": "revolve"', '"kind": "knurl"'),
    )
    const { code, out } = await call('inspect', path)
    expect(code).toBe(1)
    expect(out).toContain('step 10 knurl: failed')
    expect(out).toContain('No body yet.')
  })

  it('exits 1 when a size’s formula has no value', async () => {
    const path = await changedSpindle((text) =>
      text.replace('"formula": "112 ±0.15"', '"formula": "112 + bore"'),
    )
    const { code, out } = await call('inspect', path)
    expect(code).toBe(1)
    expect(out).toContain('There is no value or unit called “bore”.')
  })
})

describe('lathica check', () => {
  const demo = (name: string): string =>
    fileURLToPath(new URL(`../../demo/${name}.lathica.json`, import.meta.url))

  it('exits 0 when every row passes', async () => {
    const { code, out } = await call('check', SPINDLE)
    expect(code).toBe(0)
    expect(out).toMatch(/pass {2}mass +0\.82504 kg {3}0\.825 kg ±0\.0005/)
    expect(out).toContain('6 of 6 rows pass.')
  })

  it('exits 1 and says by how much when a row fails', async () => {
    const { code, out } = await call('check', demo('line-sheave'))
    expect(code).toBe(1)
    expect(out).toContain('FAIL  what the drive can carry')
    expect(out).toContain('It lies 0.050531 kg over the limit.')
    expect(out).toContain('5 of 6 rows pass.')
  })

  it('exits 1 when a row cannot be judged, and says why', async () => {
    const path = await changedSpindle((text) =>
      text.replace('"target": "171"', '"target": "171 g"'),
    )
    const { code, out } = await call('check', path)
    expect(code).toBe(1)
    expect(out).toContain('OPEN  overall length')
    expect(out).toContain('This field takes a length; the formula gives a mass.')
  })

  it('tells full digits as JSON, and the sheet as CSV', async () => {
    const { out } = await call('check', SPINDLE, '--json')
    const told = JSON.parse(out) as { sound: boolean; rows: { value: number; verdict: string }[] }
    expect(told.sound).toBe(true)
    expect(told.rows[0]?.value).toBeCloseTo(VOLUME * 7.85e-3, 8)
    expect((await call('check', SPINDLE, '--csv')).out).toContain('mass,,kg,about,0.825')
    expect((await call('check', SPINDLE, '--csv', '--json')).code).toBe(2)
  })
})

describe('lathica export', () => {
  it('writes a binary STL whose chords keep the tolerance', async () => {
    const out = join(folder, 'spindle.stl')
    const fine = join(folder, 'fine.stl')
    expect((await call('export', SPINDLE, '--format', 'stl', '-o', out)).code).toBe(0)
    const args = ['--format', 'stl', '-o', fine, '--tolerance', '0.001']
    expect((await call('export', SPINDLE, ...args)).code).toBe(0)
    const [coarse, better] = [await readFile(out), await readFile(fine)]
    expect(coarse.length).toBe(84 + 50 * coarse.readUInt32LE(80))
    expect(better.readUInt32LE(80)).toBeGreaterThan(2 * coarse.readUInt32LE(80))
  })

  it('writes STEP with exact surfaces, and nothing where nothing is turned', async () => {
    const out = join(folder, 'spindle.step')
    expect((await call('export', SPINDLE, '--format', 'step', '-o', out)).code).toBe(0)
    const text = await readFile(out, 'utf8')
    expect(text).toContain('CYLINDRICAL_SURFACE')
    expect(text.endsWith('END-ISO-10303-21;\n')).toBe(true)
    const empty = await changedSpindle((file) =>
      file.replace('"kind": "revolve"', '"kind": "knurl"'),
    )
    const { code, err } = await call('export', empty, '--format', 'step', '-o', '-')
    expect(code).toBe(4)
    expect(err).toContain('Nothing is turned yet')
  })

  it('writes a part file that reads back as the same part', async () => {
    const { code, out } = await call('export', SPINDLE, '--format', 'json', '-o', '-')
    expect(code).toBe(0)
    expect(readPartFile(out)).toEqual(readPartFile(await readFile(SPINDLE, 'utf8')))
  })

  it('exits 4 when there is nothing to export or nowhere to write it', async () => {
    const empty = await changedSpindle((text) => {
      const part = JSON.parse(text) as { route: unknown[] }
      return JSON.stringify({ ...part, route: [] })
    })
    const nothing = await call('export', empty, '--format', 'stl', '-o', join(folder, 'x.stl'))
    expect(nothing).toMatchObject({ code: 4, out: '' })
    expect(nothing.err).toContain('Nothing is turned yet')
    const nowhere = join(folder, 'no', 'such', 'folder.stl')
    expect((await call('export', SPINDLE, '--format', 'stl', '-o', nowhere)).code).toBe(4)
  })
})

describe('calls that are off', () => {
  it.each([
    [['inspect'], 2, 'needs a file'],
    [['mill', 'x'], 2, 'no command “mill”'],
    [['inspect', 'a', 'b'], 2, 'Only one file'],
    [['inspect', SPINDLE, '--jsn'], 2, '--jsn'],
    [['export', SPINDLE, '-o', 'x'], 2, 'No format is named'],
    [['export', SPINDLE, '--format', 'dxf', '-o', 'x'], 2, 'no format “dxf”'],
    [['export', SPINDLE, '--format', 'stl'], 2, '-o OUT'],
    [['export', SPINDLE, '--format', 'stl', '-o', 'x', '--tolerance', '-1'], 2, 'tolerance'],
    [['inspect', '/no/such/file.json'], 3, 'There is no such file'],
  ])('%j exits %i and says why', async (args, code, why) => {
    const result = await call(...args)
    expect(result.code).toBe(code)
    expect(result.err).toContain(why)
    expect(result.out).toBe('')
  })

  it('with a file that is none exit 3 with a sentence and a mend', async () => {
    const cut = await changedSpindle((text) => text.slice(0, 900))
    expect(await call('inspect', cut)).toMatchObject({ code: 3 })
    expect((await call('inspect', cut)).err).toContain('stops before it is complete')
    const newer = await changedSpindle((text) => text.replace(/"version": \d+/, '"version": 99'))
    expect((await call('inspect', newer)).err).toContain('made by a newer version')
    const huge = await file('huge.json', 'x'.repeat(9_000_000))
    expect((await call('inspect', huge)).err).toContain('too large')
  })

  it('without a command show the usage', async () => {
    expect(await call()).toMatchObject({ code: 2 })
    const help = await call('--help')
    expect(help.code).toBe(0)
    expect(help.out).toContain('Exit codes')
  })
})

describe('the installed command', () => {
  it('runs as a program and passes its exit code on', async () => {
    const bin = fileURLToPath(new URL('../bin/lathica.mjs', import.meta.url))
    const run = promisify(execFile)
    const { stdout } = await run(process.execPath, [bin, 'inspect', SPINDLE])
    expect(stdout).toContain('Spindle')
    const failed = await run(process.execPath, [bin, 'inspect', 'nope']).catch(
      (error: { code: number }) => error,
    )
    expect(failed).toMatchObject({ code: 3 })
  })
})

describe('parts that are no full turn', () => {
  const SEGMENT = SPINDLE.replace('spindle', 'guide-segment')
  // A channel of 18 × 3 and two cheeks of 4 × 9, turned by a third and drawn out by 30 at both ends.
  const area = 18 * 3 + 2 * 4 * 9
  const volume = ((18 * 3 * 51.5 + 72 * 57.5) * 2 * Math.PI) / 3 + 60 * area

  it('are weighed by the solid kernel', async () => {
    const { code, out } = await call('inspect', SEGMENT, '--json')
    const report = JSON.parse(out) as PartReport
    expect(code).toBe(0)
    expect((report.bodies[0]?.volume_mm3 ?? 0) / volume).toBeCloseTo(1, 9)
    expect(report.steps.map((s) => s.status)).toEqual(['done', 'done', 'done'])
  })

  it('are written as exact solids and as triangles', async () => {
    const step = await call('export', SEGMENT, '--format', 'step', '-o', '-')
    expect(step.code).toBe(0)
    expect(step.out).toContain("FILE_NAME('Guide segment'")
    expect(step.out).toContain('MANIFOLD_SOLID_BREP')
    const stl = await call('export', SEGMENT, '--format', 'stl', '-o', '-')
    expect(stl.out.length).toBeGreaterThan(84 + 50 * 300)
  })

  it('that cannot be built say which step, and end with 1', async () => {
    const text = await readFile(SEGMENT, 'utf8')
    const path = await file('wide.lathica.json', text.replace('"turn": "120"', '"turn": "400"'))
    const { code, out } = await call('inspect', path)
    expect(code).toBe(1)
    expect(out).toContain('more than a full turn')
  })
})

describe('lathica import', () => {
  it('makes a part file of an exchange file: the half-section with its sizes', async () => {
    const step = join(folder, 'spindle.step')
    expect((await call('export', SPINDLE, '--format', 'step', '-o', step)).code).toBe(0)
    const out = join(folder, 'came.lathica.json')
    const { code, err } = await call('import', step, '-o', out)
    expect(err).toBe(
      'Its half-section of ⌀44 × 171 is an editable profile now, with 2 chamfers and 4 fillets as steps.\n',
    )
    expect(code).toBe(0)
    const report = JSON.parse((await call('inspect', out, '--json')).out) as PartReport
    expect(report.name).toBe('spindle')
    expect(report.sketches[0]?.freedoms).toBe(0)
    expect((report.bodies[0]?.volume_mm3 ?? 0) / VOLUME).toBeCloseTo(1, 6)
    const written = (await call('import', step, '-o', '-')).out
    expect(readPartFile(written).ok).toBe(true)
  })

  it.each([
    ['a.step', 'nonsense', 'no exchange file of solids'],
    ['a.step', 'ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\nENDSEC;\nEND-ISO-10303-21;', 'file'],
  ])('refuses a file that holds no solid', async (name, text, words) => {
    const { code, err } = await call('import', await file(name, text), '-o', '-')
    expect(code).toBe(3)
    expect(err).toContain(words)
  })

  it.each(['stl', '3mf'])(
    'makes a part with the triangles of a file (%s) to go by',
    async (kind) => {
      const mesh = join(folder, `spindle.${kind}`)
      expect((await call('export', SPINDLE, '--format', kind, '-o', mesh)).code).toBe(0)
      const { code, out, err } = await call('import', mesh, '-o', '-')
      expect(code).toBe(0)
      expect(err).toMatch(/^\d+ triangles stand there to go by\.\n$/)
      const read = readPartFile(out)
      expect(read.ok && read.value.bodies.map((b) => b.reference)).toEqual([false, true])
      const broken = await call('import', await file(`broken.${kind}`, 'no mesh'), '-o', '-')
      expect(broken.code).toBe(3)
      expect(broken.err).toContain('neither an STL file nor a 3MF file')
    },
  )

  it('is told where to write, and says what it cannot', async () => {
    expect((await call('import', SPINDLE)).code).toBe(2)
    expect((await call('import', join(folder, 'none.step'), '-o', '-')).code).toBe(3)
    const step = join(folder, 'spindle.step')
    await call('export', SPINDLE, '--format', 'step', '-o', step)
    const { code, err } = await call('import', step, '-o', join(folder, 'no', 'where.json'))
    expect(code).toBe(4)
    expect(err).toContain('cannot be written')
  })
})

describe('lathica rescue', () => {
  it('saves what a damaged database holds into a new one', async () => {
    const database = join(folder, 'gauge.sqlite')
    const made = await openDatabase(database)
    const repository = createRepository(made)
    const project = await repository.createProject('Skerry Point tide gauge')
    const read = readPartFile(await readFile(SPINDLE, 'utf8'))
    if (!read.ok) throw new Error(read.problem.message)
    await repository.createPart(project, storable(toDocument(read.value)))
    await made.raw('PRAGMA wal_checkpoint(TRUNCATE)')
    await made.destroy()
    const bytes = await readFile(database)
    await writeFile(database, bytes.fill(0xa5, 0, 4096))
    const saved = join(folder, 'saved.sqlite')
    const answer = await call('rescue', database, '-o', saved)
    expect(answer).toEqual({
      ...{ code: 0, err: '' },
      out: `1 part in 1 project and 0 materials are in ${saved}.\n`,
    })
    expect((await call('rescue', database, '-o', saved)).code).toBe(4)
    expect((await call('rescue', join(folder, 'none'), '-o', saved)).code).toBe(3)
    expect((await call('rescue', database)).code).toBe(2)
    const empty = await file('empty.sqlite', '')
    expect((await call('rescue', empty, '-o', join(folder, 'b.sqlite'))).code).toBe(3)
  })
})
