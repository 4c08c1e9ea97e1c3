import { crossPlaces, dotPlaces } from '../../geometry'
import type { NewStep } from '../../part'
import type { SlotStep } from '../../part'
import { lengthOf } from '../nodes'
import { sideOf } from '../runs'
import { PARALLEL, alike, figureOf, isOne, spreadsOf, wrapped } from './figures'
import { outerCylinderAt, squareFaceAt, type OuterCylinder } from './hostFaces'
import {
  angleBetween,
  directionsAt,
  lengthwisePlanes,
  rangeAlong,
  squarePlanes,
  type LengthwisePlane,
} from './planes'
import type { Feature, Finder, Host, RestFace } from './types'

interface Walls {
  readonly width: number
  readonly faces: readonly RestFace[]
}

/**
 * The two walls beside a plane through the axis, which look at each other.
 * @param isBeside whether a wall belongs to it
 */
function wallsAt(
  angle: number,
  planes: readonly LengthwisePlane[],
  { near }: Host,
  isBeside: (wall: LengthwisePlane) => boolean,
): Walls | undefined {
  const looking = (side: 1 | -1): LengthwisePlane[] =>
    planes.filter(
      (p) =>
        p.out < 0 && angleBetween(p.angle, angle - (side * Math.PI) / 2) < PARALLEL && isBeside(p),
    )
  const [one, other] = [looking(1), looking(-1)]
  const [first] = one
  const [second] = other
  if (!first || !second || Math.abs(first.out - second.out) > near) return undefined
  const own = [...one, ...other].filter((p) => Math.abs(p.out - first.out) <= near)
  return { width: -first.out - second.out, faces: own.map((p) => p.face) }
}

interface Slot {
  readonly angle: number
  readonly width: number
  readonly depth: number
  readonly host: OuterCylinder
  /** From the left end of its cylinder: to its near end, or to its middle. */
  readonly distance: number
  readonly length: number
  readonly ends: SlotStep['ends']
  readonly cutter: number
  readonly faces: readonly number[]
}

/** Keyways with round or square ends into outer cylinders. */
export const keyways: Finder = (rest, host) => {
  const planes = lengthwisePlanes(rest)
  const found = floorsOf(planes, host).flatMap((floor): Slot[] => {
    const [out] = directionsAt(floor.angle)
    const isBeside = (wall: LengthwisePlane): boolean =>
      wall.from < floor.to &&
      wall.to > floor.from &&
      Math.abs(rangeAlong(wall.face, out)[0] - floor.out) <= host.near
    const walls = wallsAt(floor.angle, planes, host, isBeside)
    const cylinder = outerCylinderAt(host, (floor.from + floor.to) / 2)
    if (!walls || !cylinder || cylinder.radius <= floor.out) return []
    const round = endsOf(rest, floor, walls.width, host)
    const square = squarePlanes(rest).filter(
      ({ face, at }) =>
        (Math.abs(at - floor.from) <= host.near || Math.abs(at - floor.to) <= host.near) &&
        rangeAlong(face, out)[0] >= floor.out - host.near &&
        rangeAlong(face, directionsAt(floor.angle)[1])[1] <= walls.width / 2 + host.near,
    )
    const radius = walls.width / 2
    const left = round.find((r) => r.side === -1)
    const right = round.find((r) => r.side === 1)
    const ends = round.length > 0 ? 'round' : 'square'
    // One that runs out at an end of its cylinder goes on beyond it.
    const over = ends === 'round' ? 2 * walls.width : 0
    const from = left ? left.at - radius : floor.from - over
    const to = right ? right.at + radius : floor.to + over
    const faces = [
      ...floor.faces,
      ...walls.faces,
      ...round.map((r) => r.face),
      ...square.map((s) => s.face),
    ]
    return [
      {
        ...{ angle: wrapped(floor.angle), width: walls.width, depth: cylinder.radius - floor.out },
        ...{ host: cylinder, distance: from - cylinder.from, length: to - from, ends, cutter: 0 },
        faces: faces.map((f) => f.number),
      },
    ]
  })
  return stepsOf('keyway', found, host)
}

interface Floor extends Omit<LengthwisePlane, 'face'> {
  readonly faces: readonly RestFace[]
}

