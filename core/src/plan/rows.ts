import { measureOf } from '../constraints'
import {
  drawingOf,
  requirementsOf,
  saidText,
  type Asked,
  type Drawing,
  type Requirement,
} from '../drawing'
import { evaluateFormula } from '../formula'
import { noteStates, requirementOf } from '../notes'
import { once } from '../once'
import { valuesOf, type KnownStep } from '../part'
import { fieldWords, formulasIn, type Fields } from '../part/fields'
import { callsOf, STEP_KINDS, type PartState } from '../route'
import { edgesOf } from '../section'
import { tolerancedIn, type Toleranced } from '../vary'
import { instrumentForAngle, instrumentForLength, type Place } from './instruments'

/** A row of the inspection plan: one thing that is looked at on every piece. */
export interface PlanRow {
  /** Of the value or the note. */
  readonly id: string
  /** The label that it stands in on the sheet. */
  readonly label: string
  /** As in `7`; `7.2` where a call-out asks several things. */
  readonly number: string
  readonly what: string
  /** As the drawing has it. */
  readonly written: string
  /** What is measured: `seen` where there is no figure, and it is good or not. */
  readonly measure: 'length' | 'angle' | 'number' | 'µm' | 'seen'
  /** In mm, radians, or µm. */
  readonly nominal?: number
  /** Limits, likewise; an end that has none is left out. */
  readonly lower?: number
  readonly upper?: number
  readonly instrument: string
  /** Whether the instrument is one’s own choice. */
  readonly isChosen: boolean
  /** Which sheet it stands on, from 0. */
  readonly sheet: number
}

/** All that is looked at, in the order of the numbers. */
export const planRows = once((state: PartState): readonly PlanRow[] => {
  const chosen = new Map(
    (drawingOf(state.part).plan?.instruments ?? []).map((i) => [i.id, i.words]),
  )
  const toleranced = new Map(tolerancedIn(state.part).map((t) => [t.id, t]))
  return requirementsOf(state).flatMap((r) => {
    const rows = r.asked ? sizeRows(state, r, r.asked, toleranced) : noteRows(state, r)
    return rows.map((row): PlanRow => {
      const own = chosen.get(row.id)
      return { ...row, instrument: own ?? row.instrument, isChosen: own !== undefined }
    })
  })
})

type Row = Omit<PlanRow, 'isChosen'>

/** Where each row stands on its sheet, as in `C4`; `2: C4` where there are several sheets. */
export function fieldOf(row: PlanRow, drawings: readonly (Drawing | undefined)[]): string {
  const field = drawings[row.sheet]?.labels.get(row.label)?.field ?? ''
  return field === '' || drawings.length < 2 ? field : `${row.sheet + 1}: ${field}`
}

function sizeRows(
  state: PartState,
  { id: label, number, sheet }: Requirement,
  asked: Asked,
  toleranced: ReadonlyMap<string, Toleranced>,
): Row[] {
  const said = asked.lines.map(saidText).join(', ')
  const isOne = asked.shows.length === 1
  return asked.shows.flatMap((id, i): Row[] => {
    const value = valueOf(state, id)
    // One of a thing is not counted.
    if (!value || (value.measure === 'number' && value.nominal === 1)) return []
    const limits = toleranced.get(id)
    const own = limits && (limits.upper !== 0 || limits.lower !== 0) ? limits : undefined
    const place = isOne ? placeOf(state, asked) : fieldPlace(id)
    const band = own && own.upper - own.lower
    return [
      {
        ...{ id, label, sheet, measure: value.measure, nominal: value.nominal },
        number: isOne ? String(number) : `${number}.${i + 1}`,
        what: isOne ? wordOf(asked, place, id) : wordsOf(id),
        written: said,
        // What is counted is as it is.
        ...(value.measure === 'number' ? { lower: value.nominal, upper: value.nominal } : {}),
        ...(own ? { lower: value.nominal + own.lower, upper: value.nominal + own.upper } : {}),
        instrument:
          value.measure === 'number'
            ? 'by eye'
            : value.measure === 'angle'
              ? instrumentForAngle(band)
              : instrumentForLength(place, band),
      },
    ]
  })
}

