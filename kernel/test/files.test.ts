import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { beforeAll, describe, expect, test } from 'vitest'
import { countWords, recoveredWords, type RecoveredPart } from '@lathica/core/recover'
import { readFileSaid } from '@lathica/core/formats'
import { partFromFile, settlePlans, type Kernel } from '../src'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

const textOf = (name: string): string =>
  readFileSync(join(import.meta.dirname, 'files', `${name}.step`), 'utf8')

const came = (name: string): RecoveredPart => partFromFile(kernel, textOf(name), name)

/** The volume of the first body as a share of that of the file's first solid. */
function share(name: string, { part }: RecoveredPart): number {
  const state = settlePlans(part, (plan) => kernel.weigh(plan))
  const [solid] = kernel.read(textOf(name).slice(textOf(name).indexOf('ISO-10303-21')))
  return (state.bodies[0]?.solid?.volume ?? 0) / (solid?.volume ?? 1)
}

const NONE = { volume: 1, area: 1, distance: 1, surface: 1 }

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
    expect(found.solids).toMatchObject([{ isTurned: true, isKept: false }])
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
    ['smallhole-bigdisc', 'a hole hardly to be seen beside a large disc', ['1 hole']],
    ['centre-pin-hole-m1', 'a pin hole off the middle', ['1 hole']],
    ['bolt-holes', 'a flange with holes on a circle', ['6 holes']],
  ])('%s: %s is a step, and what is rebuilt is what came', (name, _words, steps) => {
    const found = came(name)
    const [solid] = found.solids
    expect(solid).toMatchObject({ isTurned: true, isKept: false })
    expect(solid?.steps.map(countWords)).toEqual(steps)
    const { volume, area, distance, surface } = solid?.comparison ?? NONE
    expect([volume, area, distance].map((v) => Math.abs(v) < 1e-6)).toEqual([true, true, true])
    expect(surface).toBe(0)
    expect(Math.abs(share(name, found) - 1)).toBeLessThan(1e-6)
  })

  test('a boss of the volume of a hole: the hole is a step, the solid stands as it came', () => {
    const found = came('hole-and-boss-equal')
    const [solid] = found.solids
    expect(solid).toMatchObject({ isTurned: true, isKept: true })
    expect(solid?.steps.map(countWords)).toEqual(['1 hole'])
    const { volume, distance, surface } = solid?.comparison ?? NONE
    expect(distance).toBeGreaterThan(1)
    expect(surface).toBeGreaterThan(0)
    // The boss is missing in what was rebuilt.
    expect(volume).toBeLessThan(-1e-3)
    expect(found.part.bodies.map((b) => b.reference)).toEqual([true, false])
    expect(recoveredWords(found)).toMatch(
      /% of the solid’s surface is not made by that, up to [\d.]+ mm away: it is handed over as it came/,
    )
  })

  test.each([['noise-0-0001'], ['round4']])(
    '%s: what was rounded on its way is turned, and by how much it departs is told',
    (name) => {
      const found = came(name)
      expect(found.solids).toMatchObject([
        { isTurned: true, isKept: true, comparison: { surface: 0 } },
      ])
      expect(found.solids[0]?.comparison?.distance).toBeLessThan(1e-3)
      expect(recoveredWords(found)).toMatch(/departs from that by up to 0\.000+\d mm/)
    },
  )

  test.each([['box'], ['loft-circles']])('%s is not called turned', (name) => {
    const found = came(name)
    expect(found.solids).toMatchObject([{ isTurned: false, isKept: true }])
    expect(recoveredWords(found)).toBe('It is not turned: it stands as it came.')
  })
})

describe('files of many features', () => {
  test('a shaft of 120 grooves comes as an outline, all of it', () => {
    const found = came('grooves-120')
    expect(found.solids).toMatchObject([{ isTurned: true, isKept: false }])
    expect(found.solids[0]?.comparison?.distance).toBeLessThan(1e-6)
    expect(Math.abs(found.solids[0]?.comparison?.volume ?? 1)).toBeLessThan(1e-6)
  })

  test('a disc of 300 holes comes with ten circles of thirty, and tells how far it has come', () => {
    const words: string[] = []
    const found = partFromFile(kernel, textOf('holes-300'), 'Sieve', (p) => words.push(p.words))
    expect(found.solids).toMatchObject([{ isTurned: true, isKept: false }])
    expect(found.solids[0]?.steps.map(countWords)).toEqual(Array(10).fill('30 holes'))
    expect(words).toEqual([
      'Reading the file',
      'Taking the faces of the solid',
      'Looking for the profile and the steps of the solid',
    ])
  })
})

describe('what a file says of its solids', () => {
  test('names and colours of the products of an assembly, each where it stands', () => {
    const { part } = came('assembly')
    expect(part.bodies.map((b) => [b.name, b.colour])).toEqual([
      ['shaft', '#ff0000'],
      ['ring', '#00ff00'],
      ['ring 2', '#00ff00'],
    ])
    const starts = settlePlans(part, (plan) => kernel.weigh(plan)).bodies.map((b) => b.solid?.from)
    expect(starts.map((x) => Math.round((x ?? 0) - (starts[1] ?? 0)))).toEqual([-30, 0, 12])
  })

  test('inches, where its unit is an inch: its sizes are round in these', () => {
    // An inch by the file’s own words instead of a millimetre.
    const inch =
      '#9001=(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.));#9002=LENGTH_MEASURE_WITH_UNIT(LENGTH_MEASURE(25.4),#9001);#9003=DIMENSIONAL_EXPONENTS(1.,0.,0.,0.,0.,0.,0.);'
    const text = textOf('bolt-holes')
      .replace(
        /\(\s*LENGTH_UNIT\(\)\s*NAMED_UNIT\(\*\)\s*SI_UNIT\(\.MILLI\.,\.METRE\.\)\s*\)/g,
        "(CONVERSION_BASED_UNIT('INCH',#9002)LENGTH_UNIT()NAMED_UNIT(#9003))",
      )
      .replace('DATA;', `DATA;\n${inch}`)
    const { part, solids } = partFromFile(kernel, text, 'flange')
    expect(part.units.length).toBe('in')
    // What may be off is stated in the file's unit: as many inches as it was millimetres.
    const [stated, was] = [text, textOf('bolt-holes')].map((t) => readFileSaid(t).uncertainty)
    expect(was).toBeGreaterThan(0)
    expect(stated).toBeCloseTo(25.4 * (was ?? 0), 12)
    expect(solids).toMatchObject([{ isTurned: true, isKept: false }])
    const holes = part.route.find((s) => s.kind === 'holes')
    expect(holes).toMatchObject({ diameter: '9', circle: '90', count: '6' })
  })
})
