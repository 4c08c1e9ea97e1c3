import { evaluateFormula } from '../../formula'
import { fail, succeed, type Result } from '../../result'
import {
  EMPTY_SECTION,
  areasFit,
  diagonalOf,
  edgeKey,
  edgesOf,
  sectionArea,
  type Section,
  type SectionEdge,
} from '../../section'
import type { PlacedMesh, SolidOp, SolidPlan } from '../../solid'
import { LARGEST_LENGTH } from '../../tolerances'
import { formatLength, type Measure } from '../../units'
import { valuesOf, type Part, type Step, type StepEffect } from '../../part'
import type { DrawnSketch, Sketch } from '../../sketch'
import type { CallOut, SizeAt, SketchState, ThreadCircle, StepGrip } from '../state'

/** What a step made: the sections of the bodies it changed, and what is worth saying. */
export interface Outcome {
  readonly sections: ReadonlyMap<string, Section>
  readonly notes: readonly string[]
  /** What it added or took away, by itself, for steps that can be repeated. */
  readonly tool?: { readonly section: Section; readonly effect: StepEffect; readonly body: string }
  /** What the solid kernel builds of bodies that are no full turn after this step; undefined for full turns again. */
  readonly plans?: ReadonlyMap<string, SolidPlan | undefined>
  /** Meshes to go by, of bodies that are nothing else. */
  readonly meshes?: ReadonlyMap<string, PlacedMesh>
  /** What is written beside it. */
  readonly told?: Told
  /** What it did to a solid, for steps that can be repeated. */
  readonly work?: { readonly ops: readonly SolidOp[]; readonly body: string }
}

/** Sizes and threads of a step, as they are written beside what it made, and where it can be taken hold of. */
export interface Told {
  readonly sizes?: readonly SizeAt[]
  readonly threads?: readonly ThreadCircle[]
  /** What stands beside it on every drawing. */
  readonly calls?: readonly CallOut[]
  readonly grips?: readonly StepGrip[]
  /** Words for edges, by key: a bevel is called what it was asked to be; none where they are empty. */
  readonly edges?: ReadonlyMap<string, string>
}

/**
 * What a step may read. Everything it reads is noted, also that something is not there, so that it is run again just when
 * that changes: nothing else of the part is handed out.
 */
export interface StepContext {
  readonly bodies: Part['bodies']
  readonly units: Part['units']
  readonly lie: Part['lie']
  /** What is drawn in a sketch; undefined where it is gone. */
  readonly sketch: (id: string) => DrawnSketch | undefined
  /** Where a step stands in the route; undefined where it is gone. */
  readonly placeOf: (step: string) => number | undefined
  /** A formula's value in mm or radians; @param what the field in words, for refusals */
  readonly number: (text: string, want: Measure, what: string) => Result<number>
  readonly sectionOf: (body: string) => Section
  /** The plan of a body that is no full turn any more. */
  readonly planOf: (body: string) => SolidPlan | undefined
  /** Whether a body is a mesh to go by. */
  readonly isMesh: (body: string) => boolean
  readonly sketchState: (sketch: string) => SketchState | undefined
  /** The outcome of an earlier step. */
  readonly outcomeOf: (step: string) => Outcome | undefined
}

/** One thing read, with what it was. */
interface Read {
  readonly again: (source: ReadSource) => unknown
  readonly value: unknown
}

/** Where reads come from while a route runs. */
export interface ReadSource {
  readonly part: Part
  readonly sections: ReadonlyMap<string, Section>
  readonly plans: ReadonlyMap<string, SolidPlan>
  readonly meshes: ReadonlyMap<string, PlacedMesh>
  readonly sketches: ReadonlyMap<string, SketchState>
  readonly outcomes: ReadonlyMap<string, Outcome>
}

interface Remembered {
  readonly reads: readonly Read[]
  readonly result: Result<Outcome>
}

/** What each step came to last, with all that it read. Written and read by `remembered` only. */
const memo = new WeakMap<Step, Remembered>()

