import { distance, pointAt, vec, type Vec } from '../../../geometry'
import type { GrooveStep } from '../../../part'
import { edgeKey, type SectionEdge } from '../../../section'
import { hostOf } from '../../../route'
import type { Shape } from '../asked'
import { placeOn, radiusOn, type StepAsks, type StepView } from '../kind'

/** The ends of the first groove's mouth: where its outline leaves the face. */
function mouthOf(view: StepView): readonly [Vec, Vec] | undefined {
  const own = view.faces().filter((e) => !e.name.entity.includes('.'))
  const names = new Set(own.map((e) => edgeKey(e.name)))
  const ends = own.flatMap((e) => [e.piece.from, e.piece.to])
  // Ends that only one of its own edges has are those at the mouth.
  const open = ends.filter((p) => ends.filter((q) => distance(p, q) < 1e-6).length === 1)
  const [a, b] = open
  return names.size > 0 && a && b && open.length === 2 ? (a.x <= b.x ? [a, b] : [b, a]) : undefined
}

export const groove: StepAsks<GrooveStep> = {
  idle: ({ sizes, count, place }) => [
    ...((sizes['bottom'] ?? '').trim() === '' ? [] : ['sizes/depth']),
    ...(Number(count) === 1 ? ['count', 'pitch'] : []),
    ...(place.from === 'middle' && place.distance.trim() === '' ? ['place/distance'] : []),
    ...(place.second === '' ? [] : ['place/distance']),
  ],
  asks: (step, view) => {
    const { sizes, place } = step
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
    const distanceOf = (): readonly Vec[] | undefined => {
      if (!mouth || !host) return undefined
      const [near, far] = mouth
      const to = place.to === 'near' ? near : place.to === 'far' ? far : middle(near, far)
      if (!isLevel) return undefined
      const start = host.origin.x
      const from =
        place.from === 'start'
          ? start
          : place.from === 'end'
            ? start + host.length * host.along.x
            : place.from === 'middle'
              ? start + (host.length * host.along.x) / 2
              : view.face(place.from)[0]?.piece.from.x
      // Told from the far end, the near side of the groove is the one towards it.
      const isBack = from !== undefined && from > (near.x + far.x) / 2
      const target = isBack && place.to !== 'middle' ? (place.to === 'near' ? far : near) : to
      return from === undefined || Math.abs(from - target.x) < 1e-9
        ? undefined
        : [vec(from, target.y), target]
    }
    const ends = distanceOf()
    const fromAxis = place.from === 'axis' && isFacing && mouth
    const lowest = mouth && (mouth[0].y < mouth[1].y ? mouth[0] : mouth[1])
    const highest = mouth && (mouth[0].y < mouth[1].y ? mouth[1] : mouth[0])
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
      ...(ends
        ? view.size('place/distance', place.distance, {
            kind: 'along',
            from: ends[0] ?? vec(0, 0),
            to: ends[1] ?? vec(0, 0),
            inside,
          })
        : fromAxis && lowest && highest
          ? view.size(
              'place/distance',
              place.distance,
              {
                kind: 'across',
                at:
                  place.to === 'near'
                    ? lowest
                    : place.to === 'far'
                      ? highest
                      : middle(lowest, highest),
                inside: false,
              },
              '⌀',
            )
          : []),
    ]
  },
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
