import { fail, succeed, type Result } from '../../../result'
import {
  add,
  boundsOf,
  cross,
  distance,
  inFrame,
  line,
  meetingsOf,
  nearestOn,
  place,
  pointAt,
  scale,
  tangentAt,
  vec,
  type Piece,
  type Vec,
  mapped,
  leastRadius,
  reversed,
} from '../../../geometry'
import {
  EMPTY_SECTION,
  combine,
  edgesOf,
  extentOf,
  regionAround,
  type Section,
} from '../../../section'
import { barOf, circleOf, halfPlane, rectangleOf, type SolidTool } from '../../../solid'
import { VERTEX_TOLERANCE } from '../../../tolerances'
import type { SweepStep } from '../../../part'
import { isEndSketch } from '../../../sketch'
import { positive, told, worked, type Outcome, type StepContext } from '../../steps/context'
import { angleOr, lengthOr, sizesAt, tell } from '../../steps/common'

/** Carries a rod or a bar along a path; it joins into the wall and leaves the inside free. */
export function carried(
  step: SweepStep,
  context: StepContext,
  drawn: readonly Piece[],
): Result<Outcome> {
  if (!context.bodies.some((b) => b.id === step.body)) {
    return fail('step.body', 'Its body is gone.', 'Choose another body for this step.')
  }
  const outline = step.form === 'sketch' ? drawnRod(step, context) : plainRod(step, context)
  if (!outline.ok) return outline
  const section = context.sectionOf(step.body)
  const rooted = step.effect === 'add' ? rootedIn(section, drawn, outline.value) : drawn
  const path = step.side === 'mirrored' ? mirroredPath(rooted) : succeed(rooted)
  if (!path.ok) return path
  const fits = pathFits(context, path.value, outline.value.half)
  if (!fits.ok) return fits
  const plane = angleOr(context, step.plane, 0, 'angle of the plane')
  if (!plane.ok) return plane
  const tool: SolidTool = {
    ...{ kind: 'swept', path: path.value, outline: outline.value.section, mark: '' },
    frame: halfPlane(plane.value),
    without: step.effect === 'add' ? insideOf(section) : EMPTY_SECTION,
  }
  const op = { kind: 'combine' as const, step: step.id, effect: step.effect, tools: [tool] }
  const [first] = path.value
  const at = first && pointAt(first, 0.5)
  const sizes = at
    ? sizesAt(step.body, inFrame(tool.frame, place(at.x, at.y, 0)), [outline.value.words])
    : []
  if (section.regions.length > 0 || step.effect === 'add') {
    return worked(context, step.body, [op], { told: { sizes } })
  }
  return fail(
    'step.noMaterial',
    'There is nothing to cut from at this step.',
    'Let the step add, or move it behind one that makes the body.',
  )
}

/** What is carried along a path, how far it goes to a side of it, and what it is called. */
interface Rod {
  readonly section: Section
  readonly half: number
  readonly words: string
}

/** A rod that an end sketch shows. */
function drawnRod(step: SweepStep, context: StepContext): Result<Rod> {
  const sketch = context.sketch(step.outline)
  const state = context.sketchState(step.outline)
  if (!sketch || !state || !isEndSketch(sketch)) {
    return fail('sweep.sketch', 'The end sketch of the rod is missing.', 'Choose one in the card.')
  }
  const { regions } = state.profile.section
  const [region] = regions
  if (!region || regions.length > 1 || region.holes.length > 0) {
    return fail(
      'sweep.region',
      `End sketch ${sketch.name} does not show one closed outline without a hole.`,
      'Draw one outline about its centre.',
    )
  }
  const boxes = region.outer.map((e) => boundsOf(e.piece))
  const half = Math.max(...boxes.flatMap(({ min, max }) => [-min.x, max.x]))
  return succeed({ section: { regions }, half, words: `rod as in end sketch ${sketch.name}` })
}

function plainRod(step: SweepStep, context: StepContext): Result<Rod> {
  const what = step.form === 'round' ? 'diameter' : 'width'
  const breadth = positive(context, step.width, 'length', what)
  if (!breadth.ok) return breadth
  const width = breadth.value
  const half = width / 2
  const wide = tell(context, width)
  if (step.form === 'round') {
    return succeed({ section: circleOf(step.id, width), half, words: `rod ⌀${wide}` })
  }
  const height = positive(context, step.height, 'length', 'height')
  if (!height.ok) return height
  const corner = lengthOr(context, step.corner, 0, 'corner radius')
  if (!corner.ok) return corner
  const most = Math.min(width, height.value) / 2
  return corner.value >= 0 && corner.value < most
    ? succeed({
        section: barOf(step.id, width, height.value, corner.value),
        half,
        words: `bar ${wide} × ${tell(context, height.value)}`,
      })
    : fail(
        'sweep.corner',
        'The corner radius does not fit the bar.',
        `Type less than ${told(context, most)}, or choose a round rod.`,
      )
}

