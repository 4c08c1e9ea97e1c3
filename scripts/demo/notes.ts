import { changeSheet, changeTitle } from '@lathica/core/edit'
import { addNote } from '@lathica/core/notes'
import { PLAIN_SHEET, type Part } from '@lathica/core/part'
import { face } from './finishing'
import { run } from './outline'

/** What the workshop is told of the spindle: it runs in two seats, and what it carries runs true to both. */
export function notedSpindle(part: Part): Part {
  const on = (words: string) => ({ body: 'body1', on: face(part, words) })
  const seat = { kind: 'surface', parameter: 'Ra', value: '0.8', removal: 'required' } as const
  const asIs = { allowance: '', process: '' } as const
  const runOut = {
    kind: 'frame',
    characteristic: 'circularRunOut',
    round: false,
    material: '',
    projected: '',
  } as const
  return run(
    part,
    addNote({ kind: 'datum', letter: 'A', ...on('cylinder ⌀20') }),
    addNote({ kind: 'datum', letter: 'B', ...on('cylinder ⌀24') }),
    addNote({ ...runOut, zone: '0.02', datums: 'A-B', ...on('face at 66') }),
    addNote({ ...runOut, zone: '0.01', datums: 'A-B', ...on('cylinder ⌀35') }),
    addNote({ ...seat, ...asIs, ...on('cylinder ⌀20') }),
    addNote({ ...seat, ...asIs, ...on('cylinder ⌀24') }),
    addNote({ ...seat, ...asIs, value: '3.2', body: '', on: '' }),
    addNote({ kind: 'treatment', words: 'hardened 56 HRC', depth: '0.8', ...on('cylinder ⌀24') }),
    addNote({
      ...{ kind: 'thread', callout: 'M16x1.5-6g', from: 'right', length: '' },
      ...on('cylinder ⌀16'),
    }),
    addNote({ kind: 'edge', outside: '-0.3', inside: '+0.3', body: '', on: '' }),
    changeTitle({ owner: 'Skerry Point tide gauge', number: 'SP-101', status: 'for trial' }),
  )
}

/** The housing's sheet has a picture with a quarter cut out, for those who make it once a year. */
export const picturedHousing = (part: Part): Part =>
  run(
    part,
    changeSheet(PLAIN_SHEET.id, { picture: 'quarter' }),
    changeTitle({ owner: 'Skerry Point tide gauge', number: 'SP-204' }),
  )
