import { mapped, pointAt, vec, type Piece, type Vec } from '../../geometry'
import { isFaceOf } from '../../names'
import type { EnlargedPlace, SheetSetup } from '../../part'
import type { PartState } from '../../route'
import { edgeKey, edgesOf, loopsOf, type SectionEdge } from '../../section'
import type { Asked } from '../asked'
import { edgePlaceAt } from '../asked/drawn'
import { strokes } from '../items'
import { widthOf } from '../lettering'
import { readScale, SCALES, type Scale } from '../paper/scales'
import { hatchLines, hatchingOf } from '../views/hatch'
import { outsideOf } from '../views/outside'
import { openRuns, ring, type View } from '../views/turned'
import { partsWhere } from '../views/parted'
import type { Shown } from '../views/shown'
import type { AlongSetting } from './along'
import { boxOf, type Sheeted } from './arrange'
import { textContent } from './contents'
import { laneBetween, type LaneAsk } from './lanes'
import { callOf, Laying } from './laying'
import type { LeaderAsk } from './leaders'

/** What is too small to be read on the view: encircled there, and drawn larger beside it with its sizes (ISO 128-3:2020). */
export interface Detail {
  /** Of its letter on the view. */
  readonly id: string
  readonly letter: string
  /** Its middle and how far round it is drawn, in mm of the part. */
  readonly at: Vec
  readonly radius: number
  readonly scale: Scale
  readonly asked: readonly Asked[]
}

/** What is smaller on paper is drawn larger, so that it is at least so large, in mm. */
const TOO_SMALL = 9
const LARGE_ENOUGH = 15
/** What was chosen by hand is drawn at least so large, in mm. */
const READ_WELL = 26
/** How far round a feature is drawn, of half its size. */
const ROUND = 1.7
/** Letters of details, from the end of the alphabet: those at its beginning are datums’. */
const LETTERS = ['Z', 'Y', 'X', 'W', 'V', 'U']

type Found = Omit<Detail, 'letter' | 'id'> & { readonly id?: string }

/** What was chosen by hand, and grooves that need it, from the left. */
export function detailsOf(
  state: PartState,
  { enlarged, details }: SheetSetup,
  asked: readonly Asked[],
  by: number,
): Detail[] {
  const chosen = enlarged.flatMap((one) => chosenDetail(state, one, asked, by) ?? [])
  const isChosen = ({ at }: Found): boolean =>
    chosen.some((c) => Math.hypot(c.at.x - at.x, c.at.y - at.y) < c.radius)
  const needed =
    details === 'none' ? [] : neededDetails(state, asked, by).filter((d) => !isChosen(d))
  // What was chosen has its place before what is only needed.
  return [...chosen, ...needed]
    .slice(0, LETTERS.length)
    .sort((a, b) => a.at.x - b.at.x)
    .map((d, i) => {
      const letter = LETTERS[i] ?? ''
      return { ...d, letter, id: d.id ?? `detail/${letter}` }
    })
}

/** A chosen place, with the sizes that lie in its circle; undefined where its edge is gone. */
function chosenDetail(
  state: PartState,
  { id, radius, scale: wished, ...place }: EnlargedPlace,
  asked: readonly Asked[],
  by: number,
): Found | undefined {
  const at = edgePlaceAt(state, place)
  if (!at) return undefined
  const own = asked.filter((a) => {
    const points = pointsOf(a)
    const isNear = (p: Vec): boolean => Math.hypot(p.x - at.x, p.y - at.y) < radius
    return points.length > 0 && points.every(isNear)
  })
  const larger = SCALES.filter((s) => s.by > 1.5 * by && 2 * radius * s.by >= READ_WELL)
  const scale = readScale(wished) ?? larger.at(-1) ?? SCALES[0]
  return scale && { id, at, radius, scale, asked: own }
}

