import { line, vec } from '../geometry'
import { liesOnAxis, withLoops, type Loop, type Section, type SectionEdge } from '../section'
import { creased } from './creased'
import { latheMesh } from './lathe'
import { welded } from './welded'
import type { SolidMesh } from './solid'

/** A screw thread as it is cut into triangles: its land, its profile and its helix, all in mm. */
export interface ThreadCut {
  readonly side: 'outside' | 'inside'
  /** Where the full thread begins and ends along the axis. */
  readonly from: number
  readonly to: number
  /**
   * How far beyond its ends it cuts into what slopes away there; undefined where it ends on its land or at a shoulder,
   * and fades out within one pitch.
   */
  readonly beyond: { readonly from: number | undefined; readonly to: number | undefined }
  /** The radius of the land or bore. */
  readonly radius: number
  readonly major: number
  readonly root: number
  readonly pitch: number
  readonly lead: number
  /** 1 for a right-hand thread, −1 for a left-hand one. */
  readonly hand: 1 | -1
  /** Half the width of the crest of an outside thread, and how far a flank goes along the axis for its height. */
  readonly crest: number
  readonly flank: number
}

/** How many rows of triangles there are to a pitch. */
const ROWS = 16
/** Steps round the axis that a helix is told by at least. */
const LEAST_STEPS = 96

/**
 * A full turn in triangles whose threads are cut: the radius of each vertex is that of the thread at its place along
 * and round the axis, where the plain part reaches beyond it. Vertices in one place move alike, so that what was
 * watertight stays so. Its profile is that of ISO 68-1 or of the thread's own form, flat at its root.
 * @param chordTolerance in mm
 */
export function threadedMesh(
  section: Section,
  chordTolerance: number,
  threads: readonly ThreadCut[],
): SolidMesh {
  const radius = Math.max(...threads.map((t) => t.major))
  const fine = radius * (1 - Math.cos(Math.PI / LEAST_STEPS))
  const refined = threads.reduce(withRows, section)
  const plain = welded(latheMesh(refined, Math.min(chordTolerance, fine)))
  const positions = Float32Array.from(plain.positions)
  for (const thread of threads) cutInto(positions, thread)
  return creased({ positions, indices: Uint32Array.from(plain.indices) })
}

/** Where a thread reaches: over its length, and over what slopes away at an open end. */
const reachOf = ({ from, to, beyond }: ThreadCut): readonly [number, number] => [
  from - (beyond.from ?? 0),
  to + (beyond.to ?? 0),
]

/** Straight edges in reach of a thread parted into rows. */
function withRows(section: Section, thread: ThreadCut): Section {
  const [low, high] = reachOf(thread)
  const row = thread.pitch / ROWS
  const parted = (edge: SectionEdge): Loop => {
    const { from, to, kind } = edge.piece
    if (kind !== 'line' || liesOnAxis(edge) || !isNear(thread, Math.max(from.y, to.y)))
      return [edge]
    const [start, end] = [Math.min(from.x, to.x), Math.max(from.x, to.x)]
    const first = Math.ceil((Math.max(start, low) - low) / row + 1e-9)
    const last = Math.floor((Math.min(end, high) - low) / row - 1e-9)
    if (last < first || end - start < 1e-9) return [edge]
    const shares = Array.from(
      { length: last - first + 1 },
      (_, i) => (low + (first + i) * row - from.x) / (to.x - from.x),
    ).filter((t) => t > 1e-9 && t < 1 - 1e-9)
    const stops = [0, ...shares.sort((a, b) => a - b), 1]
    const at = (t: number) => vec(from.x + (to.x - from.x) * t, from.y + (to.y - from.y) * t)
    return stops.slice(1).map((t, i) => ({ ...edge, piece: line(at(stops[i] ?? 0), at(t)) }))
  }
  return withLoops(section, (loop) => loop.flatMap(parted))
}

/** Whether what has its greatest radius there may have to do with a thread. */
const isNear = ({ side, radius, root, major }: ThreadCut, greatest: number): boolean =>
  side === 'outside'
    ? greatest <= radius + 1e-6 && greatest > root - 1e-6
    : greatest <= major + 1e-6 && greatest > radius - 1e-6

/** Moves the vertices that lie beyond a thread onto it. */
function cutInto(positions: Float32Array, thread: ThreadCut): void {
  const [low, high] = reachOf(thread)
  const { side, radius } = thread
  for (let i = 0; i < positions.length; i += 3) {
    const [x = 0, y = 0, z = 0] = positions.subarray(i, i + 3)
    const r = Math.hypot(x, y)
    if (z < low - 1e-6 || z > high + 1e-6 || r < 1e-9 || !isNear(thread, r)) continue
    const wanted = radiusAt(thread, z, Math.atan2(y, x))
    const now = side === 'outside' ? Math.min(r, wanted) : Math.max(r, wanted)
    if (side === 'inside' && r < radius - 1e-6) continue
    positions[i] = (x / r) * now
    positions[i + 1] = (y / r) * now
  }
}

/** The radius of a thread at a place along and round the axis. */
function radiusAt(thread: ThreadCut, x: number, angle: number): number {
  const { side, from, to, beyond, major, root, radius, pitch, lead, hand, crest, flank } = thread
  const turns = (x - from) / lead - (hand * angle) / (2 * Math.PI)
  const inPitches = (turns * lead) / pitch
  const off = Math.abs(inPitches - Math.round(inPitches)) * pitch
  const deep = Math.min(major - root, Math.max(0, (off - crest) / flank))
  const profile = side === 'outside' ? major - deep : Math.max(radius, major - deep)
  const before = beyond.from === undefined ? x - from : Infinity
  const room = Math.min(before, beyond.to === undefined ? to - x : Infinity)
  const share = Math.max(0, Math.min(1, room / pitch))
  const plain = side === 'outside' ? major : radius
  return plain + (profile - plain) * share
}
