import { pointsAlong } from '../geometry'
import { usesSketch, type Part } from '../part'
import type { PartState } from '../route'
import { loopsOf } from '../section'
import { isEndSketch, locator, piecesOf } from '../sketch'
import { overallOf } from './report'

/** What a card on the shelf shows of a part. */
export interface PartSummary {
  readonly lie: Part['lie']
  readonly units: Part['units']
  readonly material: string
  readonly colour: string
  /** in mm and g; null while nothing is turned */
  readonly overall: {
    readonly diameter: number
    readonly length: number
    /** Null where it takes the solid kernel to know. */
    readonly mass: number | null
  } | null
  /** Loops of the half-section as x, y pairs in mm, for the drawn picture. */
  readonly outline: readonly (readonly number[])[]
  /** Lines drawn but not turned yet, as x, y pairs in mm. */
  readonly pencil: readonly (readonly number[])[]
  readonly failedSteps: number
}

/** Arcs on a card are drawn by chords this close, as a share of the part's size. */
const CARD_CHORD = 1e-3

export function summarise(state: PartState): PartSummary {
  const { part } = state
  const overall = overallOf(state)
  const own = state.bodies.filter((b) => !b.reference)
  const chord = CARD_CHORD * Math.max(overall?.length ?? 1, overall?.diameter ?? 1)
  const material = part.materials.find((m) => m.id === part.bodies[0]?.material)
  const turned = new Set(part.route.flatMap((s) => (usesSketch(s) ? [s.sketch] : [])))
  return {
    lie: part.lie,
    units: part.units,
    material: material?.name ?? '',
    colour: material?.colour ?? '#8d979d',
    overall: overall
      ? { ...overall, mass: Number.isNaN(overall.mass) ? null : overall.mass }
      : null,
    outline: own.flatMap((body) =>
      loopsOf(body.section).map((loop) =>
        loop.flatMap((edge) =>
          pointsAlong(edge.piece, chord)
            .slice(0, -1)
            .flatMap((p) => [round(p.x), round(p.y)]),
        ),
      ),
    ),
    pencil: part.sketches.flatMap((sketch) => {
      if (turned.has(sketch.id) || isEndSketch(sketch)) return []
      const locate = locator(sketch)
      return sketch.entities.map((e) =>
        piecesOf(e, locate).flatMap((piece, i) =>
          pointsAlong(piece, chord)
            .slice(i === 0 ? 0 : 1)
            .flatMap((p) => [round(p.x), round(p.y)]),
        ),
      )
    }),
    failedSteps: state.steps.filter((s) => s.status === 'failed').length,
  }
}

function round(mm: number): number {
  return Math.round(mm * 1000) / 1000
}
