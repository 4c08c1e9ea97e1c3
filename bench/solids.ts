import { readFileSync } from 'node:fs'
import { readPartFile } from '@lathica/core/formats'
import type { Step } from '@lathica/core/part'
import { evaluate, type BodyState } from '@lathica/core/route'
import { closedMesh, meshBends } from '@lathica/core/mesh'
import { PART_FRAME, line, place, vec } from '@lathica/core/geometry'
import { profileOf, solidProperties, type Section } from '@lathica/core/section'
import {
  prismTool,
  rectangleOf,
  turnedTool,
  type SolidOp,
  type SolidPlan,
} from '@lathica/core/solid'
import { WARM_ROUNDS, loadKernel, warm, type Kernel } from '@lathica/kernel'
import { atMost, type Row } from './row'

/** Bodies that are no full turn, as the page's thread builds them: picture, figures and check. */
export async function solidRows(): Promise<Row[]> {
  const start = performance.now()
  const kernel = await loadKernel()
  for (let round = 0; round < WARM_ROUNDS; round++) warm(kernel, round)
  const ready = performance.now() - start

  const lift = median(5, (i) => ({ base: shaft(100, i), ops: [] }), kernel)
  const circle = median(5, (i) => ({ base: shaft(100, 10 + i), ops: [holes(12, 0, 0)] }), kernel)
  const picture = pictureOf(kernel, { base: shaft(100, 30), ops: [holes(12, 0, 0)] })
  const wall = wallOf(kernel, { base: shaft(100, 40), ops: [holes(12, 0, 0)] })
  const late = lateChange(kernel)
  const exact = solidProperties(shaft(100, 0))
  const { figures } = kernel.build({ base: shaft(100, 0), ops: [] }, TOLERANCE)
  const volume = Math.abs((figures?.volume ?? 0) / (exact?.volume ?? 1) - 1)
  const area = Math.abs((figures?.area ?? 0) / (exact?.area ?? 1) - 1)
  const rebuild = (i: number): void => {
    kernel.build({ base: shaft(20, 100 + i), ops: [holes(2, 0, i)] }, 0.5)
  }
  // What is kept for the next change is full before it is looked whether more is held.
  for (let i = 0; i < KEPT; i++) rebuild(i)
  const before = kernel.memory()
  for (let i = 0; i < REBUILDS; i++) rebuild(KEPT + i)
  const grown = (kernel.memory() - before) / 1e6
  return [
    atMost('solid kernel ready: loaded and compiled', ready, 'ms', 2000),
    atMost('first lift of 100 edges, weighed', lift, 'ms', 150),
    atMost('the same with a circle of 12 holes', circle, 'ms', 400),
    atMost('a circle of 12 counterbored holes changed and weighed', drilled(), 'ms', 20),
    atMost('the same and pictured', drilled(pictured), 'ms', 60),
    atMost(
      'a circle of 300 holes changed, weighed and pictured',
      drilled(pictured, 300),
      'ms',
      1000,
    ),
    atMost('a keyway beside flats and a cross hole changed and weighed', milled(), 'ms', 20),
    atMost('that and pictured', milled(pictured), 'ms', 60),
    atMost('change in the last of 10 solid steps, weighed', late, 'ms', 300),
    atMost('triangles and check of the 12 holes besides', picture, 'ms', 400),
    atMost('the least wall of the same, by rays and then exactly', wall, 'ms', 3000),
    atMost('lifted volume against the section', volume, 'of it', 1e-9),
    atMost('lifted area against the section', area, 'of it', 1e-9),
    atMost(`memory after ${REBUILDS} rebuilds`, grown, 'MB more', 50),
  ]
}

const TOLERANCE = 0.05
const REBUILDS = 500
const KEPT = 60

/** Builds and weighs. */
function build(kernel: Kernel, plan: SolidPlan): number {
  const start = performance.now()
  if (!kernel.weigh(plan)) throw new Error('nothing is left of a solid of the bench')
  return performance.now() - start
}

/** The circle of holes of the end bearing housing, made smaller again and again, as the page follows it. */
const drilled = (show?: (body: BodyState) => void, count = 12): number =>
  followed(
    'end-bearing-housing',
    (step, i) => {
      if (step.kind !== 'holes') return [step]
      if (step.layout !== 'circle') return []
      const small = { diameter: '0.5', headDiameter: '0.6' }
      return [
        {
          ...{ ...step, circle: String(74 - i / 10), count: String(count) },
          ...(count > 12 ? small : {}),
        },
      ]
    },
    show,
  )

