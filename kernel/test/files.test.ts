import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { beforeAll, describe, expect, test } from 'vitest'
import { evaluate, recoveredWords, type RecoveredPart } from '@lathica/core'
import { loadKernel, partFromFile, settlePlans, type Kernel } from '../src'

let kernel: Kernel
beforeAll(async () => {
  kernel = await loadKernel()
})

const textOf = (name: string): string =>
  readFileSync(join(import.meta.dirname, 'files', `${name}.step`), 'utf8')

const came = (name: string): RecoveredPart => partFromFile(kernel, textOf(name), name)

/** The volume of the first body as a share of that of the file's first solid. */
function share(name: string, { part }: RecoveredPart): number {
  settlePlans(part, (plan) => kernel.weigh(plan))
  const [solid] = kernel.read(textOf(name).slice(textOf(name).indexOf('ISO-10303-21')))
  return (evaluate(part).bodies[0]?.solid?.volume ?? 0) / (solid?.volume ?? 1)
}

describe('files of turned solids', () => {
  test.each([
    ['sphere', 'a ball whose own axis is another'],
    ['ballstud-x-spherez', 'a stud along X with a ball about Z'],
    ['torus-skew', 'a ring that stands askew'],
    ['bicone-skew', 'a double cone that stands askew'],
    ['micron-step', 'a step of a micrometre'],
    ['fine-far1m', 'a fine step a metre from the origin'],
    ['bearing-seat-far2m', 'a bearing seat two metres from the origin'],
    ['bom', 'a file that begins with a mark of its byte order'],
    ['closed-shell', 'a skin without a solid'],
  ])('%s: %s comes as an outline, all of it', (name) => {
    const found = came(name)
    expect(found.solids).toEqual([{ isTurned: true, isKept: false }])
    expect(Math.abs(share(name, found) - 1)).toBeLessThan(1e-6)
  })

  test('a step of a micrometre keeps both its diameters', () => {
    const sizes = came('micron-step').part.sketches[0]?.sizes ?? []
    const diameters = sizes.flatMap((s) => (s.kind === 'diameter' ? [Number(s.formula)] : []))
    expect(diameters).toEqual(expect.arrayContaining([20, 20.002]))
  })

  test('a skin with a gap is told to have one', () => {
    const open = textOf('closed-shell').replace(/(CLOSED_SHELL\('',\()#\d+,/, '$1')
    expect(() => partFromFile(kernel, open, 'a')).toThrow(/do not close to a solid/)
  })

  test('remarks before the first word of a file are passed over', () => {
    const text = `/* of the tide gauge */\n ${textOf('micron-step')}`
    expect(partFromFile(kernel, text, 'a').solids[0]?.isTurned).toBe(true)
  })
})

describe('what a half-section does not tell is never passed over', () => {
  test.each([
    ['smallhole-bigdisc', 'a hole hardly to be seen beside a large disc', 6.25e-6],
    ['centre-pin-hole-m1', 'a pin hole off the middle', 4.63e-6],
    ['hole-and-boss-equal', 'a hole and a boss of one volume', 0],
  ])('%s: %s', (name, _words, volume) => {
    const found = came(name)
    const [solid] = found.solids
    expect(solid).toMatchObject({ isTurned: true, isKept: true })
    expect(solid?.departs?.by).toBeGreaterThan(1)
    expect(solid?.departs?.surface).toBeGreaterThan(0)
    expect(Math.abs(solid?.departs?.volume ?? 1)).toBeCloseTo(volume, 7)
    expect(recoveredWords(found)).toMatch(
      /% of the solid’s surface is not turned, up to [\d.]+ mm away: it is handed over as it came/,
    )
  })

  test.each([['noise-0-0001'], ['round4']])(
    '%s: what was rounded on its way is turned, and by how much it departs is told',
    (name) => {
      const found = came(name)
      expect(found.solids).toMatchObject([
        { isTurned: true, isKept: true, departs: { surface: 0 } },
      ])
      expect(found.solids[0]?.departs?.by).toBeLessThan(1e-3)
      expect(recoveredWords(found)).toMatch(/departs from that by up to 0\.000+\d mm/)
    },
  )

  test.each([['box'], ['loft-circles']])('%s is not called turned', (name) => {
    const found = came(name)
    expect(found.solids).toEqual([{ isTurned: false, isKept: true }])
    expect(recoveredWords(found)).toBe('It is not turned: it stands as it came.')
  })
})
