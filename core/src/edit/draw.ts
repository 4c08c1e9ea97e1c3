import { fail, succeed, type Result } from '../result'
import { distance, type Vec } from '../geometry'
import { LARGEST_LENGTH, VERTEX_TOLERANCE } from '../tolerances'
import { ORIGIN_ID, locator, type Constraint, type LineRole, type Sketch } from '../sketch'
import { disagreementWith } from './disagreement'
import { perform, sketchCommand, withSketch, type Command } from './command'
import type { Part } from '../part'

/** Where an end of a new line goes: a free place, or onto something that is there. */
export interface End {
  readonly at: Vec
  /** A point to share, the datum point included. */
  readonly point?: string
  /** A line to lie on, the axis included. */
  readonly line?: string
}

export interface NewLine {
  readonly sketch: string
  readonly from: End
  readonly to: End
  readonly role: LineRole
  /** Constraints the designer let stand; one that would only disagree is left out. */
  readonly directions: readonly ('axial' | 'radial')[]
}

/** Draws a line. Its ends share points, or lie on lines, where they were put onto them. */
export function drawLine(line: NewLine): Command {
  return {
    label: 'draw line',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === line.sketch)
      if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
      const bad = refuseLine(line, sketch)
      if (bad) return bad
      const from = placeEnd(sketch, line.from)
      const to = placeEnd(from.sketch, line.to)
      const [id, grown] = takeId(to.sketch, 'l')
      const entity = { id, kind: 'line' as const, from: from.id, to: to.id, role: line.role }
      const drawn = withSketch(part, { ...grown, entities: [...grown.entities, entity] })
      const ties: Untied[] = [...from.ties, ...to.ties]
      for (const kind of line.directions) ties.push({ kind, line: id })
      return succeed(ties.reduce((p, tie) => withTieIfItFits(p, line.sketch, tie), drawn))
    },
  }
}

function refuseLine(line: NewLine, sketch: Sketch): Result<never> | undefined {
  const { from, to } = line
  if ([from.at.x, from.at.y, to.at.x, to.at.y].some((c) => !(Math.abs(c) <= LARGEST_LENGTH))) {
    return fail('draw.far', 'This point is too far out.', 'Draw within 1 km of the datum point.')
  }
  const samePoint = from.point !== undefined && from.point === to.point
  if (samePoint || distance(from.at, to.at) <= VERTEX_TOLERANCE) {
    return fail('draw.zero', 'This line would have no length.', 'End it somewhere else.')
  }
  const doubled = sketch.entities.some(
    (e) =>
      (e.from === from.point && e.to === to.point) || (e.to === from.point && e.from === to.point),
  )
  if (doubled && from.point !== undefined) {
    return fail('draw.double', 'There is a line between these points already.', 'End it elsewhere.')
  }
  return undefined
}

type WithoutId<C> = C extends Constraint ? Omit<C, 'id'> : never
type Untied = WithoutId<Constraint>

function placeEnd(
  sketch: Sketch,
  end: End,
): { readonly id: string; readonly sketch: Sketch; readonly ties: readonly Untied[] } {
  if (end.point !== undefined && sketch.points.some((p) => p.id === end.point)) {
    return { id: end.point, sketch, ties: [] }
  }
  const [id, grown] = takeId(sketch, 'p')
  const placed = { ...grown, points: [...grown.points, { id, x: end.at.x, y: end.at.y }] }
  if (end.point === ORIGIN_ID) {
    return { id, sketch: placed, ties: [{ kind: 'coincident', a: id, b: ORIGIN_ID }] }
  }
  if (end.line !== undefined) {
    return { id, sketch: placed, ties: [{ kind: 'pointOnLine', point: id, line: end.line }] }
  }
  return { id, sketch: placed, ties: [] }
}

function withTieIfItFits(part: Part, sketchId: string, tie: Untied): Part {
  const sketch = part.sketches.find((s) => s.id === sketchId)
  if (!sketch) return part
  const { sketch: tied, id } = withConstraint(sketch, tie)
  const next = withSketch(part, tied)
  return disagreementWith(next, sketchId, [id]) ? part : next
}

export function withConstraint(sketch: Sketch, tie: Untied): { sketch: Sketch; id: string } {
  const [id, grown] = takeId(sketch, 'c')
  const constraint = { ...tie, id } as Constraint
  return { sketch: { ...grown, constraints: [...grown.constraints, constraint] }, id }
}

/** An id not used before, and the sketch that remembers it is taken. */
export function takeId(sketch: Sketch, prefix: string): readonly [string, Sketch] {
  return [`${prefix}${sketch.nextId}`, { ...sketch, nextId: sketch.nextId + 1 }]
}

/** Draws a chain of lines; later ends that name no point go on from where the last one ended. */
export function drawChain(
  sketchId: string,
  ends: readonly End[],
  directions: readonly (readonly ('axial' | 'radial')[])[],
): Command {
  return {
    label: 'draw chain',
    run: (part) => {
      let here = part
      let from = ends[0]
      for (let i = 1; i < ends.length; i++) {
        const to = ends[i]
        if (!from || !to) break
        const line = { sketch: sketchId, from, to, role: 'outline' as const }
        const next = perform(here, drawLine({ ...line, directions: directions[i - 1] ?? [] }))
        if (!next.ok) return next
        here = next.value
        const sketch = here.sketches.find((s) => s.id === sketchId)
        const last = sketch?.entities.at(-1)?.to
        from = sketch && last ? { at: locator(sketch)(last), point: last } : to
      }
      return succeed(here)
    },
  }
}

/** Whether lines are outline, construction or centre lines. */
export function setRole(sketchId: string, lines: readonly string[], role: LineRole): Command {
  return sketchCommand(`make ${role} lines`, sketchId, (sketch) =>
    succeed({
      ...sketch,
      entities: sketch.entities.map((e) => (lines.includes(e.id) ? { ...e, role } : e)),
    }),
  )
}

/** Moves points to places; what holds them is applied afterwards. */
export function movePoints(sketchId: string, places: ReadonlyMap<string, Vec>): Command {
  return sketchCommand('move', sketchId, (sketch) =>
    succeed({
      ...sketch,
      points: sketch.points.map((p) => ({ ...p, ...(places.get(p.id) ?? {}) })),
    }),
  )
}
