import { boundsOf, vec } from '../../geometry'
import { edgesOf, liesOnAxis, materialAlong, type Section } from '../../section'
import { APART, NEAR, SAME, type Reach } from './taken'

/**
 * Where along the axis a tool that runs along it meets material, if all it meets are plane faces square to the axis.
 * @param ends where along the axis it has faces of its own
 * @returns undefined where it meets anything else
 */
export function stretchesBetweenPlanes(
  base: Section,
  reach: Pick<Reach, 'from' | 'to' | 'low' | 'high'>,
  ends: readonly number[],
): readonly (readonly [number, number])[] | undefined {
  const [low, high] = [reach.low - APART, reach.high + APART]
  const [from, to] = [reach.from - APART, reach.to + APART]
  const planes: number[] = []
  for (const edge of edgesOf(base)) {
    const { min, max } = boundsOf(edge.piece)
    const isNear = max.x > from && min.x < to && max.y > low && min.y < high
    if (!isNear || liesOnAxis(edge)) continue
    const isSquare = edge.piece.kind === 'line' && max.x - min.x < SAME
    // It has to go all the way across what the tool may reach.
    if (!isSquare || min.y > Math.max(low, SAME) || max.y < high) return undefined
    const off = ends.map((x) => Math.abs(x - min.x))
    if (off.some((d) => d > SAME && d < NEAR)) return undefined
    planes.push(min.x)
  }
  const middle = (reach.low + reach.high) / 2
  const met = materialAlong(base, vec(from, middle), vec(1, 0), to - from)
  // As the faces have it, to the last digit.
  const faceAt = (x: number): number => planes.find((at) => Math.abs(at - x) < SAME) ?? x
  return met.map(([a, b]) => [faceAt(from + a), faceAt(from + b)] as const)
}
