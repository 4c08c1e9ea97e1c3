import {
  addRevolve,
  addSize,
  addStep,
  drawDraft,
  measureOffer,
  missingItems,
  withProposals,
  perform,
  type BroughtSolid,
  type Command,
  type Draft,
  type End,
  type NewConstraint,
} from '../edit'
import {
  type Frame,
  type Piece,
  type Place,
  type Vec,
  mapped,
  controlOf,
  simplePieces,
  tangentAt,
} from '../geometry'
import { createPart, measureOf, newBody, type ImportFrame, type Part } from '../part'
import { evaluate } from '../route'
import { profileOf, solidProperties } from '../section'
import { AXIS_ID, ORIGIN_ID, emptySketch, type Entity, type Sketch } from '../sketch'
import { unitScale, type UnitSettings } from '../units'
import { accountFor, type Account } from './account'
import { outlineOf } from './outline'
import { planesOf } from './planes'
import { leastRadius, reachAlong, reachOut } from './reach'
import { frameOf, standOf } from './stand'
import type { ForeignSolid, Line } from './types'

/** Volumes that differ by less than this share are one. */
const SAME_VOLUME = 1e-5
/** What has less than this of a solid, or more by as much, is not its half-section. */
const LEAST_SHARE = 0.4
/** A size that moves a point by more than this, in mm, is left out. */
const STAYS = 1e-4
/** Directions within this, in radians, are along the axis or square to it. */
const STRAIGHT = 1e-6
/** Smooth joints turn by less than this, in radians. */
const SMOOTH = 1e-5
/** So many sizes are put on at once at most. */
const MOST_SIZES = 2000
/** Proposals are taken in so many rounds at most. */
const MOST_ROUNDS = 12

/** By how much a solid is not what its half-section is turned to. */
export interface Departure {
  /** The farthest of its points from the turned surface, in mm. */
  readonly by: number
  /** The share of its surface that is not part of the turned one. */
  readonly surface: number
  /** What the turned shape has too much, as a share of the solid's volume; negative where it has too little. */
  readonly volume: number
}

/** What came of a file with solids. */
export interface RecoveredPart {
  readonly part: Part
  /** One for each solid, in the order of the file. */
  readonly solids: readonly {
    /** Whether its half-section was found, and it is turned from that. */
    readonly isTurned: boolean
    /** Whether it stands there as it came: it has more than the turned shape, or is none. */
    readonly isKept: boolean
    /** Where it has more than its half-section turned: how far that goes from it, and by how much the volumes differ. */
    readonly departs?: Departure
  }[]
}

/**
 * A part from solids that came from elsewhere: the half-section of each as a sketch that is turned,
 * with constraints and sizes, and beside it the solid as it came where it has more than that.
 * @param file the solids as a file that the kernel reads again
 */
export function recoverPart(
  name: string,
  solids: readonly ForeignSolid[],
  file: string,
  units?: UnitSettings,
): RecoveredPart {
  const found = recovered(name, solids, file, units)
  const rough = new Set([...solids.keys()].filter((i) => found.solids[i]?.isTurned !== true))
  if (rough.size === 0) return found
  // What another program rounded is turned all the same, if less exactly than is usual.
  const leniently = solids.map((s, i) => (rough.has(i) ? { ...s, uncertainty: Infinity } : s))
  const again = recovered(name, leniently, file, units, rough)
  const many = (r: RecoveredPart): number => r.solids.filter((s) => s.isTurned).length
  return many(again) > many(found) ? again : found
}

