import { evaluateFormula } from '../formula'
import { valuesOf, type BodyFigureKind, type Figure, type FigureKind, type Part } from '../part'
import { fail, succeed, type Result } from '../result'
import type { BodyState } from '../route'
import { NOTHING_FOUND, untouchedAngle, type SolidAsk, type SolidSpot } from '../solid'
import type { Measure } from '../units'
import { usualUnit, type ShownUnit } from '../units/shown'
import { capacityAt, cavityIn } from './capacity'
import { clearanceBetween, type Clearance } from './clearance'
import { isPending, massProperties, type MassProperties } from './mass'
import { pickWords, pickedIn, type Measured, type Picked } from './picks'
import { readPicks, readWay, type Asking } from './solidPicks'
import { leastWall } from './wall'

/** What kind of value each figure has, and its word. */
const KINDS: Readonly<Record<FigureKind, { readonly measure: Measure; readonly words: string }>> = {
  mass: { measure: 'mass', words: 'mass' },
  volume: { measure: 'volume', words: 'volume' },
  area: { measure: 'area', words: 'surface area' },
  length: { measure: 'length', words: 'overall length' },
  diameter: { measure: 'length', words: 'greatest diameter' },
  centre: { measure: 'length', words: 'centre of mass' },
  inertiaAxis: { measure: 'inertia', words: 'moment of inertia about the axis' },
  inertiaAcross: { measure: 'inertia', words: 'moment of inertia across the axis' },
  wall: { measure: 'length', words: 'least wall thickness' },
  distance: { measure: 'length', words: 'distance' },
  axial: { measure: 'length', words: 'axial distance' },
  radial: { measure: 'length', words: 'radial distance' },
  axes: { measure: 'length', words: 'distance of axes' },
  angle: { measure: 'angle', words: 'angle' },
  pickDiameter: { measure: 'length', words: 'diameter' },
  pickRadius: { measure: 'length', words: 'radius' },
  pickLength: { measure: 'length', words: 'length' },
  pickArea: { measure: 'area', words: 'area' },
  gap: { measure: 'length', words: 'least gap' },
  radialPlay: { measure: 'length', words: 'radial play' },
  axialPlay: { measure: 'length', words: 'axial play' },
  travelLeft: { measure: 'length', words: 'travel to the left' },
  travelRight: { measure: 'length', words: 'travel to the right' },
  capacity: { measure: 'volume', words: 'capacity' },
}

export const FIGURE_KINDS = Object.keys(KINDS) as FigureKind[]

export const measureOfFigure = (kind: FigureKind): Measure => KINDS[kind].measure

/** Left and right of a part that stands upright are down and up. */
const UPRIGHT: Partial<Record<FigureKind, string>> = {
  travelLeft: 'travel downwards',
  travelRight: 'travel upwards',
}

/** A figure's word, for a list to choose from. */
export function figureWord(kind: FigureKind, lie: Part['lie'] = 'lying'): string {
  return (lie === 'standing' ? UPRIGHT[kind] : undefined) ?? KINDS[kind].words
}

/** The unit a part tells a figure in, unless another was chosen. */
export const unitOfFigure = (kind: FigureKind, part: Pick<Part, 'units'>): ShownUnit =>
  usualUnit(KINDS[kind].measure, part.units)

type Standing = Pick<Part, 'bodies' | 'units' | 'lie' | 'route'>