/** Runs a step, or takes what it came to before when nothing that it reads has changed. */
export function remembered(
  step: Step,
  source: ReadSource,
  run: (context: StepContext) => Result<Outcome>,
): Result<Outcome> {
  const known = memo.get(step)
  if (known?.reads.every((r) => r.again(source) === r.value) === true) return known.result
  const reads: Read[] = []
  const read = <T>(again: (from: ReadSource) => T): T => {
    const value = again(source)
    reads.push({ again, value })
    return value
  }
  const sketchIn = (from: ReadSource, id: string): Sketch | undefined =>
    from.part.sketches.find((s) => s.id === id)
  const result = run({
    // Names of bodies and the unit stand in sentences, and a body can go.
    bodies: read((from) => from.part.bodies),
    units: read((from) => from.part.units),
    lie: read((from) => from.part.lie),
    sketch(id) {
      read((from) => sketchIn(from, id)?.name)
      read((from) => sketchIn(from, id)?.plane)
      read((from) => sketchIn(from, id)?.points)
      read((from) => sketchIn(from, id)?.entities)
      return sketchIn(source, id)
    },
    placeOf: (id) =>
      read((from) => {
        const at = from.part.route.findIndex((s) => s.id === id)
        return at < 0 ? undefined : at
      }),
    number(text, want, what) {
      // Problems are values too; they are told apart by their sentence.
      const outcome = evaluated(source.part, text, want, what)
      const again = (from: ReadSource): unknown =>
        comparable(evaluated(from.part, text, want, what))
      reads.push({ again, value: comparable(outcome) })
      return outcome
    },
    sectionOf: (body) => read((from) => from.sections.get(body)) ?? EMPTY_SECTION,
    planOf: (body) => read((from) => from.plans.get(body)),
    isMesh: (body) => read((from) => from.meshes.has(body)),
    sketchState(sketch) {
      read((from) => from.sketches.get(sketch)?.profile)
      return source.sketches.get(sketch)
    },
    outcomeOf: (id) => read((from) => from.outcomes.get(id)),
  })
  memo.set(step, { reads, result })
  return result
}

const comparable = (result: Result<number>): unknown =>
  result.ok ? result.value : result.problem.message

function evaluated(part: Part, text: string, want: Measure, what: string): Result<number> {
  if (text.trim() === '') {
    return fail('step.empty', `The ${what} is missing.`, 'Type it into its field.')
  }
  const plain = Number(text)
  const { lookup } = valuesOf(part).table
  const result =
    want === 'number' && Number.isFinite(plain)
      ? succeed(plain)
      : evaluateFormula(text, { want, units: part.units, lookup })
  if (result.ok) return withinReason(result.value, want, what)
  const { problem } = result
  return { ok: false, problem: { ...problem, message: `In the ${what}: ${problem.message}` } }
}

/** The most turns an angle may make: more is a slip of the pen. */
const MOST_TURNS = 10
const LARGEST_NUMBER = 1e9

/** A value, or that it is larger than anything a part has, either way. */
function withinReason(value: number, want: Measure, what: string): Result<number> {
  const most =
    want === 'length'
      ? LARGEST_LENGTH
      : want === 'angle'
        ? MOST_TURNS * 2 * Math.PI
        : LARGEST_NUMBER
  if (Math.abs(value) <= most) return succeed(value)
  const mend =
    want === 'length'
      ? 'The largest length is 1 km; check the unit.'
      : want === 'angle'
        ? `Type at most ${MOST_TURNS} turns; check the unit.`
        : 'Type a smaller number.'
  return fail('step.huge', `The ${what} is too large.`, mend)
}

/** Thinner than this, in mm, nothing is told from nothing: a few vertices in a row. */
const LEAST_LENGTH = 0.00001

/** A value that has to be greater than zero. */
export function positive(
  context: StepContext,
  text: string,
  want: Measure,
  what: string,
): Result<number> {
  const value = context.number(text, want, what)
  if (!value.ok) return value
  if (want === 'length' && value.value > 0 && value.value < LEAST_LENGTH) {
    return fail(
      'step.tiny',
      `The ${what} is too small to be told from nothing.`,
      `Type at least ${LEAST_LENGTH} mm; check the unit.`,
    )
  }
  if (value.value > 0) return value
  return fail(
    'step.notPositive',
    `The ${what} has to be greater than zero.`,
    'Type a larger value.',
  )
}

/**
 * How deep a cone is that opens to a radius in mm, by its full angle as it was typed.
 * @param what the angle's words
 * @param flat what is told of an angle that opens no cone: of 180° or more
 */
export function coneDepth(
  context: StepContext,
  text: string,
  what: string,
  radius: number,
  flat: Result<never>,
): Result<number> {
  const angle = positive(context, text, 'angle', what)
  if (!angle.ok) return angle
  if (angle.value >= Math.PI) return flat
  const depth = radius / Math.tan(angle.value / 2)
  return depth <= LARGEST_LENGTH
    ? succeed(depth)
    : fail('step.huge', `The ${what} is too small: its cone has no end.`, 'Type a larger angle.')
}

/** So many times as thick as what it is laid along is large, a layer is a slip of the pen. */
const MOST_TIMES = 1000