/** @param rough numbers of solids that are looked at leniently, and so kept as they came in any case */
function recovered(
  name: string,
  solids: readonly ForeignSolid[],
  file: string,
  units: UnitSettings | undefined,
  rough: ReadonlySet<number> = new Set(),
): RecoveredPart {
  const { axis, start } = standOf(solids)
  const outlines = solids.map((s) => outlineOf(s, axis))
  const moved = outlines.map((o) => o && movedBy(o.pieces, -start))
  const own = createPart({ name, ...(units ? { units } : {}) })
  let part: Part = { ...own, sketches: [], bodies: [] }
  const told: RecoveredPart['solids'][number][] = []
  const frame = frameOf(axis, start)
  for (const [number, solid] of solids.entries()) {
    const pieces = moved[number]
    const turned = pieces && withTurned(part, pieces)
    const volume = turned && volumeOf(turned)
    const share = volume === undefined ? 0 : volume / solid.volume
    const account = turnedAs(solid, axis, outlines[number]?.pieces, share)
    const isTurned = account !== undefined
    if (turned && isTurned) part = turned
    const isWhole = account?.turned === 1 && Math.abs(share - 1) <= SAME_VOLUME
    const isKept = !isWhole || rough.has(number)
    if (isKept) {
      const keeping = { file, number, frame, axis, start, pieces: isTurned ? pieces : undefined }
      part = withKept(part, solid, keeping, isTurned)
    }
    told.push({
      isTurned,
      isKept,
      ...(account && isKept
        ? { departs: { by: account.departure, surface: 1 - account.turned, volume: share - 1 } }
        : {}),
    })
  }
  if (part.sketches.length === 0) part = withSketch(part)
  return { part, solids: told }
}

/** Less of a solid's surface than this is not enough to call it turned, and less of the turned one that is there. */
const LEAST_TURNED = 0.5

/**
 * How the faces of a solid stand to its half-section; undefined when it is not turned from that.
 * @param share of the solid's volume that its half-section has when it is turned
 */
function turnedAs(
  solid: ForeignSolid,
  axis: Line,
  pieces: readonly Piece[] | undefined,
  share: number,
): Account | undefined {
  if (!pieces || pieces.length === 0 || !isNearly(share)) return undefined
  const account = accountFor(solid, axis, pieces)
  const { turned, covered, hasOutside } = account
  return turned >= LEAST_TURNED && covered >= LEAST_TURNED && hasOutside ? account : undefined
}

/** The part with one more sketch, turned into a body of its own; undefined if that is not sound. */
function withTurned(part: Part, pieces: readonly Piece[]): Part | undefined {
  const grown = withBody(withSketch(part), '')
  const sketch = grown.sketches.at(-1)?.id ?? ''
  const drawn = done(grown, drawDraft('draw what came', sketch, draftOf(pieces)))
  const turned = drawn && done(drawn, addRevolve(sketch))
  if (!turned) return undefined
  const state = evaluate(turned)
  const isSound = state.steps.at(-1)?.status === 'done'
  return isSound ? sized(turned, sketch) : undefined
}

const volumeOf = (part: Part): number => evaluate(part).bodies.at(-1)?.solid?.volume ?? 0

function done(part: Part, command: Command): Part | undefined {
  const result = perform(part, command)
  return result.ok ? result.value : undefined
}

function withSketch(part: Part): Part {
  const id = `sketch${part.nextId}`
  const name = String.fromCharCode(65 + (part.sketches.length % 26))
  const sketches = [...part.sketches, emptySketch(id, name)]
  return { ...part, nextId: part.nextId + 1, sketches }
}

function withBody(part: Part, name: string): Part {
  const id = `body${part.nextId}`
  const material = part.materials[0]?.id ?? ''
  const body = newBody(id, name === '' ? `body ${part.bodies.length + 1}` : name, material)
  return { ...part, nextId: part.nextId + 1, bodies: [...part.bodies, body] }
}

