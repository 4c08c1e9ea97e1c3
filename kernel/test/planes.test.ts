import { readFile, readdir } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import { beforeAll, describe, expect, test } from 'vitest'
import { place, type Place } from '@lathica/core/geometry'
import { planeCalled, type SolidPlan } from '@lathica/core/solid'
import { createPart, type ExtrudeStep, type NewStep, type Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import {
  addSketch,
  addStep,
  bringSolids,
  drawDraft,
  endExtrudeOf,
  extrudeOf,
  offeredHoleAt,
  offeredSlotAcross,
  offeredStep,
  rectangle,
  revolveOf,
} from '@lathica/core/edit'
import { readPartFile } from '@lathica/core/formats'
import { builtGeometry, settlePlans, solidsFromFile, type Kernel } from '../src'
import { bodyOf, changeBy, key, problemOf, run, spindle } from './support'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

const folder = fileURLToPath(new URL('../../demo/', import.meta.url))
const square = rectangle({ at: { x: -3, y: -2 } }, { at: { x: 3, y: 2 } })
const lastStep = (part: Part): string => part.route.at(-1)?.id ?? ''

/** The spindle with a pocket of 6 × 4 in its end face, 5 deep. */
function pocketed(): Part {
  const part = run(spindle(), addSketch('end'))
  const id = part.sketches.at(-1)?.id ?? ''
  const drawn = run(part, drawDraft('draw', id, square))
  const on = key(drawn, 'face at 90')
  const step = endExtrudeOf(id, 'body1', 'cut', on, bodyOf(drawn).section, drawn.units)
  return run(drawn, addStep({ ...step, length: '5' } as NewStep, 1))
}

/** How many faces of a solid are known as planes; all of them lie there, material behind them. */
function planesThatLie(plan: SolidPlan, label: string): number {
  const { positions, normals, indices, faces } = kernel.build(plan, 0.1).mesh
  let found = 0
  for (const { name: face, start, count } of faces) {
    const plane = planeCalled(plan, face)
    if (!plane) continue
    found++
    for (const v of new Set(indices.subarray(start, start + count))) {
      const [x = 0, y = 0, z = 0] = positions.subarray(3 * v, 3 * v + 3)
      const { at, into } = plane
      const off = (x - at.x) * into.x + (y - at.y) * into.y + (z - at.z) * into.z
      expect(Math.abs(off), `${label} ${face}`).toBeLessThan(1e-4)
      const [nx = 0, ny = 0, nz = 0] = normals.subarray(3 * v, 3 * v + 3)
      const facing = nx * into.x + ny * into.y + nz * into.z
      expect(facing, `${label} ${face}`).toBeCloseTo(-1, 4)
    }
  }
  return found
}

describe('plane faces of solids', () => {
  test('of all demo parts lie where they are told to, material behind them', async () => {
    let found = 0
    for (const name of await readdir(folder)) {
      const read = readPartFile(await readFile(folder + name, 'utf8'))
      if (!read.ok) throw new Error(read.problem.message)
      const state = settlePlans(read.value, (plan) => kernel.weigh(plan))
      for (const { plan } of state.bodies) if (plan) found += planesThatLie(plan, name)
    }
    expect(found).toBeGreaterThan(30)
  }, 120_000)

  test('of what came in a file, moved and mirrored, take holes and slots', () => {
    // A plate of 30 × 20 × 12 that stands beside the axis of the file.
    const empty = run(createPart({ name: 'Plate' }), addSketch('end'))
    const id = empty.sketches.at(-1)?.id ?? ''
    const plate = run(
      empty,
      drawDraft('draw', id, rectangle({ at: { x: 10, y: -10 } }, { at: { x: 40, y: 10 } })),
      addStep({
        ...endExtrudeOf(id, 'body1', 'add', '', bodyOf(empty).section, empty.units),
        length: '12',
      } as NewStep),
    )
    const { step: text = '' } = builtGeometry(kernel, evaluate(plate), 0.1)
    const part = run(
      createPart({ name: 'Gauge' }),
      bringSolids(solidsFromFile(kernel, text), 'plate'),
    )
    const came = evaluate(part).bodies[1]
    const whole = came?.plan && kernel.weigh(came.plan)?.volume
    expect(came?.plan && planesThatLie(came.plan, 'plate')).toBe(6)
    expect(whole).toBeCloseTo(30 * 20 * 12, 6)

    const body = came?.bodyId ?? ''
    const section = came?.section ?? { regions: [] }
    const square = (plan: SolidPlan | undefined, way: 1 | -1): string => {
      const names = plan ? kernel.build(plan, 0.1).mesh.faces.map((f) => f.name) : []
      const found = names.find(
        (n) => plan && Math.abs((planeCalled(plan, n)?.into.z ?? 0) - way) < 1e-9,
      )
      if (found === undefined) throw new Error('no face is square to the axis')
      return found
    }
    const volumeAfter = (here: Part, ...steps: readonly NewStep[]): number => {
      const after = run(here, ...steps.map((s) => addStep(s)))
      expect(problemOf(after)).toBe('')
      const { plan } = evaluate(after).bodies[1] ?? {}
      return (plan && kernel.weigh(plan)?.volume) ?? 0
    }
    const middle = (solid: SolidPlan | undefined): Place =>
      (solid && kernel.weigh(solid)?.centre) ?? place(0, 0, 0)
    const hole = offeredHoleAt(
      body,
      square(came?.plan, -1),
      middle(came?.plan),
      section,
      part.units,
    )
    const flat = { diameter: '4', tip: 'flat' }
    const blind = { ...hole, ...flat, reach: 'depth', depth: '3' } as NewStep
    const through = { ...hole, ...flat, reach: 'through' } as NewStep
    expect(volumeAfter(part, blind)).toBeCloseTo(7200 - Math.PI * 4 * 3, 6)
    expect(volumeAfter(part, through)).toBeCloseTo(7200 - Math.PI * 4 * 12, 6)
    const slot = { ...offeredSlotAcross(body, square(came?.plan, 1), section, part.units) }
    const across = { ...slot, width: '5', depth: '2' } as NewStep
    expect(volumeAfter(part, across)).toBeCloseTo(7200 - 20 * 5 * 2, 6)
    const side = came?.plan?.ops.flatMap((op) => (op.kind === 'combine' ? op.tools : []))
    const sides = side?.[0]?.kind === 'file' ? side[0].planes : []
    const lengthwise = sides.find(([, , , , , , nz = 0]) => Math.abs(nz) < 0.5)?.[0] ?? 0
    const importId = came?.plan?.ops[0]?.step ?? ''
    const wrong = { ...blind, on: `${importId}/f${lengthwise}` } as NewStep
    expect(problemOf(run(part, addStep(wrong)))).toContain('not square to the axis')

    // Where it is moved to and its image the same faces are found.
    const moved = {
      ...offeredStep('move', body, section, undefined, part.units),
      ...{ along: '5', turn: '20', beside: '3', towards: '40', into: body },
    } as NewStep
    const there = run(part, addStep(moved))
    const { plan } = evaluate(there).bodies[1] ?? {}
    expect(plan && planesThatLie(plan, 'moved')).toBe(6)
    const mirror = {
      ...offeredStep('mirror', body, section, undefined, part.units),
      ...{ way: 'across', about: '', at: '40', into: body, steps: [] },
    } as NewStep
    const both = evaluate(run(there, addStep(mirror))).bodies[1]?.plan
    expect(both && planesThatLie(both, 'mirrored')).toBe(12)
    const again = offeredHoleAt(body, square(plan, 1), middle(plan), section, part.units)
    expect(
      volumeAfter(there, { ...again, ...flat, reach: 'depth', depth: '3' } as NewStep),
    ).toBeCloseTo(7200 - Math.PI * 4 * 3, 6)
  })

  test('carry end sketches: a deeper pocket in the floor of a pocket', () => {
    const part = pocketed()
    const pocket = lastStep(part)
    const grown = run(part, addSketch('end'))
    const id = grown.sketches.at(-1)?.id ?? ''
    const small = rectangle({ at: { x: -1, y: -1 } }, { at: { x: 1, y: 1 } })
    const drawn = run(grown, drawDraft('draw', id, small))
    const { plan, section } = bodyOf(drawn)
    const floor = ['first', 'last']
      .map((end) => `${pocket}/${end}`)
      .find((name) => plan && Math.abs((planeCalled(plan, name)?.at.z ?? 0) - 85) < 1e-9)
    expect(floor).toBeDefined()
    const step = endExtrudeOf(id, 'body1', 'cut', floor ?? '', section, drawn.units)
    const deeper = run(drawn, addStep({ ...step, length: '3' } as NewStep))
    expect(changeBy(kernel, deeper)).toBeCloseTo(-24 * 5 - 4 * 3, 6)
    // Material is added out of it.
    const post = run(drawn, addStep({ ...step, effect: 'add', length: '3' } as NewStep))
    expect(changeBy(kernel, post)).toBeCloseTo(-24 * 5 + 4 * 3, 6)
    // From 2 before the end face it goes as deep as the pocket.
    const upTo = { on: key(drawn, 'face at 90'), reach: 'face', upTo: floor ?? '', offset: '2' }
    const level = run(drawn, addStep({ ...step, ...upTo, effect: 'add' } as NewStep))
    expect(changeBy(kernel, level)).toBeCloseTo(-24 * 5 + 4 * 7, 6)
    const side = `${pocket}/nothing`
    expect(problemOf(run(drawn, addStep({ ...step, on: side } as NewStep)))).toContain('plane face')
    expect(problemOf(run(drawn, addStep({ ...step, on: 'gone/first' } as NewStep)))).toContain(
      'no longer there',
    )
  })

  test('end what is drawn out of a half-section, and part turns', () => {
    const flats = {
      ...offeredStep('flats', 'body1', bodyOf(spindle()).section, undefined, spindle().units),
      ...{ count: '1', measure: 'depth', size: '5', phase: '90' },
    } as NewStep
    const milled = run(spindle(), addStep(flats), addSketch())
    const id = milled.sketches.at(-1)?.id ?? ''
    const bar = rectangle({ at: { x: 92, y: 2 } }, { at: { x: 96, y: 4 } })
    const drawn = run(milled, drawDraft('draw', id, bar))
    const step = extrudeOf(id, 'body1', 'add', bodyOf(drawn).section, drawn.units)
    const face = `${drawn.route.at(-1)?.id ?? ''}/start`
    const { plan } = bodyOf(drawn)
    // The flat at 90° lies level with the half-section at 0°, 5 beside it.
    expect(plan && planeCalled(plan, face)?.at.y).toBeCloseTo(5, 9)
    const before = changeBy(kernel, drawn)
    const upTo = { reach: 'face', upTo: face } as Partial<ExtrudeStep>
    const out = run(drawn, addStep({ ...step, ...upTo } as NewStep))
    expect(changeBy(kernel, out) - before).toBeCloseTo(4 * 2 * 5, 6)
    const across = { ...upTo, plane: '30' }
    expect(problemOf(run(drawn, addStep({ ...step, ...across } as NewStep)))).toContain('level')

    // Halved at 0°, the plane through the axis is at ±90°.
    const halve = {
      ...offeredStep('halve', 'body1', bodyOf(spindle()).section, undefined, spindle().units),
      ...{ angle: '0', offset: '', into: '' },
    } as NewStep
    const half = run(spindle(), addStep(halve), addSketch())
    const ring = half.sketches.at(-1)?.id ?? ''
    const ringed = run(
      half,
      drawDraft('draw', ring, rectangle({ at: { x: 92, y: 4 } }, { at: { x: 94, y: 6 } })),
    )
    const own = ringed.route.at(-1)?.id ?? ''
    const through = ['near', 'end', 'far', 'start']
      .map((edge) => `${own}/${edge}`)
      .find((name) => {
        const { plan: halved } = bodyOf(ringed)
        const plane = halved && planeCalled(halved, name)
        return plane && Math.abs(plane.at.x * plane.into.x + plane.at.y * plane.into.y) < 1e-9
      })
    const turn = {
      ...revolveOf(ring, 'body1', 'add'),
      turnTo: through ?? '',
      phase: '0',
    } as NewStep
    const halved = changeBy(kernel, ringed)
    const washer = Math.PI * (36 - 16) * 2
    expect(changeBy(kernel, run(ringed, addStep(turn))) - halved).toBeCloseTo(washer / 4, 6)
    const more = { ...turn, phase: '-45' } as NewStep
    expect(changeBy(kernel, run(ringed, addStep(more))) - halved).toBeCloseTo((3 * washer) / 8, 6)
    const beside = { ...turn, turnTo: face } as NewStep
    expect(problemOf(run(drawn, addStep({ ...beside, sketch: id } as NewStep)))).toContain(
      'not lie in a plane through the axis',
    )
  })
})
