import { fail, succeed, type Result } from '../../result'
import {
  distance,
  line,
  meetingsOf,
  nearestOn,
  pointAt,
  tangentAt,
  add,
  arc,
  scale,
  type Piece,
  type Vec,
  stretch,
} from '../../geometry'
import { PARAMETER_TOLERANCE, VERTEX_TOLERANCE } from '../../tolerances'
import {
  AXIS_ID,
  endsOf,
  locator,
  isFree,
  isPlain,
  pieceOf,
  piecesOf,
  pointsOf,
  type Constraint,
  type Entity,
  type PlainEntity,
  type Size,
  type Sketch,
  type Ended,
} from '../../sketch'
import { withSketch, type Command } from '../command'
import { withTiesThatFit } from './draft'
import type { NewConstraint } from '../../constraints'
import { takeId } from './ids'
import { splitSpline } from './curves/shape'
import { cutDown } from './handles'
import { without } from './remove'
import type { Part } from '../../part'

/** An edit of one entity at a place: it gets the sketch and returns it changed, with ties to try. */
type EntityEdit = (
  sketch: Sketch,
  entity: Entity,
) => Result<{ readonly sketch: Sketch; readonly ties: readonly NewConstraint[] }>

function entityCommand(label: string, sketchId: string, id: string, edit: EntityEdit): Command {
  return {
    label,
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      const entity = sketch?.entities.find((e) => e.id === id)
      if (!sketch || !entity) return fail('entity.gone', 'This line is gone.', 'Pick another.')
      const edited = edit(sketch, entity)
      if (!edited.ok) return edited
      return succeed(tried(withSketch(part, edited.value.sketch), sketchId, edited.value.ties))
    },
  }
}

const tried = (part: Part, sketchId: string, ties: readonly NewConstraint[]): Part =>
  ties.length === 0 ? part : withTiesThatFit(part, sketchId, ties)

/** A place where something crosses a piece, and what crosses it there. */
interface Crossing {
  readonly t: number
  readonly at: Vec
  readonly curve: string
  /** an end of the crossing curve that lies there */
  readonly point?: string
}

/** Every place where other curves, or the axis, cross a piece, in its order. */
function crossingsOf(sketch: Sketch, piece: Piece, self: string): Crossing[] {
  const locate = locator(sketch)
  const found: Crossing[] = sketch.entities.flatMap((e) => {
    if (e.id === self || e.role === 'construction') return []
    const meetings = piecesOf(e, locate).flatMap((other) =>
      meetingsOf(piece, other, VERTEX_TOLERANCE),
    )
    return meetings.map((m): Crossing => {
      const point = endsOf(e).find((p) => distance(locate(p), m.at) <= VERTEX_TOLERANCE)
      return { t: m.t, at: m.at, curve: e.id, ...(point === undefined ? {} : { point }) }
    })
  })
  const far = 4 * Math.max(1, ...sketch.points.map((p) => Math.abs(p.x)))
  for (const m of meetingsOf(piece, line({ x: -far, y: 0 }, { x: far, y: 0 }), VERTEX_TOLERANCE)) {
    if (m.u > 0 && m.u < 1) found.push({ t: m.t, at: m.at, curve: AXIS_ID })
  }
  return found.sort((a, b) => a.t - b.t)
}

/** A point for the end of a trimmed piece: one that is there, or a new one that lies on the curve. */
function pointFor(
  sketch: Sketch,
  crossing: Crossing,
): { readonly sketch: Sketch; readonly id: string; readonly ties: readonly NewConstraint[] } {
  if (crossing.point !== undefined) return { sketch, id: crossing.point, ties: [] }
  const [id, grown] = takeId(sketch, 'p')
  const points = [...grown.points, { id, x: crossing.at.x, y: crossing.at.y }]
  return {
    sketch: { ...grown, points },
    id,
    ties: onCurve(sketch, id, crossing.curve),
  }
}

/** What holds a point on a curve; on a free curve of many places it only stands. */
function onCurve(sketch: Sketch, point: string, curve: string): readonly NewConstraint[] {
  const isMany = sketch.entities.some((e) => e.id === curve && e.kind === 'spline')
  return isMany ? [] : [{ kind: 'pointOn', point, curve }]
}

