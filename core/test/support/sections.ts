import * as fc from 'fast-check'
import {
  arc,
  cubic,
  line,
  profileOf,
  reversed,
  simplePieces,
  vec,
  type Section,
  type SectionEdge,
  type Vec,
} from '../../src'

/** Named edges along places, closed; a place with a bulge ends an arc of that much of a turn. */
export interface Corner {
  readonly at: Vec
  /** Tangent of a quarter of the angle the edge to the next corner turns through; 0 for a line. */
  readonly bulge?: number
  /** The two handles of a free curve to the next corner. */
  readonly handles?: readonly [Vec, Vec]
}

/** A closed outline through corners as a section whose edges are called e0, e1 … */
export function outlineOf(corners: readonly Corner[], step = 's'): Section {
  const edges = corners.flatMap(({ at, bulge, handles }, i): SectionEdge[] => {
    const to = corners[(i + 1) % corners.length]?.at ?? at
    const name = { step, entity: `e${i}`, role: 'drawn' } as const
    if (handles) return simplePieces(cubic(at, ...handles, to)).map((piece) => ({ piece, name }))
    return [{ piece: bulged(at, to, bulge ?? 0), name }]
  })
  return profileOf(edges, step).section
}

export function bulged(from: Vec, to: Vec, bulge: number): SectionEdge['piece'] {
  if (Math.abs(bulge) < 1e-9) return line(from, to)
  const h = (1 - bulge * bulge) / (4 * bulge)
  const centre = vec(
    (from.x + to.x) / 2 - (to.y - from.y) * h,
    (from.y + to.y) / 2 + (to.x - from.x) * h,
  )
  return arc(from, to, centre, bulge > 0)
}

export const rectangle = (x0: number, y0: number, x1: number, y1: number, step = 's'): Section =>
  outlineOf(
    [{ at: vec(x0, y0) }, { at: vec(x1, y0) }, { at: vec(x1, y1) }, { at: vec(x0, y1) }],
    step,
  )

/** A full circle in two halves. */
export const disc = (x: number, y: number, r: number, step = 's'): Section =>
  outlineOf(
    [
      { at: vec(x - r, y), bulge: 1 },
      { at: vec(x + r, y), bulge: 1 },
    ],
    step,
  )

/**
 * Any outline of lands, with shoulders at whole millimetres so that much of it coincides with others,
 * sloped or round lands between them, and perhaps a hole.
 */
export const anySection = (step: string): fc.Arbitrary<Section> =>
  fc
    .record({
      x0: fc.integer({ min: 0, max: 6 }),
      lands: fc.array(
        fc.record({
          length: fc.integer({ min: 1, max: 5 }),
          height: fc.integer({ min: 3, max: 9 }),
          end: fc.integer({ min: 3, max: 9 }),
          shape: fc.constantFrom('flat', 'flat', 'slope', 'arc', 'hollow', 'ogee', 'belly'),
        }),
        { minLength: 1, maxLength: 6 },
      ),
      floor: fc.integer({ min: 0, max: 2 }),
      shift: fc.constantFrom(0, 0, 0.25, 1 / 3),
      hole: fc.boolean(),
    })
    .map(({ x0, lands, floor, shift, hole }) => {
      let x = x0 + shift
      const top: Corner[] = []
      for (const { length, height, end, shape } of lands) {
        const to = shape === 'flat' ? height : end
        const round = shape === 'arc' ? 0.2 : shape === 'hollow' ? -0.2 : 0
        const place = vec(x, height + 1)
        const [a, b, c] = [x + length / 4, x + length / 2, x + length * 0.75]
        if (shape === 'ogee') {
          top.push({ at: place, handles: [vec(b, height + 1), vec(b, to + 1)] })
        } else if (shape === 'belly') {
          top.push({ at: place, handles: [vec(a, height + 3), vec(c, to + 2)] })
        } else top.push({ at: place, bulge: -round })
        x += length
        top.push({ at: vec(x, to + 1) })
      }
      const corners: Corner[] = [{ at: vec(x0 + shift, floor) }, ...top, { at: vec(x, floor) }]
      const distinct = corners.filter((c, i) => {
        const before = corners[(i + corners.length - 1) % corners.length]?.at
        return !before || Math.hypot(c.at.x - before.x, c.at.y - before.y) > 1e-9
      })
      const body = outlineOf(distinct, step)
      const [region] = body.regions
      const made = disc(x0 + shift + 0.5, floor + 0.5, 0.25, step).regions[0]
      if (!hole || !region || !made) return body
      return { regions: [{ ...region, holes: [made.outer.map(turned).reverse()] }] }
    })
    // A hollow may cut through its neighbours; such an outline encloses nothing.
    .filter((s) => s.regions.length === 1)

function turned(edge: SectionEdge): SectionEdge {
  return { ...edge, piece: reversed(edge.piece) }
}
