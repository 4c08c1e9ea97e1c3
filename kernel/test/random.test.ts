import * as fc from 'fast-check'
import initKernel from 'replicad-opencascadejs'
import { beforeAll, expect, test } from 'vitest'
import { leftNormal } from '@lathica/core/geometry'
import { ORIGIN_ID } from '@lathica/core/sketch'
import { edgeKey, edgesOf } from '@lathica/core/section'
import { createPart, type HolesStep, type NewStep, type Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import {
  addRevolve,
  addStep,
  drawDraft,
  perform,
  steppedShaft,
  type Command,
} from '@lathica/core/edit'
import { KernelFault, settlePlans, type Kernel } from '../src'
import { watertight } from './support'
import { sharedKernel } from './support/kernel'

type Reader = Awaited<ReturnType<typeof initKernel>>
let kernel: Kernel
let reader: Reader
beforeAll(async () => {
  kernel = await sharedKernel()
  reader = await initKernel({ print() {}, printErr() {} })
})

function run(part: Part, ...commands: readonly Command[]): Part {
  return commands.reduce((here, command) => {
    const result = perform(here, command)
    return result.ok ? result.value : here
  }, part)
}

/** So many random parts; 200 of them take some five minutes. */
const RUNS = Number(process.env['LATHICA_RANDOM_PARTS'] ?? 12)

const whole = (min: number, max: number): fc.Arbitrary<number> => fc.integer({ min, max })
const land = fc.record({ radius: whole(8, 30), length: whole(6, 24) })
const work = fc.record({
  kind: fc.constantFrom('holes', 'cross', 'flats', 'keyway', 'slot', 'around', 'halve', 'bore'),
  edge: whole(0, 20),
  a: whole(1, 12),
  b: whole(1, 12),
  count: whole(1, 6),
  angle: whole(0, 350),
  head: fc.constantFrom('none', 'counterbore', 'countersink'),
  reach: fc.constantFrom('depth', 'wall', 'through'),
})
type Work = typeof work extends fc.Arbitrary<infer T> ? T : never

/** The step that a random piece of work is on the part as it stands; nothing where it has no face. */
function stepFor(part: Part, w: Work): NewStep | undefined {
  const section = evaluate(part).bodies[0]?.section ?? { regions: [] }
  const edges = edgesOf(section).filter((e) => e.piece.from.y > 1e-6 || e.piece.to.y > 1e-6)
  const isFace = (e: (typeof edges)[number]): boolean =>
    Math.abs(e.piece.from.x - e.piece.to.x) < 1e-9
  const isOutside = (e: (typeof edges)[number]): boolean => leftNormal(e.piece, 0.5).y < -0.5
  const faces = edges.filter(isFace)
  const cylinders = edges.filter(isOutside)
  const face = faces[w.edge % Math.max(1, faces.length)]
  const cylinder = cylinders[w.edge % Math.max(1, cylinders.length)]
  const hole: Omit<HolesStep, 'id' | 'number' | 'aside'> = {
    ...{ kind: 'holes', body: 'body1', way: 'end', on: '', layout: 'circle', sketch: '' },
    circle: '',
    count: String(w.count),
    ...{ start: String(w.angle), range: '', skip: [], places: [], from: '', distance: '' },
    ...{ diameter: String(w.a / 2 + 1), reach: w.reach, depth: String(w.b + 2), tip: 'cone' },
    ...{ tipAngle: '118', head: w.head, headDiameter: String(w.a + 2), headDepth: '1.3' },
    ...{ headAngle: '90', thread: '' },
  }
  switch (w.kind) {
    case 'holes': {
      if (!face) return undefined
      const middle = face.piece.from.y + face.piece.to.y
      return { ...hole, way: 'end', on: edgeKey(face.name), circle: String(middle) }
    }
    case 'cross':
      return { ...hole, way: 'cross', on: '', distance: String(w.b * 3 + 0.3), head: 'none' }
    case 'flats':
      return {
        ...{ kind: 'flats', body: 'body1', count: String(w.count), measure: 'depth', end: 'right' },
        ...{ size: String(w.a / 4), distance: '', length: String(w.b + 3), phase: String(w.angle) },
      }
    case 'keyway':
      return cylinder
        ? {
            ...{
              kind: 'slot',
              body: 'body1',
              form: 'keyway',
              on: edgeKey(cylinder.name),
              from: '',
            },
            ...{ distance: '0.7', width: String(w.a / 2 + 1), depth: String(w.b / 4 + 0.2) },
            ...{ length: String(w.a + 3), ends: 'round', cutter: '', count: String(w.count) },
            phase: String(w.angle),
          }
        : undefined
    case 'slot':
      return face
        ? {
            ...{ kind: 'slot', body: 'body1', form: 'end', on: edgeKey(face.name), from: '' },
            ...{ distance: '', width: String(w.a / 3 + 0.5), depth: String(w.b / 2), length: '' },
            ...{ ends: 'square', cutter: '', count: String(w.count), phase: String(w.angle) },
          }
        : undefined
    case 'around':
      return {
        ...{ kind: 'around', steps: [part.route.at(-1)?.id ?? ''], count: String(w.count + 1) },
        range: '',
      }
    case 'halve':
      return { kind: 'halve', body: 'body1', angle: String(w.angle), offset: '', into: '' }
    case 'bore':
      return {
        ...{ kind: 'bore', body: 'body1', end: 'left', upTo: '', tip: 'flat', tipAngle: '118' },
        parts: [{ diameter: String(w.a), depth: String(2 * w.b) }],
        ...{ sinkDiameter: '', sinkAngle: '90' },
      }
  }
}

/** The volume of what an exchange file holds, read by a kernel of its own. */
function volumeIn(text: string): number {
  reader.FS.writeFile('/part.step', text)
  const file = new reader.STEPControl_Reader()
  file.ReadFile('/part.step')
  file.TransferRoots(new reader.Message_ProgressRange())
  const shape = file.OneShape()
  const inside = new reader.GProp_GProps()
  reader.BRepGProp.VolumeProperties(shape, inside, 1e-9, false, false)
  const volume = inside.Mass()
  for (const done of [file, shape, inside]) done.delete()
  return volume
}

test('random parts with solid steps are valid, watertight, and the same when they are read back', () => {
  let built = 0
  fc.assert(
    fc.property(
      fc.array(land, { minLength: 1, maxLength: 4 }),
      fc.array(work, { minLength: 1, maxLength: 4 }),
      (lands, works) => {
        const start = createPart({ name: 'Spindle' })
        const sketch = start.sketches[0]?.id ?? ''
        const pairs = lands.map(({ radius, length }) => ({
          diameter: { formula: String(2 * radius), value: 2 * radius },
          length: { formula: String(length), value: length },
        }))
        const draft = steppedShaft({ at: { x: 0, y: 0 }, point: ORIGIN_ID }, pairs)
        let part = run(start, drawDraft('draw', sketch, draft), addRevolve(sketch))
        for (const w of works) {
          const step = stepFor(part, w)
          if (step) part = run(part, addStep(step))
        }
        // Steps that do not fit fail in words; what is left is a sound solid.
        settlePlans(part, (plan) => kernel.weigh(plan))
        const [body] = evaluate(part).bodies
        if (!body?.plan) return
        let solid
        try {
          solid = kernel.build(body.plan, 0.2)
        } catch (error) {
          throw error instanceof KernelFault ? new Error(error.message) : error
        }
        if (!solid.figures) return
        built += 1
        expect(solid.valid).toBe(true)
        expect(watertight(solid.mesh)).toBe(true)
        const plan = { bodyId: 'body1', name: 'spindle', colour: '#888888', plan: body.plan }
        const text = kernel.writeStep([plan], 'Spindle')
        expect(volumeIn(text) / solid.figures.volume).toBeCloseTo(1, 7)
      },
    ),
    { numRuns: RUNS, seed: 20261125 },
  )
  expect(built).toBeGreaterThan(RUNS / 2)
}, 600_000)