/** A thickness, or that it is out of all proportion to the edges it is laid along. */
export function inProportion(thickness: number, edges: readonly SectionEdge[]): Result<number> {
  if (thickness <= MOST_TIMES * diagonalOf(edges)) return succeed(thickness)
  return fail(
    'step.huge',
    `The thickness is more than ${MOST_TIMES} times as large as the profile.`,
    'Type a smaller thickness; check the unit.',
  )
}

/** A whole number of at least one. */
export function wholeCount(context: StepContext, text: string, what: string): Result<number> {
  const value = context.number(text, 'number', what)
  if (!value.ok) return value
  const fits = Number.isInteger(value.value) && value.value >= 1 && value.value <= MOST_COPIES
  return fits
    ? value
    : fail(
        'step.count',
        `The ${what} has to be a whole number from 1 to ${MOST_COPIES}.`,
        'Type one.',
      )
}

const MOST_COPIES = 1000

/** The body's section, or that there is nothing yet to work on. */
export function material(context: StepContext, body: string): Result<Section> {
  const meta = context.bodies.find((b) => b.id === body)
  if (!meta) return fail('step.body', 'Its body is gone.', 'Choose another body for this step.')
  const section = context.sectionOf(body)
  if (context.isMesh(body)) {
    return fail(
      'step.mesh',
      `${meta.name} is a mesh to go by, which no step works on.`,
      'Choose another body.',
    )
  }
  if (section.regions.length > 0) return succeed(section)
  return fail(
    'step.noMaterial',
    `${meta.name} has no material at this step.`,
    'Move the step behind one that makes some, or choose another body.',
  )
}

/** The body's plan, or that it is all turned so far. */
export const planSoFar = (context: StepContext, body: string): SolidPlan =>
  context.planOf(body) ?? { base: context.sectionOf(body), ops: [] }

/** Solid work on a body; what it would be as a full turn stays, unless another section is told. */
export function worked(
  context: StepContext,
  body: string,
  ops: readonly SolidOp[],
  also: {
    readonly notes?: readonly string[]
    readonly turned?: Section
    readonly told?: Told
  } = {},
): Result<Outcome> {
  const plan = planSoFar(context, body)
  return succeed({
    sections: new Map(also.turned ? [[body, also.turned]] : []),
    plans: new Map([[body, { base: plan.base, ops: [...plan.ops, ...ops] }]]),
    work: { ops, body },
    notes: also.notes ?? [],
    ...(also.told ? { told: also.told } : {}),
  })
}

/** The edges of a name, which a cut may have parted into several. */
export function edgesNamed(section: Section, key: string): SectionEdge[] {
  return edgesOf(section).filter((e) => edgeKey(e.name) === key)
}

/** A step refers to what is no longer there. */
export function lost(what: string, ...keys: readonly string[]): Result<never> {
  return fail(
    'step.lost',
    `${what} is no longer there.`,
    'Pick it again in the step card, or change the step before that took it away.',
    { involves: keys },
  )
}

export const notSound: Result<never> = fail(
  'step.rounding',
  'The section cannot be computed at just these values.',
  'Change a size by a little; edges nearly fall together here.',
)

/** One body changed; that it was emptied or parted is said. */
export function changed(
  context: StepContext,
  body: string,
  before: Section,
  after: Section | undefined,
  tool?: Outcome['tool'],
): Result<Outcome> {
  if (!after) return notSound
  if (tool) {
    const areas = [before, tool.section, after].map(sectionArea)
    const [was = 0, of = 0, is = 0] = areas
    // An outline is moved by a few vertices at most, all along its length.
    const slack = 1e-3 + 1e-6 * (was + of)
    if (!areasFit(tool.effect, [was, of, is], slack)) return notSound
  }
  const name = context.bodies.find((b) => b.id === body)?.name ?? 'the body'
  const notes: string[] = []
  if (after.regions.length === 0 && before.regions.length > 0) notes.push(`Removes all of ${name}.`)
  if (after.regions.length > before.regions.length && before.regions.length > 0) {
    notes.push(`Parts ${name} into ${after.regions.length} pieces.`)
  }
  if (tool?.effect === 'cut') {
    const area = sectionArea(before)
    const spared = area - sectionArea(after) <= 1e-12 * area
    if (spared) notes.push('Takes nothing away: it lies clear of the body.')
  }
  const outcome = { sections: new Map([[body, after]]), notes }
  return succeed(tool ? { ...outcome, tool } : outcome)
}

/** A length in the part's unit, for sentences. */
export const told = (context: StepContext, mm: number): string =>
  `${formatLength(mm, context.units)} ${context.units.length}`

/** Whether the part has a body of an id. */
export const hasBody = (context: StepContext, id: string): boolean =>
  context.bodies.some((b) => b.id === id)
