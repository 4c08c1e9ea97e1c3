import { cross, dot, norm, reversed, subtract, tangentAt, type Vec } from '../geometry'
import { locator, piecesOf, type Entity, type Locate, type Sketch } from '../sketch'

/** Corners flatter than this, as a sine, have no side worth keeping. */
const FLAT = 0.05

/**
 * True when every corner between two pieces of the outline turns the way it did before the points
 * moved, what was smooth is not folded back, and the centres of arcs are on the sides where they
 * were.
 */
export function keepsTurns(sketch: Sketch, positions: ReadonlyMap<string, Vec>): boolean {
  const before = locator(sketch)
  const after: Locate = (id) => positions.get(id) ?? before(id)
  const meeting = new Map<string, Entity[]>()
  for (const e of sketch.entities) {
    if (e.kind === 'circle' || e.role !== 'outline') continue
    for (const p of [e.from, e.to]) meeting.set(p, [...(meeting.get(p) ?? []), e])
  }
  for (const [point, [first, second, more]] of meeting) {
    if (!first || !second || more || first === second) continue
    if (!sameTurn(turnAt(point, first, second, before), turnAt(point, first, second, after))) {
      return false
    }
  }
  return sketch.entities.every((e) => {
    if (e.kind !== 'arc') return true
    return sameSign(bulge(e, before), bulge(e, after))
  })
}

/** Sine and cosine of the turn from one piece to the other, both led away from a shared end. */
function turnAt(point: string, first: Entity, second: Entity, locate: Locate): readonly number[] {
  const leaving = (e: Entity): Vec => {
    const pieces = piecesOf(e, locate)
    const starts = e.kind !== 'circle' && e.from === point
    const piece = starts ? pieces[0] : pieces.at(-1)
    if (!piece) return { x: 0, y: 0 }
    const tangent = tangentAt(starts ? piece : reversed(piece), 0)
    return Number.isFinite(tangent.x + tangent.y) ? tangent : { x: 0, y: 0 }
  }
  const [u, v] = [leaving(first), leaving(second)]
  return [cross(u, v), dot(u, v)]
}

function sameTurn([sine = 0, cosine = 0]: readonly number[], then: readonly number[]): boolean {
  const [newSine = 0, newCosine = 0] = then
  const flat = Math.abs(sine) < FLAT
  if (flat && Math.abs(newSine) < FLAT) return cosine * newCosine >= 0
  return sameSign(sine, newSine)
}

const sameSign = (a: number, b: number): boolean =>
  Math.abs(a) < FLAT || Math.abs(b) < FLAT || a * b > 0

/** How far an arc's centre lies off its chord, as a share: its sign tells the lesser from the greater arc. */
function bulge(e: Entity & { kind: 'arc' }, locate: Locate): number {
  const [from, to, centre] = [locate(e.from), locate(e.to), locate(e.centre)]
  const [chord, radius] = [subtract(to, from), subtract(centre, from)]
  const size = norm(chord) * norm(radius)
  return size > 0 ? cross(chord, radius) / size : 0
}
