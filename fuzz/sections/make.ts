import { arc, cubic, line, simplePieces, type Piece } from '@lathica/core/geometry'
import { profileOf, type Section } from '@lathica/core/section'
import type { Random } from '../random'

export interface Place {
  readonly x: number
  readonly y: number
}

/** A side of an outline: where it ends, and how it goes there. */
export interface Side {
  readonly to: Place
  /** Nought for a line; for an arc the tangent of a quarter of its sweep, as a share. */
  readonly bulge: number
  /** Handles of a free curve instead. */
  readonly handles?: readonly [Place, Place]
}

/** An outline as sides one after another, each from where the one before ends; the last closes it. */
export type Drawn = readonly Side[]

export function pieceTo(from: Place, { to, bulge, handles }: Side): Piece {
  if (handles) return cubic(from, handles[0], handles[1], to)
  if (bulge === 0) return line(from, to)
  const h = (1 - bulge * bulge) / (4 * bulge)
  const centre = {
    x: (from.x + to.x) / 2 - (to.y - from.y) * h,
    y: (from.y + to.y) / 2 + (to.x - from.x) * h,
  }
  return arc(from, to, centre, bulge > 0)
}

export function sectionOf(drawn: Drawn, step: string): Section {
  const edges = drawn.flatMap((side, i) => {
    const from = drawn[(i + drawn.length - 1) % drawn.length]?.to ?? side.to
    const name = { step, entity: `e${i}`, role: 'drawn' as const }
    return simplePieces(pieceTo(from, side)).map((piece) => ({ piece, name }))
  })
  return profileOf(edges, step).section
}

/** A star-shaped outline about a middle; on a grid when the grid is not nought, so that things coincide. */
export function star(random: Random, grid: number, curved: number): Drawn {
  const [cx, cy] = [random.between(5, 25), random.between(12, 25)]
  const count = 3 + random.below(6)
  const snap = (v: number): number => (grid > 0 ? Math.round(v / grid) * grid : v)
  const angles = Array.from({ length: count }, () => random() * 2 * Math.PI).sort((a, b) => a - b)
  const corners = angles.map((a) => {
    const r = random.between(2, 11)
    return { x: snap(cx + r * Math.cos(a)), y: Math.max(0, snap(cy + r * Math.sin(a))) }
  })
  const kept = corners.filter((p, i) => {
    const q = corners[(i + 1) % corners.length]
    return q && Math.hypot(p.x - q.x, p.y - q.y) > 0.3
  })
  return kept.map((to, i) => {
    const from = kept[(i + kept.length - 1) % kept.length] ?? to
    if (!random.chance(curved)) return { to, bulge: 0 }
    if (random.chance(0.5)) return { to, bulge: random.between(-0.4, 0.4) }
    const handle = (share: number): Place => ({
      x: from.x + (to.x - from.x) * share + random.between(-2, 2),
      y: Math.max(0.1, from.y + (to.y - from.y) * share + random.between(-2, 2)),
    })
    return { to, bulge: 0, handles: [handle(1 / 3), handle(2 / 3)] }
  })
}

/** A stepped outline from the axis round to the axis, whole millimetres. */
export function stepped(random: Random): Drawn {
  const sides: Side[] = [{ to: { x: 0, y: 0 }, bulge: 0 }]
  let x = 0
  const count = 1 + random.below(4)
  for (let i = 0; i < count; i++) {
    const y = 2 + random.below(14)
    sides.push({ to: { x, y }, bulge: 0 })
    x += 1 + random.below(8)
    sides.push({
      to: { x, y: random.chance(0.7) ? y : 2 + random.below(14) },
      bulge: random.chance(0.2) ? random.between(-0.3, 0.3) : 0,
    })
  }
  sides.push({ to: { x: random.chance(0.7) ? x : x + random.between(0.5, 4), y: 0 }, bulge: 0 })
  return sides
}

export const moved = (drawn: Drawn, dx: number, dy: number): Drawn =>
  drawn.map((s) => {
    const by = (p: Place): Place => ({ x: p.x + dx, y: p.y + dy })
    return {
      ...s,
      to: by(s.to),
      ...(s.handles ? { handles: [by(s.handles[0]), by(s.handles[1])] as const } : {}),
    }
  })

/** Outlines with one corner left out, and with one curve made straight: the bolder first. */
export function* smallerDrawn(drawn: Drawn): Generator<Drawn> {
  for (let i = 0; drawn.length > 3 && i < drawn.length; i++) yield drawn.filter((_, k) => k !== i)
  for (let i = 0; i < drawn.length; i++) {
    const side = drawn[i]
    if (!side || (side.bulge === 0 && !side.handles)) continue
    yield drawn.map((s, k) => (k === i ? { to: s.to, bulge: 0 } : s))
  }
  for (const digits of [0, 1, 3]) {
    const round = (v: number): number => Number(v.toFixed(digits))
    const rounded = drawn.map((s) => ({ ...s, to: { x: round(s.to.x), y: round(s.to.y) } }))
    if (rounded.some((s, i) => s.to.x !== drawn[i]?.to.x || s.to.y !== drawn[i]?.to.y))
      yield rounded
  }
}
