import { distance, pointAt, vec, type Vec } from '../../../geometry'
import type { GrooveStep } from '../../../part'
import type { SectionEdge } from '../../../section'
import { hostOf, type Host } from '../../../route'
import type { Shape } from '../asked'
import { placeOn, radiusOn, type StepAsks, type StepView } from '../kind'

/** The ends of the first groove's mouth: where its outline leaves the face. */
function mouthOf(view: StepView): readonly [Vec, Vec] | undefined {
  const own = view.faces().filter((e) => !e.name.entity.includes('.'))
  const ends = own.flatMap((e) => [e.piece.from, e.piece.to])
  // Ends that only one of its own edges has are those at the mouth.
  const open = ends.filter((p) => ends.filter((q) => distance(p, q) < 1e-6).length === 1)
  const [a, b] = open
  return a && b && open.length === 2 ? (a.x <= b.x ? [a, b] : [b, a]) : undefined
}

export const groove: StepAsks<GrooveStep> = {
  idle: ({ sizes, count, place }) => [
    ...((sizes['bottom'] ?? '').trim() === '' ? [] : ['sizes/depth']),
    ...(Number(count) === 1 ? ['count', 'pitch'] : []),
    ...(place.from === 'middle' && place.distance.trim() === '' ? ['place/distance'] : []),
    ...(place.second === '' ? [] : ['place/distance']),
  ],
  asks: (step, view) => {
    const { sizes } = step
    const [mouth, floor] = [mouthOf(view), view.faces('floor')]
    const host = hostOf(view.face(step.on))
    const [bottom] = floor
    const isLevel = host !== undefined && Math.abs(host.along.y) < 1e-9
    const isFacing = host !== undefined && Math.abs(host.along.x) < 1e-9
    const inside = host !== undefined && host.into.y > 0.5
    const at = placeOn(floor.length > 0 ? floor : view.faces())
    const width: Shape | undefined =
      mouth && isLevel
        ? { kind: 'along', from: mouth[0], to: mouth[1], inside }
        : mouth && isFacing
          ? { kind: 'radial', from: mouth[0], to: mouth[1] }
          : mouth && { kind: 'slant', from: mouth[0], to: mouth[1] }
    const deep = depthOf(mouth, bottom, isLevel, isFacing)
    const place = mouth && host ? placeShape(step, view, host, mouth) : undefined
    return [
      ...view.size('sizes/width', sizes['width'] ?? '', width),
      ...(bottom
        ? view.size(
            'sizes/bottom',
            sizes['bottom'] ?? '',
            { kind: 'across', at: pointAt(bottom.piece, 0.5), inside },
            '⌀',
          )
        : []),
      ...view.size(
        'sizes/depth',
        (sizes['bottom'] ?? '').trim() === '' ? (sizes['depth'] ?? '') : '',
        deep ?? at,
      ),
      ...view.size(
        'sizes/radius',
        step.form === 'retaining' ? '' : (sizes['radius'] ?? ''),
        radiusOn([...view.faces('nearRound'), ...view.faces('farRound'), ...floor]),
        radiusSign(view),
      ),
      ...view.size(
        'sizes/angle',
        sizes['angle'] ?? '',
        placeOn([...view.faces('near')]) ?? at,
        '',
        'angle',
      ),
      ...view.size('sizes/flat', sizes['flat'] ?? '', at, 'flat '),
      ...view.size(
        'place/distance',
        step.place.distance,
        place,
        place?.kind === 'across' ? '⌀' : '',
      ),
    ]
  },
}

/** Where a groove is told from: along its cylinder, or on a face as a diameter. */
function placeShape(
  { place }: GrooveStep,
  view: StepView,
  { origin, along, length, into }: Host,
  [left, right]: readonly [Vec, Vec],
): Shape | undefined {
  const isFacing = Math.abs(along.x) < 1e-9
  if (isFacing) {
    if (place.from !== 'axis') return undefined
    const [low, high] = left.y < right.y ? [left, right] : [right, left]
    const at = { near: low, middle: middle(low, high), far: high }[place.to]
    return { kind: 'across', at, inside: false }
  }
  if (Math.abs(along.y) >= 1e-9) return undefined
  const reach = length * along.x
  const starts: Readonly<Record<string, number>> = {
    start: origin.x,
    end: origin.x + reach,
    middle: origin.x + reach / 2,
  }
  const from = starts[place.from] ?? view.face(place.from)[0]?.piece.from.x
  if (from === undefined) return undefined
  // The near side is the one towards where it is told from.
  const isBack = from > (left.x + right.x) / 2
  const [near, far] = isBack ? [right, left] : [left, right]
  const to = { near, middle: middle(left, right), far }[place.to]
  if (Math.abs(from - to.x) < 1e-9) return undefined
  return { kind: 'along', from: vec(from, to.y), to, inside: into.y > 0.5 }
}

/** Two bottom corners have one radius. */
const radiusSign = (view: StepView): string =>
  view.faces('nearRound').length > 0 && view.faces('farRound').length > 0 ? '2 × R' : 'R'

function depthOf(
  mouth: readonly [Vec, Vec] | undefined,
  bottom: SectionEdge | undefined,
  isLevel: boolean,
  isFacing: boolean,
): Shape | undefined {
  if (!mouth || !bottom) return undefined
  const foot = pointAt(bottom.piece, 0.5)
  if (isLevel)
    return { kind: 'radial', from: vec(mouth[0].x, mouth[0].y), to: vec(mouth[0].x, foot.y) }
  if (isFacing) {
    const at = foot.x
    return { kind: 'along', from: mouth[0], to: vec(at, mouth[0].y), inside: false }
  }
  return undefined
}

const middle = (a: Vec, b: Vec): Vec => vec((a.x + b.x) / 2, (a.y + b.y) / 2)
