import type { FacePiece } from '../pieces'
import type { Places } from '../places'

type Way = readonly [number, number, number]

/** A point of a line that a face is put between: by its number, and where along the line it is. */
export interface OnLine {
  readonly at: number
  readonly id: number
}

/** The triangles of one face, or of several that are called alike, between places that it shares with its neighbours. */
export class Shell {
  private readonly corners: number[] = []
  private readonly ways = new Map<number, Way>()

  constructor(readonly name: string) {}

  /** Tells how the face looks at a place; what was told first holds. */
  faces(id: number, way: () => Way): void {
    if (!this.ways.has(id)) this.ways.set(id, way())
  }

  /**
   * Fills what lies between two lines, whose points are told in one order: it looks along the cross product of the way
   * the lines run and the way from the first to the second, or against that.
   */
  between(first: readonly OnLine[], second: readonly OnLine[], isTurned: boolean): void {
    for (let i = 0, j = 0; i + 1 < first.length || j + 1 < second.length;) {
      const [a, b] = [first[i], second[j]]
      const [nextA, nextB] = [first[i + 1], second[j + 1]]
      if (!a || !b) return
      if (nextA && (!nextB || nextA.at <= nextB.at)) {
        this.triangle(a.id, nextA.id, b.id, isTurned)
        i++
      } else if (nextB) {
        this.triangle(a.id, nextB.id, b.id, isTurned)
        j++
      }
    }
  }

  private triangle(a: number, b: number, c: number, isTurned: boolean): void {
    if (a === b || b === c || c === a) return
    if (isTurned) this.corners.push(a, c, b)
    else this.corners.push(a, b, c)
  }

  /** The faces, each by itself: what does not hang together by sides of triangles is another. */
  pieces(places: Places): FacePiece[] {
    const sides = sidesOf(this.corners)
    const group = groups(this.corners.length / 3, sides)
    const byGroup = new Map<number, number[]>()
    group.forEach((g, t) => {
      const own = byGroup.get(g)
      if (own) own.push(t)
      else byGroup.set(g, [t])
    })
    return [...byGroup.values()].map((triangles) => this.piece(places, triangles))
  }

  private piece(places: Places, triangles: readonly number[]): FacePiece {
    const numbers = new Map<number, number>()
    const own: number[] = []
    const corners: number[] = []
    for (const t of triangles) {
      for (let i = 3 * t; i < 3 * t + 3; i++) {
        const id = this.corners[i] ?? 0
        let number = numbers.get(id)
        if (number === undefined) {
          number = own.push(id) - 1
          numbers.set(id, number)
        }
        corners.push(number)
      }
    }
    const positions = new Float32Array(3 * own.length)
    const normals = new Float32Array(3 * own.length)
    const known = places.positions
    own.forEach((id, i) => {
      const way = this.ways.get(id) ?? ALONG
      for (let k = 0; k < 3; k++) {
        positions[3 * i + k] = known[3 * id + k] ?? 0
        normals[3 * i + k] = way[k] ?? 0
      }
    })
    const lines: number[] = []
    for (const { from, to, beside } of sidesOf(corners).values()) {
      if (beside.length === 1) lines.push(from, to)
    }
    const [indices, ends] = [Uint32Array.from(corners), Uint32Array.from(lines)]
    return { name: this.name, positions, normals, indices, lines: ends }
  }
}

const ALONG: Way = [0, 0, 1]

interface TriangleSide {
  readonly from: number
  readonly to: number
  /** The triangles it belongs to, by number. */
  readonly beside: number[]
}

function sidesOf(corners: readonly number[]): Map<number, TriangleSide> {
  const sides = new Map<number, TriangleSide>()
  corners.forEach((from, i) => {
    const to = corners[i % 3 === 2 ? i - 2 : i + 1] ?? from
    const key = Math.min(from, to) * 0x4000000 + Math.max(from, to)
    const side = sides.get(key)
    if (side) side.beside.push(Math.floor(i / 3))
    else sides.set(key, { from, to, beside: [Math.floor(i / 3)] })
  })
  return sides
}

/** For each triangle the number of what it hangs together with. */
function groups(count: number, sides: ReadonlyMap<number, TriangleSide>): number[] {
  const parent = Array.from({ length: count }, (_, t) => t)
  const rootOf = (t: number): number => {
    let root = t
    while (parent[root] !== root) root = parent[root] ?? root
    for (let next = t; next !== root;) {
      const after = parent[next] ?? root
      parent[next] = root
      next = after
    }
    return root
  }
  for (const { beside } of sides.values()) {
    const [one = 0, ...others] = beside
    for (const other of others) parent[rootOf(other)] = rootOf(one)
  }
  return parent.map((_, t) => rootOf(t))
}
