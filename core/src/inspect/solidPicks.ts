import {
  addPlaces,
  crossPlaces,
  dotPlaces,
  lengthOfPlace,
  place,
  scalePlace,
  subtractPlaces,
  type Place,
} from '../geometry'
import { edgeCalled, meetingKey } from '../names'
import { PICK_FIGURES, type PickFigureKind } from '../part'
import { succeed, type Result } from '../result'
import { edgeKey } from '../section'
import {
  NOTHING_FOUND,
  toldFor,
  untouchedAngle,
  type ShapeAsk,
  type SolidAsk,
  type SolidPlan,
  type SolidShape,
  type SolidsTold,
  type SolidSpot,
  type SolidWay,
} from '../solid'
import { axialPlace, measurePicks, type Measured, type Picked } from './picks'

/** What has to be asked of the kernel before a figure can be told. */
export interface Asking {
  readonly asks: readonly SolidAsk[]
}

/** What picks come to; undefined where the figure has no meaning for them. */
type Reading = Result<Measured> | Asking | undefined

/**
 * A figure of one or two picks: exactly from the half-section where that tells it, else of the solids as they are.
 * @returns undefined where it has no meaning for the picks
 */
export function readPicks(
  kind: PickFigureKind,
  picks: readonly Picked[],
  told: SolidsTold,
): Reading {
  if (isOfSolids(kind, picks)) return readSolidPicks(kind, picks, told)
  const measured = measurePicks(kind, picks)
  return measured && succeed(measured)
}

/** Which figures picks have, the most telling first; of solids also those that are still to be told. */
export const figuresOf = (
  picks: readonly Picked[],
  told: SolidsTold = NOTHING_FOUND.told,
): PickFigureKind[] => PICK_FIGURES.filter((kind) => readPicks(kind, picks, told) !== undefined)

/** Of what no full turn made, and of what may have lost the places by which the half-section tells it. */
function isOfSolids(kind: PickFigureKind, picks: readonly Picked[]): boolean {
  if (picks.some((p) => p.kind === 'spot')) return true
  const plans = picks.flatMap((p) => planOf(p) ?? [])
  if (plans.length === 0) return false
  if (kind === 'pickArea') return true
  if (kind === 'pickLength') return picks.some((p) => p.kind === 'corner')
  // At an angle where nothing was taken, full turns are as near as ever.
  return kind === 'distance' && untouchedAngle(plans) === undefined
}

const planOf = (picked: Picked): SolidPlan | undefined =>
  'plan' in picked ? picked.plan : undefined

function readSolidPicks(kind: PickFigureKind, picks: readonly Picked[], told: SolidsTold): Reading {
  const [a, b] = picks
  if (!a) return undefined
  if (kind === 'distance') return b && apart(a, b, told)
  if (kind === 'pickArea' || kind === 'pickLength') return sizes(kind, picks, told)
  if (kind === 'radial' || kind === 'pickRadius') return undefined
  // Those of one pick, and those of two.
  const most = kind === 'pickDiameter' ? 1 : 2
  const least = kind === 'axial' || kind === 'axes' ? 2 : 1
  if (picks.length > most || picks.length < least) return undefined
  const shapes: SolidShape[] = []
  const asks: SolidAsk[] = []
  for (const picked of picks) {
    const shape = shapeOf(picked, told)
    if (!shape) return undefined
    if ('asks' in shape) asks.push(...shape.asks)
    else if (!shape.ok) return shape
    else shapes.push(shape.value)
  }
  if (asks.length > 0) return { asks }
  const [one, other] = shapes
  if (!one) return undefined
  switch (kind) {
    case 'axial':
      return level(levelOf(a, one), b && levelOf(b, other))
    case 'axes':
      return other && axesApart(one, other)
    case 'angle':
      return angle(one, other ?? AXIS)
    case 'pickDiameter':
      return one.radius === 0 ? undefined : succeed({ value: 2 * one.radius })
  }
}

/** The part's axis. */
const AXIS: SolidShape = {
  ...{ kind: 'line', at: place(0, 0, 0), way: place(0, 0, 1) },
  ...{ radius: 0, size: Infinity },
}

/** What a pick is in space; nothing of a body, and of what is bent in the half-section. */
function shapeOf(picked: Picked, told: SolidsTold): Result<SolidShape> | Asking | undefined {
  switch (picked.kind) {
    case 'axis':
      return succeed(AXIS)
    case 'spot': {
      const ask = { kind: 'shape', plan: picked.plan, name: picked.name } as const
      return toldFor(told, ask) ?? { asks: [ask] }
    }
    case 'corner': {
      const { x, y } = picked.corner.at
      return succeed({ ...AXIS, kind: 'circle', at: place(0, 0, x), radius: y })
    }
    case 'face': {
      const [edge] = picked.edges
      const piece = edge?.piece.kind === 'line' ? edge.piece : undefined
      if (!piece) return undefined
      const at = place(0, 0, piece.from.x)
      if (piece.from.x === piece.to.x) return succeed({ ...AXIS, kind: 'plane', at })
      const isRound = piece.from.y === piece.to.y
      return succeed({
        ...AXIS,
        ...{ kind: isRound ? 'cylinder' : 'cone', at, radius: isRound ? piece.from.y : 0 },
      })
    }
    default:
      return undefined
  }
}

