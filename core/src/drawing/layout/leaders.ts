import { line, rotate, vec, type Vec } from '../../geometry'
import type { Item } from '../items'
import type { Badge } from './marks'
import { head, narrow, straight, type Placed, type Style } from './marks'
import { plot, type Plot, type Seg, type Space } from './space'

/** What stands at the end of a leader, drawn from its lower left corner. */
export interface Content {
  readonly width: number
  readonly height: number
  /** How high the line it stands on is above that corner: leaders end there. */
  readonly shelf: number
  /** Whether that line is drawn under it. */
  readonly isUnderlined: boolean
  draw(at: Vec): readonly Item[]
  /** Badges that it has, drawn already. */
  badgesAt?(at: Vec): readonly Badge[]
}

export interface LeaderAsk {
  readonly id: string
  readonly said: string
  /** Places that it may point at, with the way out of the material there. */
  readonly anchors: readonly { readonly at: Vec; readonly out: Vec }[]
  /** More of them, where those lead to no good place. */
  readonly others?: LeaderAsk['anchors']
  readonly content: Content
  /** How it ends at the part: an arrow, the triangle of a datum. */
  readonly end: 'arrow' | 'datum' | 'none'
  readonly moved?: Vec | undefined
}

const DEGREE = Math.PI / 180
const ANGLES = [30, -30, 45, -45, 15, -15, 60, -60, 0, 75, -75].map((d) => d * DEGREE)
const FEW = [30, -30, 0, 60, -60].map((d) => d * DEGREE)
/** A leader that is straight out is best for datums. */
const STRAIGHT = [0, 15, -15, 30, -30, 45, -45, 60, -60].map((d) => d * DEGREE)
const LENGTHS = [7, 10, 13, 16, 20, 24, 28, 33, 38, 44, 50, 57, 65, 75, 90, 110]
/** From the leader's bend to what it carries, in mm. */
const FOOT = 1.5

/**
 * Finds a place for what stands at the end of a leader: near by, crossing little, covering nothing.
 * @param isInside whether a place lies within the view
 */
export function layLeader(
  ask: LeaderAsk,
  isInside: (p: Vec) => boolean,
  space: Space,
  style: Style,
): Placed | undefined {
  const [anchor] = ask.anchors
  if (ask.moved && anchor) {
    const bend = vec(anchor.at.x + ask.moved.x, anchor.at.y + ask.moved.y)
    return drawn(ask, anchor, planned(ask, anchor, bend), style)
  }
  const near = bestOf(ask, ask.anchors, ask.end === 'datum' ? STRAIGHT : ANGLES, isInside, space)
  const others =
    near && near.cost < GOOD ? undefined : bestOf(ask, ask.others ?? [], FEW, isInside, space)
  const best = near && others ? (others.cost < near.cost ? others : near) : (near ?? others)
  return best && drawn(ask, best.anchor, best.plan, style)
}

/** A place that costs less is good enough. */
const GOOD = 32

interface Best {
  readonly cost: number
  readonly anchor: Anchor
  readonly plan: Plan
}

function bestOf(
  ask: LeaderAsk,
  anchors: LeaderAsk['anchors'],
  angles: readonly number[],
  isInside: (p: Vec) => boolean,
  space: Space,
): Best | undefined {
  let best: Best | undefined
  for (const length of LENGTHS) {
    // What is farther away costs more by itself.
    if (best && length > best.cost) break
    for (const one of anchors) {
      for (const angle of angles) {
        const own = length + 4 * Math.abs(angle)
        if (best && own >= best.cost) continue
        const way = rotate(one.out, angle)
        const plan = planned(ask, one, vec(one.at.x + way.x * length, one.at.y + way.y * length))
        const more = costOf(plan, isInside, space)
        if (more !== undefined && own + more < (best?.cost ?? Infinity)) {
          best = { cost: own + more, anchor: one, plan }
        }
      }
    }
  }
  return best
}