/** What a figure is, in words: “mass of shell”, “distance from cylinder ⌀20 to face at 12”. */
export function figureWords(figure: Figure, part: Standing, bodies: readonly BodyState[]): string {
  const words = figureWord(figure.kind, part.lie)
  const nameOf = (id: string): string => part.bodies.find((b) => b.id === id)?.name ?? 'a lost body'
  if ('picks' in figure) {
    const names = figure.picks.map((pick) => {
      const picked = pickedIn(bodies, pick)
      return picked ? pickWords(picked, part) : 'what is gone'
    })
    const two = ['distance', 'axial', 'radial', 'axes', 'angle'].includes(figure.kind)
    return two && names.length > 1
      ? `${words} from ${names.slice(0, 2).join(' to ')}`
      : `${words} of ${names.join(', ')}`
  }
  if ('other' in figure) {
    const between = `of ${nameOf(figure.body)} in ${nameOf(figure.other)}`
    const both = words.startsWith('travel')
      ? words.replace('travel', `travel ${between}`)
      : `${words} ${between}`
    const plans = [figure.body, figure.other].flatMap(
      (id) => bodies.find((b) => b.bodyId === id && !b.reference)?.plan ?? [],
    )
    // Where something is left of both full turns at one angle they touch there as full turns do.
    const isTrue = figure.kind === 'gap' || untouchedAngle(plans) !== undefined
    return isTrue ? both : `${both}, of full turns`
  }
  if (figure.kind === 'capacity') {
    const body = bodies.find(
      (b) => !b.reference && (figure.body === '' || b.bodyId === figure.body),
    )
    const room = body && cavityIn(body)
    const brim = room?.opening === undefined ? 'to the brim' : 'to where it runs out'
    const height = figure.height.trim() === '' ? brim : `to a height of ${figure.height}`
    return `${words} ${height}${room?.isWhole === false ? ', of the full turn' : ''}`
  }
  return figure.body === '' || part.bodies.length < 2 ? words : `${words} of ${nameOf(figure.body)}`
}

/** The value of a figure in mm, rad, g and their products, and the way it was measured along. */
export function figureValue(
  figure: Figure,
  part: Part,
  bodies: readonly BodyState[],
): Result<Measured> {
  const read = readFigure(figure, part, bodies)
  return 'asks' in read ? beingMeasured : read
}

/** What the kernel has to be asked before a figure can be told; nothing where it is told, or cannot be. */
export function asksOf(
  figure: Figure,
  part: Part,
  bodies: readonly BodyState[],
): readonly SolidAsk[] {
  const read = readFigure(figure, part, bodies)
  return 'asks' in read ? read.asks : []
}

const beingMeasured: Result<never> = fail(
  'figure.asked',
  'It is being measured on the solid.',
  'It comes in a moment.',
)

function readFigure(
  figure: Figure,
  part: Part,
  bodies: readonly BodyState[],
): Result<Measured> | Asking {
  if ('picks' in figure) return pickValue(figure, bodies)
  if ('other' in figure) return playValue(figure, part, bodies)
  const chosen =
    figure.body === ''
      ? bodies.filter((b) => !b.reference)
      : bodies.filter((b) => b.bodyId === figure.body)
  if (chosen.length === 0)
    return gone('The body is gone.', 'Choose another body, or delete the row.')
  if (chosen.some(isPending)) return pending
  if (figure.kind === 'capacity') return capacityValue(figure.height, part, chosen)
  if (figure.kind === 'wall') return wallValue(chosen)
  const found = massProperties(part, chosen)
  if (!found) return gone('There is no material yet.', 'Revolve a closed profile.')
  return succeed({ value: bodyValue(figure.kind, found) })
}

const pending: Result<never> = fail(
  'figure.pending',
  'The solid is not built yet.',
  'It comes in a moment; if not, see what the route says.',
)

const gone = (message: string, mend: string): Result<never> => fail('figure.gone', message, mend)

function bodyValue(kind: Exclude<BodyFigureKind, 'wall'>, found: MassProperties): number {
  return kind === 'length' ? found.to - found.from : found[kind]
}

/** The least of the walls of bodies: of full turns exactly from the section, else on the solid. */
function wallValue(bodies: readonly BodyState[]): Result<Measured> | Asking {
  const asks: SolidAsk[] = []
  let best: Measured | undefined
  for (const { section, plan, told } of bodies) {
    const way = leastWall(section)
    const turned = way && ([way.from, way.to] as const)
    const read = plan
      ? readWay({ kind: 'wall', plan, turned }, told)
      : way && succeed({ value: way.distance, way })
    if (!read) continue
    if ('asks' in read) asks.push(...read.asks)
    else if (!read.ok) return read
    else if (!best || read.value.value < best.value) best = read.value
  }
  if (asks.length > 0) return { asks }
  if (!best) return gone('There is no wall to measure.', 'Two surfaces must face one another.')
  return succeed(best)
}

