import { edgesOf, extentOf, type Section } from '../section'
import { unitScale, type UnitSettings } from '../units'

/** A length that a new step begins with, round and in proportion to the body, as a formula. */
export function proportion(section: Section, share: number, units: UnitSettings): string {
  const [from, to] = extentOf(section)
  const radius = Math.max(0, ...edgesOf(section).map((e) => Math.max(e.piece.from.y, e.piece.to.y)))
  const scale = unitScale('length', units)
  const wanted = (Math.max(0.1, Math.min(to - from, 2 * radius)) * share) / scale
  const decade = 10 ** Math.floor(Math.log10(wanted))
  const steps = [1, 2, 5, 10]
  const round = steps.reduce((best, s) =>
    Math.abs(s * decade - wanted) < Math.abs(best * decade - wanted) ? s : best,
  )
  return figure(round * decade)
}

const figure = (value: number): string => String(Number(value.toPrecision(9)))

/** A length in mm as a bare number of the part's unit. */
export const lengthText = (mm: number, units: UnitSettings): string =>
  figure(mm / unitScale('length', units))

/** An angle in degrees as a bare number of the part's unit. */
export const angleText = (degrees: number, units: UnitSettings): string =>
  figure((degrees * Math.PI) / 180 / unitScale('angle', units))

/** A length in mm to two digits, as a new step begins with. */
export const twoDigits = (mm: number): number => Number(mm.toPrecision(2))
