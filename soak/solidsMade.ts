import { PART_FRAME, line, place, vec } from '@lathica/core/geometry'
import { ORIGIN_ID } from '@lathica/core/sketch'
import { EMPTY_SECTION, edgeKey, edgesOf } from '@lathica/core/section'
import { outlineOf, type SolidPlan } from '@lathica/core/solid'
import { createPart, type NewStep, type Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import {
  addRevolve,
  addStep,
  drawDraft,
  perform,
  steppedShaft,
  type Command,
} from '@lathica/core/edit'
import type { Kernel } from '@lathica/kernel'
import type { Random } from '../fuzz/random'

const must = (part: Part, command: Command): Part => {
  const result = perform(part, command)
  if (!result.ok) throw new Error(result.problem.message)
  return result.value
}

/** A stepped shaft with holes, cross holes, flats and a keyway, as a workshop would make them, wherever they meet. */
export function milledShaft(random: Random): Part {
  const lands = Array.from({ length: 3 }, (_, i) => {
    const [diameter, length] = [
      Math.round(random.between(20, 60)),
      Math.round(random.between(12, 40)),
    ]
    return {
      diameter: { formula: String(diameter + i), value: diameter + i },
      length: { formula: String(length), value: length },
    }
  })
  const part = createPart({ name: 'Recorder shaft' })
  const sketch = part.sketches[0]?.id ?? ''
  const turned = must(
    must(
      part,
      drawDraft('draw', sketch, steppedShaft({ at: { x: 0, y: 0 }, on: [ORIGIN_ID] }, lands)),
    ),
    addRevolve(sketch),
  )
  const section = evaluate(turned).bodies[0]?.section ?? EMPTY_SECTION
  const [first, last] = [lands[0], lands[2]]
  if (!first || !last) return turned
  const face = edgesOf(section).find((e) => e.piece.from.x === 0 && e.piece.to.x === 0)
  const cylinder = edgesOf(section).find(
    (e) => e.piece.from.y === last.diameter.value / 2 && e.piece.to.y === e.piece.from.y,
  )
  const mm = (low: number, high: number): string => random.between(low, high).toFixed(2)
  const plain = {
    ...({ kind: 'holes', body: 'body1', sketch: '', skip: [], places: [], thread: '' } as const),
    ...({ from: '', headDiameter: '', headDepth: '', headAngle: '90', head: 'none' } as const),
    ...({ tipAngle: '118', layout: 'circle', range: '' } as const),
  }
  const radius = first.diameter.value / 2
  const steps: (NewStep | undefined)[] = [
    face && {
      ...plain,
      ...{ way: 'end', on: edgeKey(face.name), circle: mm(radius, 1.3 * radius), distance: '' },
      ...{ count: String(random.pick([1, 2, 3, 5, 8])), start: mm(0, 90), depth: mm(4, 10) },
      ...{ diameter: mm(1, radius / 4), reach: random.pick(['depth', 'wall', 'through'] as const) },
      tip: random.pick(['flat', 'cone'] as const),
    },
    {
      ...plain,
      ...{ way: 'cross', on: '', circle: '', distance: mm(3, first.length.value - 3) },
      ...{ count: '1', start: mm(0, 170), depth: mm(3, 6), diameter: mm(1, 4) },
      reach: random.pick(['depth', 'through'] as const),
      tip: random.pick(['flat', 'cone'] as const),
    },
    cylinder && {
      ...({ kind: 'slot', body: 'body1', form: 'keyway', on: edgeKey(cylinder.name) } as const),
      ...{ from: '', distance: mm(1, 3), width: mm(2, 4), depth: mm(1, 3), length: mm(5, 8) },
      ...{
        ends: random.pick(['round', 'square'] as const),
        cutter: '',
        count: '1',
        phase: mm(0, 90),
      },
    },
    {
      ...({ kind: 'flats', body: 'body1', measure: 'depth', end: 'left' } as const),
      ...{ count: String(random.pick([1, 2, 3, 4, 6])), size: mm(0.3, 1.5) },
      ...{ distance: '', length: mm(3, 10), phase: mm(0, 60) },
    },
  ]
  return steps
    .filter((s) => s !== undefined && random.chance(0.6))
    .reduce((here: Part, step) => {
      const next = step && perform(here, addStep(step))
      if (!next?.ok) return here
      return evaluate(next.value).steps.at(-1)?.status === 'done' ? next.value : here
    }, turned)
}

/** What no one turns, as an exchange file: brackets, angles, bars and crosses of some thickness. */
export function unturned(
  kernel: Kernel,
  random: Random,
): { readonly text: string; readonly what: string } {
  const [a, b, t] = [random.between(10, 60), random.between(10, 60), random.between(2, 8)]
  const shapes = {
    bracket: [vec(0, 0), vec(a, 0), vec(a, t), vec(t, t), vec(t, b), vec(0, b)],
    channel: [
      vec(0, 0),
      vec(a, 0),
      vec(a, b),
      vec(a - t / 2, b),
      vec(a - t / 2, t),
      vec(t / 2, t),
      vec(t / 2, b),
      vec(0, b),
    ],
    plate: [vec(0, 0), vec(a, 0), vec(a, b), vec(0, 0.6 * b)],
    triangle: [vec(0, 0), vec(a, 0), vec(0.3 * a, b)],
    wedge: [vec(0, 0), vec(a, 0), vec(a, t), vec(0, b / 2)],
  }
  const what = random.pick(Object.keys(shapes) as (keyof typeof shapes)[])
  const corners = shapes[what]
  const outline = outlineOf(
    'made',
    corners.map((p, i) => ({
      piece: line(p, corners[(i + 1) % corners.length] ?? p),
      name: `e${i}`,
    })),
  )
  const frame = { ...PART_FRAME, at: place(random.between(-99, 99), random.between(-99, 99), 0) }
  const tool = {
    kind: 'prism' as const,
    outline,
    frame,
    from: 0,
    to: random.between(4, 50),
    mark: '',
  }
  const plan: SolidPlan = {
    base: EMPTY_SECTION,
    ops: [{ kind: 'combine', step: 'made', effect: 'add', tools: [tool] }],
  }
  const body = { bodyId: 'b', name: what, colour: '#888888', plan }
  return {
    text: kernel.writeStep([body], what),
    what: `a ${what} of ${a.toFixed(1)} × ${b.toFixed(1)}`,
  }
}
