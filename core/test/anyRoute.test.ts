import * as fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  METRIC,
  addRevolve,
  addStep,
  changeStep,
  cornersOf,
  createPart,
  distance,
  edgeKey,
  edgesOf,
  evaluate,
  lengthOf,
  liesOnAxis,
  loopsOf,
  moveStep,
  offeredGroove,
  offeredStep,
  readPartFile,
  removeStep,
  sectionArea,
  setAside,
  writePartFile,
  type GrooveForm,
  type NewStep,
  type Part,
  type Section,
  type Step,
  VERTEX_TOLERANCE,
} from '../src'
import { CENTRE_PILOTS, CENTRE_TYPES } from '@lathica/core/standards'
import { steppedSketch } from './support/chains'
import { must } from './support/parts'

/** What is tried next: a kind of step, a number to choose faces and corners by, and a size in mm. */
interface Try {
  readonly kind: (typeof KINDS)[number]
  readonly choice: number
  readonly size: number
}
const KINDS = [
  ...(['bore', 'fillet', 'chamfer', 'shell', 'mirror', 'repeat', 'length', 'groove'] as const),
  'centre' as const,
  ...(['aside', 'move', 'resize', 'remove'] as const),
]
const FORMS: readonly GrooveForm[] = [
  ...(['rectangular', 'round', 'vee', 'belt', 'rope', 'oring', 'retaining', 'relief'] as const),
]

const anyTry: fc.Arbitrary<Try> = fc.record({
  kind: fc.constantFrom(...KINDS),
  choice: fc.nat(1000),
  size: fc.constantFrom(0.05, 0.3, 0.5, 1, 2, 3.7, 5, 10, 40, 1e4, 0, -1),
})

const anyShaft: fc.Arbitrary<Part> = fc
  .array(
    fc.record({
      diameter: fc.integer({ min: 4, max: 40 }),
      length: fc.integer({ min: 2, max: 30 }),
    }),
    { minLength: 1, maxLength: 5 },
  )
  .map((lands) => {
    const part = createPart({ name: 'Spindle' })
    const { sketch, values } = steppedSketch(
      lands.filter((l, i) => l.diameter !== lands[i - 1]?.diameter),
    )
    const sizes = sketch.sizes.map((s) => ({ ...s, formula: String(values.get(s.id)) }))
    return must({ ...part, sketches: [{ ...sketch, id: 'sketch2', sizes }] }, addRevolve('sketch2'))
  })

const standing = (part: Part): Section => evaluate(part).bodies[0]?.section ?? { regions: [] }
const among = <T>(list: readonly T[], n: number): T | undefined =>
  list[n % Math.max(1, list.length)]

/** The part with one more thing tried on it; what is refused leaves it as it is. */
function tried(part: Part, { kind, choice, size }: Try): Part {
  const section = standing(part)
  const step = among(part.route.slice(1), choice)
  const text = String(size)
  switch (kind) {
    case 'aside':
      return step ? must(part, setAside(step.id, !step.aside)) : part
    case 'move':
      return step ? must(part, moveStep(step.id, choice % (part.route.length + 1))) : part
    case 'remove':
      return step ? must(part, removeStep(step.id)) : part
    case 'resize':
      return step
        ? must(
            part,
            changeStep(step.id, (s) => resized(s, text)),
          )
        : part
    default:
      return section.regions.length === 0
        ? part
        : must(part, addStep(madeOf(part, section, { kind, choice, size })))
  }
}

function resized(step: Step, text: string): Step {
  switch (step.kind) {
    case 'shell':
      return { ...step, thickness: text }
    case 'fillet':
      return { ...step, sets: step.sets.map((s) => ({ ...s, radius: text })) }
    case 'groove':
      return { ...step, sizes: { ...step.sizes, depth: text } }
    case 'bore':
      return { ...step, parts: step.parts.map((p) => ({ ...p, diameter: text })) }
    default:
      return step
  }
}

type Made = Exclude<Try['kind'], 'aside' | 'move' | 'remove' | 'resize'>

