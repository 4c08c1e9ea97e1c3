import { controlOf, evenSpline, splinePieces, type Piece, type Vec } from '@lathica/core/geometry'
import { profileOf, sectionArea, type SectionEdge } from '@lathica/core/section'
import type { Kind } from '../kind'
import type { Random } from '../random'

/** A free curve over the axis, closed by lines down to it. */
interface Drawn {
  readonly way: 'through' | 'frame'
  readonly places: readonly Vec[]
}

/** Cubics are sampled at so many places each, and at twice as many. */
const SAMPLES = 64

/** Slower than this, in ms, a curve of up to 200 places is worth counting. */
const SLOW = 50

function make(random: Random): Drawn {
  const way = random.pick(['through', 'frame'] as const)
  const count = random.chance(0.1) ? 60 + random.below(141) : 2 + random.below(14)
  const kind = random.pick(['forward', 'forward', 'wild', 'repeated', 'close', 'axis'] as const)
  const places: Vec[] = []
  let x = 0
  for (let i = 0; i < count; i++) {
    x += random.between(kind === 'close' ? 0.001 : 1, kind === 'close' ? 0.02 : 12)
    const y = kind === 'axis' && random.chance(0.3) ? 0 : random.between(2, 40)
    const before = places.at(-1)
    if (kind === 'repeated' && before && random.chance(0.3)) places.push({ ...before })
    else if (kind === 'wild') places.push({ x: random.between(0, 60), y })
    else places.push({ x: Number(x.toFixed(3)), y: Number(y.toFixed(3)) })
  }
  return { way, places }
}

/** The place of a cubic by dividing its legs, as de Casteljau has it. */
function placeOn(control: readonly Vec[], t: number): Vec {
  let row = control
  while (row.length > 1) {
    row = row.slice(1).map((q, i) => {
      const p = row[i] ?? q
      return { x: p.x + (q.x - p.x) * t, y: p.y + (q.y - p.y) * t }
    })
  }
  return row[0] ?? { x: 0, y: 0 }
}

const samples = (piece: Piece, count: number): Vec[] => {
  const control = piece.kind === 'cubic' ? controlOf(piece) : [piece.from, piece.to]
  return Array.from({ length: count }, (_, i) => placeOn(control, i / count))
}

/** The area of a polygon in mm², by the shoelace formula. */
const shoelace = (corners: readonly Vec[]): number =>
  Math.abs(
    corners.reduce((sum, p, i) => {
      const q = corners[(i + 1) % corners.length] ?? p
      return sum + p.x * q.y - q.x * p.y
    }, 0) / 2,
  )

interface Told {
  readonly pieces: readonly Piece[]
  readonly area: number
  readonly faults: number
  readonly ms: number
}

function told({ way, places }: Drawn): Told {
  const [first, last] = [places[0], places.at(-1)]
  const started = performance.now()
  const pieces = splinePieces(evenSpline(way, places))
  const down = (p: Vec): Piece => ({ kind: 'line', from: { x: p.x, y: 0 }, to: p })
  const edge = (piece: Piece, i: number): SectionEdge => ({
    piece,
    name: { step: 's', entity: `e${i}`, role: 'drawn' },
  })
  const lines = [first, last].flatMap((p) => (p && p.y > 0 ? [down(p)] : []))
  const { section, faults } = profileOf([...pieces, ...lines].map(edge), 's')
  const area = sectionArea(section)
  return { pieces, area, faults: faults.length, ms: performance.now() - started }
}

export const curves: Kind<Drawn> = {
  name: 'curves of many places',
  batch: 20,
  make,
  fault: (given) => {
    let found: Told
    try {
      found = told(given)
    } catch (error) {
      return `it threw: ${String(error)}`
    }
    const { pieces, area, faults } = found
    const all = pieces.flatMap((p) => samples(p, SAMPLES))
    if (!all.every((p) => Number.isFinite(p.x + p.y))) return 'a place of it is no number'
    const [first, last] = [given.places[0], given.places.at(-1)]
    if (!first || !last || pieces.length === 0) return undefined
    // What bounds nothing is told why; what is told sound has the area that its samples enclose.
    if (area === 0) return faults > 0 || isFlat(all) ? undefined : 'it bounds nothing, unsaid'
    if (faults > 0) return undefined
    // Polygons of half the chord lie off by a quarter: what both say tells the area itself (Richardson).
    const [coarse, fine] = [SAMPLES, 2 * SAMPLES].map((count) =>
      shoelace([
        { x: first.x, y: 0 },
        ...pieces.flatMap((p) => samples(p, count)),
        last,
        { x: last.x, y: 0 },
      ]),
    )
    const wanted = (4 * (fine ?? 0) - (coarse ?? 0)) / 3
    const length = all.reduce((s, p, i) => {
      const q = all[i + 1] ?? last
      return s + Math.hypot(q.x - p.x, q.y - p.y)
    }, 0)
    return Math.abs(area - wanted) > 1e-5 * length + 1e-4
      ? `its area is ${area}, samples say ${wanted}`
      : undefined
  },
  counts: (given) => (told(given).ms > SLOW ? [`took over ${SLOW} ms`] : []),
  *smaller({ way, places }) {
    for (let i = places.length - 1; i >= 0 && places.length > 2; i--) {
      yield { way, places: places.filter((_, j) => j !== i) }
    }
    const round = places.map(({ x, y }) => ({ x: Math.round(x), y: Math.round(y) }))
    if (JSON.stringify(round) !== JSON.stringify(places)) yield { way, places: round }
  },
}

/** Whether places enclose nothing to speak of with the axis. */
const isFlat = (all: readonly Vec[]): boolean => {
  const [first, last] = [all[0], all.at(-1)]
  if (!first || !last) return true
  return shoelace([{ x: first.x, y: 0 }, ...all, { x: last.x, y: 0 }]) < 1e-3
}
