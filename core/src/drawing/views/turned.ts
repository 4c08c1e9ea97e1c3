import { line, mapped, pointAt, radiusOf, sweepOf, vec, type Piece, type Vec } from '../../geometry'
import { endCircles, loopsOf, type Loop } from '../../section'
import type { Item } from '../items'
import type { Seen } from '../seen'
import { hatchLines, hatchingOf } from './hatch'
import { hollowSpans, localHalf } from './local'
import { partsWhere } from './parted'
import type { Shown } from './shown'
import { edgesBehind, outsideOf, type Outside } from './outside'

/** A view in mm of paper, its origin where the part's is. */
export interface View {
  readonly items: readonly Item[]
  /** What labels must not cover. */
  readonly outlines: readonly Piece[]
  /** Half its height over a place of the paper. */
  readonly outside: (x: number) => number
  /** Whether it is cut open above a place of the paper; left out where all of it is, or nothing. */
  readonly isOpen?: (x: number) => boolean
  readonly left: number
  readonly right: number
  readonly radius: number
}

/** How far centre lines go beyond the outline, in mm. */
const CENTRE = 4
/** Walls that are thinner on paper are filled instead of hatched, in mm (ISO 128-3:2020). */
const THIN = 0.9

const scaled =
  (by: number, side: 1 | -1) =>
  (piece: Piece): Piece =>
    mapped(piece, (p: Vec) => vec(p.x * by, side * p.y * by), side < 0)

/** Along the axis, above it the outside or the section or the outside cut open, below it the outside or the section. */
export function alongView(
  bodies: readonly Shown[],
  by: number,
  above: 'outside' | 'local' | 'section',
  below: 'outside' | 'section',
  seen: { readonly outside?: Seen | undefined; readonly cut?: Seen | undefined } = {},
): View {
  const sections = bodies.map((b) => b.section)
  const outside = outsideOf(sections)
  const size = sizeOf(outside, by)
  const heightAt = (x: number): number => outside.radiusAt(x / by) * by
  const halfOf = (side: 1 | -1, isCut: boolean): Half => {
    if (!isCut) {
      return seen.outside ? seenHalf(seen.outside.lines, by, side) : outsideHalf(outside, by, side)
    }
    return seen.cut
      ? seenCut(seen.cut, by, side, size.radius)
      : cutHalf(bodies, by, side, size.radius)
  }
  const opened =
    above === 'local'
      ? localHalf(hollowSpans(bodies, outside, seen.cut), halfOf(1, false), halfOf(1, true), {
          ...{ by, left: size.left, right: size.right, heightAt },
        })
      : undefined
  const halves = [opened ?? halfOf(1, above === 'section'), halfOf(-1, below === 'section')]
  const centre: Item = {
    ...{ kind: 'stroke', line: 'centre' },
    runs: [[line(vec(size.left - CENTRE, 0), vec(size.right + CENTRE, 0))]],
  }
  return {
    ...size,
    items: [...halves.flatMap((h) => h.items), centre],
    outlines: [...halves.flatMap((h) => h.outlines), line(vec(size.left, 0), vec(size.right, 0))],
    outside: heightAt,
    ...(opened ? { isOpen: opened.isOpen } : {}),
  }
}

function sizeOf({ runs }: Outside, by: number): Pick<View, 'left' | 'right' | 'radius'> {
  const ends = runs.flat().flatMap((p) => [p.from, p.to])
  const xs = ends.map((p) => p.x * by)
  // An arc may stand out between its ends.
  const tops = runs
    .flat()
    .map((p) =>
      p.kind === 'arc' ? Math.max(p.from.y, p.to.y, highest(p)) : Math.max(p.from.y, p.to.y),
    )
  return { left: Math.min(...xs), right: Math.max(...xs), radius: Math.max(...tops) * by }
}

/** Pieces of a silhouette run to the right: one that bows outwards over its centre is highest there. */
function highest(piece: Extract<Piece, { kind: 'arc' }>): number {
  const { from, to, centre } = piece
  const isOver = Math.min(from.x, to.x) < centre.x && centre.x < Math.max(from.x, to.x)
  return isOver && !piece.counterClockwise
    ? centre.y + Math.hypot(from.x - centre.x, from.y - centre.y)
    : 0
}

