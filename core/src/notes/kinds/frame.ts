import { evaluateFormula } from '../../formula'
import { CHARACTERISTICS, valuesOf, type Characteristic, type FrameNote } from '../../part'
import { exactly, flag, formula, text } from '../../part/fields'
import { fail, type Problem } from '../../result'
import { isSquare, landOf } from '../faces'
import type { NoteContext, NoteRules } from '../kind'

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

export const frame: NoteRules<FrameNote> = {
  name: 'geometric tolerance',
  fields: {
    characteristic: exactly(...CHARACTERISTICS),
    ...{ round: flag, zone: formula, material: exactly('', 'M', 'L'), datums: text },
  },
  offer: ({ all, edges }) => {
    const letters = all.flatMap((n) => (n.kind === 'datum' ? [n.letter] : []))
    const characteristic =
      letters.length === 0 ? (isSquare(edges) ? 'flatness' : 'cylindricity') : 'circularRunOut'
    const common = letters.length > 1 ? letters.slice(0, 2).join('-') : (letters[0] ?? '')
    const datums = letters.length === 0 ? '' : common
    return { kind: 'frame', characteristic, round: false, zone: '0.02', material: '', datums }
  },
  tell: (note, context) => {
    const { words } = GRAMMAR[note.characteristic]
    const zone = `${note.round ? '⌀' : ''}${note.zone.trim()}${note.material === '' ? '' : ` ${note.material}`}`
    const told = [words, zone, ...datumsOf(note)].join(' | ')
    const problem = grammarFault(note, context)
    return problem ? { words: told, problem } : { words: told }
  },
}

/** The cells of a frame that hold datums: `A B` are two, `A-B` is one of both together. */
export const datumsOf = ({ datums }: FrameNote): readonly string[] =>
  datums
    .trim()
    .replace(/\s*[-–−]\s*/g, '-')
    .split(/[\s,|]+/)
    .filter((d) => d !== '')

function grammarFault(note: FrameNote, { part, edges, all }: NoteContext): Problem | undefined {
  const { words, datums: wants, round } = GRAMMAR[note.characteristic]
  const fault = (code: string, message: string, mend: string): Problem =>
    fail(code, message, mend).problem
  const lookup = valuesOf(part).table.lookup
  const zone = evaluateFormula(note.zone, { want: 'length', units: part.units, lookup })
  if (!zone.ok) return zone.problem
  if (!(zone.value > 0)) {
    return fault('frame.zone', 'The zone has no width.', 'Type how wide it is, above 0.')
  }
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
  if (note.characteristic === 'flatness' && !isSquare(edges)) {
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
