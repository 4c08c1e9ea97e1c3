import { fail, succeed, type Result } from '../../../result'
import { line, vec, type Vec } from '../../../geometry'
import { combine, extentOf, profileOf, type Section, type SectionEdge } from '../../../section'
import { AXIS_ID } from '../../../sketch'
import { VERTEX_TOLERANCE } from '../../../tolerances'
import {
  changed,
  coneDepth,
  edgesNamed,
  lost,
  material,
  notSound,
  positive,
  told,
  type Outcome,
  type StepContext,
} from '../../steps/context'
import type { BoreStep } from '../../../part'

/** One diameter of a bore, from the mouth to its depth. */
interface Stretch {
  readonly radius: number
  readonly depth: number
}

/** Bores along the axis from one end. */
export function bore(step: BoreStep, context: StepContext): Result<Outcome> {
  const before = material(context, step.body)
  if (!before.ok) return before
  const [from, to] = extentOf(before.value)
  const whole = to - from
  const stretches = stretchesOf(step, context, before.value, whole)
  if (!stretches.ok) return stretches
  const outline = outlineOf(step, context, stretches.value, whole)
  if (!outline.ok) return outline
  const mouth = step.end === 'left' ? from : to
  const way = step.end === 'left' ? 1 : -1
  const tool = toolOf(step.id, outline.value, (p) => vec(mouth + way * p.x, p.y))
  if (tool.regions.length === 0) return notSound
  const after = combine(before.value, tool, 'cut')
  return changed(context, step.body, before.value, after, {
    section: tool,
    effect: 'cut',
    body: step.body,
  })
}

function stretchesOf(
  step: BoreStep,
  context: StepContext,
  section: Section,
  whole: number,
): Result<readonly Stretch[]> {
  const stretches: Stretch[] = []
  for (const [i, part] of step.parts.entries()) {
    const isLast = i === step.parts.length - 1
    const nth = step.parts.length > 1 ? ` of diameter ${i + 1}` : ''
    const diameter = positive(context, part.diameter, 'length', `diameter${nth && ` ${i + 1}`}`)
    if (!diameter.ok) return diameter
    const depth = depthOf(step, context, section, whole, part.depth, isLast, `depth${nth}`)
    if (!depth.ok) return depth
    const last = stretches.at(-1)
    if (last && depth.value <= last.depth) {
      return fail(
        'bore.order',
        `The depth${nth} is no greater than the one before.`,
        'Depths are told from the mouth: let them grow from diameter to diameter.',
      )
    }
    stretches.push({ radius: diameter.value / 2, depth: depth.value })
  }
  if (stretches.length === 0) {
    return fail('bore.none', 'The bore has no diameter.', 'Add one in the step card.')
  }
  return succeed(stretches)
}

function depthOf(
  step: BoreStep,
  context: StepContext,
  section: Section,
  whole: number,
  text: string,
  isLast: boolean,
  what: string,
): Result<number> {
  if (isLast && step.upTo !== '') {
    const edges = edgesNamed(section, step.upTo)
    if (edges.length === 0) return lost('The face this bore goes up to', step.upTo)
    const [from, to] = extentOf(section)
    const xs = edges.flatMap(({ piece }) => [piece.from.x, piece.to.x])
    return succeed(step.end === 'left' ? Math.min(...xs) - from : to - Math.max(...xs))
  }
  if (isLast && text.trim() === '') return succeed(whole)
  return positive(context, text, 'length', what)
}

/** Corners of the bore from the mouth inwards, x being the depth and y the radius. */
function outlineOf(
  step: BoreStep,
  context: StepContext,
  stretches: readonly Stretch[],
  whole: number,
): Result<readonly { readonly at: Vec; readonly what: string }[]> {
  const corners: { at: Vec; what: string }[] = []
  let depth = 0
  const [first] = stretches
  if (step.sinkDiameter.trim() !== '' && first) {
    const sink = positive(context, step.sinkDiameter, 'length', 'countersink')
    if (!sink.ok) return sink
    const angle = positive(context, step.sinkAngle, 'angle', 'countersink angle')
    if (!angle.ok) return angle
    const height = (sink.value / 2 - first.radius) / Math.tan(angle.value / 2)
    if (angle.value >= Math.PI || height <= 0 || height > first.depth) {
      return fail(
        'bore.sink',
        'The countersink does not fit the bore.',
        `Its diameter is greater than ${told(context, 2 * first.radius)}, and it ends within the first depth.`,
      )
    }
    corners.push({ at: vec(0, sink.value / 2), what: 'sink' })
    depth = height
  }
  for (const [i, s] of stretches.entries()) {
    corners.push({ at: vec(depth, s.radius), what: `wall${i + 1}` })
    corners.push({ at: vec(s.depth, s.radius), what: `floor${i + 1}` })
    depth = s.depth
  }
  const last = stretches.at(-1)
  const isBlind = last !== undefined && last.depth < whole - VERTEX_TOLERANCE
  if (isBlind && step.tip === 'cone') {
    const flat = fail('bore.tip', 'A tip is sharper than 180°.', 'Choose a flat bottom instead.')
    const tip = coneDepth(context, step.tipAngle, 'angle of the tip', last.radius, flat)
    if (!tip.ok) return tip
    corners.push({ at: vec(depth + tip.value, 0), what: '' })
  } else corners.push({ at: vec(depth, 0), what: '' })
  return succeed(corners)
}

function toolOf(
  step: string,
  corners: readonly { readonly at: Vec; readonly what: string }[],
  placed: (p: Vec) => Vec,
): Section {
  const start = vec(0, 0)
  const [first] = corners
  const end = corners.at(-1)
  if (!first || !end) return { regions: [] }
  const made = (what: string): SectionEdge['name'] => ({ step, entity: what, role: 'made' })
  const edges: SectionEdge[] = [
    { piece: line(placed(start), placed(first.at)), name: made('mouth') },
  ]
  corners.forEach(({ at, what }, i) => {
    const next = corners[i + 1]
    if (next && Math.hypot(at.x - next.at.x, at.y - next.at.y) > VERTEX_TOLERANCE) {
      edges.push({ piece: line(placed(at), placed(next.at)), name: made(what) })
    }
  })
  edges.push({
    piece: line(placed(end.at), placed(start)),
    name: { step, entity: AXIS_ID, role: 'axis' },
  })
  return profileOf(edges, step).section
}