interface Half {
  readonly items: readonly Item[]
  readonly outlines: readonly Piece[]
}

function outsideHalf({ runs, rings }: Outside, by: number, side: 1 | -1): Half {
  const put = scaled(by, side)
  const drawn = [...runs.map((run) => run.map(put)), ...rings.map((ring) => [put(ring)])]
  return { items: [{ kind: 'stroke', line: 'wide', runs: drawn }], outlines: drawn.flat() }
}

/** Of what the kernel has seen, that above the axis or below it. */
function seenHalf(seen: readonly Piece[], by: number, side: 1 | -1): Half {
  const axis = line(vec(-1e7, 0), vec(1e7, 0))
  const put = scaled(by, 1)
  const runs = seen
    .flatMap((piece) => partsWhere(piece, [axis], (at) => side * at.y > 0))
    .map((piece) => [put(piece)])
  return { items: [{ kind: 'stroke', line: 'wide', runs }], outlines: runs.flat() }
}

/** What is cut there of what the kernel has seen, hatched by body, with all that is seen behind. */
function seenCut({ lines, cuts }: Seen, by: number, side: 1 | -1, radius: number): Half {
  const half = seenHalf(lines, by, side)
  const put = scaled(by, 1)
  const axis = line(vec(-1e7, 0), vec(1e7, 0))
  const hatched = cuts.map((cut, i): Item => ({
    ...{ kind: 'stroke', line: 'narrow' },
    runs: hatchLines([cut.map(put)], hatchingOf(i, 2 * radius))
      .flatMap((l) => partsWhere(l, [axis], (at) => side * at.y > 0))
      .map((l) => [l]),
  }))
  return { items: [...hatched, ...half.items], outlines: half.outlines }
}

function cutHalf(bodies: readonly Shown[], by: number, side: 1 | -1, radius: number): Half {
  const put = scaled(by, side)
  const items: Item[] = []
  const outlines: Piece[] = []
  bodies.forEach(({ section, whole }, i) => {
    if (whole) {
      const half = outsideHalf(outsideOf([section]), by, side)
      items.push(...half.items)
      outlines.push(...half.outlines)
      return
    }
    const loops = loopsOf(section)
    const runs = loops.flatMap(openRuns).map((run) => run.map((e) => put(e.piece)))
    const closedLoops = loops.map((loop) => loop.map((e) => put(e.piece)))
    const isThin = thicknessOf(closedLoops) < THIN
    items.push(
      isThin
        ? { kind: 'fill', tone: 'ink', loops: closedLoops }
        : {
            kind: 'stroke',
            line: 'narrow',
            runs: hatchLines(closedLoops, hatchingOf(i, 2 * radius)).map((l) => [l]),
          },
      { kind: 'stroke', line: 'wide', runs },
    )
    outlines.push(...runs.flat())
  })
  const cut = bodies.filter((b) => !b.whole).map((b) => b.section)
  const before = bodies.filter((b) => b.whole).map((b) => b.section)
  const behind = edgesBehind(cut, before).map(put)
  return {
    items: [...items, { kind: 'stroke', line: 'wide', runs: behind.map((p) => [p]) }],
    outlines: [...outlines, ...behind],
  }
}

/** About how thick material is: twice its area over its outline. */
function thicknessOf(loops: readonly (readonly Piece[])[]): number {
  const points = loops.map((loop) => loop.map((p) => p.from))
  const area = points.reduce(
    (sum, ring) =>
      sum +
      ring.reduce((a, p, i) => {
        const q = ring[(i + 1) % ring.length] ?? p
        return a + (p.x * q.y - q.x * p.y) / 2
      }, 0),
    0,
  )
  const round = loops
    .flat()
    .reduce((sum, p) => sum + Math.hypot(p.to.x - p.from.x, p.to.y - p.from.y), 0)
  return round > 0 ? (2 * Math.abs(area)) / round : 0
}

