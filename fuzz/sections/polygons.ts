/**
 * Areas of sections by polygons: pieces become chords, and a clipping package does with polygons
 * what the engine does with curves. Nothing of the engine is used.
 */
import Clipper from 'clipper-lib'
import type { Piece } from '@lathica/core/geometry'
import { edgesOf, loopsOf, type Section } from '@lathica/core/section'

/** Whole numbers in which the clipping package reckons, per mm. */
const SCALE = 1e7

interface Place {
  readonly x: number
  readonly y: number
}
type Path = { X: number; Y: number }[]

const onCubic = ([a, b, c, d]: readonly Place[], t: number): Place => {
  const s = 1 - t
  const w = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t]
  const all = [a, b, c, d]
  const sum = (way: 'x' | 'y'): number =>
    all.reduce((total, p, i) => total + (w[i] ?? 0) * (p?.[way] ?? 0), 0)
  return { x: sum('x'), y: sum('y') }
}

/** Places along a piece from its start to before its end. */
export function placesOn(piece: Piece, chord: number): Place[] {
  if (piece.kind === 'line') return [piece.from]
  if (piece.kind === 'arc') {
    const { centre, from, to, counterClockwise } = piece
    const r = Math.hypot(from.x - centre.x, from.y - centre.y)
    const a = Math.atan2(from.y - centre.y, from.x - centre.x)
    const b = Math.atan2(to.y - centre.y, to.x - centre.x)
    const turn = (counterClockwise ? b - a : a - b) % (2 * Math.PI)
    const sweep = turn > 1e-12 ? turn : turn + 2 * Math.PI
    const n = Math.max(2, Math.ceil(sweep / Math.sqrt((8 * chord) / Math.max(r, chord))))
    return Array.from({ length: n }, (_, i) => {
      const angle = a + ((counterClockwise ? 1 : -1) * sweep * i) / n
      return i === 0
        ? from
        : { x: centre.x + r * Math.cos(angle), y: centre.y + r * Math.sin(angle) }
    })
  }
  const n = 64
  const { on, start, end } = piece
  return Array.from({ length: n }, (_, i) =>
    i === 0 ? piece.from : onCubic(on, start + ((end - start) * i) / n),
  )
}

const toPath = (places: readonly Place[]): Path =>
  places.map(({ x, y }) => ({ X: Math.round(x * SCALE), Y: Math.round(y * SCALE) }))

/** A section's loops as polygons. */
export const pathsOf = (section: Section, chord: number): Path[] =>
  loopsOf(section).map((loop) => toPath(loop.flatMap((e) => placesOn(e.piece, chord))))

export const perimeterOf = (section: Section): number =>
  edgesOf(section).reduce((sum, { piece }) => {
    const places = [...placesOn(piece, 0.01), piece.to]
    return (
      sum +
      places
        .slice(1)
        .reduce(
          (l, p, i) => l + Math.hypot(p.x - (places[i]?.x ?? 0), p.y - (places[i]?.y ?? 0)),
          0,
        )
    )
  }, 0)

export const areaOf = (paths: readonly Path[]): number =>
  paths.reduce((sum, p) => sum + Clipper.Clipper.Area(p), 0) / (SCALE * SCALE)

/** The area in mm² of two sets of polygons, joined, cut or kept in common. */
export const clippedArea = (one: Path[], two: Path[], effect: 'add' | 'cut' | 'common'): number =>
  areaOf(clippedPaths(one, two, effect))

export function clippedPaths(one: Path[], two: Path[], effect: 'add' | 'cut' | 'common'): Path[] {
  const { ClipType, PolyType, PolyFillType } = Clipper
  const clipper = new Clipper.Clipper()
  clipper.AddPaths(one, PolyType.ptSubject, true)
  clipper.AddPaths(two, PolyType.ptClip, true)
  const kind = {
    add: ClipType.ctUnion,
    cut: ClipType.ctDifference,
    common: ClipType.ctIntersection,
  }
  const solution: Path[] = []
  clipper.Execute(kind[effect], solution, PolyFillType.pftNonZero, PolyFillType.pftNonZero)
  return solution
}

/** Polygons grown by a distance in mm, negative to shrink, with round corners. */
export function grown(paths: Path[], by: number, chord: number): Path[] {
  const offset = new Clipper.ClipperOffset(2, chord * SCALE)
  offset.AddPaths(paths, Clipper.JoinType.jtRound, Clipper.EndType.etClosedPolygon)
  const solution: Path[] = []
  offset.Execute(solution, by * SCALE)
  return solution
}

/** An open chain thickened by a distance to both sides, with round corners and ends. */
export function thickened(chain: readonly Piece[], by: number, chord: number): Path[] {
  const last = chain.at(-1)
  const places = [...chain.flatMap((p) => placesOn(p, chord)), ...(last ? [last.to] : [])]
  const offset = new Clipper.ClipperOffset(2, chord * SCALE)
  offset.AddPath(toPath(places), Clipper.JoinType.jtRound, Clipper.EndType.etOpenRound)
  const solution: Path[] = []
  offset.Execute(solution, by * SCALE)
  return solution
}

/** Polygons together with their mirror images in the axis, as one: what the whole solid's outline is. */
export function mirrored(paths: Path[]): Path[] {
  const { ClipType, PolyType, PolyFillType } = Clipper
  const clipper = new Clipper.Clipper()
  clipper.AddPaths(paths, PolyType.ptSubject, true)
  const images = paths.map((p) => p.map(({ X, Y }) => ({ X, Y: -Y })).reverse())
  clipper.AddPaths(images, PolyType.ptSubject, true)
  const solution: Path[] = []
  clipper.Execute(ClipType.ctUnion, solution, PolyFillType.pftNonZero, PolyFillType.pftNonZero)
  return solution
}

const FAR = 1000 * SCALE
const UPPER_HALF: Path[] = [
  [
    { X: -FAR, Y: 0 },
    { X: FAR, Y: 0 },
    { X: FAR, Y: FAR },
    { X: -FAR, Y: FAR },
  ],
]

/** The area of what lies above the axis. */
export const areaAbove = (paths: Path[]): number => clippedArea(paths, UPPER_HALF, 'common')