function madeOf(part: Part, section: Section, { kind, choice, size }: Try): NewStep {
  const text = String(size)
  const faces = edgesOf(section).filter((e) => !liesOnAxis(e))
  const face = among(faces, choice)
  const corner = among(cornersOf(section), choice)
  if (!face) throw new Error('a section has faces')
  const picks = [
    { kind: 'corners' as const, corners: corner ? [corner.key] : [] },
    { kind: 'inside' as const },
    { kind: 'outside' as const },
  ]
  const pick = picks[choice % 3] ?? { kind: 'inside' as const }
  if (kind === 'groove') {
    const form = FORMS[choice % FORMS.length] ?? 'round'
    return {
      ...offeredGroove('body1', face, form, METRIC),
      count: choice % 4 === 0 ? '2' : '1',
      pitch: text,
      ...(choice % 5 === 0 ? { turned: true } : {}),
    } as NewStep
  }
  const last = part.route.at(-1)?.id
  const step = offeredStep(kind as Exclude<Made, 'groove'>, 'body1', section, last, METRIC)
  switch (step.kind) {
    case 'fillet':
      return { ...step, sets: [{ pick, radius: text }] }
    case 'chamfer':
      return { ...step, sets: [{ pick, along: text, across: '', angle: '30' }] }
    case 'shell':
      return { ...step, thickness: text, open: choice % 2 ? [edgeKey(face.name)] : [] }
    case 'mirror':
      return { ...step, at: text }
    case 'length':
      return { ...step, length: text }
    case 'bore':
      return { ...step, parts: [{ diameter: text, depth: choice % 2 ? '' : '7' }] }
    case 'centre':
      return {
        ...step,
        end: choice % 2 ? 'left' : 'right',
        type: among(CENTRE_TYPES, choice) ?? 'A',
        pilot: String(among(CENTRE_PILOTS, choice) ?? 1),
        remains: choice % 7 === 0 ? 'goes' : 'stays',
      }
    default:
      return step
  }
}

/** What is wrong with a section: loops close, edges are no slivers, outlines run the right way. */
function faultOf(section: Section): string | undefined {
  for (const loop of loopsOf(section)) {
    for (const [i, { piece }] of loop.entries()) {
      const next = loop[(i + 1) % loop.length]?.piece
      if (!next || distance(piece.to, next.from) > 4 * VERTEX_TOLERANCE) return 'an open loop'
      if (!(lengthOf(piece) > VERTEX_TOLERANCE / 2)) return 'a sliver'
      if (piece.from.y < -VERTEX_TOLERANCE) return 'material below the axis'
    }
  }
  const areas = section.regions.map((r) => sectionArea({ regions: [r] }))
  return areas.every((a) => a > 0) ? undefined : 'an outline turned round'
}

describe('any route of any steps', () => {
  test('runs: every step works or says what is wrong and what mends it', () => {
    fc.assert(
      fc.property(anyShaft, fc.array(anyTry, { maxLength: 8 }), (shaft, tries) => {
        const part = tries.reduce(tried, shaft)
        const state = evaluate(part)
        for (const [i, step] of state.steps.entries()) {
          if (step.status === 'failed') {
            expect(step.problem?.message).toMatch(/\.$/)
            expect(step.problem?.mend).toMatch(/\.$/)
          }
          const kind = part.route[i]?.kind
          const section = step.bodies[0]?.section ?? { regions: [] }
          expect(faultOf(section)).toBeUndefined()
          if (step.status !== 'done' || !Number.isFinite(step.massChange)) {
            expect(step.massChange).toBe(0)
          }
          // Cuts take material away, or nothing.
          if (kind === 'groove' || kind === 'bore' || kind === 'centre')
            expect(step.massChange).toBeLessThan(1e-6)
        }
        const read = readPartFile(writePartFile(part))
        expect(read.ok && read.value.route).toEqual(part.route)
      }),
      { numRuns: 600 },
    )
  })

  test('gives the same part whether it is run at once or grew step by step', () => {
    fc.assert(
      fc.property(anyShaft, fc.array(anyTry, { maxLength: 6 }), (shaft, tries) => {
        const grown = tries.reduce((here, next) => {
          const part = tried(here, next)
          evaluate(part)
          return part
        }, shaft)
        const fresh: Part = { ...grown, route: grown.route.map((s) => ({ ...s })) }
        const [a, b] = [evaluate(grown), evaluate(fresh)]
        expect(b.steps.map((s) => s.status)).toEqual(a.steps.map((s) => s.status))
        expect(b.bodies[0]?.mass).toBe(a.bodies[0]?.mass)
      }),
      { numRuns: 200 },
    )
  })
})