/** All lines and arcs, with the constraints that anyone would see in them. */
function draftOf(pieces: readonly Piece[]): Draft {
  const names = new Map<Vec, string>()
  const points: Record<string, End> = {}
  const pointOf = (p: Vec): string => {
    const known = names.get(p)
    if (known !== undefined) return known
    const name = `~p${names.size}`
    names.set(p, name)
    const isOrigin = Math.abs(p.x) < 1e-9 && p.y === 0
    points[name] = {
      at: p,
      ...(isOrigin ? { point: ORIGIN_ID } : p.y === 0 ? { on: [AXIS_ID] } : {}),
    }
    return name
  }
  const ties: NewConstraint[] = []
  const entities = pieces.map((piece, i): Entity => {
    const id = `~e${i}`
    const [from, to] = [pointOf(piece.from), pointOf(piece.to)]
    if (piece.kind === 'line') {
      const slope = Math.atan2(
        Math.abs(piece.to.y - piece.from.y),
        Math.abs(piece.to.x - piece.from.x),
      )
      if (slope < STRAIGHT) ties.push({ kind: 'axial', line: id })
      else if (slope > Math.PI / 2 - STRAIGHT) ties.push({ kind: 'radial', line: id })
      return { id, kind: 'line', from, to, role: 'outline' }
    }
    if (piece.kind === 'cubic') {
      const [, leaves, comes] = controlOf(piece)
      const [fromHandle, toHandle] = [pointOf(leaves), pointOf(comes)]
      return { id, kind: 'curve', from, to, fromHandle, toHandle, role: 'outline' }
    }
    const centre = pointOf({ ...piece.centre })
    return {
      ...{ id, kind: 'arc', from, to, centre, role: 'outline' },
      counterClockwise: piece.counterClockwise,
    }
  })
  ties.push(...smoothJoints(pieces))
  return { points, entities, ties }
}

/** Where an arc goes on into a line or another arc without a corner. */
function smoothJoints(pieces: readonly Piece[]): NewConstraint[] {
  return pieces.flatMap((a, i) =>
    pieces.slice(i + 1).flatMap((b, k): NewConstraint[] => {
      if (a.kind === 'line' && b.kind === 'line') return []
      const joint = [a.from, a.to].find((p) => p === b.from || p === b.to)
      if (!joint) return []
      const [u, v] = [directionAt(a, joint), directionAt(b, joint)]
      if (Math.abs(u.x * v.y - u.y * v.x) > SMOOTH) return []
      return [{ kind: 'tangent', curve: `~e${i}`, to: `~e${i + 1 + k}` }]
    }),
  )
}

function directionAt(piece: Piece, at: Vec): Vec {
  return tangentAt(piece, at === piece.from ? 0 : 1)
}

/** The sketch with a size for every freedom it has left. */
function sized(part: Part, sketchId: string): Part {
  let here = part
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const proposals = missingItems(here, sketchId, new Set(), MOST_SIZES)
    if (proposals.length === 0) break
    const before = here.sketches.find((s) => s.id === sketchId)
    const formulas = proposals.map((proposal) => ({
      proposal,
      formula: proposal.kind === 'size' ? figureOf(here, sketchId, proposal.offer) : '',
    }))
    const all = withProposals(here, sketchId, formulas)
    if (all && before && stands(before, all)) {
      here = all
      continue
    }
    for (const proposal of proposals) {
      const sketch = here.sketches.find((s) => s.id === sketchId)
      if (!sketch) return here
      const next =
        proposal.kind === 'tie'
          ? done(
              here,
              drawDraft('tie', sketchId, { points: {}, entities: [], ties: [proposal.tie] }),
            )
          : done(here, addSize(sketchId, proposal.offer, figureOf(here, sketchId, proposal.offer)))
      if (next && stands(sketch, next)) here = next
    }
  }
  return here
}

/** Whether all points of a sketch are where they were. */
function stands({ id, points }: Sketch, part: Part): boolean {
  const now = new Map(part.sketches.find((s) => s.id === id)?.points.map((p) => [p.id, p]))
  return points.every((p) => {
    const q = now.get(p.id)
    return q !== undefined && Math.hypot(q.x - p.x, q.y - p.y) <= STAYS
  })
}

function figureOf(part: Part, sketchId: string, offer: Parameters<typeof measureOffer>[1]): string {
  const sketch = part.sketches.find((s) => s.id === sketchId) ?? emptySketch('', '')
  const value = measureOffer(sketch, offer) / unitScale(measureOf(offer), part.units)
  return String(Number(value.toFixed(6)))
}

