import { unitScale, type UnitSettings } from '../../../units'
import type { GrooveForm } from '../../../part'

/**
 * Sizes that a standard form is offered with, as formulas to be changed at will.
 *
 * Retaining rings for shafts: groove diameter and width of DIN 471 by shaft diameter; between its
 * rows, and for bores, the proportions of the nearest row. O-rings: the proportions of static glands
 * that press the cord by a fifth and fill the groove to about three quarters (ISO 3601-2 gives sizes
 * for each cord). Thread reliefs: the proportions to the pitch of DIN 76-1, regular length.
 */
export function offeredSizes(
  form: GrooveForm,
  diameter: number,
  units: UnitSettings,
): Readonly<Record<string, string>> {
  const text = (mm: number): string => figure(mm / unitScale('length', units))
  const angle = (degrees: number): string =>
    figure((degrees * Math.PI) / 180 / unitScale('angle', units))
  const reach = Math.max(1, diameter / 10)
  switch (form) {
    case 'rectangular':
      return { width: text(reach), depth: text(reach / 2), bottom: '', radius: '' }
    case 'round':
      return { radius: text(reach / 2), depth: text(reach / 2), bottom: '' }
    case 'vee':
      return { angle: angle(90), flat: '', depth: text(reach / 2), bottom: '' }
    case 'belt':
      return {
        width: text(1.5 * reach),
        angle: angle(36),
        depth: text(reach),
        bottom: '',
        radius: '',
      }
    case 'rope':
      return { radius: text(reach / 2), angle: angle(45), depth: text(0.75 * reach), bottom: '' }
    case 'oring': {
      const cord = text(cordFor(diameter))
      return { width: `1.3*${cord}`, depth: `0.8*${cord}`, bottom: '', radius: `0.1*${cord}` }
    }
    case 'retaining': {
      const [shaft, bottom, width] = ringFor(diameter)
      return { width: text(width), depth: text((diameter * (1 - bottom / shaft)) / 2), bottom: '' }
    }
    case 'relief': {
      const pitch = text(pitchFor(diameter))
      const radius = `0.4*${pitch}`
      return { width: `3.5*${pitch}`, depth: `0.8*${pitch}`, bottom: '', radius, angle: angle(30) }
    }
  }
}

const figure = (value: number): string => String(Number(value.toPrecision(4)))

/** Shaft diameter, groove diameter and groove width in mm (DIN 471, regular rings). */
const RINGS: readonly (readonly [number, number, number])[] = [
  [5, 4.8, 0.7],
  [8, 7.6, 0.9],
  [10, 9.6, 1.1],
  [12, 11.5, 1.1],
  [15, 14.3, 1.1],
  [20, 19, 1.3],
  [25, 23.9, 1.3],
  [30, 28.6, 1.6],
  [40, 37.5, 1.85],
  [50, 47, 2.15],
  [60, 57, 2.15],
  [80, 76.5, 2.65],
  [100, 96.5, 3.15],
]

function ringFor(diameter: number): readonly [number, number, number] {
  return RINGS.reduce((best, row) =>
    Math.abs(row[0] - diameter) < Math.abs(best[0] - diameter) ? row : best,
  )
}

/** Usual cords by diameter (the cross-sections of ISO 3601-1). */
function cordFor(diameter: number): number {
  if (diameter <= 15) return 1.78
  if (diameter <= 40) return 2.62
  if (diameter <= 110) return 3.53
  return diameter <= 400 ? 5.33 : 6.99
}

/** Coarse pitches by thread diameter (ISO 261). */
function pitchFor(diameter: number): number {
  const rows = [
    [3, 0.5],
    [4, 0.7],
    [5, 0.8],
    [6, 1],
    [8, 1.25],
    [10, 1.5],
    [12, 1.75],
    [16, 2],
    [20, 2.5],
    [24, 3],
    [30, 3.5],
    [36, 4],
    [42, 4.5],
    [48, 5],
    [56, 5.5],
    [64, 6],
  ] as const
  return rows.reduce<number>((pitch, [d, p]) => (diameter >= d ? p : pitch), 0.5)
}
