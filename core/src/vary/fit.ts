import type { Command } from '../edit'
import { figureValue } from '../inspect'
import { diameterSizeOf, faceEdges, landOf, mateSize } from '../notes'
import type { MateNote, MeasurePick, Part } from '../part'
import { fail, succeed, type Result } from '../result'
import { evaluate } from '../route'
import { setTolerance } from './toleranced'
import { variationOf, type Contribution, type Span } from './variation'

/** A land or a bore of a fit, in mm. */
export interface FitSide {
  readonly pick: MeasurePick
  readonly nominal: number
  /** Its least and greatest diameter. */
  readonly diameter: Span
  /** What it varies by. */
  readonly contributions: readonly Contribution[]
}

/** How a land sits in a bore. */
export interface Fit {
  readonly land: FitSide
  readonly bore: FitSide
  /** On the diameter, in mm; below 0 where the land is the greater one. */
  readonly play: Span
  /** ISO 286-1:2010, clauses 3.3.1 to 3.3.3. */
  readonly kind: 'clearance' | 'transition' | 'interference'
}

/** A fit that is usual for a use, with its reason. */
export interface FitAdvice {
  readonly hole: string
  readonly shaft: string
  readonly use: string
  readonly why: string
}

/** Fits in order from loose to tight, hole basis (ISO 286-1:2010, Annex B has the preferred ones). */
export const FIT_ADVICE: readonly FitAdvice[] = [
  {
    hole: 'H11',
    shaft: 'c11',
    use: 'loose',
    why: 'Wide play: dirt, paint and heat do not jam it.',
  },
  {
    hole: 'H9',
    shaft: 'd9',
    use: 'free running',
    why: 'Plain bearings that run fast or get warm.',
  },
  {
    hole: 'H8',
    shaft: 'f7',
    use: 'close running',
    why: 'Plain bearings that keep their place, oiled.',
  },
  {
    hole: 'H7',
    shaft: 'g6',
    use: 'sliding',
    why: 'Turns and slides by hand, and shakes hardly at all.',
  },
  {
    hole: 'H7',
    shaft: 'h6',
    use: 'locating',
    why: 'Goes together by hand, and is held by something else.',
  },
  {
    hole: 'H7',
    shaft: 'k6',
    use: 'locating tightly',
    why: 'Runs true; put together by light blows.',
  },
  {
    hole: 'H7',
    shaft: 'n6',
    use: 'driven',
    why: 'Stays by itself under light loads; put together by a press.',
  },
  { hole: 'H7', shaft: 'p6', use: 'pressed', why: 'Held by its own grip, for good.' },
  {
    hole: 'H7',
    shaft: 's6',
    use: 'shrunk',
    why: 'Carries torque without a key; put together hot.',
  },
]

/** Classes for the seats of rolling bearings, whose own tolerances are not those of ISO 286. */
export const BEARING_SEATS: readonly {
  readonly on: 'shaft' | 'hole'
  readonly words: string
  readonly why: string
}[] = [
  { on: 'shaft', words: 'k6', why: 'A ball bearing’s inner ring that turns with the shaft.' },
  { on: 'shaft', words: 'g6', why: 'An inner ring that stands still and is to slide along.' },
  { on: 'hole', words: 'H7', why: 'An outer ring that stands still and may slide along.' },
  { on: 'hole', words: 'N7', why: 'An outer ring that turns with the housing.' },
]

/**
 * How a land of one body sits in a bore of another.
 * @returns a problem where the picks are no such two
 */
export function fitOf(part: Part, a: MeasurePick, b: MeasurePick): Result<Fit> {
  const state = evaluate(part)
  const sides = [a, b].map((pick) => ({
    pick,
    land: landOf(faceEdges(state, pick.body, pick.key)),
  }))
  const land = sides.find((s) => s.land?.side === 'outside')
  const bore = sides.find((s) => s.land?.side === 'inside')
  if (!land || !bore) {
    return fail('fit.sides', 'A fit is between a land and a bore.', 'Pick one of each.')
  }
  const [outer, inner] = [sideOf(part, land.pick), sideOf(part, bore.pick)]
  if (!outer.ok) return outer
  if (!inner.ok) return inner
  const play = playOf(outer.value.diameter, inner.value.diameter)
  return succeed({ land: outer.value, bore: inner.value, play, kind: kindOf(play) })
}

const playOf = (land: Span, bore: Span): Span => ({
  low: bore.low - land.high,
  high: bore.high - land.low,
})

function kindOf(play: Span): Fit['kind'] {
  const rounding = 1e-9
  if (play.low >= -rounding) return 'clearance'
  return play.high <= rounding ? 'interference' : 'transition'
}

/** Kinds of fits in words. */
export const FIT_WORDS: Readonly<Record<Fit['kind'], string>> = {
  clearance: 'a clearance fit',
  transition: 'a transition fit',
  interference: 'an interference fit',
}

/** How a land or bore sits with a part that is no body here. */
export interface FitWith extends Pick<Fit, 'play' | 'kind'> {
  readonly own: FitSide
  /** Between which diameters the other one lies, in mm. */
  readonly mate: Span
}

/** How a land or bore sits with a mating part that is only named. */
export function fitWith(
  part: Part,
  pick: MeasurePick,
  named: Pick<MateNote, 'size'>,
): Result<FitWith> {
  const land = landOf(faceEdges(evaluate(part), pick.body, pick.key))
  if (!land) return fail('fit.sides', 'A fit is between a land and a bore.', 'Pick one of each.')
  const other = mateSize(named, part)
  if (!other.ok) return other
  const own = sideOf(part, pick)
  if (!own.ok) return own
  const { nominal, limits } = other.value
  const mate = { low: nominal + limits.lower, high: nominal + limits.upper }
  const { diameter } = own.value
  const play = land.side === 'outside' ? playOf(diameter, mate) : playOf(mate, diameter)
  return succeed({ own: own.value, mate, play, kind: kindOf(play) })
}

function sideOf(part: Part, pick: MeasurePick): Result<FitSide> {
  const figure = { kind: 'pickDiameter', picks: [pick] } as const
  const found = variationOf(part, figure)
  if (!found.ok && found.problem.code === 'vary.none') {
    const drawn = figureValue(figure, part, evaluate(part).bodies)
    if (!drawn.ok) return drawn
    const nominal = drawn.value.value
    return succeed({ pick, nominal, diameter: { low: nominal, high: nominal }, contributions: [] })
  }
  if (!found.ok) return found
  const { nominal, worst, contributions } = found.value
  return succeed({ pick, nominal, diameter: worst, contributions })
}

/** Gives a land and a bore the tolerances of a fit, behind the sizes that they were drawn with. */
export function setFit(
  land: MeasurePick,
  bore: MeasurePick,
  { hole, shaft }: Pick<FitAdvice, 'hole' | 'shaft'>,
): Command {
  return {
    label: `set fit ${hole}/${shaft}`,
    run: (part) => {
      let here = part
      for (const [pick, written] of [
        [land, shaft],
        [bore, hole],
      ] as const) {
        const size = diameterSizeOf(here, pick.body, pick.key)
        if (!size) {
          const mend = 'Type the tolerance behind what gives it.'
          return fail('fit.unsized', 'No size of a profile gives one of these diameters.', mend)
        }
        const made = setTolerance({ id: `size/${size.sketch}/${size.id}` }, written).run(here)
        if (!made.ok) return made
        here = made.value
      }
      return succeed(here)
    },
  }
}
