import { measureOf, type NewConstraint } from '../constraints'
import {
  addRevolve,
  addSize,
  addStep,
  drawDraft,
  measureOffer,
  missingItems,
  nextStepId,
  withProposals,
  type Draft,
  type End,
} from '../edit'
import { controlOf, joinedCubics, tangentAt, type Piece, type Spline, type Vec } from '../geometry'
import type { Part } from '../part'
import { evaluate } from '../route'
import { cornersOf } from '../section'
import { AXIS_ID, ORIGIN_ID, emptySketch, type Entity, type Sketch } from '../sketch'
import { done, withBody, withSketch } from './changes'
import { figureOf } from './features/figures'
import { sharpened, type Finish } from './finishes'

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
/** Volumes with bevels and roundings as steps are those without within this share. */
const SAME = 1e-9

/** A part with one more body that is turned from a profile of its own. */
export interface Turned {
  readonly part: Part
  readonly sketch: string
  /** The steps that bevel and round its corners. */
  readonly finishes: readonly {
    readonly kind: Finish['kind']
    readonly step: string
    readonly count: number
  }[]
}

/** What a body is called and its colour as #rrggbb, each empty where it has none. */
export interface Dress {
  readonly name: string
  readonly colour: string
}

/**
 * The part with one more sketch, turned into a body of its own; small bevels and roundings of its corners are steps
 * where that gives the same.
 * @returns undefined if that is not sound
 */
export function withTurned(part: Part, pieces: readonly Piece[], dress: Dress): Turned | undefined {
  const plain = turnedFrom(part, pieces, dress)
  const wanted = plain && volumeOf(plain.part)
  const { pieces: sharp, finishes } = sharpened(pieces)
  if (!plain || wanted === undefined || finishes.length === 0) return plain && sizedAll(plain)
  const bare = turnedFrom(part, sharp, dress)
  const finished = bare && withFinishes(bare, finishes)
  const got = finished && volumeOf(finished.part)
  const isSame = got !== undefined && Math.abs(got / wanted - 1) <= SAME
  return sizedAll(isSame && finished ? finished : plain)
}

/** Sizes of so many places more than a figure has are put on where the plain ones change the solid. */
const MORE_PLACES = 4
/** Plain sizes change the volume by no more than this share. */
const LEFT = 2e-7

/** With a size for every freedom: plain figures, or ones of more places where these would change the solid. */
function sizedAll(turned: Turned): Turned {
  const { part, sketch } = turned
  const wanted = volumeOf(part) ?? 0
  const plain = sized(part, sketch, 0)
  const isNear = Math.abs((volumeOf(plain) ?? 0) / wanted - 1) <= LEFT
  return { ...turned, part: isNear ? plain : sized(part, sketch, MORE_PLACES) }
}

function turnedFrom(part: Part, pieces: readonly Piece[], dress: Dress): Turned | undefined {
  const grown = withBody(withSketch(part), dress.name, dress.colour)
  const sketch = grown.sketches.at(-1)?.id ?? ''
  const drawn = done(grown, drawDraft('draw what came', sketch, draftOf(pieces)))
  const turned = drawn && done(drawn, addRevolve(sketch))
  return turned && isSound(turned) ? { part: turned, sketch, finishes: [] } : undefined
}

/** Whether the last step of a part is done. */
const isSound = (part: Part): boolean => evaluate(part).steps.at(-1)?.status === 'done'

/** What the last body of a part has, in mm³; undefined where it has nothing. */
export const volumeOf = (part: Part): number | undefined =>
  evaluate(part).bodies.at(-1)?.solid?.volume

