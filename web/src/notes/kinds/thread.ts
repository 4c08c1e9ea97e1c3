import {
  bevelThread,
  cutUndercut,
  fitLand,
  landOf,
  threadChamferStep,
  undercutStep,
} from '@lathica/core/notes'
import type { Part, ThreadNote } from '@lathica/core/part'
import {
  readThread,
  threadLimits,
  threadsFor,
  type Between,
  type Thread,
} from '@lathica/core/standards'
import { formatLength, type UnitSettings } from '@lathica/core/units'
import type { NoteLooks } from '../kind'

export const thread: NoteLooks<ThreadNote> = {
  ...{ title: 'Thread', key: 'w', icon: 'noteThread' },
  help: 'A screw thread on a land or in a bore, as it is called out: M16x1.5-6g.',
  hint: 'Click the land or bore that carries the thread.',
  fields: (note, { state, lie }) => {
    const land = landOf(state.edges)
    const [left, right] = lie === 'standing' ? ['lower', 'upper'] : ['left', 'right']
    return [
      {
        ...{ kind: 'typed', id: 'callout', label: 'Callout', text: note.callout },
        ...{ empty: 'M16x1.5-6g', take: (callout) => ({ callout }) },
        offers: land ? threadsFor(2 * land.radius, land.side) : [],
      },
      {
        ...{ kind: 'typed', id: 'length', label: 'Length', text: note.length },
        ...{ empty: 'the whole face', take: (length) => ({ length }) },
      },
      {
        ...{ kind: 'choice', id: 'from', label: 'From', value: note.from },
        options: [
          { value: 'left', label: `its ${left} end` },
          { value: 'right', label: `its ${right} end` },
        ],
        take: (from) => ({ from }),
      },
    ]
  },
  figures: (note, { state, units }) => {
    const read = readThread(note.callout)
    if (!read.ok) return []
    const t = read.value
    const mm = (value: number): string => `${formatLength(value, units)} ${units.length}`
    const isInside = landOf(state.edges)?.side === 'inside'
    return [
      ['Standard', t.standard],
      ['Major', `⌀${mm(t.major)}`],
      ['Pitch ⌀', `⌀${mm(t.pitchDiameter)}`],
      ['Minor', `⌀${mm(t.minor)}`],
      ['Root', `⌀${mm(t.root)}`],
      ['Pitch', `${mm(t.pitch)}${t.perInch === undefined ? '' : `, ${t.perInch} to the inch`}`],
      ...(t.starts > 1 ? [['Lead', `${mm(t.lead)}, ${t.starts} starts`] as const] : []),
      ...(t.stressArea === undefined
        ? []
        : [['Stress area', `${t.stressArea.toFixed(1)} mm²`] as const]),
      ...(t.drill === undefined || !isInside ? [] : [['Drill', `⌀${mm(t.drill)}`] as const]),
      ...limitFigures(t, isInside ? 'inside' : 'outside', units),
    ]
  },
  works: (note, { part }) => [
    { label: 'Make it fit', mends: 'thread.diameter', command: fitLand(note) },
    ...(undercutStep(part, note).ok && !hasUndercut(part, note)
      ? [{ label: 'Cut its undercut', command: cutUndercut(note) }]
      : []),
    ...(threadChamferStep(part, note).ok
      ? [{ label: 'Bevel its start', command: bevelThread(note) }]
      : []),
  ],
}

/** Whether the land of a thread has been cut into at its shoulder already. */
const hasUndercut = (part: Part, { on }: ThreadNote): boolean =>
  part.route.some((s) => s.kind === 'groove' && s.form === 'relief' && s.on === on)

/** Between what each diameter lies, as its class has it (ISO 965-1). */
function limitFigures(
  thread: Thread,
  side: 'outside' | 'inside',
  units: UnitSettings,
): readonly (readonly [string, string])[] {
  const limits = threadLimits(thread, side)
  if (!limits) return []
  const words = ({ least, greatest }: Between): string => {
    const [low, high] = [least, greatest].map((mm) => mm && formatLength(mm, units))
    if (low === undefined) return `⌀${high ?? ''} at most`
    return high === undefined ? `⌀${low} at least` : `⌀${low} to ${high}`
  }
  return [
    [`${limits.grade} major`, words(limits.major)],
    [`${limits.grade} pitch ⌀`, words(limits.pitch)],
    [`${limits.grade} minor`, words(limits.minor)],
  ]
}
