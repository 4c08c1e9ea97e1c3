import { controlOf, type CubicPiece, type Vec } from '../../geometry'
import type { Sketch, SketchCurve, SketchPoint } from '../../sketch'
import { takeId } from './ids'

/** A curve cut down, and the sketch with its handles where the rest of it needs them. */
interface CutDown {
  readonly sketch: Sketch
  readonly curve: SketchCurve
}

/**
 * A free curve cut down to a stretch of itself that keeps its shape: handles become shorter. The
 * handle at an end that stays is moved; that at a new end is a new point.
 * @param ends the curve with the ends it is to have
 * @param stays which of its ends it had before
 */
export function cutDown(
  sketch: Sketch,
  ends: SketchCurve,
  stretch: CubicPiece,
  stays: 'from' | 'to',
): CutDown {
  const [, leaves, comes] = controlOf(stretch)
  const [fresh, grown] = takeId(sketch, 'p')
  const [own, kept, made] =
    stays === 'from' ? [ends.fromHandle, leaves, comes] : [ends.toHandle, comes, leaves]
  const at = (id: string, { x, y }: Vec): SketchPoint => ({ id, x, y })
  const points = grown.points.map((p) => (p.id === own ? at(own, kept) : p))
  return {
    sketch: { ...grown, points: [...points, at(fresh, made)] },
    curve: { ...ends, ...(stays === 'from' ? { toHandle: fresh } : { fromHandle: fresh }) },
  }
}
