import { addStep, type Command } from '../edit'
import type { NewStep, Part, ThreadNote } from '../part'
import { fail, succeed, type Result } from '../result'
import { evaluate, angleText, lengthText } from '../route'
import type { Corner, Section } from '../section'
import { UNDERCUT_ANGLE, readThread, undercutFor, type Thread } from '../standards'
import { VERTEX_TOLERANCE } from '../tolerances'
import { cornersOn, landOf, type Land } from './faces'
import { faceEdges } from './states'

/** What is at an end of a land: a shoulder, an open edge, or neither. */
export interface LandEnd {
  readonly side: 'left' | 'right'
  readonly corner: Corner
  readonly is: 'shoulder' | 'open'
}

/** An edge that turns by less than this, in radians, is bevelled already. */
const SHARP = 1

/** The ends of the face of a land where it meets another in a corner. */
export function landEnds(section: Section, on: string, land: Land): readonly LandEnd[] {
  return cornersOn(section, on).flatMap((corner): LandEnd[] => {
    const { at, turn } = corner
    if (turn > 0 && turn < SHARP) return []
    const is = turn > 0 ? 'open' : 'shoulder'
    if (Math.abs(at.x - land.from) < VERTEX_TOLERANCE) return [{ side: 'left', corner, is }]
    return Math.abs(at.x - land.to) < VERTEX_TOLERANCE ? [{ side: 'right', corner, is }] : []
  })
}

interface Threaded {
  readonly thread: Thread
  readonly land: Land
  readonly ends: readonly LandEnd[]
}

/** A thread, the land it is on and the ends of that as the part stands. */
function threaded(part: Part, { callout, body, on }: ThreadNote): Result<Threaded> {
  const state = evaluate(part)
  const [land, thread] = [landOf(faceEdges(state, body, on)), readThread(callout)]
  const section = state.bodies.find((b) => b.bodyId === body)?.section
  if (!thread.ok) return thread
  if (!land || !section) {
    return fail('thread.land', 'There is no land for this thread.', 'Pick a cylinder.')
  }
  return succeed({ thread: thread.value, land, ends: landEnds(section, on, land) })
}

/** The undercut of a thread against its shoulder, as a groove (ISO 4755). */
export function undercutStep(part: Part, note: ThreadNote): Result<NewStep> {
  const found = threaded(part, note)
  if (!found.ok) return found
  const { thread, land, ends } = found.value
  const cut = thread.form === 'metric' ? undercutFor(thread.pitch) : undefined
  if (!cut || land.side === 'inside') {
    return fail(
      'thread.undercut',
      `ISO 4755 has no undercut for ${land.side === 'inside' ? 'inside threads' : thread.words}.`,
      'Cut a groove of the form thread relief, with sizes of your own.',
    )
  }
  const shoulder = ends.find((e) => e.is === 'shoulder')
  if (!shoulder) {
    return fail(
      'thread.shoulder',
      'This thread runs out on no shoulder.',
      'Pick a land that stands against one, or cut a groove where it is to be.',
    )
  }
  if (cut.width > land.to - land.from - VERTEX_TOLERANCE) {
    return fail(
      'thread.short',
      'The land is too short for its undercut.',
      `It is ${lengthText(cut.width, part.units)} ${part.units.length} wide: make the land longer.`,
    )
  }
  const text = (mm: number): string => lengthText(mm, part.units)
  return succeed({
    ...{ kind: 'groove', body: note.body, on: note.on, form: 'relief', count: '1', pitch: '' },
    place: {
      ...{ from: shoulder.side === 'right' ? 'end' : 'start', second: '' },
      ...{ to: 'near', distance: '0' },
    },
    sizes: {
      ...{ width: text(cut.width), depth: '', bottom: text(2 * land.radius - cut.below) },
      ...{ radius: text(cut.radius), angle: angleText(UNDERCUT_ANGLE, part.units) },
    },
    ...(shoulder.side === 'left' ? { turned: true } : {}),
  })
}

/** The chamfer at the start of a thread: at 45°, to below its root, in whole tenths of a millimetre. */
export function threadChamferStep(part: Part, note: ThreadNote): Result<NewStep> {
  const found = threaded(part, note)
  if (!found.ok) return found
  const { thread, land, ends } = found.value
  const start = ends.find((e) => e.is === 'open')
  if (!start) {
    return fail(
      'thread.open',
      'Neither end of this thread is a sharp edge.',
      'It may have its chamfer already.',
    )
  }
  const deep =
    land.side === 'outside' ? land.radius - thread.root / 2 : thread.major / 2 - land.radius
  const leg = Math.max(0.1, Math.ceil(deep * 10 - 1e-6) / 10)
  return succeed({
    ...{ kind: 'chamfer', body: note.body },
    sets: [
      {
        pick: { kind: 'corners', corners: [start.corner.key] },
        along: lengthText(leg, part.units),
        ...{ across: '', angle: angleText(45, part.units) },
      },
    ],
  })
}

const put = (
  label: string,
  stepOf: (part: Part, note: ThreadNote) => Result<NewStep>,
  note: ThreadNote,
): Command => ({
  label,
  run: (part) => {
    const step = stepOf(part, note)
    return step.ok ? addStep(step.value).run(part) : step
  },
})

/** Cuts the undercut that a thread runs out into. */
export const cutUndercut = (note: ThreadNote): Command => put('undercut', undercutStep, note)

/** Bevels the edge that a thread starts at. */
export const bevelThread = (note: ThreadNote): Command =>
  put('chamfer of the thread', threadChamferStep, note)