/** The plane faces that look out; those of one plane that lie beside one another are one. */
function floorsOf(planes: readonly LengthwisePlane[], host: Host): Floor[] {
  const looking = planes.filter((p) => p.out > host.near).sort((a, b) => a.from - b.from)
  return alike(
    looking,
    (a, b) => isOne(a.out, b.out, host) && angleBetween(a.angle, b.angle) < PARALLEL,
  ).flatMap((level) => {
    const floors: Floor[] = []
    for (const { face, ...plane } of level) {
      const last = floors.at(-1)
      if (last && plane.from <= last.to + host.near) {
        floors[floors.length - 1] = {
          ...{ ...last, to: Math.max(last.to, plane.to) },
          faces: [...last.faces, face],
        }
      } else floors.push({ ...plane, faces: [face] })
    }
    return floors
  })
}

/** The round ends of a keyway: where the middles of their cylinders lie, and to which side they end it. */
function endsOf(
  rest: readonly RestFace[],
  floor: Floor,
  width: number,
  { near }: Host,
): readonly { readonly face: RestFace; readonly at: number; readonly side: 1 | -1 }[] {
  const [out, round] = directionsAt(floor.angle)
  return rest.flatMap((face) => {
    if (face.kind !== 'cylinder' || !face.axis) return []
    const { at, along } = face.axis
    const isSquare = lengthOf(crossPlaces(along, out)) < PARALLEL
    if (!isSquare || Math.abs(dotPlaces(at, round)) > near || sideOf(face, face.axis) > 0) return []
    const [low, high] = rangeAlong(face, { x: 0, y: 0, z: 1 })
    const [bottom] = rangeAlong(face, out)
    const across = rangeAlong(face, round)
    const isOwn =
      Math.abs(bottom - floor.out) <= near &&
      Math.abs(across[1] - width / 2) <= near &&
      low >= floor.from - width &&
      high <= floor.to + width
    return isOwn ? [{ face, at: at.z, side: (low + high) / 2 < at.z ? -1 : 1 } as const] : []
  })
}

/** Seats for half-round keys: a disc cutter's cylinder between two walls. */
export const halfRoundSeats: Finder = (rest, host) => {
  const planes = lengthwisePlanes(rest)
  const found = rest.flatMap((face): Slot[] => {
    if (face.kind !== 'cylinder' || !face.axis) return []
    const { at, along } = face.axis
    const off = Math.hypot(at.x, at.y)
    // Its axis goes across, and its foot from the part's axis is where the seat is deepest.
    const across = Math.abs(at.x * along.y - at.y * along.x)
    if (Math.abs(along.z) > PARALLEL || across <= host.near || off === 0) return []
    if (sideOf(face, face.axis) > 0) return []
    const side = at.x * along.y - at.y * along.x
    const angle = Math.atan2(-along.x * Math.sign(side), along.y * Math.sign(side))
    const [out, round] = directionsAt(angle)
    const [bottom] = rangeAlong(face, out)
    const [low, high] = rangeAlong(face, round)
    const walls = wallsAt(angle, planes, host, (w) => w.from < at.z && w.to > at.z)
    const cylinder = outerCylinderAt(host, at.z)
    if (!walls || !cylinder || Math.abs(high - low - walls.width) > host.near) return []
    const radius = radiusAbout(face, face.axis)
    // Places on it may miss the deepest one.
    if (bottom < across - radius - host.near) return []
    return [
      {
        ...{ angle: wrapped(angle), width: walls.width, host: cylinder, ends: 'round' },
        ...{ depth: cylinder.radius - (across - radius), distance: at.z - cylinder.from },
        ...{ length: 2 * radius, cutter: 2 * radius },
        faces: [face, ...walls.faces].map((f) => f.number),
      },
    ]
  })
  return stepsOf('half-round seat', found, host)
}

function radiusAbout({ nodes }: RestFace, { at, along }: NonNullable<RestFace['axis']>): number {
  const off = { x: (nodes[0] ?? 0) - at.x, y: (nodes[1] ?? 0) - at.y, z: (nodes[2] ?? 0) - at.z }
  return lengthOf(crossPlaces(off, along))
}