function capacityValue(height: string, part: Part, [body]: readonly BodyState[]): Result<Measured> {
  const room = body && cavityIn(body)
  if (!room) {
    return gone(
      'This body holds nothing.',
      'It needs a room inside, closed or open at its upper end, that nothing opens at its floor.',
    )
  }
  if (height.trim() === '') return succeed({ value: room.volume })
  const context = {
    want: 'length' as const,
    units: part.units,
    lookup: valuesOf(part).table.lookup,
  }
  const filled = evaluateFormula(height, context)
  if (!filled.ok) return filled
  if (filled.value < 0) return fail('figure.height', 'A height is not below zero.', 'Correct it.')
  return succeed({ value: capacityAt(room, filled.value) })
}

function pickValue(
  figure: Extract<Figure, { picks: unknown }>,
  bodies: readonly BodyState[],
): Result<Measured> | Asking {
  const picked: Picked[] = []
  for (const pick of figure.picks) {
    const found = pickedIn(bodies, pick)
    if (!found)
      return gone('What was picked is gone.', 'Measure again, or bring back the step that made it.')
    picked.push(found)
  }
  const told = bodies[0]?.told ?? NOTHING_FOUND.told
  return (
    readPicks(figure.kind, picked, told) ??
    gone('These picks no longer have this figure.', 'Measure again; their shape has changed.')
  )
}

function playValue(
  figure: Extract<Figure, { other: unknown }>,
  part: Part,
  bodies: readonly BodyState[],
): Result<Measured> | Asking {
  const [moving, still] = [figure.body, figure.other].map((id) =>
    bodies.find((b) => b.bodyId === id),
  )
  const found = moving && still && clearanceBetween(moving.section, still.section)
  if (!found) return gone('One of the bodies is gone or has no material.', 'Choose two bodies.')
  const ofSolids = figure.kind === 'gap' ? solidGap(moving, still) : undefined
  if (ofSolids) return ofSolids
  if (found.overlap) {
    const [a, b] = [figure.body, figure.other].map(
      (id) => part.bodies.find((x) => x.id === id)?.name ?? id,
    )
    return fail('figure.overlap', `${a} and ${b} overlap.`, 'Move one of them, or cut room for it.')
  }
  if (figure.kind === 'gap') return succeed({ value: found.gap.distance, way: found.gap })
  const value = playOf(figure.kind, found)
  return value === undefined
    ? fail('figure.free', FREE[figure.kind], 'Nothing stands in the way.')
    : succeed({ value })
}

/** The gap of bodies of which the full turns do not tell it, since too much was taken of them, or since they overlap. */
function solidGap(a: BodyState, b: BodyState): Result<Measured> | Asking | undefined {
  const plans = [a, b].flatMap(({ plan }) => plan ?? [])
  if (plans.length === 0) return undefined
  const isTold =
    !clearanceBetween(a.section, b.section)?.overlap && untouchedAngle(plans) !== undefined
  if (isTold) return undefined
  const [from, to] = [a, b].map(({ section, plan }): SolidSpot => ({
    ...{ kind: 'on', plan: plan ?? { base: section, ops: [] }, name: '' },
  }))
  return from && to && readWay({ kind: 'apart', from, to }, a.told)
}

type Play = Exclude<Extract<Figure, { other: unknown }>['kind'], 'gap'>

const FREE: Readonly<Record<Play, string>> = {
  radialPlay: 'It moves sideways freely.',
  axialPlay: 'It leaves along the axis freely.',
  travelLeft: 'It leaves to the left freely.',
  travelRight: 'It leaves to the right freely.',
}

function playOf(kind: Play, { radial, left, right }: Clearance): number | undefined {
  switch (kind) {
    case 'radialPlay':
      return radial
    case 'axialPlay':
      return left === undefined || right === undefined ? undefined : left + right
    case 'travelLeft':
      return left
    case 'travelRight':
      return right
  }
}
