import type { EdgeNote } from '../../part'
import { text } from '../../part/fields'
import { fail, succeed, type Result } from '../../result'
import type { NoteRules } from '../kind'
import { EDGE_SYMBOL } from '../symbols'

/** Sizes that ISO 13715:2017, Table 2 recommends, with their signs as they are usual outside and inside. */
export const OUTSIDE_EDGES = ['-0.1', '-0.3', '-0.5', '±0.05', '+0.1', '+0.3']
export const INSIDE_EDGES = ['-0.1', '±0.05', '+0.1', '+0.3', '+0.5', '+1']

/** Between what material may stand over (above 0) or be missing (below 0) at an edge, in mm. */
export interface EdgeState {
  readonly least: number
  readonly greatest: number
}

/** Reads the state of an edge: `-0.3`, `+0.1`, `±0.05`, or the limits of it, `-0.1 -0.5`. */
export function readEdge(written: string): Result<EdgeState> {
  const plain = written.trim().replaceAll('−', '-').replaceAll('–', '-').replaceAll(',', '.')
  const found = /^(±|\+\/-|\+|-)\s*(\d+(?:\.\d+)?)(?:\s+([+-])\s*(\d+(?:\.\d+)?))?$/.exec(plain)
  const mend =
    'Write -0.3 for missing, +0.3 for standing over, ±0.05, or two limits as in -0.1 -0.5.'
  if (!found) return fail('edge.state', `“${written.trim()}” tells no state of an edge.`, mend)
  const [, sign = '', first = '', second, other] = found
  const size = Number(first)
  if (!(size > 0) || size > 10) {
    return fail('edge.size', 'An edge is off by more than 0 and 10 mm at most.', mend)
  }
  if (sign === '±' || sign === '+/-') {
    if (second !== undefined) return fail('edge.state', '± has no second limit.', mend)
    return succeed({ least: -size, greatest: size })
  }
  const value = sign === '-' ? -size : size
  if (second === undefined || other === undefined) {
    return succeed({ least: Math.min(value, 0), greatest: Math.max(value, 0) })
  }
  const limit = second === '-' ? -Number(other) : Number(other)
  if (value === limit) return fail('edge.limits', 'Both limits of this edge are the same.', mend)
  return succeed({ least: Math.min(value, limit), greatest: Math.max(value, limit) })
}

const shown = (written: string): string => written.trim().replaceAll('-', '−')

const plain = ({ outside, inside, on }: EdgeNote): string => {
  const said = [
    [outside, 'outside'],
    [inside, 'inside'],
  ].flatMap(([text = '', where = '']) =>
    text.trim() === '' ? [] : [`${shown(text)}${on === '' ? ` ${where}` : ''}`],
  )
  return said.join(', ') || '…'
}

export const edge: NoteRules<EdgeNote> = {
  name: 'edge',
  fields: { outside: text, inside: text },
  stands: 'corner',
  offer: ({ corner }) => ({
    kind: 'edge',
    outside: corner && corner.turn < 0 ? '' : '-0.3',
    inside: corner && corner.turn > 0 ? '' : '+0.3',
  }),
  twice: 'Two states are asked of one edge.',
  plain,
  requires: () => ({ what: 'edge', instrument: 'by eye, magnifier' }),
  tell: (note) => {
    const words = plain(note)
    const given = [note.outside, note.inside].filter((t) => t.trim() !== '')
    if (given.length === 0) {
      const mend = 'Write what may be missing or stand over, as in -0.3.'
      return { words, problem: fail('edge.empty', 'Nothing is said of this edge.', mend).problem }
    }
    for (const written of given) {
      const read = readEdge(written)
      if (!read.ok) return { words, problem: read.problem }
    }
    return { words }
  },
  cells: (_, words) => [{ symbol: EDGE_SYMBOL }, { words }],
}
