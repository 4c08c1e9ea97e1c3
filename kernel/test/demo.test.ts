import { readFileSync } from 'node:fs'
import { beforeAll, describe, expect, test } from 'vitest'
import { evaluate, type BodyState } from '@lathica/core/route'
import { readPartFile, touchWords } from '@lathica/core/formats'
import { builtGeometry, settlePlans, type Kernel } from '../src'
import { watertight } from './support'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

function bodyOf(name: string): BodyState {
  const text = readFileSync(new URL(`../../demo/${name}.lathica.json`, import.meta.url), 'utf8')
  const read = readPartFile(text)
  if (!read.ok) throw new Error(read.problem.message)
  const state = settlePlans(read.value, (plan) => kernel.weigh(plan))
  expect(state.steps.filter((s) => s.status !== 'done')).toEqual([])
  const [body] = state.bodies
  if (!body?.plan) throw new Error(`${name} is a full turn`)
  const built = kernel.build(body.plan, 0.05)
  expect(built.valid).toBe(true)
  expect(built.figures?.pieces).toBe(1)
  expect(watertight(built.mesh)).toBe(true)
  return body
}

const disc = (outer: number, inner: number, length: number): number =>
  (Math.PI / 4) * (outer ** 2 - inner ** 2) * length

/** Area of a circle of radius R between a chord at a distance and the rim, over a width across. */
function beyond(R: number, from: number, width: number): number {
  const h = width / 2
  return h * Math.sqrt(R * R - h * h) + R * R * Math.asin(h / R) - from * width
}

test('triangles that touch themselves are told: holes that come to slots without a wall', () => {
  const text = readFileSync(
    new URL('../../demo/winding-wheel.lathica.json', import.meta.url),
    'utf8',
  )
  const words = (circle: string): string[] => {
    const read = readPartFile(text.replace('"circle": "50"', `"circle": "${circle}"`))
    if (!read.ok) throw new Error(read.problem.message)
    const state = settlePlans(read.value, (plan) => kernel.weigh(plan))
    return touchWords(state, 0.05, builtGeometry(kernel, state, 0.05))
  }
  expect(words('50')).toEqual([])
  expect(words('54')).toHaveLength(1)
  expect(words('54')[0]).toMatch(/^body 1 touches itself .* at ⌀66, \d+°, .* and 3 more/)
})

describe('demo parts that are no full turn have the volume of closed forms', () => {
  test('the winding wheel: a wheel less its bore, slots and holes', () => {
    const slots = 12 * 9 * beyond(40, 33, 4)
    const holes = 6 * disc(12, 0, 9)
    const wanted = disc(80, 12, 9) + disc(28, 12, 15) - slots - holes
    expect((bodyOf('winding-wheel').solid?.volume ?? 0) / wanted).toBeCloseTo(1, 6)
  })

  test('the guide segment: a third of a turn of its section, and two straight runs of it', () => {
    // The channel's section is a base of 18 × 3 at r 51.5 and two cheeks of 4 × 9 at r 57.5.
    const [base, cheek] = [18 * 3, 4 * 9]
    const area = base + 2 * cheek
    const moment = base * 51.5 + 2 * cheek * 57.5
    const wanted = (moment * 2 * Math.PI) / 3 + 2 * 30 * area
    expect((bodyOf('guide-segment').solid?.volume ?? 0) / wanted).toBeCloseTo(1, 9)
  })

  test('the end bearing housing: two lands less bores, chamfers, holes, and its fillet', () => {
    const square = (1 - Math.PI / 4) * 9
    const bevel = (d: number, out: 1 | -1): number => Math.PI * (d - (out * 2) / 3) * 0.5
    const chamfers = 2 * bevel(92, 1) + bevel(52, 1) + bevel(35, -1)
    const screws = 6 * (disc(11, 0, 6.4) + disc(6.6, 0, 12 - 6.4))
    const pins = 2 * disc(4, 0, 8)
    const bores = disc(35, 0, 15) + disc(24, 0, 25)
    const plain = disc(92, 0, 12) + disc(52, 0, 28) - bores - chamfers - screws - pins
    const fillet = (bodyOf('end-bearing-housing').solid?.volume ?? 0) - plain
    // Between its area at the least and the greatest radius it can lie on.
    expect(fillet).toBeGreaterThan(2 * Math.PI * 26 * square)
    expect(fillet).toBeLessThan(2 * Math.PI * 29 * square)
  })

  test('the winding spindle: what its keyway, hole and flats take, within what they can', () => {
    const body = bodyOf('winding-spindle')
    const lands = disc(24, 0, 30) + disc(30, 0, 46) + disc(24, 0, 34) + disc(16, 0, 26)
    const bevels = Math.PI * 0.5 * (24 - 2 / 3 + 16 - 2 / 3)
    // Two segments of ⌀16 beyond 6.5, along 18.
    const segment = 64 * Math.acos(6.5 / 8) - 6.5 * Math.sqrt(64 - 6.5 ** 2)
    const keyway = 4 * (8 * 28 + 16 * Math.PI)
    const taken = lands - bevels - (body.solid?.volume ?? 0)
    const flats = 2 * 18 * segment
    expect(taken).toBeGreaterThan(0.9 * keyway + 0.9 * flats + disc(5, 0, 22))
    expect(taken).toBeLessThan(keyway + flats + disc(5, 0, 24))
  })

  test('the can’s bail joins on both sides and leaves the inside free', () => {
    const body = bodyOf('sampling-can')
    // Nothing of it lies in the can: the inside is a cylinder of ⌀60 from its floor up.
    const corner = (Math.PI / 4) * 1.5 ** 2 * 2 * Math.PI * (30 + (4 * 1.5) / (3 * Math.PI))
    const can = disc(63, 60, 70) + disc(60, 0, 1.5) + corner
    const rod = (body.solid?.volume ?? 0) - can
    const path = 2 * (38 + (Math.PI / 2) * 31)
    expect(rod / (disc(4, 0, 1) * path)).toBeGreaterThan(0.8)
    expect(rod / (disc(4, 0, 1) * path)).toBeLessThan(1)
  })
})

describe('the gauge cover', () => {
  test('has the volume of its closed form: disc, hub, window, leaning pad and screw holes', () => {
    const bevel = (d: number): number => Math.PI * (d / 2 - 1 / 3)
    const tan = Math.tan((5 * Math.PI) / 180)
    const [a, b] = [16, 14]
    const [c, d] = [a - 6 * tan, b - 6 * tan]
    const pad = (3 / 6) * (a * b + 4 * ((a + c) / 2) * ((b + d) / 2) + c * d)
    const sunk = (Math.PI / 12) * 2.25 * (9 ** 2 + 9 * 4.5 + 4.5 ** 2)
    const screws = 4 * (sunk + disc(4.5, 0, 8 - 2.25))
    const wanted =
      disc(90, 0, 8) + disc(30, 0, 14) - bevel(90) - bevel(30) - 16 * 18 * 8 + pad - screws
    expect((bodyOf('gauge-cover').solid?.volume ?? 0) / wanted).toBeCloseTo(1, 7)
  })

  test('is drawn in ink: no sketch of it can move', () => {
    const text = readFileSync(
      new URL('../../demo/gauge-cover.lathica.json', import.meta.url),
      'utf8',
    )
    const read = readPartFile(text)
    if (!read.ok) throw new Error(read.problem.message)
    const free = [...evaluate(read.value).sketches.values()].map((s) => s.solution.freedoms)
    expect(free).toEqual([0, 0, 0, 0])
  })
})
