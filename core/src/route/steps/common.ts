import { copyMark, idsInName } from '../../names'
import { fail, succeed, type Result } from '../../result'
import { dotPlaces, leftNormal, type Frame, type Place } from '../../geometry'
import { type Section, type SectionEdge } from '../../section'
import { placeAlong, planeCalled } from '../../solid'
import { DIRECTION_TOLERANCE, VERTEX_TOLERANCE } from '../../tolerances'
import { formatAngle, formatLength } from '../../units'
import type { SizeAt } from '../state'
import { edgesNamed, lost, type StepContext } from './context'

/** An angle that may be left out. */
export function angleOr(
  context: StepContext,
  text: string,
  otherwise: number,
  what: string,
): Result<number> {
  return text.trim() === '' ? succeed(otherwise) : context.number(text, 'angle', what)
}

/** A length that may be left out. */
export function lengthOr(
  context: StepContext,
  text: string,
  otherwise: number,
  what: string,
): Result<number> {
  return text.trim() === '' ? succeed(otherwise) : context.number(text, 'length', what)
}

/** A face square to the axis: where it is, how far in and out it goes, and which way material lies. */
export interface EndFace {
  readonly at: number
  readonly inner: number
  readonly outer: number
  /** 1 where material lies to the right of it, −1 to the left. */
  readonly way: 1 | -1
}

/** The face of a key, if it is square to the axis. */
export function endFace(section: Section, key: string, what: string): Result<EndFace> {
  const edges = edgesNamed(section, key)
  const [first] = edges
  if (!first) return lost(what, key)
  const at = first.piece.from.x
  const isFlat = edges.every(
    ({ piece }) =>
      piece.kind === 'line' &&
      Math.abs(piece.from.x - at) <= VERTEX_TOLERANCE &&
      Math.abs(piece.to.x - at) <= VERTEX_TOLERANCE,
  )
  if (!isFlat) return notSquare(what)
  const radii = edges.flatMap(({ piece }) => [piece.from.y, piece.to.y])
  return succeed({
    ...{ at, inner: Math.min(...radii), outer: Math.max(...radii) },
    way: leftNormal(first.piece, 0.5).x > 0 ? 1 : -1,
  })
}

/** A face square to the axis that things go into. */
export interface SquareFace extends Pick<EndFace, 'at' | 'way'> {
  /** How far in and out a turned one goes. */
  readonly ring?: { readonly inner: number; readonly outer: number }
}

/** The face of a key, if it is square to the axis: turned, or made otherwise. */
export function squareFace(
  context: StepContext,
  body: string,
  key: string,
  what: string,
): Result<SquareFace> {
  const section = context.sectionOf(body)
  const plan = context.planOf(body)
  const plane = plan && edgesNamed(section, key).length === 0 ? planeCalled(plan, key) : undefined
  if (plane && Math.abs(plane.into.z) > 1 - DIRECTION_TOLERANCE) {
    return succeed({ at: plane.at.z, way: plane.into.z > 0 ? 1 : -1 })
  }
  if (plane) return notSquare(what)
  const turned = endFace(section, key, what)
  if (!turned.ok) return turned
  const { at, way, inner, outer } = turned.value
  return succeed({ at, way, ring: { inner, outer } })
}

const notSquare = (what: string): Result<never> =>
  fail('face.square', `${what} is not square to the axis.`, 'Pick an end face or a shoulder.')

/** A plane face that a sketch lies on or that something goes up to. */
export interface LevelFace {
  /** Where it lies along the third direction of the frame. */
  readonly at: number
  /** 1 where its material lies that way, −1 where the other. */
  readonly way: 1 | -1
}

/** The face of a key, if it is square to the third direction of a frame: turned, or made otherwise. */
export function levelFace(
  context: StepContext,
  body: string,
  key: string,
  frame: Frame,
  what: string,
): Result<LevelFace> {
  const section = context.sectionOf(body)
  const isTurned = edgesNamed(section, key).length > 0
  if (isTurned && Math.abs(frame.z.z) > 0.5) {
    const face = endFace(section, key, what)
    if (!face.ok) return face
    const sign = frame.z.z > 0 ? 1 : -1
    return succeed({ at: sign * face.value.at, way: sign * face.value.way === 1 ? 1 : -1 })
  }
  const plan = context.planOf(body)
  const plane = plan && planeCalled(plan, key)
  // A face's name tells the steps it is from, each a word of its own.
  const steps = new Set(idsInName(key))
  if (!plane && !isTurned && !plan?.ops.some((op) => steps.has(op.step))) return lost(what, key)
  const at = plane && placeAlong(plane, frame)
  if (!plane || at === undefined) {
    return fail(
      'face.level',
      `${what} is no plane face that lies level with the sketch.`,
      'Pick one that does.',
    )
  }
  return succeed({ at, way: dotPlaces(plane.into, frame.z) > 0 ? 1 : -1 })
}

/** A face that runs along the axis, by its ends there. */
export function lengthwiseFace(
  section: Section,
  key: string,
  what: string,
): Result<{ readonly edges: readonly SectionEdge[]; readonly from: number; readonly to: number }> {
  const edges = edgesNamed(section, key)
  if (edges.length === 0) return lost(what, key)
  const xs = edges.flatMap(({ piece }) => [piece.from.x, piece.to.x])
  return succeed({ edges, from: Math.min(...xs), to: Math.max(...xs) })
}

/** The place along the axis of an edge that a distance is told from: the side nearer to what is placed. */
export function placeOfEdge(section: Section, key: string, near: number): Result<number> {
  const edges = edgesNamed(section, key)
  if (edges.length === 0) return lost('The edge the distance is told from', key)
  const xs = edges.flatMap(({ piece }) => [piece.from.x, piece.to.x])
  const [low, high] = [Math.min(...xs), Math.max(...xs)]
  return succeed(Math.abs(low - near) <= Math.abs(high - near) ? low : high)
}

/** Angles of so many things from a start on, evenly over a range or round the whole turn. */
export function anglesOf(count: number, start: number, range: number | undefined): number[] {
  const pitch = range === undefined ? (2 * Math.PI) / count : count > 1 ? range / (count - 1) : 0
  return Array.from({ length: count }, (_, i) => start + i * pitch)
}

/** A length and an angle as they stand beside what they are the size of. */
export const tell = (context: StepContext, mm: number): string => formatLength(mm, context.units)
export const tellAngle = (context: StepContext, radians: number): string =>
  formatAngle(radians, context.units)

/** The angle of a place about the axis, from 0 up to a turn. */
export function anglePlace(context: StepContext, { x, y }: Place): string {
  const angle = Math.atan2(y, x)
  return tellAngle(context, angle < -1e-9 ? angle + 2 * Math.PI : Math.max(0, angle))
}

/** “6 × ” before what there are six of. */
export const times = (count: number): string => (count > 1 ? `${count} × ` : '')

/** Words that stand at one place, one below the other; empty ones not at all. */
export const sizesAt = (body: string, at: Place, words: readonly string[]): SizeAt[] =>
  words.filter((w) => w !== '').map((w) => ({ body, at, words: w }))

/** The mark that tells one of several from the others. */
export const markOf = (i: number, count: number): string => (count > 1 ? copyMark(i + 1) : '')