/** A step for all bevels, and one for all roundings, with a set for each size. */
function withFinishes(turned: Turned, finishes: readonly Finish[]): Turned | undefined {
  let here = turned
  for (const kind of ['chamfer', 'fillet'] as const) {
    const own = finishes.filter((f) => f.kind === kind)
    if (own.length === 0) continue
    const section = evaluate(here.part).bodies.at(-1)?.section
    const corners = section ? cornersOf(section) : []
    const sets = new Map<string, string[]>()
    for (const { at, size } of own) {
      const corner = corners.find((c) => Math.hypot(c.at.x - at.x, c.at.y - at.y) <= STAYS)
      if (!corner) return undefined
      const text = figureOf(size, 'length', here.part.units)
      sets.set(text, [...(sets.get(text) ?? []), corner.key])
    }
    const { units } = here.part
    const body = here.part.bodies.at(-1)?.id ?? ''
    const step = nextStepId(here.part)
    const all = [...sets].map(([size, keys]) => ({
      size,
      pick: { kind: 'corners' as const, corners: keys },
    }))
    const part = done(
      here.part,
      addStep(
        kind === 'chamfer'
          ? {
              ...{ kind, body },
              sets: all.map(({ size, pick }) => ({
                pick,
                ...{ along: size, across: '', angle: figureOf(Math.PI / 4, 'angle', units) },
              })),
            }
          : { kind, body, sets: all.map(({ size, pick }) => ({ pick, radius: size })) },
      ),
    )
    if (!part || !isSound(part)) return undefined
    here = { ...here, part, finishes: [...here.finishes, { kind, step, count: own.length }] }
  }
  return here
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
  const curves = wholeCurves(pieces)
  const entities = pieces.flatMap((piece, i): Entity | readonly Entity[] => {
    const id = `~e${i}`
    const curve = curves.get(i)
    if (curve) {
      const [from, to] = [pointOf(curve.from), pointOf(curve.to)]
      const by = curve.frame.places.slice(1, -1).map((p) => pointOf({ ...p }))
      const [fromHandle, toHandle, ...more] = by
      if (fromHandle !== undefined && toHandle !== undefined && more.length === 0) {
        return { id, kind: 'curve', from, to, fromHandle, toHandle, role: 'outline' }
      }
      const { spans } = curve.frame
      const own = { fromHandle: '', toHandle: '', role: 'outline' as const }
      return { id, kind: 'spline', way: 'frame', from, to, by, spans, ...own }
    }
    if (curve === null) return []
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
  const idOf = (i: number): string => (curves.get(i) === null ? idOf(i - 1) : `~e${i}`)
  ties.push(...smoothJoints(pieces, idOf))
  return { points, entities, ties }
}

/**
 * Cubics that go on from one another without a jump of curvature are one curve over a frame. By the number of the first
 * of them; null stands for the others.
 */
function wholeCurves(
  pieces: readonly Piece[],
): ReadonlyMap<number, { readonly frame: Spline; readonly from: Vec; readonly to: Vec } | null> {
  const ending = (p: Vec): number => pieces.filter((q) => q.from === p || q.to === p).length
  const found = new Map<number, { frame: Spline; from: Vec; to: Vec } | null>()
  for (let first = 0; first < pieces.length;) {
    const run = [pieces[first]].flatMap((p) => (p?.kind === 'cubic' ? [p] : []))
    for (;;) {
      const [last, next] = [run.at(-1), pieces[first + run.length]]
      if (!last || next?.kind !== 'cubic' || next.from !== last.to || ending(last.to) !== 2) break
      run.push(next)
    }
    let at = first
    for (const { frame, count } of joinedCubics(run.map(controlOf), AS_ONE)) {
      const [from, to] = [pieces[at]?.from, pieces[at + count - 1]?.to]
      if (count > 1 && from && to) {
        found.set(at, { frame, from, to })
        for (let i = 1; i < count; i++) found.set(at + i, null)
      }
      at += count
    }
    first += Math.max(1, run.length)
  }
  return found
}

/** Cubics are one curve where joining them moves none of their control points by more than this, in mm. */
const AS_ONE = 1e-6

/** Where an arc goes on into a line or another arc without a corner. */
function smoothJoints(pieces: readonly Piece[], idOf: (piece: number) => string): NewConstraint[] {
  return pieces.flatMap((a, i) =>
    pieces.slice(i + 1).flatMap((b, k): NewConstraint[] => {
      if (a.kind === 'line' && b.kind === 'line') return []
      const joint = [a.from, a.to].find((p) => p === b.from || p === b.to)
      if (!joint) return []
      const [u, v] = [directionAt(a, joint), directionAt(b, joint)]
      if (Math.abs(u.x * v.y - u.y * v.x) > SMOOTH) return []
      const [curve, to] = [idOf(i), idOf(i + 1 + k)]
      return curve === to ? [] : [{ kind: 'tangent', curve, to }]
    }),
  )
}

function directionAt(piece: Piece, at: Vec): Vec {
  return tangentAt(piece, at === piece.from ? 0 : 1)
}

/**
 * The sketch with a size for every freedom it has left.
 * @param more places than a plain figure has
 */
function sized(part: Part, sketchId: string, more: number): Part {
  let here = part
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const proposals = missingItems(here, sketchId, new Set(), MOST_SIZES)
    if (proposals.length === 0) break
    const before = here.sketches.find((s) => s.id === sketchId)
    const formulas = proposals.map((proposal) => ({
      proposal,
      formula: proposal.kind === 'size' ? offeredFigure(here, sketchId, proposal.offer, more) : '',
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
          : done(
              here,
              addSize(
                sketchId,
                proposal.offer,
                offeredFigure(here, sketchId, proposal.offer, more),
              ),
            )
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

function offeredFigure(
  part: Part,
  sketchId: string,
  offer: Parameters<typeof measureOffer>[1],
  more: number,
): string {
  const sketch = part.sketches.find((s) => s.id === sketchId) ?? emptySketch('', '')
  return figureOf(measureOffer(sketch, offer), measureOf(offer), part.units, more)
}