function stepsOf(
  kind: 'keyway' | 'half-round seat',
  slots: readonly Slot[],
  host: Host,
): Feature[] {
  const mm = (value: number): string => figureOf(value, 'length', host.units)
  const kinds = alike(
    slots,
    (a, b) =>
      a.host.key === b.host.key &&
      a.ends === b.ends &&
      (['width', 'depth', 'distance', 'length'] as const).every((k) => isOne(a[k], b[k], host)),
  )
  return kinds.flatMap((alikes) =>
    spreadsOf(alikes)
      .flatMap((s) =>
        s.range === undefined
          ? [s]
          : s.items.map((slot) => ({ start: slot.angle, range: undefined, items: [slot] })),
      )
      .flatMap(({ start, items }): Feature[] => {
        const [first] = items
        if (!first) return []
        const step: NewStep = {
          ...{ kind: 'slot', body: host.body, form: kind === 'keyway' ? 'keyway' : 'woodruff' },
          ...{ on: first.host.key, from: '', distance: mm(first.distance) },
          ...{ width: mm(first.width), depth: mm(first.depth), ends: first.ends },
          length: kind === 'keyway' ? mm(first.length) : '',
          cutter: kind === 'keyway' ? '' : mm(first.cutter),
          ...{ count: String(items.length), phase: phaseOf(start, host) },
        }
        return [{ kind, count: items.length, step, faces: items.flatMap((s) => s.faces) }]
      }),
  )
}

const phaseOf = (start: number, { units }: Host): string =>
  start === 0 ? '' : figureOf(start, 'angle', units)

/** Slots right across an end face, through the axis. */
export const endSlots: Finder = (rest, host) => {
  const planes = lengthwisePlanes(rest)
  const floors = squarePlanes(rest)
  const found = planes.flatMap((wall) => {
    if (wall.out >= 0) return []
    const floor = floors.find(
      ({ at, way }) => Math.abs((way === 1 ? wall.to : wall.from) - at) <= host.near,
    )
    if (!floor) return []
    const mouth = floor.way === 1 ? wall.from : wall.to
    const angle = wrapped(wall.angle + Math.PI / 2, Math.PI)
    const isBeside = (p: LengthwisePlane): boolean =>
      Math.abs(p.from - wall.from) <= host.near && Math.abs(p.to - wall.to) <= host.near
    const walls = wallsAt(angle, planes, host, isBeside)
    const on = squareFaceAt(host, mouth, floor.way, [walls?.width ?? 0, Infinity])
    if (!walls || on === undefined) return []
    const own = floors.filter((f) => Math.abs(f.at - floor.at) <= host.near && f.way === floor.way)
    const faces = [...walls.faces, ...own.map((f) => f.face)].map((f) => f.number)
    return [{ angle, width: walls.width, depth: Math.abs(mouth - floor.at), on, faces }]
  })
  const single = alike(
    found,
    (a, b) =>
      a.on === b.on && angleBetween(a.angle, b.angle) < PARALLEL && isOne(a.depth, b.depth, host),
  ).flatMap((same) => same.slice(0, 1))
  const kinds = alike(
    single,
    (a, b) => a.on === b.on && isOne(a.width, b.width, host) && isOne(a.depth, b.depth, host),
  )
  const mm = (value: number): string => figureOf(value, 'length', host.units)
  return kinds.flatMap((kind) =>
    spreadsOf(kind, Math.PI).flatMap(({ start, range, items }): Feature[] => {
      const [first] = items
      if (!first) return []
      const groups =
        range === undefined
          ? [{ start, items }]
          : items.map((s) => ({ start: s.angle, items: [s] }))
      return groups.map((group) => ({
        ...{ kind: 'end slot', count: group.items.length },
        step: {
          ...{ kind: 'slot', body: host.body, form: 'end', on: first.on, from: '', distance: '' },
          ...{ width: mm(first.width), depth: mm(first.depth), length: '', ends: 'square' },
          ...{ cutter: '', count: String(group.items.length), phase: phaseOf(group.start, host) },
        },
        faces: group.items.flatMap((s) => s.faces),
      }))
    }),
  )
}
