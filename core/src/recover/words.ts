import { evaluate } from '../route'
import { formatLength, unitScale, type UnitSettings } from '../units'
import type { Departure, RecoveredPart } from './part'

/** What came of it, in a few sentences for whoever brought the file. */
export function recoveredWords({ part, solids }: RecoveredPart): string {
  const turned = solids.filter((s) => s.isTurned).length
  const others = solids.length - turned
  const size = evaluate(part).bodies.find((b) => b.solid)?.solid
  const tell = (mm: number): string => formatLength(mm, part.units)
  const of = size ? ` of ⌀${tell(2 * size.radius)} × ${tell(size.to - size.from)}` : ''
  if (turned === 0) {
    return others === 1
      ? 'It is not turned: it stands as it came.'
      : 'None is turned: they stand as they came.'
  }
  const many = turned === 1 ? `Its half-section${of} is` : `${turned} half-sections are`
  const words = [`${many} an editable profile now.`]
  const departures = solids.flatMap((s) => s.departs ?? [])
  if (departures.length > 0) words.push(departureWords(departures, part.units))
  if (others > 0)
    words.push(
      `${others} ${others === 1 ? 'is' : 'are'} not turned and ${others === 1 ? 'stands as it' : 'stand as they'} came.`,
    )
  return words.join(' ')
}

function departureWords(departures: readonly Departure[], units: UnitSettings): string {
  const most = (read: (d: Departure) => number): number => Math.max(...departures.map(read))
  const [by, surface] = [most((d) => d.by), most((d) => d.surface)]
  // What is less than the places shown is told all the same.
  const far = by / unitScale('length', units)
  const shown = far < 0.01 ? far.toPrecision(1) : formatLength(by, units)
  const what =
    surface > 0
      ? `${percent(surface)} of the solid’s surface is not turned, up to ${shown} ${units.length} away`
      : `The solid departs from that by up to ${shown} ${units.length}`
  return `${what}: it is handed over as it came, and the turned shape is a hidden reference.`
}

/** A share as percent, never told as nought where there is some. */
const percent = (share: number): string =>
  share < 1e-3 ? 'Less than 0.1 %' : `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`