/** All pieces moved along the axis; what was one place stays one. */
function movedBy(pieces: readonly Piece[], x: number): Piece[] {
  const places = new Map<Vec, Vec>()
  const moved = (p: Vec): Vec => {
    const known = places.get(p) ?? { x: p.x + x, y: p.y }
    places.set(p, known)
    return known
  }
  return pieces.map((piece) => {
    const ends = { from: moved(piece.from), to: moved(piece.to) }
    return { ...mapped(piece, (p) => ({ x: p.x + x, y: p.y }), false), ...ends }
  })
}

interface Keeping {
  readonly file: string
  readonly number: number
  readonly frame: Frame
  readonly axis: Line
  readonly start: number
  /** Its half-section, where it is turned. */
  readonly pieces: readonly Piece[] | undefined
}

/** The solid as it came, as a body of its own. */
function withKept(part: Part, solid: ForeignSolid, keeping: Keeping, isBeside: boolean): Part {
  const { number } = keeping
  const grown = withBody(part, isBeside ? `as it came ${number + 1}` : '')
  const body = grown.bodies.at(-1)?.id ?? ''
  const brought = asItCame(solid, keeping)
  const put = done(grown, addStep({ kind: 'import', body, ...brought })) ?? grown
  if (!isBeside) return put
  // What came is what stands for the part; its half-section turned is to go by until it has all of it.
  const turned = part.bodies.at(-1)?.id
  const bodies = put.bodies.map((b) =>
    b.id === turned ? { ...b, visible: false, reference: true } : b,
  )
  return { ...put, bodies }
}

function asItCame(
  solid: ForeignSolid,
  { file, number, frame, axis, start, pieces }: Keeping,
): BroughtSolid {
  const [low, high] = reachAlong(solid, axis)
  // A nought has no sign in a file.
  const numbers = (p: Place): ImportFrame['at'] => [p.x + 0, p.y + 0, p.z + 0]
  return {
    ...{ file, solid: number },
    frame: { at: numbers(frame.at), x: numbers(frame.x), z: numbers(frame.z) },
    ...{ from: low - start, to: high - start },
    ...{ radius: reachOut(solid, axis), inner: leastRadius(solid, axis) },
    outline: (pieces ?? []).map(numbersOf),
    planes: planesOf(solid),
  }
}

const numbersOf = (piece: Piece): readonly number[] => {
  const { from, to } = piece
  const ends = [from.x, from.y, to.x, to.y]
  if (piece.kind === 'line') return ends
  if (piece.kind === 'cubic') {
    const [, leaves, comes] = controlOf(piece)
    return [...ends, leaves.x, leaves.y, comes.x, comes.y]
  }
  return [...ends, piece.centre.x, piece.centre.y, piece.counterClockwise ? 1 : 0]
}

/** All solids of a file as they are, the axis of the largest on the part's own. */
export function solidsToBring(
  solids: readonly ForeignSolid[],
  file: string,
): readonly BroughtSolid[] {
  const { axis, start } = standOf(solids)
  const frame = frameOf(axis, start)
  return solids.map((solid, number) => {
    const outline = outlineOf(solid, axis)
    const moved = outline && movedBy(outline.pieces, -start)
    const share = moved ? turnedVolume(moved) / solid.volume : 0
    const pieces = turnedAs(solid, axis, outline?.pieces, share) && moved
    return asItCame(solid, { file, number, frame, axis, start, pieces })
  })
}

/** What pieces enclose, turned fully. */
function turnedVolume(pieces: readonly Piece[]): number {
  const edges = pieces.flatMap((whole, i) =>
    simplePieces(whole).map((piece) => ({
      piece,
      name: { step: 'came', entity: `o${i}`, role: 'drawn' as const },
    })),
  )
  return solidProperties(profileOf(edges, 'came').section)?.volume ?? 0
}

/** Whether a half-section turned has about as much as the solid it is of. */
const isNearly = (share: number): boolean => share > LEAST_SHARE && share < 1 / LEAST_SHARE
