import { readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { changeStep, perform } from '../src/edit'
import { readPartFile } from '../src/formats'
import type { HolesStep, Part } from '../src/part'
import { evaluate, stepRules, type StepGrip } from '../src/route'
import { createRandom } from '../src/solver'
import { METRIC, type UnitSettings } from '../src/units'

const INCHES: UnitSettings = { length: 'in', angle: 'rad', mass: 'lb' }

const housing = (): Part => demo('end-bearing-housing')

function demo(name: string): Part {
  const file = new URL(`../../demo/${name}.lathica.json`, import.meta.url)
  const read = readPartFile(readFileSync(file, 'utf8'))
  if (!read.ok) throw new Error(read.problem.message)
  return read.value
}

/** The part with other fields of its holes. */
function withHoles(part: Part, fields: Partial<HolesStep>): Part {
  const { id } = holesOf(part)
  const result = perform(
    part,
    changeStep(id, (s) => ({ ...s, ...fields }) as HolesStep),
  )
  if (!result.ok) throw new Error(result.problem.message)
  return result.value
}

function holesOf(part: Part): HolesStep {
  const found = part.route.find((s) => s.kind === 'holes')
  if (found?.kind !== 'holes') throw new Error('there are no holes')
  return found
}

function gripsOf(part: Part): readonly StepGrip[] {
  const state = evaluate(part).steps.find((s) => s.stepId === holesOf(part).id)
  expect(state?.problem).toBeUndefined()
  return state?.grips ?? []
}

interface To {
  readonly far: number
  readonly angle: number
  readonly straight?: boolean
  readonly units?: UnitSettings
}

/** The part with one of its holes taken elsewhere; undefined where it may not go. */
function moved(part: Part, grip: StepGrip, { far, angle, straight = false, units = METRIC }: To) {
  const step = holesOf(part)
  const to = { x: far * Math.cos(angle), y: far * Math.sin(angle) }
  const next = stepRules(step).moved?.(step, grip, { to, straight, units })
  return next && withHoles(part, next as HolesStep)
}

const farOf = ({ at }: StepGrip): number => Math.hypot(at.x, at.y)
const angleOf = ({ at }: StepGrip): number => Math.atan2(at.y, at.x)
/** How far one angle is from another, either way. */
const apart = (a: number, b: number): number =>
  Math.abs(Math.atan2(Math.sin(a - b), Math.cos(a - b)))
const gripAt = (part: Part, number: number): StepGrip => {
  const found = gripsOf(part).find((g) => g.number === number)
  if (!found) throw new Error(`there is no hole ${number}`)
  return found
}

describe('holes taken hold of', () => {
  test('go where they are taken, and all of their circle with them', () => {
    const random = createRandom(21)
    const part = housing()
    const all = gripsOf(part)
    expect(all.length).toBeGreaterThan(3)
    for (let i = 0; i < 40; i++) {
      const grip = all[Math.floor(random() * all.length)]
      if (!grip) continue
      const [far, angle] = [farOf(grip) - 2 + 2 * random(), 7 * random() - 3.5]
      const next = moved(part, grip, { far, angle })
      if (!next) throw new Error('it did not move')
      const now = gripsOf(next)
      expect(now.length).toBe(all.length)
      const own = gripAt(next, grip.number)
      // To half a millimetre of the circle, and a degree.
      expect(Math.abs(farOf(own) - far)).toBeLessThan(0.1251)
      expect(apart(angleOf(own), angle)).toBeLessThan(Math.PI / 360 + 1e-9)
      const [first, second] = now
      if (!first || !second) throw new Error('there are no others')
      expect(farOf(second)).toBeCloseTo(farOf(first), 9)
      expect(apart(angleOf(second) - angleOf(first), (2 * Math.PI) / all.length)).toBeLessThan(1e-9)
      const { circle, start } = holesOf(next)
      expect(Number(circle) % 0.5).toBe(0)
      expect(Number(start) % 1).toBe(0)
    }
  })

  test('go straight out or round, whichever is more', () => {
    const part = housing()
    const grip = gripAt(part, 2)
    const out = moved(part, grip, {
      far: farOf(grip) - 2,
      angle: angleOf(grip) + 0.01,
      straight: true,
    })
    expect(out && holesOf(out)).toMatchObject({ start: holesOf(part).start })
    expect(out && holesOf(out).circle).not.toBe(holesOf(part).circle)
    const round = moved(part, grip, {
      far: farOf(grip) - 0.5,
      angle: angleOf(grip) + 0.5,
      straight: true,
    })
    expect(round && holesOf(round)).toMatchObject({ circle: holesOf(part).circle })
    expect(round && holesOf(round).start).not.toBe(holesOf(part).start)
  })

  test('stay where names of values say so', () => {
    const plain = housing()
    const value = { name: 'pitch', measure: 'length', formula: '2 * 37' } as const
    const part = withHoles({ ...plain, values: [...plain.values, value] }, { circle: 'pitch' })
    const grip = gripAt(part, 1)
    const turned = moved(part, grip, { far: 30, angle: angleOf(grip) + 0.5 })
    expect(turned && holesOf(turned).circle).toBe('pitch')
    expect(turned && Number(holesOf(turned).start)).toBe(59)
    const held = withHoles(part, { start: 'pitch * 1deg / 1mm' })
    expect(moved(held, gripAt(held, 1), { far: 30, angle: 1 })).toBeUndefined()
  })

  test('at places of their own go by themselves', () => {
    const places = [
      { diameter: '74', angle: '0' },
      { diameter: '70', angle: '120' },
    ]
    const part = withHoles(housing(), { layout: 'places', places })
    const next = moved(part, gripAt(part, 2), { far: 36, angle: Math.PI / 2 })
    expect(next && holesOf(next).places).toEqual([places[0], { diameter: '72', angle: '90' }])
  })

  test('across turn, and stay where they are along the axis', () => {
    const part = withHoles(housing(), {
      way: 'cross',
      on: '',
      count: '3',
      distance: '4',
      reach: 'depth',
      depth: '2',
      head: 'none',
      diameter: '2',
    })
    const grip = gripAt(part, 1)
    const next = moved(part, grip, { far: 500, angle: angleOf(grip) + 0.35 })
    expect(next && holesOf(next)).toMatchObject({
      start: '50',
      distance: '4',
      circle: holesOf(part).circle,
    })
  })

  test('in a sketch are moved there, and in inches come to inches', () => {
    const part = housing()
    expect(
      gripsOf(withHoles(part, { layout: 'places', places: [{ diameter: '74', angle: '0' }] })),
    ).toHaveLength(1)
    const grip = gripAt(part, 1)
    const step = { ...holesOf(part), circle: '2.9', start: '0' }
    const to = { x: 36 * Math.cos(angleOf(grip)), y: 36 * Math.sin(angleOf(grip)) }
    const next = stepRules(step).moved?.(step, grip, { to, straight: false, units: INCHES })
    expect(next).toMatchObject({ circle: '2.82', start: '0' })
  })

  test('flats and slots go where they are taken, round the axis and, flats, out from it', () => {
    const random = createRandom(22)
    const part = demo('winding-spindle')
    for (const kind of ['flats', 'slot'] as const) {
      const step = part.route.find((s) => s.kind === kind)
      if (!step || step.kind === 'unknown') throw new Error(`there is no ${kind}`)
      const gripsIn = (p: Part): readonly StepGrip[] =>
        evaluate(p).steps.find((s) => s.stepId === step.id)?.grips ?? []
      expect(gripsIn(part).length).toBeGreaterThan(0)
      for (const grip of gripsIn(part)) {
        for (let i = 0; i < 8; i++) {
          const [far, angle] = [farOf(grip) - 1.5 * random(), 6 * random()]
          const to = { x: far * Math.cos(angle), y: far * Math.sin(angle) }
          const next = stepRules(step).moved?.(step, grip, { to, straight: false, units: METRIC })
          if (!next) throw new Error('it did not move')
          const result = perform(
            part,
            changeStep(step.id, () => next),
          )
          if (!result.ok) throw new Error(result.problem.message)
          const now = gripsIn(result.value).find((g) => g.number === grip.number)
          if (!now) throw new Error('it is gone')
          expect(apart(angleOf(now), angle)).toBeLessThan(Math.PI / 360 + 1e-9)
          expect(now.at.z).toBeCloseTo(grip.at.z, 9)
          const meant = kind === 'flats' ? far : farOf(grip)
          expect(Math.abs(farOf(now) - meant)).toBeLessThan(0.2501)
        }
      }
    }
  })
})
