import { VERTEX_TOLERANCE } from '../../tolerances'
import { evaluateFormula } from '../../formula'
import { fail, succeed, type Result } from '../../result'
import { add, dot, pointAt, reversed, scale, tangentAt, type Piece, type Vec } from '../../geometry'
import {
  chainOf,
  isFree,
  locator,
  pieceOf,
  type ChainLink,
  type Entity,
  type Sketch,
  type SketchArc,
  type SketchLine,
} from '../../sketch'
import { valuesOf, type Part } from '../../part'
import { placeDraft, type Draft, type DraftSize } from './draft'
import type { NewConstraint } from '../../constraints'
import type { End } from './ends'
import type { Command } from '../command'

/**
 * Draws a chain beside a chain: lines parallel, arcs concentric, all at one distance, which is one
 * size that the others read.
 * @param side a place on the side where the new chain goes
 */
export function offsetChain(
  sketchId: string,
  ids: readonly string[],
  formula: string,
  side: Vec,
): Command {
  return {
    label: 'offset',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
      const links = chainOf(sketch, ids)
      if (!links) {
        const mend = 'Pick lines and arcs that follow one another end to end.'
        return fail('offset.chain', 'What is picked is not one chain.', mend)
      }
      if (!links.every(isPlainLink)) {
        const mend = 'Turn it as a wall of that thickness: walls go along curves.'
        return fail('offset.curve', 'What lies beside a free curve is not one itself.', mend)
      }
      const value = distanceOf(part, formula)
      if (!value.ok) return value
      const placed = placeDraft(part, sketchId, beside(sketch, links, value.value, formula, side))
      return placed.ok ? succeed(placed.value.part) : placed
    },
  }
}

/** A link of a chain that is no free curve. */
type PlainLink = ChainLink & { readonly entity: SketchLine | SketchArc }

const isPlainLink = (link: ChainLink): link is PlainLink => !isFree(link.entity)

function distanceOf(part: Part, formula: string): Result<number> {
  const lookup = valuesOf(part).table.lookup
  const value = evaluateFormula(formula, { want: 'length', units: part.units, lookup })
  if (!value.ok || value.value > 0) return value
  return fail('offset.zero', 'The distance has to be greater than zero.', 'Type a length.')
}

/** The left normals of a link at its start and end. */
function normalsOf(piece: Piece): readonly [Vec, Vec] {
  const left = (v: Vec): Vec => ({ x: -v.y, y: v.x })
  return [left(tangentAt(piece, 0)), left(tangentAt(piece, 1))]
}

function beside(
  sketch: Sketch,
  links: readonly PlainLink[],
  distance: number,
  formula: string,
  side: Vec,
): Draft {
  const locate = locator(sketch)
  const pieces = links.map(({ entity, from }) => {
    const piece = pieceOf(entity, locate)
    return entity.from === from ? piece : reversed(piece)
  })
  const normals = pieces.map(normalsOf)
  const sign = sideOf(pieces, side)
  const first = links[0]?.from ?? ''
  const closed = links.length > 1 && links.at(-1)?.to === first
  const points: Record<string, End> = {}
  links.forEach(({ from, to }, i) => {
    const before = i === 0 ? (closed ? normals.at(-1)?.[1] : undefined) : normals[i - 1]?.[1]
    points[`~${from}`] ??= { at: mitred(locate(from), before, normals[i]?.[0], sign * distance) }
    const behind = i + 1 < links.length ? normals[i + 1]?.[0] : closed ? normals[0]?.[0] : undefined
    points[`~${to}`] ??= { at: mitred(locate(to), normals[i]?.[1], behind, sign * distance) }
  })
  const entities: Entity[] = links.map(({ entity, from, to }) => {
    const ends = { id: `~${entity.id}`, from: `~${from}`, to: `~${to}`, role: entity.role }
    if (entity.kind !== 'arc') return { ...ends, kind: 'line' }
    points[`~${entity.centre}`] ??= { at: locate(entity.centre) }
    const forward = entity.from === from
    const counterClockwise = forward ? entity.counterClockwise : !entity.counterClockwise
    return { ...ends, kind: 'arc', centre: `~${entity.centre}`, counterClockwise }
  })
  const ties = links.map(({ entity }): NewConstraint =>
    entity.kind === 'line'
      ? { kind: 'parallel', line: `~${entity.id}`, to: entity.id }
      : { kind: 'concentric', curve: `~${entity.id}`, to: entity.id },
  )
  const sizes = links.map(({ entity }, i): DraftSize => ({
    offer: { kind: 'gap', item: `~${entity.id}`, to: entity.id },
    formula: i === 0 ? formula : 'offset_first',
    formerName: i === 0 ? 'offset_first' : `offset_${i}`,
  }))
  return { points, entities, ties: [...ties, ...squareEnds(links, closed, pieces)], sizes }
}

/** Loose ends stand level with those of the chain they go beside, where its lines are straight. */
function squareEnds(
  links: readonly ChainLink[],
  closed: boolean,
  pieces: readonly Piece[],
): NewConstraint[] {
  if (closed) return []
  return [[links[0]?.from, pieces[0]] as const, [links.at(-1)?.to, pieces.at(-1)] as const].flatMap(
    ([end, piece]): NewConstraint[] => {
      if (end === undefined || piece?.kind !== 'line') return []
      const d = { x: Math.abs(piece.to.x - piece.from.x), y: Math.abs(piece.to.y - piece.from.y) }
      if (d.y < VERTEX_TOLERANCE) return [{ kind: 'inLine', a: `~${end}`, b: end, along: 'radial' }]
      return d.x < VERTEX_TOLERANCE
        ? [{ kind: 'inLine', a: `~${end}`, b: end, along: 'axial' }]
        : []
    },
  )
}

/** +1 when a place lies to the left of the nearest piece, else −1. */
function sideOf(pieces: readonly Piece[], place: Vec): number {
  const nearest = pieces
    .flatMap((piece) =>
      [0.02, 0.25, 0.5, 0.75, 0.98].map((t) => {
        const at = pointAt(piece, t)
        const tangent = tangentAt(piece, t)
        const off = { x: place.x - at.x, y: place.y - at.y }
        return { off, tangent, far: Math.hypot(off.x, off.y) }
      }),
    )
    .sort((a, b) => a.far - b.far)[0]
  if (!nearest) return 1
  return nearest.tangent.x * nearest.off.y - nearest.tangent.y * nearest.off.x >= 0 ? 1 : -1
}

/** A corner moved along the mitre of its two normals; an end along its one. */
function mitred(p: Vec, one: Vec | undefined, two: Vec | undefined, by: number): Vec {
  const [a, b] = [one ?? two, two ?? one]
  if (!a || !b) return p
  const sum = add(a, b)
  // Where the chain turns back on itself the mitre would run away: it is cut off there.
  const share = Math.max(0.2, (1 + dot(a, b)) / 2)
  return add(p, scale(sum, by / 2 / share))
}