function noteRows(state: PartState, { id: label, number, sheet }: Requirement): Row[] {
  const shared = { id: label, label, sheet, number: String(number) }
  if (label.startsWith('call/')) {
    const call = callsOf(state)[Number(label.slice(5))]
    return call
      ? [{ ...shared, what: 'as told', written: call.words, measure: 'seen', instrument: 'by eye' }]
      : []
  }
  const told = noteStates(state).find((n) => `note/${n.note.id}` === label)
  const asks = told && requirementOf(told.note, state.part)
  if (!asks) return []
  const { what, instrument, most } = asks
  return [
    {
      ...{ ...shared, what, instrument, written: told.words, measure: most?.unit ?? 'seen' },
      ...(most ? { lower: 0, upper: most.value } : {}),
    },
  ]
}

/** What a value comes to: of a profile's size or of a step's field. */
function valueOf(
  { part }: PartState,
  id: string,
): { readonly nominal: number; readonly measure: 'length' | 'angle' | 'number' } | undefined {
  const [kind, owner = '', ...path] = id.split('/')
  if (kind === 'size') {
    const sketch = part.sketches.find((s) => s.id === owner)
    const size = sketch?.sizes.find((s) => s.id === path.join('/'))
    const nominal = valuesOf(part).sizesOf(owner).values.get(path.join('/'))
    return size && nominal !== undefined ? { nominal, measure: measureOf(size) } : undefined
  }
  const step = part.route.find((s): s is KnownStep => s.id === owner && s.kind !== 'unknown')
  if (!step) return undefined
  const { lookup } = valuesOf(part).table
  const found = formulasIn(STEP_KINDS[step.kind].fields as Fields, step).find(
    (f) => f.path.join('/') === path.join('/'),
  )
  if (
    !found ||
    (found.measure !== 'length' && found.measure !== 'angle' && found.measure !== 'number')
  )
    return undefined
  const { measure } = found
  const read = evaluateFormula(found.formula, { want: measure, units: part.units, lookup })
  return read.ok ? { nominal: read.value, measure } : undefined
}

/** The field of a step that a value is of, in words. */
const wordsOf = (id: string): string =>
  fieldWords(id.split('/').findLast((p) => /[a-z]/i.test(p)) ?? '')

function fieldPlace(id: string): Place {
  const words = wordsOf(id)
  return words.includes('depth') ? 'depth' : words.includes('diameter') ? 'inner' : 'other'
}

function placeOf(state: PartState, asked: Asked): Place {
  const { shape, id } = asked
  switch (shape.kind) {
    case 'along':
      return shape.inside ? 'depth' : 'length'
    case 'across':
      return shape.inside || isBore(state, shape.at.x, shape.at.y) ? 'inner' : 'outer'
    case 'radius':
      return 'radius'
    case 'section':
      return wordsOf(id) === 'size' ? 'outer' : 'depth'
    case 'radial':
    case 'slant':
      return 'length'
    case 'angle':
    case 'place':
    case 'end':
    case 'onSection':
      return id.startsWith('step/') ? fieldPlace(id) : 'other'
    case 'onEnd':
      return placeOf(state, { ...asked, shape: shape.of })
  }
}

/** Whether a land at a place is a bore: material lies to the left of an outline, so that bores run to the right. */
function isBore({ bodies }: PartState, x: number, y: number): boolean {
  const level = bodies
    .flatMap((b) => edgesOf(b.section))
    .filter(({ piece: { from, to } }) => Math.abs(from.y - y) < 1e-6 && Math.abs(to.y - y) < 1e-6)
  const off = (from: number, to: number): number =>
    Math.max(Math.min(from, to) - x, x - Math.max(from, to), 0)
  const nearest = level.sort(
    (a, b) => off(a.piece.from.x, a.piece.to.x) - off(b.piece.from.x, b.piece.to.x),
  )[0]
  return nearest !== undefined && nearest.piece.from.x < nearest.piece.to.x
}

function wordOf(asked: Asked, place: Place, id: string): string {
  const { shape } = asked
  switch (shape.kind) {
    case 'along':
      return shape.inside ? 'depth' : 'length'
    case 'across':
      return place === 'inner' ? 'bore' : 'diameter'
    case 'radial':
      return 'height'
    case 'slant':
      return 'distance'
    case 'angle':
      return 'angle'
    case 'radius':
      return 'radius'
    case 'section':
    case 'place':
    case 'end':
    case 'onSection':
      return id.startsWith('step/') ? wordsOf(id) : 'size'
    case 'onEnd':
      return wordOf({ ...asked, shape: shape.of }, place, id)
  }
}