/** What crosses a curve next to a place, on either side of it; nothing where it runs to its end. */
interface Stretch {
  readonly piece: Piece
  readonly before: Crossing | undefined
  readonly behind: Crossing | undefined
}

/** Round a circle the stretch goes on across the rim point, where it may be crossed like anywhere. */
function stretchAt(sketch: Sketch, entity: PlainEntity, place: Vec): Stretch {
  const piece = pieceOf(entity, locator(sketch))
  const { t } = nearestOn(piece, place)
  const closed = entity.kind === 'circle'
  const crossings = crossingsOf(sketch, piece, entity.id).filter(
    (c) => (closed || c.t > PARAMETER_TOLERANCE) && c.t < 1 - PARAMETER_TOLERANCE,
  )
  const before = crossings.filter((c) => c.t < t).at(-1)
  const behind = crossings.find((c) => c.t > t)
  if (!closed) return { piece, before, behind }
  return { piece, before: before ?? crossings.at(-1), behind: behind ?? crossings[0] }
}

/** The stretch that a trim at a place would cut away; undefined when it would be refused. */
export function trimmedStretch(sketch: Sketch, id: string, place: Vec): Piece | undefined {
  const entity = sketch.entities.find((e) => e.id === id)
  if (!entity || !isPlain(entity)) return undefined
  const { piece, before, behind } = stretchAt(sketch, entity, place)
  if (!before && !behind) return piece
  if (entity.kind === 'circle' && before === behind) return undefined
  const [from, to] = [before?.at ?? piece.from, behind?.at ?? piece.to]
  return stretch(piece, from, to)
}

/** Cuts away the stretch of a curve under a place, as far as what crosses it on either side. */
export function trim(sketchId: string, id: string, place: Vec): Command {
  return entityCommand('trim', sketchId, id, (sketch, entity) => {
    if (entity.kind === 'parallel') {
      const mend = 'Trim what crosses it, or take another distance.'
      return fail('trim.parallel', 'What follows a curve is as long as that.', mend)
    }
    if (!isPlain(entity)) {
      const mend = 'Split it where it is to end, and delete the rest.'
      return fail('trim.curve', 'A free curve of many places is not trimmed.', mend)
    }
    const { piece, before, behind } = stretchAt(sketch, entity, place)
    if (!before && !behind) {
      return succeed({ sketch: without(sketch, new Set([id])), ties: [] })
    }
    if (entity.kind === 'circle') return trimCircle(sketch, entity, before, behind)
    const kept: { readonly entity: Entity; readonly ties: readonly NewConstraint[] }[] = []
    let here = sketch
    const keep = (part: PlainEntity & Ended, from: Vec, to: Vec, stays: 'from' | 'to'): Entity => {
      const rest = stretch(piece, from, to)
      if (part.kind !== 'curve' || rest.kind !== 'cubic') return part
      const cut = cutDown(here, part, rest, stays)
      here = cut.sketch
      return cut.curve
    }
    if (before) {
      const end = pointFor(here, before)
      here = end.sketch
      const part = keep({ ...entity, to: end.id }, piece.from, before.at, 'from')
      kept.push({ entity: part, ties: end.ties })
    }
    if (behind) {
      const end = pointFor(here, behind)
      const [next, grown] = before ? takeId(end.sketch, entity.kind[0] ?? 'l') : [id, end.sketch]
      here = grown
      const part = keep({ ...entity, id: next, from: end.id }, behind.at, piece.to, 'to')
      kept.push({ entity: part, ties: end.ties })
    }
    return succeed({
      sketch: replaced(
        here,
        entity,
        kept.map((k) => k.entity),
      ),
      ties: kept.flatMap((k) => k.ties),
    })
  })
}

function trimCircle(
  sketch: Sketch,
  circle: Entity & { kind: 'circle' },
  before: Crossing | undefined,
  behind: Crossing | undefined,
): ReturnType<EntityEdit> {
  if (!before || !behind || before === behind) {
    return fail('trim.once', 'Only one curve meets this circle.', 'A second one has to cross it.')
  }
  const from = pointFor(sketch, behind)
  const to = pointFor(from.sketch, before)
  const { id, centre, role } = circle
  const arcEntity: Entity = {
    ...{ id, kind: 'arc', from: from.id, to: to.id, centre, role },
    counterClockwise: true,
  }
  return succeed({
    sketch: replaced(to.sketch, circle, [arcEntity]),
    ties: [...from.ties, ...to.ties],
  })
}