/** The edges of a loop between those along the axis, in runs. */
export function openRuns(loop: Loop): Loop[] {
  const start = loop.findIndex((e) => e.name.role === 'axis')
  if (start < 0) return [loop]
  const runs: Loop[] = []
  let run: Loop[number][] = []
  for (const edge of [...loop.slice(start + 1), ...loop.slice(0, start + 1)]) {
    if (edge.name.role !== 'axis') {
      run.push(edge)
      continue
    }
    if (run.length > 0) runs.push(run)
    run = []
  }
  return runs
}

/** A full circle as two halves. */
export function ring(centre: Vec, radius: number): Piece[] {
  const [a, b] = [vec(centre.x + radius, centre.y), vec(centre.x - radius, centre.y)]
  const half = (from: Vec, to: Vec): Piece => ({
    ...{ kind: 'arc', from, to, centre, counterClockwise: true },
  })
  return [half(a, b), half(b, a)]
}

/** From an end, as the kernel has seen it; holes have centre lines, and those at one distance a circle through them. */
function seenEnd(seen: readonly Piece[], by: number): View {
  const put = scaled(by, 1)
  const runs = seen.map((piece) => [put(piece)])
  const far = Math.max(
    0,
    ...runs.flat().flatMap((p) => [0, 0.5, 1].map((t) => length(pointAt(p, t)))),
  )
  const holes: { at: Vec; radius: number }[] = []
  for (const [piece] of runs) {
    if (piece?.kind !== 'arc' || Math.abs(sweepOf(piece)) < 1) continue
    const { centre } = piece
    const radius = radiusOf(piece)
    if (length(centre) < 1e-3 || length(centre) < radius / 10) continue
    const known = holes.find((h) => length(vec(h.at.x - centre.x, h.at.y - centre.y)) < 1e-3)
    if (!known) holes.push({ at: centre, radius })
    else known.radius = Math.max(known.radius, radius)
  }
  const circles = holes.reduce<number[]>((all, h) => {
    const r = length(h.at)
    const isShared = holes.some((o) => o !== h && Math.abs(length(o.at) - r) < 1e-3)
    return isShared && !all.some((a) => Math.abs(a - r) < 1e-3) ? [...all, r] : all
  }, [])
  return {
    items: [
      { kind: 'stroke', line: 'wide', runs },
      crossLines(far),
      ...holes.map((h) => crossLines(h.radius, h.at, CENTRE / 2)),
      { kind: 'stroke', line: 'centre', runs: circles.map((r) => ring(vec(0, 0), r)) },
    ],
    outlines: runs.flat(),
    outside: (x) => Math.sqrt(Math.max(0, far * far - x * x)),
    ...{ left: -far, right: far, radius: far },
  }
}

const length = ({ x, y }: Vec): number => Math.hypot(x, y)

/** From an end: of full turns the circles that are seen. */
export function endView(
  bodies: readonly Shown[],
  by: number,
  from: 'left' | 'right',
  seen?: readonly Piece[],
): View {
  if (seen) return seenEnd(seen, by)
  const circles = bodies
    .flatMap((b) => endCircles(b.section, from))
    .filter((c) => !c.hidden)
    .map((c) => c.radius * by)
  const radius = Math.max(0, ...circles)
  const runs = [...new Set(circles)].map((r) => ring(vec(0, 0), r))
  return {
    items: [{ kind: 'stroke', line: 'wide', runs }, crossLines(radius)],
    outlines: runs.flat(),
    outside: (x) => Math.sqrt(Math.max(0, radius * radius - x * x)),
    ...{ left: -radius, right: radius, radius },
  }
}

/** The centre lines of what is round. */
export const crossLines = (radius: number, at: Vec = vec(0, 0), beyond = CENTRE): Item => ({
  ...{ kind: 'stroke', line: 'centre' },
  runs: [
    [line(vec(at.x - radius - beyond, at.y), vec(at.x + radius + beyond, at.y))],
    [line(vec(at.x, at.y - radius - beyond), vec(at.x, at.y + radius + beyond))],
  ],
})