/** What a pick is to the kernel. */
function spotOf(picked: Picked): SolidSpot | undefined {
  if (picked.kind === 'axis') return { kind: 'axis' }
  if (picked.kind === 'pole') {
    return { kind: 'at', at: place(picked.pole.at.y, 0, picked.pole.at.x) }
  }
  const name = picked.kind === 'body' ? '' : nameOf(picked)
  return name === undefined || !picked.plan ? undefined : { kind: 'on', plan: picked.plan, name }
}

/** How a face or an edge is called on the solid. */
function nameOf(picked: Picked): string | undefined {
  switch (picked.kind) {
    case 'spot':
      return picked.name
    case 'face':
      return picked.edges[0] && edgeKey(picked.edges[0].name)
    case 'corner':
      return meetingKey(edgeKey(picked.corner.arriving.name), edgeKey(picked.corner.leaving.name))
    default:
      return undefined
  }
}

function apart(a: Picked, b: Picked, told: SolidsTold): Reading {
  // How near two bodies come is their gap, a figure of its own.
  if (a.kind === 'body' && b.kind === 'body') return undefined
  const [from, to] = [spotOf(a), spotOf(b)]
  return from && to && readWay({ kind: 'apart', from, to }, told)
}

/** A way that the kernel tells, as a figure. */
export function readWay(
  ask: Exclude<SolidAsk, ShapeAsk>,
  told: SolidsTold,
): Result<Measured> | Asking {
  const answer = toldFor(told, ask)
  if (!answer) return { asks: [ask] }
  return answer.ok ? succeed(measuredWay(answer.value)) : answer
}

const measuredWay = ({ distance, from, to, within }: SolidWay): Measured => ({
  value: distance,
  space: { from, to },
  ...(within > 0 ? { within } : {}),
})

/** The area of faces together, or the length of an edge. */
function sizes(
  kind: 'pickArea' | 'pickLength',
  picks: readonly Picked[],
  told: SolidsTold,
): Reading {
  if (kind === 'pickLength' && picks.length > 1) return undefined
  const asks: ShapeAsk[] = []
  let sum = 0
  for (const picked of picks) {
    const name = nameOf(picked)
    if (name === undefined || isEdge(picked) !== (kind === 'pickLength')) return undefined
    const plan = planOf(picked)
    if (!plan) {
      sum += measurePicks(kind, [picked])?.value ?? 0
      continue
    }
    const ask = { kind: 'shape', plan, name } as const
    const shape = toldFor(told, ask)
    if (!shape) asks.push(ask)
    else if (!shape.ok) return shape
    else sum += shape.value.size
  }
  return asks.length > 0 ? { asks } : succeed({ value: sum })
}

const isEdge = (picked: Picked): boolean =>
  picked.kind === 'corner' || (picked.kind === 'spot' && edgeCalled(picked.name) !== undefined)

/** A place along the axis that a pick has as a whole. */
function levelOf(picked: Picked, shape: SolidShape | undefined): number | undefined {
  if (picked.kind !== 'spot') return axialPlace(picked)?.x
  const isLevel = shape && (shape.kind === 'plane' || shape.kind === 'circle')
  return isLevel && isAlong(shape.way, AXIS.way) ? shape.at.z : undefined
}

const level = (a: number | undefined, b: number | undefined): Reading =>
  a === undefined || b === undefined ? undefined : succeed({ value: Math.abs(a - b) })

/** Directions that differ by less than this are along one another. */
const ALONG = 1e-9
const isAlong = (u: Place, v: Place): boolean => lengthOfPlace(crossPlaces(u, v)) < ALONG

/** What is round about an axis; of straight lines only the part's own is one. */
const hasAxis = (shape: SolidShape): boolean =>
  shape === AXIS || ['cylinder', 'cone', 'torus', 'circle'].includes(shape.kind)

/** How far apart two axes are; of one and the same nothing. */
function axesApart(a: SolidShape, b: SolidShape): Reading {
  if (!hasAxis(a) || !hasAxis(b)) return undefined
  const between = subtractPlaces(b.at, a.at)
  const across = crossPlaces(a.way, b.way)
  const square = dotPlaces(across, across)
  if (square < ALONG * ALONG) {
    const aside = subtractPlaces(between, scalePlace(a.way, dotPlaces(between, a.way)))
    return succeed({
      value: lengthOfPlace(aside),
      space: { from: a.at, to: addPlaces(a.at, aside) },
    })
  }
  // The shortest way between two lines is square to both.
  const s = dotPlaces(crossPlaces(between, b.way), across) / square
  const t = dotPlaces(crossPlaces(between, a.way), across) / square
  const from = addPlaces(a.at, scalePlace(a.way, s))
  const to = addPlaces(b.at, scalePlace(b.way, t))
  return succeed({ value: lengthOfPlace(subtractPlaces(to, from)), space: { from, to } })
}

/** Between the directions of two shapes, the lesser one; a plane’s is along it. */
function angle(a: SolidShape, b: SolidShape): Reading {
  if (!hasWay(a) || !hasWay(b)) return undefined
  const between = Math.atan2(
    lengthOfPlace(crossPlaces(a.way, b.way)),
    Math.abs(dotPlaces(a.way, b.way)),
  )
  const isOdd = (a.kind === 'plane') !== (b.kind === 'plane')
  const value = isOdd ? Math.PI / 2 - between : between
  // What lies along the axis or square to it says so already.
  const isPlain = value < ALONG || (b === AXIS && value > Math.PI / 2 - ALONG)
  return isPlain ? undefined : succeed({ value })
}

/** A cone runs along its axis as little as across it. */
const hasWay = ({ kind }: SolidShape): boolean =>
  kind === 'plane' || kind === 'cylinder' || kind === 'circle' || kind === 'line'
