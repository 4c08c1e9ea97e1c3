import svgpath from 'svgpath'
import { fail, succeed, type Result } from '../result'
import {
  boundsOf,
  controlOf,
  cubic,
  distance,
  line,
  mix,
  sweepOf,
  arc,
  type Piece,
  type Vec,
} from '../geometry'
import type { Role } from '../sketch'
import type { Part } from '../part'
import { isNotDrawn, shapePath, styled, svgRoot, type SvgElement } from './svgElements'

/** Larger files are drawings for the eye, not outlines. */
export const LARGEST_OUTLINE_FILE = 8_000_000

/** The most pieces an outline is taken with. */
export const MOST_OUTLINE_PIECES = 2_000

/** A stroke of a drawing: pieces end to end. Circles are two arcs. */
export interface OutlineRun {
  readonly pieces: readonly Piece[]
  readonly role: Role
}

/** What a drawing holds, in the half-section of a part: x along the axis, y out from it, in mm. */
export interface ReadOutline {
  readonly runs: readonly OutlineRun[]
  /** Whether it was moved so that it begins at the datum and rests on the axis, as it lay on both sides of the axis. */
  readonly moved: boolean
}

/** CSS pixels in a millimetre (SVG 2, 8.9). */
const PER_PIXEL = 25.4 / 96

/** What lengths with a unit are in mm (CSS Values 3, 5.2); without one they are pixels. */
const UNITS: Readonly<Record<string, number>> = {
  ...{ mm: 1, cm: 10, in: 25.4, pt: 25.4 / 72, pc: 25.4 / 6, px: PER_PIXEL, '': PER_PIXEL },
}

/**
 * Reads the strokes of an SVG drawing (SVG 2: paths, lines, polylines, polygons, rectangles, circles and ellipses, in
 * groups with transforms). What is long-dashed is taken as construction. Where all of it lies on one side of the
 * drawing's own zero, that is the axis; else it is laid on the axis with its lower edge.
 * @param lie how the part is drawn: of a standing part the axis is upright
 */
export function readOutlineSvg(text: string, lie: Part['lie']): Result<ReadOutline> {
  if (text.length > LARGEST_OUTLINE_FILE) {
    return fail('outline.large', 'This drawing is too large for an outline.', 'Simplify it first.')
  }
  const root = svgRoot(text)
  if (!root) return fail('outline.kind', 'This is no SVG drawing.', 'Choose an SVG file.')
  const scale = scaleOf(root)
  const strokes: Stroke[] = []
  gather(root, `scale(${scale})`, false, strokes)
  const runs = strokes.flatMap(({ path, dashed }) =>
    runsOf(path, dashed ? 'construction' : 'outline'),
  )
  const count = runs.reduce((sum, { pieces }) => sum + pieces.length, 0)
  if (count === 0) {
    const mend = 'Turn its text and pictures into paths first, or draw its outline.'
    return fail('outline.empty', 'There is no line or curve in this drawing.', mend)
  }
  if (count > MOST_OUTLINE_PIECES) {
    return fail(
      'outline.many',
      `This drawing has ${count} lines and curves; an outline has at most ${MOST_OUTLINE_PIECES}.`,
      'Leave out what is no outline, or simplify its paths.',
    )
  }
  return succeed(laid(runs.map((run) => turnedTo(run, lie))))
}

/** How long a unit of the drawing is in mm: its width, by how many units its view box is wide. */
function scaleOf({ attributes }: SvgElement): number {
  const box = (attributes['viewBox'] ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number)
  const told = /^\s*([\d.eE+-]+)\s*([a-z]*)\s*$/.exec(attributes['width'] ?? '')
  const unit = told && UNITS[told[2] ?? '']
  const width = Number(told?.[1]) * (unit ?? NaN)
  const [, , across = NaN] = box
  const scale = width / across
  return Number.isFinite(scale) && scale > 0 ? scale : PER_PIXEL
}

interface Stroke {
  readonly path: ReturnType<typeof svgpath>
  readonly dashed: boolean
}

