import { sectionArea } from '@lathica/core/section'
import type { Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import type { Kind } from '../kind'
import type { Random } from '../random'
import type { Drawn } from './make'
import { partWith, revolveStep, sketchOf, type StepData } from './parts'

/** Lands one after another, right-angled: how long each is and how high, in mm. */
type Lands = readonly (readonly [length: number, height: number])[]

interface Finished {
  readonly lands: Lands
  readonly steps: readonly StepData[]
  /** What is done to the route once it was run. */
  readonly edit: { readonly at: number; readonly how: 'aside' | 'away' | 'earlier' | 'other' }
}

/** The outline of lands, from the axis round to the axis. */
function drawn(lands: Lands): Drawn {
  const corners: { x: number; y: number }[] = [{ x: 0, y: 0 }]
  let x = 0
  for (const [length, height] of lands) {
    corners.push({ x, y: height })
    x += length
    corners.push({ x, y: height })
  }
  corners.push({ x, y: 0 })
  return corners.map((to) => ({ to, bulge: 0 }))
}

function finish(random: Random, number: number): StepData {
  const size = String(random.pick([0.1, 0.2, 0.3, 0.4, 0.6, 1]))
  const pick = { kind: random.pick(['inside', 'outside']) }
  const base = { id: `step${number}`, number: 10 * (number + 1), aside: false, body: 'body1' }
  switch (random.below(5)) {
    case 0:
    case 1:
      return { ...base, kind: 'fillet', sets: [{ pick, radius: size }] }
    case 2:
      return { ...base, kind: 'chamfer', sets: [{ pick, along: size, across: '', angle: '45' }] }
    case 3:
      return {
        ...base,
        ...{
          kind: 'bore',
          end: random.pick(['left', 'right']),
          parts: [{ diameter: '1.5', depth: size }],
        },
        ...{ upTo: '', tip: 'flat', tipAngle: '118', sinkDiameter: '', sinkAngle: '90' },
      }
    default:
      return {
        ...base,
        ...{ kind: 'shell', side: 'inside', thickness: size, open: [], faces: [] },
        ...{ corners: random.pick(['round', 'sharp']), follow: 'turn' },
      }
  }
}

const partOf = (lands: Lands, steps: readonly StepData[]): Part =>
  partWith([sketchOf('sk', drawn(lands))], [revolveStep('step0', 10, 'sk'), ...steps])

/** What finishing every corner of a sort once takes from the half section, or puts to it, in mm². */
function change(lands: Lands, step: StepData): number | undefined {
  const rises = lands.slice(1).filter(([, h], i) => h !== lands[i]?.[1]).length
  const sets = step.sets as readonly Record<string, unknown>[] | undefined
  const { pick, radius, along } = sets?.[0] ?? {}
  const inside = (pick as { kind?: string } | undefined)?.kind === 'inside'
  // Each rise has one corner of either sort; the two end faces have one each on the outside.
  const corners = inside ? rises : -(rises + 2)
  if (step.kind === 'fillet') return corners * (1 - Math.PI / 4) * Number(radius) ** 2
  if (step.kind === 'chamfer') return (corners * Number(along) ** 2) / 2
  return undefined
}

/** What can be said of a run, as text. */
const told = (part: Part): string => {
  const { steps, bodies } = evaluate(part)
  const said = steps.map((s) => `${s.stepId} ${s.status} ${s.problem?.code ?? ''}`)
  return [...said, ...bodies.map((b) => String(sectionArea(b.section)))].join('; ')
}

function edited(steps: readonly StepData[], { at, how }: Finished['edit']): readonly StepData[] {
  const rest = steps.filter((_, i) => i !== at)
  const step = steps[at]
  if (!step || how === 'away') return rest
  if (how === 'earlier') return [step, ...rest]
  const changed =
    how === 'aside' ? { ...step, aside: true } : { ...step, thickness: '0.25', sets: step.sets }
  return steps.map((s, i) => (i === at ? changed : s))
}

/** Finishes of stepped shafts: the first against its closed form, edits of the route against a new run. */
export const finishes: Kind<Finished> = {
  name: 'finishes',
  batch: 10,
  make: (random) => {
    const lands = Array.from(
      { length: 1 + random.below(5) },
      () => [2 + random.below(7), 3 + random.below(9)] as const,
    )
    const count = 1 + random.below(5)
    return {
      lands,
      steps: Array.from({ length: count }, (_, i) => finish(random, i + 1)),
      edit: {
        at: random.below(count),
        how: random.pick(['aside', 'away', 'earlier', 'other'] as const),
      },
    }
  },
  fault: ({ lands, steps, edit }) => {
    const part = partOf(lands, steps)
    const state = evaluate(part)
    const [first] = steps
    const own = first && change(lands, first)
    const run = state.steps[1]
    if (own !== undefined && run?.status === 'done') {
      const whole = lands.reduce((sum, [length, height]) => sum + length * height, 0)
      const section = run.bodies[0]?.section
      const area = section ? sectionArea(section) : 0
      if (Math.abs(area - whole - own) > 1e-7) return `area ${area} instead of ${whole + own}`
    }
    const broken = state.steps.find((s) => s.problem?.code === 'step.defect')
    if (broken) return `${broken.stepId}: ${broken.problem?.message ?? ''}`
    const after: Part = {
      ...part,
      route: partOf(lands, edited(steps, edit)).route.map(
        (s) => part.route.find((t) => JSON.stringify(t) === JSON.stringify(s)) ?? s,
      ),
    }
    const [remembered, anew] = [told(after), told(structuredClone(after))]
    return remembered === anew ? undefined : `remembered ${remembered}, run anew ${anew}`
  },
  *smaller(given) {
    for (let i = 0; given.steps.length > 1 && i < given.steps.length; i++) {
      yield {
        ...given,
        steps: given.steps.filter((_, k) => k !== i),
        edit: { ...given.edit, at: 0 },
      }
    }
    for (let i = 0; given.lands.length > 1 && i < given.lands.length; i++) {
      yield { ...given, lands: given.lands.filter((_, k) => k !== i) }
    }
  },
}
