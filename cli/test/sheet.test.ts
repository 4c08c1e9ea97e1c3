import { execFile } from 'node:child_process'
import { mkdtemp, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { main } from '../src/main'

/** PDFs are read by general tools of Debian's packages. */
const run = promisify(execFile)

const demo = (name: string): string =>
  fileURLToPath(new URL(`../../demo/${name}.lathica.json`, import.meta.url))

let folder: string
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'lathica-sheet-'))
})
afterEach(async () => {
  await rm(folder, { recursive: true })
})

async function call(...args: string[]): Promise<{ code: number; err: string }> {
  let err = ''
  const code = await main(args, {
    stdout: { write: () => true },
    stderr: { write: (chunk) => (err += String(chunk)) },
  })
  return { code, err }
}

/** The sheet of a demo part as PDF, checked and read. */
async function sheetOf(name: string): Promise<{ words: string; info: string; path: string }> {
  const path = join(folder, `${name}.pdf`)
  expect(await call('sheet', demo(name), '-o', path)).toEqual({ code: 0, err: '' })
  await run('qpdf', ['--check', path])
  const { stdout: words } = await run('pdftotext', ['-layout', path, '-'])
  const { stdout: info } = await run('pdfinfo', [path])
  return { words, info, path }
}

describe('lathica sheet', () => {
  it('writes a PDF in true size, in which every size is found', async () => {
    const { words, info, path } = await sheetOf('spindle')
    for (const size of [
      'Ø20 k6',
      'Ø28',
      'Ø44',
      'Ø35 k6',
      'Ø24 k6',
      'Ø13.7',
      '112 ±0.15',
      '8 ±0.05',
    ]) {
      expect(words).toContain(size)
    }
    for (const note of [
      'M16×1.5-6g',
      'ISO 6411 - B 2/6.3',
      'Ra 0.8',
      'A-B',
      'ISO 2768-m',
      '825.0 g',
      '20 k6: +0.015/+0.002',
    ]) {
      expect(words).toContain(note)
    }
    expect(info).toMatch(/Title:\s+Spindle/)
    expect(info).toMatch(/Page size:\s+1190\.55 x 841\.89 pts \(A3\)/)
    await run('pdftoppm', ['-r', '40', '-gray', path, join(folder, 'page')])
    const picture = await readFile(join(folder, 'page-1.pgm'))
    const dark = picture.subarray(-661 * 467).filter((grey) => grey < 200).length
    // Some ink, and mostly paper.
    expect(dark / (661 * 467)).toBeGreaterThan(0.005)
    expect(dark / (661 * 467)).toBeLessThan(0.3)
  })

  it('calls out holes on the view of the end they are in', async () => {
    const { words } = await sheetOf('end-bearing-housing')
    for (const line of ['6 × Ø6.6', 'Ø11', 'on Ø74', 'first at 30°', '2 × Ø4']) {
      expect(words).toContain(line)
    }
  })

  it('lists the bodies of a part of several', async () => {
    const { words } = await sheetOf('float')
    expect(words).toMatch(/2\s+1\s+rod\s+brass CuZn39Pb3/)
    expect(words).toMatch(/1\s+1\s+shell\s+copper Cu-ETP/)
  })

  it('is written as what its file is called, and says so where that is nothing', async () => {
    const path = join(folder, 'spindle.svg')
    expect((await call('sheet', demo('spindle'), '-o', path)).code).toBe(0)
    expect(await readFile(path, 'utf8')).toContain('width="420mm" height="297mm"')
    const wrong = await call('sheet', demo('spindle'), '-o', join(folder, 'spindle.doc'))
    expect(wrong.code).toBe(2)
    expect(wrong.err).toContain('-o OUT.pdf or OUT.svg')
  })
})

describe('lathica plan', () => {
  it('writes what was measured as a report, in which every piece is found', async () => {
    const path = join(folder, 'spindle.pdf')
    expect(await call('plan', demo('spindle'), '-o', path)).toEqual({ code: 0, err: '' })
    await run('qpdf', ['--check', path])
    const { stdout: words } = await run('pdftotext', ['-layout', path, '-'])
    expect(words).toContain('5 pieces: 4 good, 1 bad, 0 open')
    expect(words).toMatch(/4\s+length\s+112 ±0.15\s+111.85\s+112.15\s+mm\s+caliper.*112.18/)
    expect(words).toContain('out of their limits: 4')
  })

  it('writes the same as CSV, and says which files it writes', async () => {
    const path = join(folder, 'spindle.csv')
    expect(await call('plan', demo('spindle'), '-o', path)).toEqual({ code: 0, err: '' })
    const lines = (await readFile(path, 'utf8')).trim().split('\r\n')
    expect(lines[0]).toBe(
      'number,what,drawing,nominal,lower,upper,unit,instrument,field,1,2,3,4,5,out',
    )
    expect(lines.find((l) => l.startsWith('4,'))).toMatch(
      /^4,length,112 ±0.15,112,111.85,112.15,mm,caliper,[A-F]\d,.*,112.18,.*,1$/,
    )
    const wrong = await call('plan', demo('spindle'), '-o', join(folder, 'spindle.txt'))
    expect(wrong.code).toBe(2)
    expect(wrong.err).toContain('OUT.csv or OUT.pdf')
  })
})