function neededDetails(state: PartState, asked: readonly Asked[], by: number): Found[] {
  return state.part.route.flatMap((step) => {
    if (step.kind !== 'groove') return []
    const own = asked.filter(
      (a) => a.id.startsWith(`step/${step.id}/sizes/`) && Number.isFinite(placeOfShape(a)?.x),
    )
    const faces = state.bodies
      .flatMap((b) => edgesOf(b.section))
      // Of several alike the first is drawn.
      .filter((e) => isFaceOf(step.id, edgeKey(e.name)) && !e.name.entity.includes('.'))
    const room = roundOf(faces)
    if (!room || own.length < 2 || 2 * room.half * by > TOO_SMALL) return []
    const larger = SCALES.filter((s) => s.by > by && 2 * room.half * s.by >= LARGE_ENOUGH)
    const scale = larger.at(-1)
    return scale ? [{ at: room.at, radius: room.half * ROUND, scale, asked: own }] : []
  })
}

/** All places of the half-section that a size is told at; none of those that are told elsewhere. */
function pointsOf({ shape }: Asked): readonly Vec[] {
  switch (shape.kind) {
    case 'along':
    case 'radial':
    case 'slant':
      return [shape.from, shape.to]
    case 'radius':
      return [shape.arc.from, shape.arc.to]
    // A diameter is told across the view along the axis.
    case 'across':
    case 'end':
    case 'onEnd':
    case 'section':
    case 'onSection':
      return []
    case 'angle':
    case 'place':
      return [shape.at]
  }
}

/** The middle of some edges, and half the way across them. */
function roundOf(
  edges: readonly SectionEdge[],
): { readonly at: Vec; readonly half: number } | undefined {
  const points = edges.flatMap(({ piece }) => [piece.from, pointAt(piece, 0.5), piece.to])
  if (points.length === 0) return undefined
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)]
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  return { at: vec((x0 + x1) / 2, (y0 + y1) / 2), half: Math.hypot(x1 - x0, y1 - y0) / 2 }
}

/** Where what is told at the end of a leader is, and the way out there. */
function placeOfShape({ shape }: Asked): Vec | undefined {
  switch (shape.kind) {
    case 'place':
    case 'across':
    case 'angle':
      return shape.at
    case 'radius':
      return pointAt(shape.arc, 0.5)
    case 'along':
    case 'radial':
    case 'slant':
      return shape.from
    case 'end':
    case 'onEnd':
    case 'section':
    case 'onSection':
      return undefined
  }
}

/** A detail with its sizes, its middle at the origin. */
export function detailSheet(
  { at, radius, scale, asked, letter }: Detail,
  bodies: readonly Shown[],
  { isCut, view: main, style, moved, badgesFor, by: mainBy }: AlongSetting,
): Sheeted & { readonly left: readonly string[] } {
  const { by } = scale
  const far = radius * by
  const put = (p: Vec): Vec => vec((p.x - at.x) * by, (p.y - at.y) * by)
  const circle = ring(vec(0, 0), far)
  const inside = (pieces: readonly Piece[]): Piece[] =>
    pieces.map((p) => mapped(p, put, false)).flatMap((p) => withinCircle(p, far))
  const isOpen = isCut && (main.isOpen?.(at.x * mainBy) ?? true)
  const { wide, hatch } = isOpen ? cutLines(bodies, inside, put, far) : outerLines(bodies, inside)
  const view: View = {
    items: [
      ...(hatch.length > 0 ? [strokes('narrow', hatch)] : []),
      strokes('wide', wide),
      { kind: 'stroke', line: 'narrow', runs: [circle] },
    ],
    outlines: [...wide, ...circle],
    outside: (x) => Math.sqrt(Math.max(0, far * far - x * x)),
    ...{ left: -far, right: far, radius: far },
  }
  const isInside = (p: Vec): boolean => Math.hypot(p.x, p.y) < far
  const laying = new Laying(view.outlines, isInside, style, badgesFor)
  const { placed, left } = laying
  const laneOf = (a: Asked, upright: boolean): LaneAsk | undefined => {
    const { shape } = a
    if (shape.kind !== (upright ? 'radial' : 'along')) return undefined
    return laneBetween(a, put(shape.from), put(shape.to), upright, moved)
  }
  const lanes = (upright: boolean, side: 1 | -1): void => {
    const asks = asked.flatMap((a) => laneOf(a, upright) ?? [])
    const none = laying.lanes(asks, { upright, side, base: side * (far + style.first) })
    left.push(...none.map((l) => l.asked.id))
  }
  lanes(false, 1)
  lanes(true, -1)
  for (const one of asked) {
    const pointed = placeOfShape(one)
    if (!pointed || one.shape.kind === 'along' || one.shape.kind === 'radial') continue
    const [outs, others] = outsOf(one.shape, pointed).map((ways) =>
      ways.map((out) => ({ at: put(pointed), out })),
    )
    laying.lead(callOf(one, style, moved, outs ?? [], others))
  }
  laying.finish()
  const box = boxOf(view, placed)
  const title = `${letter} (${scale.words})`
  const start = vec((box.x0 + box.x1 - widthOf(title, style.letter)) / 2, box.y1 + 3)
  return {
    ...{ view, placed, left, box: { ...box, y1: start.y + style.letter } },
    extra: [{ kind: 'words', at: start, height: style.letter, turned: false, text: title }],
  }
}