const NO_ANCHOR = { at: vec(0, 0), out: vec(0, 1) }

type Anchor = LeaderAsk['anchors'][number]

/** Where the parts of a leader would stand. */
interface Plan {
  readonly bend: Vec
  readonly corner: Vec
  readonly label: Plot
  readonly lines: readonly Seg[]
}

function planned({ content, end }: LeaderAsk, { at: foot, out }: Anchor, bend: Vec): Plan {
  const { width, height, shelf } = content
  // What a datum's triangle carries stands straight above or below it.
  if (end === 'datum' && Math.abs(out.y) > 0.9 && Math.abs(bend.x - foot.x) < 0.01) {
    const corner = vec(bend.x - width / 2, out.y > 0 ? bend.y : bend.y - height)
    return {
      ...{ bend, corner, lines: [{ a: foot, b: bend }] },
      label: plot(corner.x, corner.y, corner.x + width, corner.y + height),
    }
  }
  const toRight = bend.x >= foot.x
  const x = toRight ? bend.x + FOOT : bend.x - FOOT - width
  const corner = vec(x, bend.y - shelf)
  const shelfEnd = content.isUnderlined ? (toRight ? x + width : x) : toRight ? x : x + width
  // What stands on its own line does not count it as in the way.
  const lift = content.isUnderlined && shelf === 0 ? 0.5 : 0
  return {
    ...{ bend, corner },
    label: plot(corner.x, corner.y + lift, corner.x + width, corner.y + height),
    lines: [
      { a: foot, b: bend },
      { a: bend, b: vec(shelfEnd, bend.y) },
    ],
  }
}

/** What a place costs besides its distance; undefined where it is none. */
function costOf(
  { label, lines }: Plan,
  isInside: (p: Vec) => boolean,
  space: Space,
): number | undefined {
  if (!space.hasRoom(label) || !lines.every((l) => space.isClear(l))) return undefined
  // What crosses no outline lies all within the view, or all outside it.
  if (isInside(vec((label.x0 + label.x1) / 2, (label.y0 + label.y1) / 2))) return undefined
  return lines.reduce((sum, l) => {
    const { lines: over, outlines } = space.crossings(l)
    return sum + 5 * over + 14 * outlines
  }, 0)
}

function drawn(
  { id, said, content, end: kind, anchors: [first = NO_ANCHOR] }: LeaderAsk,
  { at: foot, out }: Anchor,
  { bend, corner, label, lines }: Plan,
  style: Style,
): Placed {
  const length = Math.hypot(bend.x - foot.x, bend.y - foot.y)
  const way = length > 0 ? vec((foot.x - bend.x) / length, (foot.y - bend.y) / length) : vec(0, -1)
  return {
    ...{ id, said, lines, labels: [label], at: bend },
    moves: straight(vec(bend.x - first.at.x, bend.y - first.at.y)),
    ...(content.badgesAt ? { badges: content.badgesAt(corner) } : {}),
    items: [narrow(lines), ...endOf(kind, foot, way, out, style), ...content.draw(corner)],
  }
}

function endOf(kind: LeaderAsk['end'], foot: Vec, way: Vec, out: Vec, style: Style): Item[] {
  if (kind === 'none') return []
  if (kind === 'arrow') return [head(foot, way, style.arrow)]
  // The triangle stands on the face (ISO 5459:2011, 7.2.1).
  const size = style.arrow
  const [s, t] = [vec(-out.y, out.x), vec(foot.x + out.x * size, foot.y + out.y * size)]
  const one = vec(foot.x + (s.x * size) / 1.7, foot.y + (s.y * size) / 1.7)
  const other = vec(foot.x - (s.x * size) / 1.7, foot.y - (s.y * size) / 1.7)
  return [{ kind: 'fill', tone: 'ink', loops: [[line(one, other), line(other, t), line(t, one)]] }]
}