/** Whether a size is of all of a curve, so that it goes when the curve is no more what it was. */
const ofWhole = (item: Constraint | Size): item is Extract<Size, { curve: string }> =>
  [
    'arcLength',
    'greatestDiameter',
    'leastDiameter',
    'greatestAt',
    'leastAt',
    'leastRadius',
  ].includes(item.kind)

/** Puts pieces in the place of an entity; what measured its former ends and length goes. */
function replaced(sketch: Sketch, old: Entity, pieces: readonly Entity[]): Sketch {
  const entities = sketch.entities.flatMap((e) => (e.id === old.id ? pieces : [e]))
  const held = new Set(entities.flatMap(pointsOf))
  const lost = new Set(pointsOf(old).filter((p) => !held.has(p)))
  const [first] = pieces
  const lasts = (item: Constraint | Size): boolean => {
    if (item.kind === 'midpoint' || item.kind === 'length') return item.line !== old.id
    if (item.kind === 'equal') {
      const lines = first?.kind === 'line'
      return !lines || (item.curve !== old.id && item.to !== old.id)
    }
    return !ofWhole(item) || item.curve !== old.id
  }
  const extra = pieces
    .slice(1)
    .flatMap((piece): NewConstraint[] =>
      sketch.constraints.flatMap((c): NewConstraint[] =>
        (c.kind === 'axial' || c.kind === 'radial') && c.line === old.id
          ? [{ kind: c.kind, line: piece.id }]
          : [],
      ),
    )
  const kept: Sketch = {
    ...sketch,
    entities,
    constraints: sketch.constraints.filter(lasts),
    sizes: sketch.sizes.filter(lasts),
  }
  const cleared = without(kept, lost)
  return extra.reduce<Sketch>((here, tie) => {
    const [id, grown] = takeId(here, 'c')
    return { ...grown, constraints: [...grown.constraints, { ...tie, id } as Constraint] }
  }, cleared)
}

/** Draws an end of a line or arc out to the next curve it meets. */
export function extend(sketchId: string, id: string, place: Vec): Command {
  return entityCommand('extend', sketchId, id, (sketch, entity) => {
    if (entity.kind === 'circle') {
      return fail('extend.circle', 'A circle has no end.', 'Pick a line or an arc near its end.')
    }
    if (isFree(entity) || entity.kind === 'parallel') {
      const mend = 'Draw on from its end, or move the end itself.'
      return fail('extend.curve', 'A free curve has no way on that is its own.', mend)
    }
    const locate = locator(sketch)
    const [a, b] = [locate(entity.from), locate(entity.to)]
    const atEnd = distance(b, place) <= distance(a, place)
    const end = atEnd ? entity.to : entity.from
    if (sketch.entities.some((e) => e.id !== id && pointsOf(e).includes(end))) {
      return fail('extend.joined', 'Something goes on from this end.', 'Extend from a loose end.')
    }
    const beyond = prolonged(pieceOf(entity, locate), atEnd, sketch)
    const [next] = crossingsOf(sketch, beyond, id).filter((c) => c.t > PARAMETER_TOLERANCE)
    if (!next) return fail('extend.nothing', 'Nothing lies that way.', 'Draw what it should meet.')
    const points = sketch.points.map((p) => (p.id === end ? { ...p, ...xy(next.at) } : p))
    const grown = replaced({ ...sketch, points }, entity, [entity])
    const ties: readonly NewConstraint[] =
      next.point === undefined
        ? onCurve(sketch, end, next.curve)
        : [{ kind: 'coincident', a: end, b: next.point }]
    return succeed({ sketch: grown, ties })
  })
}

/** What goes on from an end of a piece: a long line, or the rest of an arc's circle. */
function prolonged(piece: Piece, atEnd: boolean, sketch: Sketch): Piece {
  const [start, from] = atEnd ? [piece.from, piece.to] : [piece.to, piece.from]
  if (piece.kind === 'arc') {
    const counterClockwise = atEnd ? piece.counterClockwise : !piece.counterClockwise
    return arc(from, start, piece.centre, counterClockwise)
  }
  const reach = 4 * Math.max(1, ...sketch.points.map((p) => Math.hypot(p.x, p.y)))
  const way = tangentAt(line(start, from), 0)
  return line(from, add(from, scale(way, reach)))
}

