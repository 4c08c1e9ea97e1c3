import { readFileSync } from 'node:fs'
import { beforeAll, describe, expect, test } from 'vitest'
import { stationsOfPlan, stationsOfSolid, type SlicedStation } from '@lathica/core/inspect'
import { readPartFile } from '@lathica/core/formats'
import { settlePlans, type Kernel } from '../src'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

/** Stations along a demo part's first body, from the triangles that its picture is made of. */
function stations(
  name: string,
  chord = 0.05,
): {
  readonly all: SlicedStation[]
  readonly exact: SlicedStation[] | undefined
  readonly volume: number
} {
  const text = readFileSync(new URL(`../../demo/${name}.lathica.json`, import.meta.url), 'utf8')
  const read = readPartFile(text)
  if (!read.ok) throw new Error(read.problem.message)
  const [body] = settlePlans(read.value, (plan) => kernel.weigh(plan)).bodies
  if (!body?.plan || !body.solid) throw new Error(`${name} is a full turn`)
  const { mesh } = kernel.build(body.plan, chord)
  const { volume } = body.solid
  const exact = stationsOfPlan(body.plan, volume, 600)
  return { all: stationsOfSolid(mesh, volume, 600), exact, volume }
}

function at(all: readonly SlicedStation[], x: number): SlicedStation {
  const found = all.reduce((best, s) => (Math.abs(s.x - x) < Math.abs(best.x - x) ? s : best))
  expect(Math.abs(found.x - x)).toBeLessThan(0.5)
  return found
}

/** That a ratio is one to two thousandths, which is what triangles of a picture tell. */
const near = (ratio: number, within = 2e-3): void =>
  expect(Math.abs(ratio - 1)).toBeLessThan(within)

const disc = (outer: number, inner = 0): number => (Math.PI / 4) * (outer ** 2 - inner ** 2)
const quartic = (outer: number, inner = 0): number => (Math.PI / 64) * (outer ** 4 - inner ** 4)

describe('along a solid by its triangles', () => {
  test('the winding wheel has the area that its bore, slots and holes leave', () => {
    const { all, volume } = stations('winding-wheel')
    // A slot of 4 from r 31 outwards: to the rim's arc, which bulges over the chord.
    const half = 2
    const slot =
      half * Math.sqrt(40 ** 2 - half ** 2) + 40 ** 2 * Math.asin(half / 40) - 2 * half * 33
    const wheel = at(all, 4)
    const area = disc(80, 12) - 12 * slot - 6 * disc(12)
    near(wheel.area / area)
    // Six and twelve times the same all round: as stiff whichever way it is bent.
    near(wheel.mostMoment / wheel.secondMoment)
    expect(wheel.outer).toBeCloseTo(80, 2)
    expect(wheel.inner).toBeCloseTo(12, 1)
    const hub = at(all, 18)
    near(hub.area / disc(28, 12))
    near(hub.secondMoment / quartic(28, 12))
    // Both sides of the step between them.
    const step = all.filter((s) => Math.abs(s.x - 9) < 1e-3)
    expect(step.map((s) => Math.round(s.outer))).toEqual([80, 28])
    expect(all.at(-1)?.volume).toBeCloseTo(volume, 6)
    expect(step[0]?.volume).toBeCloseTo(9 * area, -1)
  })

  test('the winding spindle is weaker one way than the other where it has flats', () => {
    const { all } = stations('winding-spindle')
    const end = at(all, 128)
    // ⌀16 between flats 13 apart: ∫2√(R² − t²) dt and its moments, by many strips.
    const [R, h, n] = [8, 6.5, 20_000]
    let [area, least, most] = [0, 0, 0]
    for (let i = 0; i < n; i++) {
      const t = -h + (2 * h * (i + 0.5)) / n
      const half = Math.sqrt(R * R - t * t)
      const strip = (2 * h) / n
      area += 2 * half * strip
      least += 2 * half * t * t * strip
      most += ((2 * half ** 3) / 3) * strip
    }
    near(end.area / area)
    near(end.secondMoment / least)
    near(end.mostMoment / most)
    expect(end.outer).toBeCloseTo(16, 2)
    expect(end.inner).toBe(0)
  })

  test('the guide segment lies off the axis, hollow there', () => {
    const { all, volume } = stations('guide-segment')
    const middle = at(all, 9)
    // A base 3 high over a third of a turn at r 51.5, and two runs of 30.
    near(middle.area / (3 * ((51.5 * 2 * Math.PI) / 3 + 60)))
    expect(middle.inner).toBeCloseTo(100, 1)
    expect(middle.mostMoment).toBeGreaterThan(1.5 * middle.secondMoment)
    expect(all.at(-1)?.volume).toBeCloseTo(volume, 6)
  })
})

describe('along a solid by its exact sections', () => {
  test.each(['winding-wheel', 'winding-spindle', 'end-bearing-housing'])(
    'the %s is told as its triangles tell it',
    (name) => {
      const { all, exact = [], volume } = stations(name, 0.005)
      expect(exact.length).toBeGreaterThan(100)
      let compared = 0
      for (const s of exact) {
        // Only where triangles were cut at just the same place, and on the same side of a step.
        const beside = all.filter((t) => Math.abs(t.x - s.x) < 1e-6)
        const like = beside.find((t) => Math.abs(t.area - s.area) < 3e-3 * s.area)
        if (beside.length === 0) continue
        compared++
        expect([name, s.x, s.area, like?.x]).toEqual([name, s.x, s.area, expect.closeTo(s.x, 5)])
        near((like?.secondMoment ?? 0) / s.secondMoment, 4e-3)
        near((like?.mostMoment ?? 0) / s.mostMoment, 4e-3)
        near((like?.outer ?? 0) / s.outer)
      }
      expect(compared).toBeGreaterThan(20)
      expect(exact.at(-1)?.volume).toBeCloseTo(volume, 6)
    },
  )
})
