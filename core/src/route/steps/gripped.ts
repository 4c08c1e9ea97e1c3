import { evaluateFormula } from '../../formula'
import { unitScale, type Measure, type UnitSettings } from '../../units'
import type { GripMove } from '../kinds/kind'
import type { StepGrip } from '../state'

/** Lengths go in steps of so much of the part’s unit, angles in whole degrees. */
const STEPS = { mm: 0.5, cm: 0.05, m: 0.0005, in: 0.02 } as const
const DEGREE = Math.PI / 180
const TURN = 2 * Math.PI

/** How much farther from the axis a grip is taken, in mm, and how far round it. */
export function takenBy(
  { at }: StepGrip,
  { to, straight }: GripMove,
): { readonly out: number; readonly turn: number } {
  const far = Math.hypot(to.x, to.y)
  const out = far - Math.hypot(at.x, at.y)
  const between = Math.atan2(to.y, to.x) - Math.atan2(at.y, at.x)
  const turn = Math.atan2(Math.sin(between), Math.cos(between))
  if (!straight) return { out, turn }
  return Math.abs(out) >= Math.abs(turn) * far ? { out, turn: 0 } : { out: 0, turn }
}

/** The text of a length that is so much more; undefined where it is told by names of values. */
export function lengthMoved(text: string, by: number, units: UnitSettings): string | undefined {
  const step = STEPS[units.length] * unitScale('length', units)
  return figureMoved(text, by, 'length', units, (value) => Math.round(value / step) * step)
}

/** The text of an angle that is so much more, from 0 up to a turn; undefined as above. */
export function angleMoved(text: string, by: number, units: UnitSettings): string | undefined {
  return figureMoved(text, by, 'angle', units, (value) => {
    const degrees = Math.round((((value % TURN) + TURN) % TURN) / DEGREE)
    return (degrees % 360) * DEGREE
  })
}

function figureMoved(
  text: string,
  by: number,
  want: Measure,
  units: UnitSettings,
  rounded: (value: number) => number,
): string | undefined {
  const now = text.trim() === '' ? 0 : plainValue(text, want, units)
  if (now === undefined) return undefined
  if (by === 0) return text
  return String(Number((rounded(now + by) / unitScale(want, units)).toFixed(5)))
}

/** What a text comes to, in mm or radians; undefined where it names values. */
export function plainValue(text: string, want: Measure, units: UnitSettings): number | undefined {
  const result = evaluateFormula(text, { want, units, lookup: () => undefined })
  return result.ok ? result.value : undefined
}
