import {
  arc,
  asideOf,
  boundsOf,
  dotPlaces,
  scalePlace,
  vec,
  type ArcPiece,
  type Piece,
} from '../../geometry'
import { lastFor } from '../../once'
import { edgesOf, type EdgeName, type Section } from '../../section'
import type { TurnedTool } from '../plan'
import { boreUnder, outsideOver, type Profile } from './lands'
import { mill, type Milled } from './milled'
import type { Milling } from './milling'
import { APART, plus, SAME, type Taken } from './taken'

/** One side of a plain cross hole: what it takes, and between which faces that is. */
export interface Crossing {
  readonly taken: Taken
  readonly milling: Milling
  /** The radius of the bore that it opens into, 0 where it goes on to the other side; undefined where it ends on a floor. */
  readonly opens: number | undefined
  readonly wall: EdgeName
  readonly ground: EdgeName
}

/**
 * A plain cross hole that meets the axis: from the outside down to a flat end, through one wall into a bore, or
 * through to the other side. Undefined where it is anything else.
 */
export const crossed = lastFor(crossingsOf)

function crossingsOf({ section, frame, turn }: TurnedTool, base: Section): Crossing[] | undefined {
  const across = asideOf(frame.z)
  if (turn || Math.abs(frame.z.z) > 1e-12 || Math.abs(dotPlaces(frame.at, across)) > SAME) {
    return undefined
  }
  const drill = plainDrill(section)
  if (!drill) return undefined
  const { radius } = drill
  const [from, to] = [frame.at.z - radius, frame.at.z + radius]
  const bore = boreUnder(base, from, to)
  if (bore === undefined || (bore > 0 && bore < radius + APART)) return undefined
  // A bore under it does not count for what lies outside of it.
  const over = outsideOver(bore > 0 ? withoutBore(base, bore) : base, bore / 2, from, to)
  if (!over || over.steps.length > 0) return undefined
  const least = Math.min(...over.lands.map((l) => l.least))
  const most = Math.max(...over.lands.map((l) => l.most))
  const isWhole = (over.lands[0]?.from ?? to) < from && (over.lands.at(-1)?.to ?? from) > to
  if (!isWhole || least < radius + APART) return undefined
  const start = dotPlaces(frame.at, frame.z)
  const reach = [start + drill.from, start + drill.to]
  const found: Crossing[] = []
  for (const side of [1, -1] as const) {
    // Along the tool's own way, of what lies on the side it looks to first.
    const out = scalePlace(frame.z, side)
    const [low = 0, high = 0] = reach.map((r) => r * side).sort((p, q) => p - q)
    const rim = rimOf(bore, radius)
    if (high < (bore > 0 ? rim - APART : APART)) continue
    if (high < most + APART) return undefined
    const wall = { from, to, bore, radius, out, least, most, z: frame.at.z }
    const through = throughWall(wall, low, over)
    if (!through) return undefined
    found.push({ ...through, wall: drill.wall, ground: side > 0 ? drill.first : drill.last })
  }
  return found.length > 0 ? found : undefined
}

/** A tool that is a plain cylinder: from where to where along its axis, and its radius. */
function plainDrill(section: Section) {
  const edges = edgesOf(section)
  const pieces = edges.map((e) => e.piece)
  const boxes = pieces.map(boundsOf)
  const isPlain = pieces.every(
    (p) => p.kind === 'line' && (Math.abs(p.from.x - p.to.x) < SAME || p.from.y === p.to.y),
  )
  const radius = Math.max(...boxes.map((b) => b.max.y))
  const isFull = pieces.every((p) => p.from.x === p.to.x || p.from.y < SAME || p.from.y === radius)
  if (!isPlain || !isFull || section.regions.length !== 1) return undefined
  const from = Math.min(...boxes.map((b) => b.min.x))
  const to = Math.max(...boxes.map((b) => b.max.x))
  const named = (isOne: (p: Piece) => boolean): EdgeName | undefined =>
    edges.find((e) => isOne(e.piece))?.name
  const wall = named((p) => p.from.y === radius && p.to.y === radius)
  const first = named((p) => Math.max(p.from.x, p.to.x) < from + SAME)
  const last = named((p) => Math.min(p.from.x, p.to.x) > to - SAME)
  return wall && first && last && { radius, from, to, wall, first, last }
}

/** The same with its bore filled: what is told of the outside does not see it. */
const withoutBore = (base: Section, bore: number): Section => ({
  regions: base.regions.map(({ outer, holes }) => ({
    outer: outer.filter(({ piece }) => Math.max(piece.from.y, piece.to.y) > bore + SAME),
    holes,
  })),
})

interface Wall {
  readonly from: number
  readonly to: number
  readonly bore: number
  readonly radius: number
  readonly out: { readonly x: number; readonly y: number; readonly z: number }
  readonly least: number
  readonly most: number
  readonly z: number
}

/** How near to the axis the rim of a hole comes in a bore; 0 where there is none. */
const rimOf = (bore: number, radius: number): number =>
  Math.sqrt(Math.max(0, bore * bore - radius * radius))

/** @param low how near to the axis the tool ends on this side; below it where that is negative */
function throughWall(
  wall: Wall,
  low: number,
  over: Profile,
): Pick<Crossing, 'taken' | 'milling' | 'opens'> | undefined {
  const { bore, radius, out, most, z } = wall
  const rim = rimOf(bore, radius)
  const isBlind = low > rim
  // An end in the wall itself must not reach into the bore.
  if (isBlind ? low < bore + APART : bore > 0 && low > rim - APART) return undefined
  if (!isBlind && bore === 0 && low > -APART) return undefined
  const circle: ArcPiece = arc(vec(z + radius, 0), vec(z + radius, 0), vec(z, 0), true)
  const milling: Milling = {
    ...{ outline: [circle], floor: isBlind ? low : 0 },
    ...{ out, across: asideOf(out) },
  }
  const whole = mill(milling, over)
  if (!whole) return undefined
  const inner = isBlind || bore === 0 ? undefined : mill(milling, boreProfile(wall))
  if (!isBlind && bore > 0 && !inner) return undefined
  const taken: Taken = {
    sums: inner ? plus(whole.sums, inner.sums, -1) : whole.sums,
    area: areaOf(whole, inner, isBlind),
    reach: {
      ...{ from: wall.from, to: wall.to, low: isBlind ? low : bore, high: most },
      angle: Math.atan2(out.y, out.x),
      half: halfOf(radius, isBlind ? low : rim),
      broken: Math.asin(
        radius / (isBlind ? Math.hypot(low, radius) : bore > 0 ? bore : wall.least),
      ),
    },
  }
  return { taken, milling, opens: isBlind ? undefined : bore }
}

const halfOf = (radius: number, low: number): number =>
  low > 0 ? Math.atan2(radius, low) : Math.PI

function areaOf(whole: Milled, inner: Milled | undefined, isBlind: boolean): number {
  const walls = whole.walls - (inner?.walls ?? 0)
  return walls - whole.surface - (inner?.surface ?? 0) + (isBlind ? whole.floor : 0)
}

/** A bore under a hole, as a profile of its own. */
const boreProfile = ({ from, to, bore }: Wall): Profile => ({
  lands: [
    {
      ...{ from: from - 1, to: to + 1, least: bore, most: bore },
      ...{ radiusAt: () => bore, slantAt: () => 1, whereIs: () => [] },
    },
  ],
  steps: [],
})
