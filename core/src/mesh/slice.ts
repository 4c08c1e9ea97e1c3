import { addPlaces, scalePlace, secondOf, type Frame, type Place, type Vec } from '../geometry'
import type { SolidMesh } from './solid'

/**
 * Where a plane cuts a mesh: closed loops in the plane's own two directions, in mm. Loops of material
 * run counter-clockwise, those around hollows clockwise.
 * @param frame whose first and second directions span the plane
 */
export function sliceMesh({ positions, indices }: SolidMesh, frame: Frame): Vec[][] {
  const second = secondOf(frame)
  const heights = new Float64Array(positions.length / 3)
  for (let v = 0; v < heights.length; v++) {
    const height = along(frame.z, frame.at, positions, 3 * v)
    // A corner in the plane itself counts as just beyond it, so that every cut has two ends.
    heights[v] = Math.abs(height) < 1e-7 ? 1e-7 : height
  }
  const nexts = new Map<string, { readonly to: string; readonly at: Vec }[]>()
  for (let i = 0; i < indices.length; i += 3) {
    const corners = [indices[i] ?? 0, indices[i + 1] ?? 0, indices[i + 2] ?? 0]
    const ends = corners.flatMap((a, k) => {
      const b = corners[(k + 1) % 3] ?? 0
      const [p, q] = [heights[a] ?? 0, heights[b] ?? 0]
      if (p > 0 === q > 0) return []
      // The same two ends give the same place whichever triangle asks.
      const [low, high] = wordOf(positions, a) < wordOf(positions, b) ? [a, b] : [b, a]
      const t = (heights[low] ?? 0) / ((heights[low] ?? 0) - (heights[high] ?? 0))
      const place = between(positions, low, high, t)
      const at = { x: along(frame.x, frame.at, place, 0), y: along(second, frame.at, place, 0) }
      return [{ at, rises: q > 0, key: `${wordOf(positions, low)} ${wordOf(positions, high)}` }]
    })
    const [one, two] = ends
    if (!one || !two) continue
    const [from, to] = one.rises ? [two, one] : [one, two]
    const list = nexts.get(from.key)
    const item = { to: to.key, at: from.at }
    if (list) list.push(item)
    else nexts.set(from.key, [item])
  }
  return loopsFrom(nexts)
}

function loopsFrom(nexts: Map<string, { readonly to: string; readonly at: Vec }[]>): Vec[][] {
  const loops: Vec[][] = []
  for (const start of nexts.keys()) {
    for (;;) {
      const loop: Vec[] = []
      let here = start
      for (let step = nexts.get(here)?.pop(); step; step = nexts.get(here)?.pop()) {
        loop.push(step.at)
        here = step.to
        if (here === start) break
      }
      if (loop.length > 2) loops.push(loop)
      if (loop.length === 0) break
    }
  }
  return loops
}

const along = (way: Place, from: Place, places: ArrayLike<number>, i: number): number =>
  way.x * ((places[i] ?? 0) - from.x) +
  way.y * ((places[i + 1] ?? 0) - from.y) +
  way.z * ((places[i + 2] ?? 0) - from.z)

function between(places: Float32Array, a: number, b: number, t: number): number[] {
  const at = (v: number): Place => ({
    x: places[3 * v] ?? 0,
    y: places[3 * v + 1] ?? 0,
    z: places[3 * v + 2] ?? 0,
  })
  const { x, y, z } = addPlaces(scalePlace(at(a), 1 - t), scalePlace(at(b), t))
  return [x, y, z]
}

/** Vertices at one place have one word. */
const wordOf = (places: Float32Array, v: number): string =>
  `${places[3 * v] ?? 0},${places[3 * v + 1] ?? 0},${places[3 * v + 2] ?? 0}`