/** Makes the picture of a body as the page does. */
function pictured({ plan }: BodyState): void {
  const mesh = plan && closedMesh(plan, TOLERANCE)
  if (!mesh || meshBends(mesh).places.length === 0) throw new Error('there is no picture')
}

/** The keyway of the winding spindle, beside its flats and its cross hole, made shorter again and again. */
const milled = (show?: (body: BodyState) => void): number =>
  followed(
    'winding-spindle',
    (step, i) => [step.kind === 'slot' ? { ...step, length: String(36 - i / 10) } : step],
    show,
  )

/** What a part takes to be evaluated and weighed, without the kernel, while a step of it changes. */
function followed(
  name: string,
  change: (step: Step, i: number) => Step[],
  show?: (body: BodyState) => void,
): number {
  const read = readPartFile(readFileSync(`demo/${name}.lathica.json`, 'utf8'))
  if (!read.ok) throw new Error(read.problem.message)
  const part = read.value
  const times = Array.from({ length: 41 }, (_, i) => {
    const route = part.route.flatMap((step) => change(step, i))
    const start = performance.now()
    const [body] = evaluate({ ...part, route }).bodies
    if (!body || !((body.mass ?? 0) > 0)) throw new Error(`${name} was not weighed`)
    show?.(body)
    return performance.now() - start
  })
  return times.sort((a, b) => a - b)[20] ?? 0
}

/** What the picture takes once the solid is there. */
function pictureOf(kernel: Kernel, plan: SolidPlan): number {
  kernel.weigh(plan)
  const start = performance.now()
  if (!kernel.build(plan, TOLERANCE).valid) throw new Error('a solid of the bench is not valid')
  return performance.now() - start
}

/** What the least wall takes once the solid is there. */
function wallOf(kernel: Kernel, plan: SolidPlan): number {
  kernel.weigh(plan)
  const start = performance.now()
  const told = kernel.measure({ kind: 'wall', plan, turned: undefined })
  if (!('distance' in told) || told.within > 0) throw new Error('the least wall is not exact')
  return performance.now() - start
}

function median(rounds: number, planOf: (i: number) => SolidPlan, kernel: Kernel): number {
  const times = Array.from({ length: rounds }, (_, i) => build(kernel, planOf(i)))
  return times.sort((a, b) => a - b)[Math.floor(rounds / 2)] ?? 0
}

/** Ten steps: five circles of holes, and five sets of flats; the last one changes. */
function lateChange(kernel: Kernel): number {
  const steps = Array.from({ length: 9 }, (_, i) => (i % 2 === 0 ? holes(4, i, 0) : flats(i, 0)))
  build(kernel, { base: shaft(40, 50), ops: [...steps, flats(9, 0)] })
  return median(
    5,
    (i) => ({ base: shaft(40, 50), ops: [...steps, flats(9, 0.01 * (i + 1))] }),
    kernel,
  )
}

/** A shaft of so many edges: lands of changing height, a little different each time. */
function shaft(edges: number, seed: number): Section {
  const lands = Math.floor((edges - 2) / 2)
  const corners = [vec(0, 0)]
  for (let i = 0; i < lands; i++) {
    const y = 40 + (i % 2) * 4 + 1e-3 * seed
    corners.push(vec(2 * i, y), vec(2 * i + 2, y))
  }
  corners.push(vec(2 * lands, 0))
  const clockwise = [...corners].reverse()
  return profileOf(
    clockwise.map((p, i) => ({
      piece: line(p, clockwise[(i + 1) % clockwise.length] ?? p),
      name: { step: 's', entity: `l${i}`, role: 'drawn' },
    })),
    's',
  ).section
}

/** Holes of ⌀5 through all, on a circle that grows with the step. */
function holes(count: number, step: number, seed: number): SolidOp {
  const drill = rectangleOf('h', vec(-1, 0), vec(400, 2.5))
  return {
    ...{ kind: 'combine', step: `h${step}`, effect: 'cut' },
    tools: Array.from({ length: count }, (_, i) => {
      const angle = (2 * Math.PI * i) / count + 0.02 * seed
      const radius = 12 + 3 * step
      const at = place(radius * Math.cos(angle), radius * Math.sin(angle), 0)
      return turnedTool(drill, { ...PART_FRAME, at }, `@${i + 1}`)
    }),
  }
}

/** A flat at the right end, lower with every step. */
function flats(step: number, seed: number): SolidOp {
  const outline = rectangleOf('f', vec(43 - 0.2 * step - seed, -60), vec(60, 60))
  return {
    ...{ kind: 'combine', step: `f${step}`, effect: 'cut' },
    tools: [prismTool(outline, PART_FRAME, 2 * step, 2 * step + 1.5)],
  }
}
