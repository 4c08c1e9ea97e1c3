import {
  gauss,
  lengthOf,
  nearestOn,
  pointAt,
  secondOf,
  speedAt,
  tangentAt,
  vec,
  type Piece,
  type Vec,
} from '../../geometry'
import { edgesOf, type Section } from '../../section'
import type { PrismTool } from '../plan'
import { stretchesBetweenPlanes } from './between'
import { SAME, type Reach, type Sums, type Taken } from './taken'

/** An outline drawn out along the axis, and between which plane faces it meets material; undefined where it meets anything else. */
export function openedThrough({ outline, frame, from, to }: PrismTool, base: Section) {
  if (outline.regions.length !== 1 || Math.abs(Math.abs(frame.z.z) - 1) > 1e-12) return undefined
  const way = frame.z.z > 0 ? 1 : -1
  const second = secondOf(frame)
  const put = ({ x, y }: Vec): Vec =>
    vec(frame.at.x + frame.x.x * x + second.x * y, frame.at.y + frame.x.y * x + second.y * y)
  const ends = [frame.at.z + way * from, frame.at.z + way * to] as const
  const [z0, z1] = [Math.min(...ends), Math.max(...ends)]
  const pieces = edgesOf(outline).map((e) => e.piece)
  if (pieces.some((p) => p.kind === 'cubic')) return undefined
  const reach = reachOf(pieces, put, z0, z1)
  const met = reach && stretchesBetweenPlanes(base, reach, ends)
  return met && { pieces, put, reach, met, ends, z0, z1 }
}

/** What an outline that is drawn out along the axis takes between plane faces; undefined as above. */
export function pierced(tool: PrismTool, base: Section): readonly Taken[] | undefined {
  const found = openedThrough(tool, base)
  if (!found) return undefined
  const { pieces, put, reach, met, z0, z1 } = found
  const flat = flatSums(pieces, put)
  const around = pieces.reduce((sum, p) => sum + lengthOf(p), 0)
  return met.flatMap(([a, b]): Taken[] => {
    const [low, high] = [Math.max(a, z0), Math.min(b, z1)]
    if (high - low < SAME) return []
    // At its own end inside the material a floor is left; what it opens has no face any more.
    const faces = [z0 - a, b - z1].reduce((sum, off) => sum + (off > SAME ? 1 : -1), 0)
    const height = high - low
    return [
      {
        sums: {
          ...{ volume: flat.area * height, x: flat.x * height, y: flat.y * height },
          ...{ xx: flat.xx * height, yy: flat.yy * height, xy: flat.xy * height },
          z: (flat.area * (high ** 2 - low ** 2)) / 2,
          zz: (flat.area * (high ** 3 - low ** 3)) / 3,
        },
        area: around * height + faces * flat.area,
        reach,
      },
    ]
  })
}

/** So many stretches of each piece are looked at for how far round it reaches. */
const STRETCHES = 32

/** How far it reaches from the axis and round it, on the safe side; undefined where it goes round the axis. */
function reachOf(
  pieces: readonly Piece[],
  put: (p: Vec) => Vec,
  from: number,
  to: number,
): Reach | undefined {
  const spots = pieces.flatMap((piece) => {
    const off = lengthOf(piece) / STRETCHES / 2
    return Array.from({ length: STRETCHES }, (_, i) => ({
      at: put(pointAt(piece, (i + 0.5) / STRETCHES)),
      off,
    }))
  })
  const axis = axisIn(put)
  const low = Math.min(...pieces.map((p) => nearestOn(p, axis).distance))
  const high = Math.max(...spots.map(({ at, off }) => Math.hypot(at.x, at.y) + off))
  const [first] = spots
  if (!first || low < SAME) return undefined
  const start = Math.atan2(first.at.y, first.at.x)
  let [least, most, angle] = [0, 0, 0]
  let before = start
  for (const { at, off } of spots) {
    const turn = Math.atan2(at.y, at.x)
    angle += Math.atan2(Math.sin(turn - before), Math.cos(turn - before))
    before = turn
    const margin = Math.asin(Math.min(1, off / Math.hypot(at.x, at.y)))
    least = Math.min(least, angle - margin)
    most = Math.max(most, angle + margin)
  }
  // Back at its beginning it has gone round the axis, or not.
  const back = Math.atan2(Math.sin(start - before), Math.cos(start - before))
  if (Math.abs(angle + back) > Math.PI) return undefined
  return {
    ...{ from, to, low, high, angle: start + (least + most) / 2 },
    half: Math.min(Math.PI, (most - least) / 2),
  }
}

/** Where the part's axis is in the outline's own directions. */
function axisIn(put: (p: Vec) => Vec): Vec {
  const origin = put(vec(0, 0))
  const [x, y] = [put(vec(1, 0)), put(vec(0, 1))].map((p) => vec(p.x - origin.x, p.y - origin.y))
  if (!x || !y) return vec(0, 0)
  return vec(-(origin.x * x.x + origin.y * x.y), -(origin.x * y.x + origin.y * y.y))
}

type Flat = Pick<Sums, 'x' | 'y' | 'xx' | 'yy' | 'xy'> & { readonly area: number }

/** Integrals over a plane outline, along its edges (Green's theorem); its size, whichever way round it runs. */
function flatSums(pieces: readonly Piece[], put: (p: Vec) => Vec): Flat {
  const sums = { area: 0, x: 0, y: 0, xx: 0, yy: 0, xy: 0 }
  const origin = put(vec(0, 0))
  for (const piece of pieces) {
    const visit = (t: number, weight: number): void => {
      const { x, y } = put(pointAt(piece, t))
      const tip = put(tangentAt(piece, t))
      const by = weight * speedAt(piece, t)
      const [dx, dy] = [(tip.x - origin.x) * by, (tip.y - origin.y) * by]
      sums.area += (x * dy - y * dx) / 2
      sums.x += (x * x * dy) / 2
      sums.y -= (y * y * dx) / 2
      sums.xx += (x ** 3 * dy) / 3
      sums.yy -= (y ** 3 * dx) / 3
      sums.xy += (x * x * y * dy) / 2
    }
    // A quarter of a turn at a time.
    for (let i = 0; i < 4; i++) gauss(i / 4, (i + 1) / 4, visit)
  }
  const sign = Math.sign(sums.area)
  return {
    ...{ area: sign * sums.area, x: sign * sums.x, y: sign * sums.y },
    ...{ xx: sign * sums.xx, yy: sign * sums.yy, xy: sign * sums.xy },
  }
}
