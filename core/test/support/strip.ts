import { distance, pointAt, tangentAt, type Piece } from '../../src'

/**
 * What a strip between a piece and what lies to its right turns to, by slices along and across it: by Pappus each turns
 * to its area times the way of its middle.
 * @param width in mm, negative to its left
 */
export function strip(piece: Piece, width: number): number {
  const [along, across] = [2000, 20]
  let sum = 0
  for (let i = 0; i < along; i++) {
    const ends = [pointAt(piece, i / along), pointAt(piece, (i + 1) / along)] as const
    const rights = [i / along, (i + 1) / along].map((t) => {
      const { x, y } = tangentAt(piece, t)
      return { x: y, y: -x }
    })
    for (let k = 0; k < across; k++) {
      const by = ((k + 0.5) * width) / across
      const [p, q] = ends.map((e, j) => ({
        x: e.x + by * (rights[j]?.x ?? 0),
        y: e.y + by * (rights[j]?.y ?? 0),
      }))
      if (p && q) {
        sum += 2 * Math.PI * ((p.y + q.y) / 2) * distance(p, q) * (Math.abs(width) / across)
      }
    }
  }
  return sum
}