interface Lines {
  readonly wide: readonly Piece[]
  readonly hatch: readonly Piece[]
}

function cutLines(
  bodies: readonly Shown[],
  inside: (pieces: readonly Piece[]) => Piece[],
  put: (p: Vec) => Vec,
  far: number,
): Lines {
  const wide = bodies.flatMap((b) =>
    loopsOf(b.section)
      .flatMap(openRuns)
      .flatMap((run) => inside(run.map((e) => e.piece))),
  )
  const hatch = bodies.flatMap((b, i) => {
    const loops = loopsOf(b.section).map((loop) => loop.map((e) => mapped(e.piece, put, false)))
    return hatchLines(loops, hatchingOf(i, 2 * far)).flatMap((l) => withinCircle(l, far))
  })
  return { wide, hatch }
}

function outerLines(
  bodies: readonly Shown[],
  inside: (pieces: readonly Piece[]) => Piece[],
): Lines {
  const { runs, rings } = outsideOf(bodies.map((b) => b.section))
  return { wide: inside([...runs.flat(), ...rings]), hatch: [] }
}

/** What of a piece lies within a circle about the origin. */
const withinCircle = (piece: Piece, radius: number): Piece[] =>
  partsWhere(piece, ring(vec(0, 0), radius), (at) => Math.hypot(at.x, at.y) < radius)

/** Ways out from what is pointed at: where no material is first, then the other one. */
function outsOf(shape: Asked['shape'], at: Vec): readonly [readonly Vec[], readonly Vec[]] {
  if (shape.kind === 'place') return [[shape.out], []]
  if (shape.kind === 'radius') {
    const { centre } = shape.arc
    return [[away(at, centre), away(centre, at)], []]
  }
  const inwards = shape.kind === 'across' && shape.inside
  return [[vec(0, inwards ? -1 : 1)], [vec(0, inwards ? 1 : -1)]]
}

function away(from: Vec, to: Vec): Vec {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1
  return vec((to.x - from.x) / length, (to.y - from.y) / length)
}

/** Directions in which the letter of a detail is tried, from its circle on. */
const AROUND = [1, 3, 0.5, 3.5, 2, 0, 4, 5, 7].map((eighth) => (eighth * Math.PI) / 4)

/** The circle round a detail on the view, and its letter. */
export function detailMark(
  { id, at, radius, letter }: Detail,
  { by, style, moved }: Pick<AlongSetting, 'by' | 'style' | 'moved'>,
): { readonly circle: readonly Piece[]; readonly ask: LeaderAsk } {
  const [centre, far] = [vec(at.x * by, at.y * by), radius * by]
  return {
    circle: ring(centre, far),
    ask: {
      ...{ id, said: `Detail ${letter}`, end: 'none', moved: moved.get(id) },
      content: textContent([{ text: letter }], style),
      anchors: AROUND.map((angle) => {
        const out = vec(Math.cos(angle), Math.sin(angle))
        return { at: vec(centre.x + out.x * far, centre.y + out.y * far), out }
      }),
    },
  }
}
