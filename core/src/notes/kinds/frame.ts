import { evaluateFormula } from '../../formula'
import {
  CHARACTERISTICS,
  valuesOf,
  type Characteristic,
  type FrameNote,
  type Part,
} from '../../part'
import { exactly, flag, formula, text } from '../../part/fields'
import { fail, type Problem } from '../../result'
import { isSquare, landOf } from '../faces'
import type { NoteContext, NoteRules } from '../kind'
import { SYMBOLS } from '../symbols'
import { saidTwice } from '../twice'

/** What each characteristic asks of datums (ISO 1101:2017, Table 2), and whether its zone can be round. */
const GRAMMAR: Readonly<
  Record<
    Characteristic,
    {
      readonly words: string
      readonly datums: 'none' | 'needed' | 'maybe'
      readonly round: boolean
    }
  >
> = {
  straightness: { words: 'straightness', datums: 'none', round: true },
  flatness: { words: 'flatness', datums: 'none', round: false },
  circularity: { words: 'circularity', datums: 'none', round: false },
  cylindricity: { words: 'cylindricity', datums: 'none', round: false },
  lineProfile: { words: 'profile of a line', datums: 'maybe', round: false },
  surfaceProfile: { words: 'profile of a surface', datums: 'maybe', round: false },
  parallelism: { words: 'parallelism', datums: 'needed', round: true },
  perpendicularity: { words: 'perpendicularity', datums: 'needed', round: true },
  angularity: { words: 'angularity', datums: 'needed', round: true },
  position: { words: 'position', datums: 'maybe', round: true },
  coaxiality: { words: 'coaxiality', datums: 'needed', round: true },
  symmetry: { words: 'symmetry', datums: 'needed', round: false },
  circularRunOut: { words: 'circular run-out', datums: 'needed', round: false },
  totalRunOut: { words: 'total run-out', datums: 'needed', round: false },
}

export const characteristicWords = (of: Characteristic): string => GRAMMAR[of].words

/** What a characteristic is measured with on a plain bench; the others on a measuring machine. */
const INSTRUMENTS: Partial<Record<Characteristic, string>> = {
  straightness: 'straight edge, feeler gauges',
  flatness: 'surface plate, dial gauge',
  circularity: 'roundness tester',
  cylindricity: 'roundness tester',
  parallelism: 'surface plate, dial gauge',
  circularRunOut: 'dial gauge, on centres or in vee blocks',
  totalRunOut: 'dial gauge, on centres or in vee blocks',
  coaxiality: 'dial gauge, on centres or in vee blocks',
}

const OFFERED = { kind: 'frame', round: false, material: '', projected: '' } as const

const plain = (note: FrameNote): string => {
  const material = note.material === '' ? '' : ` ${note.material}`
  const beyond = note.material === 'P' ? ` ${note.projected.trim()}` : ''
  const zone = `${note.round ? '⌀' : ''}${note.zone.trim()}${material}${beyond}`
  return [GRAMMAR[note.characteristic].words, zone, ...datumsOf(note)].join(' | ')
}

export const frame: NoteRules<FrameNote> = {
  name: 'geometric tolerance',
  fields: {
    characteristic: exactly(...CHARACTERISTICS),
    ...{ round: flag, zone: formula, datums: text },
    ...{ material: exactly('', 'M', 'L', 'P'), projected: formula },
  },
  onSolids: true,
  offer: ({ all, edges, isSolid }) => {
    const letters = all.flatMap((n) => (n.kind === 'datum' ? [n.letter] : []))
    if (edges.length === 0 && isSolid !== true) {
      const datums = letters.slice(0, 3).join(' ')
      return { ...OFFERED, characteristic: 'surfaceProfile', datums, zone: '0.2' }
    }
    const characteristic =
      letters.length === 0
        ? isSquare(edges) || isSolid === true
          ? 'flatness'
          : 'cylindricity'
        : 'circularRunOut'
    const common = letters.length > 1 ? letters.slice(0, 2).join('-') : (letters[0] ?? '')
    const datums = letters.length === 0 ? '' : common
    return { ...OFFERED, characteristic, zone: '0.02', datums }
  },
  plain,
  tell: (note, context) => {
    const words = plain(note)
    const problem = grammarFault(note, context)
    return problem ? { words, problem } : { words }
  },
  requires: (note, part) => {
    const lookup = valuesOf(part).table.lookup
    const zone = evaluateFormula(note.zone, { want: 'length', units: part.units, lookup })
    return {
      what: GRAMMAR[note.characteristic].words,
      instrument: INSTRUMENTS[note.characteristic] ?? 'measuring machine',
      ...(zone.ok ? { most: { value: zone.value, unit: 'length' } } : {}),
    }
  },
  cells: (note) => {
    const beyond = ` Ⓟ${note.projected.trim()}`
    const material = { '': '', M: ' Ⓜ', L: ' Ⓛ', P: beyond }[note.material]
    return [
      { symbol: SYMBOLS[note.characteristic] },
      { words: `${note.round ? '⌀' : ''}${note.zone.trim()}${material}` },
      ...datumsOf(note).map((words) => ({ words })),
    ]
  },
}

