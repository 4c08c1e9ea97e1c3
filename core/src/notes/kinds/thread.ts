import { evaluateFormula } from '../../formula'
import { valuesOf, type ThreadNote } from '../../part'
import { exactly, formula, text } from '../../part/fields'
import { fail } from '../../result'
import { readThread, threadsFor, type Thread } from '../../standards'
import { formatLength } from '../../units'
import { landOf, type Land } from '../faces'
import type { NoteRules } from '../kind'

export const thread: NoteRules<ThreadNote> = {
  name: 'thread',
  fields: { callout: text, from: exactly('left', 'right'), length: formula },
  offer: ({ edges }) => {
    const land = landOf(edges)
    const [callout = ''] = land ? threadsFor(2 * land.radius, land.side) : []
    return { kind: 'thread', callout, from: 'left', length: '' }
  },
  plain: ({ callout }) => callout,
  requires: () => ({ what: 'thread', instrument: 'thread gauges, go and not go' }),
  tell: (note, { edges, part }) => {
    const read = readThread(note.callout)
    const words = read.ok ? read.value.words : note.callout.trim() || 'thread'
    const wrong = (problem: ReturnType<typeof fail>) => ({ words, problem: problem.problem })
    if (!read.ok) return wrong(read)
    const land = landOf(edges)
    if (!land) {
      return wrong(
        fail(
          'note.cylinder',
          'A thread stands on a cylinder or in a bore.',
          'Pick a face that runs along the axis.',
        ),
      )
    }
    const { side } = read.value
    if (side !== undefined && side !== land.side) {
      const mend = side === 'outside' ? 'Write 6H or 2B for one.' : 'Write 6g or 2A for one.'
      return wrong(fail('thread.side', `This class is of an ${side} thread.`, mend))
    }
    const wanted = threadDiameter(read.value, land.side)
    if (Math.abs(2 * land.radius - wanted) > ROOM * wanted) {
      const told = (mm: number): string => formatLength(mm, part.units)
      const what = land.side === 'outside' ? 'land' : 'bore'
      return wrong(
        fail(
          'thread.diameter',
          `This ${what} is ⌀${told(2 * land.radius)}, and ${read.value.words} wants ⌀${told(wanted)}.`,
          `Make the ${what} ⌀${told(wanted)}, or take another thread.`,
        ),
      )
    }
    const length = threadLength(note, part)
    if (length !== undefined && !(length > 0 && length <= land.to - land.from + 1e-9)) {
      const most = formatLength(land.to - land.from, part.units)
      return wrong(
        fail('thread.long', 'The thread does not fit this length.', `It is ${most} long at most.`),
      )
    }
    return { words }
  },
}

/** A bore for a thread may be off its minor diameter by this share: drills are. */
const ROOM = 0.012

/** The diameter a land or bore has for a thread, in mm. */
export const threadDiameter = (read: Thread, side: 'outside' | 'inside'): number =>
  side === 'outside' ? read.major : (read.drill ?? read.minor)

/** Where a thread begins and ends on its land, in mm. */
export function threadReach(
  note: ThreadNote,
  land: Land,
  part: Parameters<typeof valuesOf>[0],
): readonly [number, number] {
  const length = threadLength(note, part) ?? land.to - land.from
  return note.from === 'left' ? [land.from, land.from + length] : [land.to - length, land.to]
}

/** The length of a thread in mm; undefined for the whole face, no number where it has no value. */
function threadLength(note: ThreadNote, part: Parameters<typeof valuesOf>[0]): number | undefined {
  if (note.length.trim() === '') return undefined
  const lookup = valuesOf(part).table.lookup
  const found = evaluateFormula(note.length, { want: 'length', units: part.units, lookup })
  return found.ok ? found.value : Number.NaN
}
