import { evaluate } from '../route'
import { formatLength, unitScale, type UnitSettings } from '../units'
import type { RecoveredPart, RecoveredSolid } from './part'

/** What came of it, in a few sentences for whoever brought the file. */
export function recoveredWords({ part, solids }: RecoveredPart): string {
  const turned = solids.filter((s) => s.isTurned)
  const others = solids.length - turned.length
  if (turned.length === 0) {
    return others === 1
      ? 'It is not turned: it stands as it came.'
      : 'None is turned: they stand as they came.'
  }
  const size = evaluate(part).bodies.find((b) => b.solid)?.solid
  const tell = (mm: number): string => formatLength(mm, part.units)
  const of = size ? ` of ⌀${tell(2 * size.radius)} × ${tell(size.to - size.from)}` : ''
  const [only] = turned
  const many =
    turned.length === 1 && only
      ? `Its half-section${of} is an editable profile now${withSteps(only)}.`
      : `${turned.length} half-sections are editable profiles now.`
  const kept = turned.filter((s) => s.isKept)
  const words = [many]
  if (kept.length > 0) words.push(departureWords(kept, part.units))
  if (others > 0)
    words.push(
      `${others} ${others === 1 ? 'is' : 'are'} not turned and ${others === 1 ? 'stands as it' : 'stand as they'} came.`,
    )
  return words.join(' ')
}

const PLURALS: Readonly<
  Record<RecoveredSolid['steps'][number]['kind'], readonly [string, string]>
> = {
  chamfer: ['chamfer', 'chamfers'],
  fillet: ['fillet', 'fillets'],
  hole: ['hole', 'holes'],
  'cross hole': ['cross hole', 'cross holes'],
  flat: ['flat', 'flats'],
  keyway: ['keyway', 'keyways'],
  'half-round seat': ['half-round seat', 'half-round seats'],
  'end slot': ['end slot', 'end slots'],
}

/** How many of what, as “6 holes”. */
export function countWords({
  kind,
  count,
}: Pick<RecoveredSolid['steps'][number], 'kind' | 'count'>): string {
  const [one, many] = PLURALS[kind]
  return `${count} ${count === 1 ? one : many}`
}

/** “, with 6 holes and 2 flats as steps”. */
function withSteps({ steps }: RecoveredSolid): string {
  const counts = new Map<RecoveredSolid['steps'][number]['kind'], number>()
  for (const { kind, count } of steps) counts.set(kind, (counts.get(kind) ?? 0) + count)
  const all = [...counts].map(([kind, count]) => countWords({ kind, count }))
  const last = all.pop()
  if (last === undefined) return ''
  return `, with ${all.length > 0 ? `${all.join(', ')} and ${last}` : last} as steps`
}

/** How what was rebuilt of a solid compares with what came, in a sentence. */
export function comparisonWords(
  { isKept, comparison }: Pick<RecoveredSolid, 'isKept' | 'comparison'>,
  units: UnitSettings,
): string {
  if (!comparison) return ''
  const { volume, area, distance, surface } = comparison
  const far = distanceWords(distance, units)
  if (!isKept) {
    return `Volume and area agree with what came to a millionth; no point of it lies farther off than ${far}.`
  }
  const signed = (share: number): string =>
    `${percentWords(Math.abs(share))} ${share < 0 ? 'less' : 'more'}`
  const more = surface > 0 ? ` No step makes ${percentWords(surface)} of its surface.` : ''
  return `Against what came it has ${signed(volume)} volume and ${signed(area)} area; the farthest point lies ${far} off.${more}`
}

function departureWords(kept: readonly RecoveredSolid[], units: UnitSettings): string {
  const most = (read: (s: RecoveredSolid) => number): number => Math.max(...kept.map(read))
  const far = distanceWords(
    most((s) => s.comparison?.distance ?? 0),
    units,
  )
  const surface = most((s) => s.comparison?.surface ?? 0)
  const what =
    surface > 0
      ? `${capital(percentWords(surface))} of the solid’s surface is not made by that, up to ${far} away`
      : `The solid departs from that by up to ${far}`
  return `${what}: it is handed over as it came, and what was rebuilt is a hidden reference.`
}

/** Distances below this, in mm, are told as this. */
const LEAST_DISTANCE = 1e-6

/** A distance with its unit, never told as nought where there is some. */
export function distanceWords(mm: number, units: UnitSettings): string {
  // What is less is told by no file.
  const own = Math.max(mm, mm > 0 ? LEAST_DISTANCE : 0) / unitScale('length', units)
  const shown = own > 0 && own < 0.01 ? plain(own) : formatLength(mm, units)
  return `${shown} ${units.length}`
}

/** A share as percent, never told as nought where there is some. */
export function percentWords(share: number): string {
  if (share === 0) return '0 %'
  return share < 1e-3 ? 'less than 0.1 %' : `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`
}

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1)

/** A small figure to one digit, without an exponent. */
const plain = (value: number): string => value.toFixed(Math.ceil(-Math.log10(value) - 1e-9))