/** A path that ends on the axis, and from there its mirror image back. */
function mirroredPath(drawn: readonly Piece[]): Result<readonly Piece[]> {
  const onAxis = (p: Vec | undefined): boolean =>
    p !== undefined && Math.abs(p.y) <= VERTEX_TOLERANCE
  const forth = onAxis(drawn.at(-1)?.to) ? drawn : [...drawn].reverse().map(reversed)
  if (!onAxis(forth.at(-1)?.to)) {
    return fail(
      'sweep.axis',
      'For both sides the path has to end on the axis.',
      'Draw it up to the axis, or let it stand on one side.',
    )
  }
  const image = (p: Vec): Vec => vec(p.x, -p.y)
  const back = [...forth].reverse().map((piece) => reversed(mapped(piece, image, true)))
  return succeed([...forth, ...back])
}

/** The path neither bends too tightly for the rod nor crosses itself. */
function pathFits(context: StepContext, path: readonly Piece[], half: number): Result<true> {
  const tightest = Math.min(...path.map(leastRadius))
  if (tightest <= half) {
    return fail(
      'sweep.tight',
      `A bend of R${told(context, tightest)} is too tight for it.`,
      `Bend the path by more than ${told(context, half)}, or make the rod thinner.`,
    )
  }
  for (const [i, a] of path.entries()) {
    for (const [j, b] of path.entries()) {
      if (j <= i) continue
      const joint = j === i + 1 ? a.to : undefined
      const meets = meetingsOf(a, b, VERTEX_TOLERANCE).some(
        (m) => !joint || distance(m.at, joint) > 10 * VERTEX_TOLERANCE,
      )
      if (meets) {
        return fail('sweep.crosses', 'The path crosses itself.', 'Draw it clear of itself.')
      }
    }
  }
  return succeed(true)
}

/** An end this near to a face stands on it, in mm. */
const ON_FACE = 1e-4
/** What runs more nearly along a face than this, as the cosine of the angle to its normal, does not go into it. */
const LEAST_SLANT = 0.3

/**
 * A path whose ends go on into the faces they stand on, straight, so far that all of the rod's end is in the material:
 * what ends just on a curved or slanting face would touch it in a line.
 */
function rootedIn(section: Section, path: readonly Piece[], rod: Rod): readonly Piece[] {
  const boxes = rod.section.regions.flatMap((r) => r.outer.map((e) => boundsOf(e.piece)))
  const reach = Math.max(
    ...boxes.flatMap(({ min, max }) => [-min.x, max.x, -min.y, max.y].map(Math.abs)),
  )
  const root = (end: Vec, onward: Vec): Piece[] => {
    const near = edgesOf(section)
      .map((e) => ({ ...nearestOn(e.piece, end), piece: e.piece }))
      .reduce<{ distance: number; t: number; piece: Piece } | undefined>(
        (best, e) => (best && best.distance <= e.distance ? best : e),
        undefined,
      )
    if (!near || near.distance > ON_FACE) return []
    const along = tangentAt(near.piece, near.t)
    const slant = Math.abs(cross(along, onward))
    const step = (by: number): Vec => add(end, scale(onward, by))
    if (slant < LEAST_SLANT || regionAround(section, step(0.01 * reach)) < 0) return []
    const sideways = Math.sqrt(1 - slant * slant) / slant
    return [line(end, step(reach * (1 + sideways)))]
  }
  const [first, last] = [path[0], path.at(-1)]
  if (!first || !last) return path
  const start = root(first.from, scale(tangentAt(first, 0), -1)).map(reversed)
  return [...start, ...path, ...root(last.to, tangentAt(last, 1))]
}

/** What lies within a vessel, between its ends: nothing of a handle goes there. */
function insideOf(section: Section): Section {
  if (section.regions.length === 0) return EMPTY_SECTION
  const [from, to] = extentOf(section)
  const top = 1 + Math.max(...edgesOf(section).map((e) => Math.max(e.piece.from.y, e.piece.to.y)))
  const around = combine(rectangleOf('', vec(from, 0), vec(to, 2 * top)), section, 'cut')
  const inside = (around ?? EMPTY_SECTION).regions.filter(({ outer }) => {
    const ys = outer.flatMap((e) => [e.piece.from.y, e.piece.to.y])
    return Math.min(...ys) <= VERTEX_TOLERANCE && Math.max(...ys) < 2 * top - VERTEX_TOLERANCE
  })
  return { regions: inside }
}
