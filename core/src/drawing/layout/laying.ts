import type { Piece, Vec } from '../../geometry'
import { saidText, type Asked } from '../asked'
import { roomBeside, withBadge } from './badges'
import { badged, textContent } from './contents'
import { layLanes, saidOf, type LaneAsk, type LaneFrame } from './lanes'
import { layLeader, type LeaderAsk } from './leaders'
import type { BadgesFor, Placed, Style } from './marks'
import { layRunning, type Running } from './running'
import { Space } from './space'

/** A view while its labels are laid out: what was placed, and what found no room. */
export class Laying {
  readonly space = new Space()
  readonly placed: Placed[] = []
  /** By their ids. */
  readonly left: string[] = []

  /** @param isInside whether a place lies within the view, where no label stands */
  constructor(
    outlines: Iterable<Piece>,
    private readonly isInside: (p: Vec) => boolean,
    private readonly style: Style,
    private readonly badgesFor: BadgesFor,
  ) {
    this.space.addOutline(outlines)
  }

  /** Takes what was placed, and notes what was not. */
  take(made: Placed | undefined, id: string): void {
    if (!made) {
      this.left.push(id)
      return
    }
    this.space.addLabels(made.labels)
    this.space.addLines(made.lines)
    this.placed.push(made)
  }

  /** Running lengths below. @returns those that found no room */
  running(running: Running, across: number): readonly LaneAsk[] {
    const asks = running.asks.map((a) => ({ ...a, badges: this.badgesFor(saidOf(a)) }))
    const laid = layRunning({ ...running, asks }, across, this.space, this.style)
    this.placed.push(...laid.placed)
    return laid.left
  }

  /** Sizes in lanes. @returns those that found no room there */
  lanes(asks: readonly LaneAsk[], frame: LaneFrame): readonly LaneAsk[] {
    const badged = asks.map((a) => ({ ...a, badges: this.badgesFor(saidOf(a)) }))
    const laid = layLanes(badged, frame, this.space, this.style)
    this.placed.push(...laid.placed)
    return laid.left
  }

  /** Puts badges beside labels that have no room for them behind. What finds none is noted as if it had none itself. */
  finish(): void {
    this.placed.forEach((one, i) => {
      const [label] = one.labels
      if (!label || one.badges) return
      let badged = one
      for (const kind of this.badgesFor(one)) {
        const room = roomBeside(label, this.space, this.style)
        if (!room) {
          this.left.push(`${kind}/${one.id}`)
          continue
        }
        this.space.addLabels([room.plot])
        this.space.addLines(room.lines)
        badged = withBadge(badged, kind, room, this.style)
      }
      this.placed[i] = badged
    })
  }

  lead(ask: LeaderAsk): void {
    const content = badged(ask.content, this.badgesFor(ask), this.style)
    this.take(layLeader({ ...ask, content }, this.isInside, this.space, this.style), ask.id)
  }
}

/** A call-out of what is asked, at the end of a leader. */
export const callOf = (
  { id, lines }: Asked,
  style: Style,
  moved: ReadonlyMap<string, Vec>,
  anchors: LeaderAsk['anchors'],
  others: LeaderAsk['anchors'] = [],
): LeaderAsk => ({
  ...{ id, said: lines.map(saidText).join(', '), end: 'arrow', moved: moved.get(id) },
  ...{ content: textContent(lines, style), anchors, others },
})