function gather(element: SvgElement, outer: string, dashes: boolean, into: Stroke[]): void {
  const { attributes, children } = element
  if (isNotDrawn(element)) return
  const transform = `${outer} ${attributes['transform'] ?? ''}`.trim()
  const told = styled(attributes, 'stroke-dasharray')
  const dashed = told === undefined ? dashes : told !== 'none'
  const d = shapePath(element)
  if (d !== undefined) into.push({ path: svgpath(d).transform(transform), dashed })
  for (const child of children) gather(child, transform, dashed, into)
}

/** Pieces shorter than this are none, in mm. */
const LEAST = 1e-4

/** Arcs whose two radii differ by less than this share of them are round. */
const ROUND = 1e-6

function runsOf(path: Stroke['path'], role: Role): OutlineRun[] {
  const runs: OutlineRun[] = []
  let pieces: Piece[] = []
  let [start, here]: [Vec, Vec] = [ORIGIN, ORIGIN]
  const close = (): void => {
    if (pieces.length > 0) runs.push({ pieces, role })
    pieces = []
  }
  const draw = (piece: Piece): void => {
    const last = pieces.at(-1)
    const whole = last && inOne(last, piece)
    if (whole) pieces[pieces.length - 1] = whole
    else if (distance(piece.from, piece.to) > LEAST || piece.kind === 'cubic') pieces.push(piece)
    here = piece.to
  }
  const lineTo = (to: Vec): void => draw(line(here, to))
  path
    .abs()
    .unshort()
    .iterate((segment) => {
      const [kind, ...told] = segment as [string, ...number[]]
      // Flags that a mirror image turns about come as text.
      const n = told.map(Number)
      if (!n.every(Number.isFinite)) return
      const at = (i: number): Vec => ({ x: n[i] ?? 0, y: n[i + 1] ?? 0 })
      switch (kind) {
        case 'M':
          close()
          start = here = at(0)
          return
        case 'L':
          return lineTo(at(0))
        case 'H':
          return lineTo({ x: n[0] ?? 0, y: here.y })
        case 'V':
          return lineTo({ x: here.x, y: n[0] ?? 0 })
        case 'C':
          return drawCubic(at(0), at(2), at(4))
        case 'Q': {
          // A parabola as the cubic that it is.
          const [c, to] = [at(0), at(2)]
          return drawCubic(mix(here, c, 2 / 3), mix(to, c, 2 / 3), to)
        }
        case 'A':
          return drawArc(n)
        case 'Z':
          if (distance(here, start) > LEAST) lineTo(start)
          here = start
          close()
      }
    })
  close()
  return runs

  function drawCubic(b: Vec, c: Vec, to: Vec): void {
    const reach = Math.max(distance(here, b), distance(here, c), distance(here, to))
    if (reach > LEAST) draw(straightened(here, b, c, to))
  }

  function drawArc(n: readonly number[]): void {
    const [rx = 0, ry = 0, , large = 0, sweep = 0, x = 0, y = 0] = n
    const to = { x, y }
    if (distance(here, to) <= LEAST) return
    if (Math.abs(rx - ry) <= ROUND * Math.max(rx, ry))
      return draw(roundArc(here, to, rx, large, sweep))
    const words = `M${here.x} ${here.y}A${n.join(' ')}`
    svgpath(words)
      .unarc()
      .iterate((segment) => {
        const [kind, a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = segment as [string, ...number[]]
        if (kind === 'C') drawCubic({ x: a, y: b }, { x: c, y: d }, { x: e, y: f })
      })
  }
}

/** Two arcs of one circle that go on from one another as one; all round they stay two. */
function inOne(before: Piece, piece: Piece): Piece | undefined {
  if (before.kind !== 'arc' || piece.kind !== 'arc') return undefined
  const isOne =
    before.counterClockwise === piece.counterClockwise &&
    distance(before.centre, piece.centre) <= LEAST &&
    Math.abs(sweepOf(before)) + Math.abs(sweepOf(piece)) < FULL &&
    distance(before.from, piece.to) > LEAST
  return isOne ? arc(before.from, piece.to, before.centre, piece.counterClockwise) : undefined
}

/** Less than all round, in radians, by more than rounding. */
const FULL = 2 * Math.PI - 1e-3

const ORIGIN: Vec = { x: 0, y: 0 }

/** A cubic, or the line it is drawn for. */
function straightened(from: Vec, b: Vec, c: Vec, to: Vec): Piece {
  const length = distance(from, to)
  const off = (p: Vec): number =>
    Math.abs((to.x - from.x) * (p.y - from.y) - (to.y - from.y) * (p.x - from.x)) / (length || 1)
  const along = (p: Vec): number =>
    ((to.x - from.x) * (p.x - from.x) + (to.y - from.y) * (p.y - from.y)) / (length || 1)
  const isStraight =
    length > LEAST &&
    [b, c].every((p) => off(p) < 0.1 * LEAST && along(p) >= -LEAST && along(p) <= length + LEAST)
  return isStraight ? line(from, to) : cubic(from, b, c, to)
}

/** A round arc as SVG tells it (SVG 2, B.2.4); too small a radius is made as large as it must be. */
function roundArc(from: Vec, to: Vec, radius: number, large: number, sweep: number): Piece {
  const half = distance(from, to) / 2
  const r = Math.max(radius, half)
  const rise = Math.sqrt(Math.max(0, r * r - half * half))
  const side = large === sweep ? 1 : -1
  const middle = mix(from, to, 0.5)
  const [ux, uy] = [(to.x - from.x) / (2 * half), (to.y - from.y) / (2 * half)]
  const centre = { x: middle.x + side * rise * uy, y: middle.y - side * rise * ux }
  // Of a picture y goes down: what sweeps on there turns clockwise seen with y upwards, which `turnedTo` turns about.
  return arc(from, to, centre, sweep === 1)
}

/** From the drawing's places to those of the half-section. */
function turnedTo({ pieces, role }: OutlineRun, lie: Part['lie']): OutlineRun {
  // Lying: y goes up. Standing: what goes up is along the axis, what goes to the right is out from it.
  const to = ({ x, y }: Vec): Vec => (lie === 'lying' ? { x, y: -y + 0 } : { x: -y + 0, y: x })
  return {
    role,
    pieces: pieces.map((piece): Piece => {
      if (piece.kind === 'line') return line(to(piece.from), to(piece.to))
      if (piece.kind === 'cubic') {
        const [a, b, c, d] = controlOf(piece)
        return cubic(to(a), to(b), to(c), to(d))
      }
      const { from, centre, counterClockwise } = piece
      const turned = lie === 'lying' ? !counterClockwise : counterClockwise
      return arc(to(from), to(piece.to), to(centre), turned)
    }),
  }
}

/** Lengths below this are on the axis, in mm. */
const NEAR_AXIS = 1e-3

function laid(runs: readonly OutlineRun[]): ReadOutline {
  const boxes = runs.flatMap((run) => run.pieces.map(boundsOf))
  const low = Math.min(...boxes.map((b) => b.min.y))
  if (low >= -NEAR_AXIS) return { runs, moved: false }
  const left = Math.min(...boxes.map((b) => b.min.x))
  const by = (p: Vec): Vec => ({ x: p.x - left, y: p.y - low })
  return {
    moved: true,
    runs: runs.map(({ role, pieces }) => ({ role, pieces: pieces.map((p) => shifted(p, by)) })),
  }
}

function shifted(piece: Piece, by: (p: Vec) => Vec): Piece {
  if (piece.kind === 'line') return line(by(piece.from), by(piece.to))
  if (piece.kind === 'arc') {
    return arc(by(piece.from), by(piece.to), by(piece.centre), piece.counterClockwise)
  }
  const [a, b, c, d] = controlOf(piece)
  return cubic(by(a), by(b), by(c), by(d))
}
