import { isCornerName } from '../names'
import type { Vec } from '../geometry'
import type { Figure, MeasurePick, Part } from '../part'
import { evaluate, type BodyState } from '../route'
import { cornersOf, edgeKey, edgesOf } from '../section'
import { AXIS_ID, endsOf, locator, type Sketch } from '../sketch'
import { VERTEX_TOLERANCE } from '../tolerances'

/** A figure that is told by places of points of one profile. */
export interface ByPoints {
  readonly sketch: Sketch
  /** The figure, where the points stand. */
  readonly value: (locate: (point: string) => Vec) => number
  /** How fast it changes when the points move so. */
  readonly rate: (motion: (point: string) => Vec) => number
}

interface Level {
  readonly sketch: Sketch
  /** The point that stands at the same place; undefined for the axis. */
  readonly point: string | undefined
}

/**
 * A distance along the axis or square to it, or a diameter, as one between points of a profile: where faces and edges
 * stand as they were drawn. Undefined where steps made or moved them.
 */
export function byPointsOf(part: Part, figure: Figure): ByPoints | undefined {
  if (figure.kind !== 'axial' && figure.kind !== 'radial' && figure.kind !== 'pickDiameter') {
    return undefined
  }
  const along = figure.kind === 'axial' ? 'x' : 'y'
  const { bodies } = evaluate(part)
  const levels = figure.picks.map((pick) => levelOf(part, bodies, pick, along))
  const [a, b] = levels
  const sketch = levels.find((l) => l?.point !== undefined)?.sketch
  if (!a || !sketch || levels.some((l) => !l || (l.point !== undefined && l.sketch !== sketch))) {
    return undefined
  }
  // What hangs on the section hangs on other profiles too.
  if (sketch.constraints.some((c) => c.kind === 'linked')) return undefined
  const at = (level: Level | undefined, place: (point: string) => Vec): number =>
    level?.point === undefined ? 0 : place(level.point)[along]
  if (figure.kind === 'pickDiameter') {
    return { sketch, value: (locate) => 2 * at(a, locate), rate: (motion) => 2 * at(a, motion) }
  }
  if (!b) return undefined
  const locate = locator(sketch)
  const sign = at(b, locate) < at(a, locate) ? -1 : 1
  const between = (place: (point: string) => Vec): number => sign * (at(b, place) - at(a, place))
  return { sketch, value: between, rate: between }
}

/** The point of a profile that stands as far along as a pick, on what was drawn there. */
function levelOf(
  part: Part,
  bodies: readonly BodyState[],
  pick: MeasurePick,
  along: 'x' | 'y',
): Level | undefined {
  const [first] = part.sketches
  if (pick.key === AXIS_ID) return first && { sketch: first, point: undefined }
  const section = bodies.find((b) => b.bodyId === pick.body)?.section
  if (!section) return undefined
  const edges = edgesOf(section)
  const corner = isCornerName(pick.key)
    ? cornersOf(section).find((c) => c.key === pick.key)
    : undefined
  const found = corner
    ? edges.filter(({ piece }) => [piece.from, piece.to].includes(corner.at))
    : edges.filter((e) => edgeKey(e.name) === pick.key)
  const places = corner ? [corner.at] : found.flatMap(({ piece }) => [piece.from, piece.to])
  const [place] = places
  if (!place || places.some((p) => Math.abs(p[along] - place[along]) > VERTEX_TOLERANCE)) {
    return undefined
  }
  for (const { name } of found) {
    const step = part.route.find((s) => s.id === name.step)
    if (name.role !== 'drawn' || !step || !('sketch' in step)) continue
    const sketch = part.sketches.find((s) => s.id === step.sketch)
    const entity = sketch?.entities.find((e) => e.id === name.entity)
    if (!sketch || entity?.kind !== 'line') continue
    const locate = locator(sketch)
    const point = [...endsOf(entity)].find(
      (p) => Math.abs(locate(p)[along] - place[along]) <= VERTEX_TOLERANCE,
    )
    if (point !== undefined) return { sketch, point }
  }
  return undefined
}
