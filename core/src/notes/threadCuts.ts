import type { ThreadCut } from '../mesh'
import { once } from '../once'
import type { PartState } from '../route'
import { edgeKey, type Section } from '../section'
import { readThread, type Thread } from '../standards'
import { VERTEX_TOLERANCE } from '../tolerances'
import { cornersOn, landOf } from './faces'
import { threadReach } from './kinds/thread'
import { noteStates } from './states'

/** A thread as it is cut into the triangles of a body. */
export interface CutThread extends ThreadCut {
  readonly body: string
}

/** Half the width of a crest and the run of a flank for its height, by form: ISO 68-1, ISO 228-1, ISO 2901. */
function profileOf({ form, pitch, major, root }: Thread): { crest: number; flank: number } {
  const tan = (degrees: number): number => Math.tan((degrees * Math.PI) / 180)
  switch (form) {
    case 'metric':
    case 'unified':
      return { crest: pitch / 16, flank: tan(30) }
    case 'pipe': {
      // Its round crests and roots are told by flats of the same width each.
      const flank = tan(27.5)
      return { crest: (pitch - (major - root) * flank) / 4, flank }
    }
    case 'trapezoidal':
      return { crest: 0.183 * pitch, flank: tan(15) }
  }
}

/** Every thread of a part that stands, ready to be cut. */
export const threadCuts = once((state: PartState): readonly CutThread[] =>
  noteStates(state).flatMap(({ note, edges, problem }): CutThread[] => {
    const land = landOf(edges)
    const section = state.bodies.find((b) => b.bodyId === note.body)?.section
    if (note.kind !== 'thread' || problem || !land || !section) return []
    const read = readThread(note.callout)
    if (!read.ok) return []
    const t = read.value
    const [from, to] = threadReach(note, land, state.part)
    const isInside = land.side === 'inside'
    return [
      {
        ...{ body: note.body, side: land.side, from, to, radius: land.radius },
        beyond: {
          from:
            from - land.from < VERTEX_TOLERANCE ? slopeAt(section, note.on, land.from) : undefined,
          to: land.to - to < VERTEX_TOLERANCE ? slopeAt(section, note.on, land.to) : undefined,
        },
        ...{ major: t.major / 2, root: (isInside ? t.minor : t.root) / 2 },
        ...{ pitch: t.pitch, lead: t.lead, hand: t.left ? -1 : 1 },
        ...profileOf({ ...t, root: isInside ? t.minor : t.root }),
      },
    ]
  }),
)

/** How far what follows the end of a land slopes away along the axis; undefined where a shoulder stands there. */
function slopeAt(section: Section, on: string, x: number): number | undefined {
  const corner = cornersOn(section, on).find(({ at }) => Math.abs(at.x - x) < VERTEX_TOLERANCE)
  if (!corner || corner.turn < 0) return undefined
  const other = edgeKey(corner.arriving.name) === on ? corner.leaving : corner.arriving
  return Math.abs(other.piece.from.x - other.piece.to.x)
}
