import { fail, succeed } from '../../result'
import { locator, type Role } from '../../sketch'
import { perform, sketchCommand, type Command } from '../command'
import { placeDraft, type Draft, type DraftSize } from './draft'
import type { NewConstraint } from '../../constraints'
import type { End } from './ends'
import type { Vec } from '../../geometry'

/** A line or arc to draw from one end to another. */
export interface NewPiece {
  readonly sketch: string
  readonly from: End
  readonly to: End
  readonly role: Role
  /** For an arc: its centre and the way it turns. */
  readonly arc?: { readonly centre: Vec; readonly counterClockwise: boolean }
  /** Directions the designer let stand. */
  readonly directions?: readonly ('axial' | 'radial')[]
  /** Further constraints let stand; the piece goes by `~piece`, its ends by `~from` and `~to`. */
  readonly ties?: readonly NewConstraint[]
  /** Sizes typed while drawing; those that would disagree become references. */
  readonly sizes?: readonly DraftSize[]
}

/** Draws a line or an arc. Its ends share points, or lie on curves, where they were put onto them. */
export function drawPiece(piece: NewPiece): Command {
  return {
    label: piece.arc ? 'draw arc' : 'draw line',
    run: (part) => {
      const drawn = placeDraft(part, piece.sketch, pieceDraft(piece))
      return drawn.ok ? succeed(drawn.value.part) : drawn
    },
  }
}

function pieceDraft({ from, to, role, arc, directions, ties, sizes = [] }: NewPiece): Draft {
  const ends = { id: '~piece', from: '~from', to: '~to', role }
  const along = (directions ?? []).map((kind) => ({ kind, line: '~piece' }))
  if (!arc) {
    return {
      points: { '~from': from, '~to': to },
      entities: [{ ...ends, kind: 'line' }],
      ties: [...along, ...(ties ?? [])],
      sizes,
    }
  }
  const { centre, counterClockwise } = arc
  return {
    points: { '~from': from, '~to': to, '~centre': { at: centre } },
    entities: [{ ...ends, kind: 'arc', centre: '~centre', counterClockwise }],
    ties: ties ?? [],
    sizes,
  }
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
        const piece = { sketch: sketchId, from, to, role: 'outline' as const }
        const next = perform(here, drawPiece({ ...piece, directions: directions[i - 1] ?? [] }))
        if (!next.ok) return next
        here = next.value
        const sketch = here.sketches.find((s) => s.id === sketchId)
        const last = sketch?.entities.at(-1)
        const end = last?.kind === 'line' ? last.to : undefined
        from = sketch && end !== undefined ? { at: locator(sketch)(end), point: end } : to
      }
      return succeed(here)
    },
  }
}

/** Whether lines and curves are outline, construction or centre lines. */
export function setRole(sketchId: string, ids: readonly string[], role: Role): Command {
  return sketchCommand(`make ${role} lines`, sketchId, (sketch) =>
    succeed({
      ...sketch,
      entities: sketch.entities.map((e) => (ids.includes(e.id) ? { ...e, role } : e)),
    }),
  )
}

/** Moves points to places; what holds them is applied afterwards. */
export function movePoints(sketchId: string, places: ReadonlyMap<string, Vec>): Command {
  return sketchCommand('move', sketchId, (sketch) => {
    const known = [...places.keys()].every((id) => sketch.points.some((p) => p.id === id))
    if (!known) return fail('point.gone', 'A point to move is gone.', 'Pick again.')
    return succeed({
      ...sketch,
      points: sketch.points.map((p) => ({ ...p, ...(places.get(p.id) ?? {}) })),
    })
  })
}