const xy = ({ x, y }: Vec): Vec => ({ x, y })

/** Divides a line or arc at a place; sizes of its whole length measure on between its former ends. */
export function split(sketchId: string, id: string, place: Vec): Command {
  return entityCommand('split', sketchId, id, (sketch, entity) => {
    if (entity.kind === 'circle') {
      return fail('split.circle', 'A circle has no ends to divide between.', 'Trim it instead.')
    }
    if (entity.kind === 'parallel') {
      const mend = 'Divide its curve, and take what is beside each part.'
      return fail('split.parallel', 'What follows a curve is not divided by itself.', mend)
    }
    if (!isPlain(entity)) return splitSpline(sketch, entity, place)
    const piece = pieceOf(entity, locator(sketch))
    const { t } = nearestOn(piece, place)
    if (t < 1e-6 || t > 1 - 1e-6) {
      return fail('split.end', 'This is its end.', 'Click somewhere between its ends.')
    }
    const [point, pointed] = takeId(sketch, 'p')
    const [second, grown] = takeId(pointed, entity.kind[0] ?? 'l')
    const at = pointAt(piece, t)
    const divided = { ...grown, points: [...grown.points, { id: point, ...xy(at) }] }
    const { whole, halves } = halvesOf(divided, entity, piece, second, point, at)
    const sized: Sketch = {
      ...whole,
      sizes: whole.sizes.map((s) =>
        s.kind === 'length' && s.line === id ? betweenEnds(sketch, s, entity) : s,
      ),
    }
    return succeed({ sketch: replaced(sized, entity, halves), ties: [] })
  })
}

/** Both halves of a divided entity; those of a free curve have handles of their own. */
function halvesOf(
  sketch: Sketch,
  entity: PlainEntity & Ended,
  piece: Piece,
  second: string,
  point: string,
  at: Vec,
): { readonly whole: Sketch; readonly halves: readonly Entity[] } {
  const [one, two] = [
    { ...entity, to: point },
    { ...entity, id: second, from: point },
  ]
  const [start, end] = [stretch(piece, piece.from, at), stretch(piece, at, piece.to)]
  if (one.kind !== 'curve' || two.kind !== 'curve') return { whole: sketch, halves: [one, two] }
  if (start.kind !== 'cubic' || end.kind !== 'cubic') return { whole: sketch, halves: [one, two] }
  const first = cutDown(sketch, one, start, 'from')
  const last = cutDown(first.sketch, two, end, 'to')
  return { whole: last.sketch, halves: [first.curve, last.curve] }
}

/** A length of a line as the distance of its ends, in the direction it has. */
export function betweenEnds(
  sketch: Sketch,
  size: Size & { kind: 'length' },
  ends: { readonly from: string; readonly to: string },
): Size {
  const { line: _, ...rest } = size
  const along = (kind: 'axial' | 'radial'): boolean =>
    sketch.constraints.some((c) => c.kind === kind && c.line === size.line)
  const kind = along('axial') ? 'axialDistance' : along('radial') ? 'radialDistance' : 'distance'
  return { ...rest, kind, a: ends.from, b: ends.to }
}

/** Takes off what of an outline lies below the axis; the new ends lie on it. */
export function cutAtAxis(sketchId: string, ids: readonly string[]): Command {
  return {
    label: 'cut at the axis',
    run: (part) =>
      ids.reduce<Result<Part>>((result, id) => {
        if (!result.ok) return result
        const sketch = result.value.sketches.find((s) => s.id === sketchId)
        const entity = sketch?.entities.find((e) => e.id === id)
        if (!sketch || !entity) return result
        const low = piecesOf(entity, locator(sketch))
          .flatMap((piece) => [0, 0.25, 0.5, 0.75, 1].map((t) => pointAt(piece, t)))
          .reduce((a, b) => (b.y < a.y ? b : a))
        return trim(sketchId, id, low).run(result.value)
      }, succeed(part)),
  }
}
