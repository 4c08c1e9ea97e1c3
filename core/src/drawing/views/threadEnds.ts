import { vec, type Piece, type Vec } from '../../geometry'
import { threadCuts } from '../../notes'
import { threadsOf, type PartState } from '../../route'
import { endCircles } from '../../section'
import type { Item } from '../items'

/**
 * Threads seen along their axis: three quarters of a narrow circle, open in the upper right, at the root of an outside
 * thread and the crest of an inside one (ISO 6410-1:1993, 3.2.3). Those of holes whose mouth looks the other way only
 * where they go right through.
 */
export function threadEnds(
  state: PartState,
  from: 'left' | 'right',
  by: number,
  isHere: (body: string) => boolean,
): Item[] {
  const turned = threadCuts(state).flatMap(({ body, side, radius, major, root }): Piece[] => {
    const section = state.bodies.find((b) => b.bodyId === body)?.section
    if (!section || !isHere(body)) return []
    const isSeen = endCircles(section, from).some(
      (c) => !c.hidden && Math.abs(c.radius - radius) < NEAR,
    )
    return isSeen ? threeQuarters(vec(0, 0), (side === 'outside' ? root : major) * by) : []
  })
  const drilled = threadsOf(state).flatMap(({ body, frame, radius, through }): Piece[] => {
    if (!isHere(body) || Math.abs(frame.z.z) < 1 - NEAR) return []
    const looksHere = from === 'right' ? frame.z.z < 0 : frame.z.z > 0
    if (!looksHere && !through) return []
    const { x, y } = frame.at
    const at = from === 'right' ? vec(-y, x) : vec(y, x)
    return threeQuarters(vec(at.x * by, at.y * by), radius * by)
  })
  const runs = [...turned, ...drilled].map((p) => [p])
  return runs.length === 0 ? [] : [{ kind: 'stroke', line: 'narrow', runs }]
}

/** In mm, and as a sine. */
const NEAR = 1e-6

/** From straight up over the left to the right, counter-clockwise, in two arcs. */
function threeQuarters(centre: Vec, radius: number): Piece[] {
  const on = (degrees: number): Vec => {
    const angle = (degrees * Math.PI) / 180
    return vec(centre.x + radius * Math.cos(angle), centre.y + radius * Math.sin(angle))
  }
  const arc = (a: number, b: number): Piece => ({
    ...{ kind: 'arc', from: on(a), to: on(b), centre, counterClockwise: true },
  })
  return [arc(90, 225), arc(225, 360)]
}