/** The cells of a frame that hold datums: `A B` are two, `A-B` is one of both together. */
export const datumsOf = ({ datums }: FrameNote): readonly string[] =>
  datums
    .trim()
    .replace(/\s*[-–−]\s*/g, '-')
    .split(/[\s,|]+/)
    .filter((d) => d !== '')

const TWO_GENERAL = 'Two tolerances are asked of all other faces.'

/** What is wrong with how far a zone is projected (ISO 10578: of position and the like only). */
function projectedFault(note: FrameNote, part: Part): Problem | undefined {
  if (note.material !== 'P') return undefined
  const of = ['position', 'perpendicularity', 'parallelism', 'coaxiality', 'angularity']
  if (!of.includes(note.characteristic)) {
    const { words } = GRAMMAR[note.characteristic]
    const mend = 'Take position, or leave Ⓟ out.'
    return fail('frame.noProjection', `The zone of ${words} is not projected.`, mend).problem
  }
  const lookup = valuesOf(part).table.lookup
  const wanted = { want: 'length', units: part.units, lookup } as const
  const found = evaluateFormula(note.projected, wanted)
  if (found.ok && found.value > 0) return undefined
  const mend = 'Type how far beyond the face it reaches, above 0.'
  return fail('frame.projected', 'A projected zone needs a length.', mend).problem
}

function grammarFault(
  note: FrameNote,
  { part, edges, all, isSolid }: NoteContext,
): Problem | undefined {
  const { words, datums: wants, round } = GRAMMAR[note.characteristic]
  const fault = (code: string, message: string, mend: string): Problem =>
    fail(code, message, mend).problem
  const lookup = valuesOf(part).table.lookup
  const zone = evaluateFormula(note.zone, { want: 'length', units: part.units, lookup })
  if (!zone.ok) return zone.problem
  if (!(zone.value > 0)) {
    return fault('frame.zone', 'The zone has no width.', 'Type how wide it is, above 0.')
  }
  const beyond = projectedFault(note, part)
  if (beyond) return beyond
  const given = datumsOf(note)
  if (wants === 'none' && given.length > 0) {
    return fault('frame.free', `The ${words} of a face hangs on no datum.`, 'Leave the datums out.')
  }
  if (wants === 'needed' && given.length === 0) {
    return fault(
      'frame.datum',
      `The ${words} of a face is measured from a datum.`,
      'Name one, as in A or A-B.',
    )
  }
  if (given.length > 3) {
    return fault('frame.three', 'A frame has three datums at most.', 'Leave the others out.')
  }
  const letters = given.flatMap((cell) => cell.split('-'))
  const known = new Set(all.flatMap((n) => (n.kind === 'datum' ? [n.letter] : [])))
  const missing = letters.find((l) => !known.has(l))
  if (missing !== undefined) {
    return fault(
      'frame.missing',
      `There is no datum ${missing}.`,
      'Put it on its face first, or correct the letter.',
    )
  }
  const doubled = letters.find((l, i) => letters.indexOf(l) !== i)
  if (doubled !== undefined) {
    return fault('frame.twice', `Datum ${doubled} stands there twice.`, 'Take one of them out.')
  }
  if (note.on === '') {
    if (note.characteristic === 'surfaceProfile') return saidTwice(note, all, TWO_GENERAL)
    return fault(
      'frame.general',
      'Of all others only the profile of a surface is asked (ISO 22081).',
      'Take that, or say it of a face.',
    )
  }
  const own = all.find((n) => n.kind === 'datum' && n.on === note.on && n.body === note.body)
  if (own?.kind === 'datum' && letters.includes(own.letter)) {
    return fault(
      'frame.own',
      'A face is not measured from itself.',
      'Name the datum of another face.',
    )
  }
  if (note.round && !round) {
    return fault('frame.round', `The zone of ${words} is not round.`, 'Leave ⌀ out.')
  }
  const land = landOf(edges)
  if (
    (note.characteristic === 'circularity' || note.characteristic === 'cylindricity') &&
    isSquare(edges)
  ) {
    return fault(
      'frame.flat',
      `A face square to the axis has no ${words}.`,
      'Take flatness, or another face.',
    )
  }
  if (note.characteristic === 'flatness' && !isSquare(edges) && isSolid !== true) {
    return fault(
      'frame.curved',
      'Only a face square to the axis is flat here.',
      'Take cylindricity or straightness.',
    )
  }
  if (note.characteristic === 'cylindricity' && !land) {
    return fault(
      'frame.cylinder',
      'Only a cylinder has a cylindricity.',
      'Take circularity or a profile.',
    )
  }
  if (note.characteristic === 'coaxiality' && isSquare(edges)) {
    return fault(
      'frame.axis',
      'A face square to the axis has no axis of its own.',
      'Take perpendicularity or run-out.',
    )
  }
  return undefined
}
