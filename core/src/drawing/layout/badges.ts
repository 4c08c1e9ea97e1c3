import { line, vec, type Vec } from '../../geometry'
import type { Item } from '../items'
import { widthOf } from '../lettering'
import { ring } from '../views/turned'
import type { Badge, BadgeKind, Placed, Style } from './marks'
import { plot, type Plot, type Seg, type Space } from './space'

/** Half their width. */
export const badgeRadius = ({ letter }: Style): number => 0.92 * letter

/** From a label to its badge, and from the bottom of the label up, so that the line below stays clear, in mm. */
const GAP = 0.7
const LIFT = 0.4
/** Farther away they have a line to their label, in mm. */
const AWAY = [5, 9, 14, 20, 28, 38, 50, 65, 80]

interface Room {
  readonly centre: Vec
  readonly plot: Plot
  readonly lines: readonly Seg[]
}

/** From the line that a text stands on to the lower edge of a badge behind it, in mm. */
const ABOVE_LINE = 0.5

/** How much longer a text becomes by badges behind it. */
export const badgesWidth = (kinds: readonly BadgeKind[], style: Style): number =>
  kinds.length * (2 * badgeRadius(style) + GAP)

/** How high they reach above the line. */
export const badgesHeight = (kinds: readonly BadgeKind[], style: Style): number =>
  kinds.length === 0 ? 0 : ABOVE_LINE + 2 * badgeRadius(style)

/** Badges behind a text: how far along from its end each middle is, and how far above its line. */
export const badgesBehind = (
  kinds: readonly BadgeKind[],
  style: Style,
): readonly { readonly kind: BadgeKind; readonly along: number; readonly above: number }[] =>
  kinds.map((kind, i) => {
    const r = badgeRadius(style)
    return { kind, along: GAP + r + i * (2 * r + GAP), above: ABOVE_LINE + r }
  })

/** What a badge takes up. */
export const badgePlot = ({ x, y }: Vec, style: Style): Plot => {
  const r = badgeRadius(style)
  return plot(x - r, y - r, x + r, y + r)
}

/** A place beside a label where a badge covers nothing; undefined where there is none. */
export function roomBeside(label: Plot, space: Space, style: Style): Room | undefined {
  const r = badgeRadius(style)
  const round = (centre: Vec): Plot => badgePlot(centre, style)
  for (const centre of beside(label, r)) {
    if (space.hasRoom(round(centre))) return { centre, plot: round(centre), lines: [] }
  }
  let best: { readonly room: Room; readonly cost: number } | undefined
  for (const away of AWAY) {
    for (let i = 0; i < 16; i++) {
      const way = vec(Math.cos((i * Math.PI) / 8), Math.sin((i * Math.PI) / 8))
      const from = vec(
        way.x > 0.3 ? label.x1 : way.x < -0.3 ? label.x0 : (label.x0 + label.x1) / 2,
        way.y > 0.3 ? label.y1 : way.y < -0.3 ? label.y0 : (label.y0 + label.y1) / 2,
      )
      const centre = vec(from.x + way.x * (away + r), from.y + way.y * (away + r))
      if (!space.hasRoom(round(centre))) continue
      const seg = {
        a: vec(from.x + way.x * 0.9, from.y + way.y * 0.9),
        b: vec(centre.x - way.x * r, centre.y - way.y * r),
      }
      if (!space.isClear(seg)) continue
      const { lines, outlines } = space.crossings(seg)
      const cost = away + 6 * lines + 12 * outlines
      if (best && best.cost <= cost) continue
      best = { cost, room: { centre, plot: round(centre), lines: [seg] } }
    }
  }
  return best?.room
}

/** Places right beside a label: at its ends first. */
function* beside({ x0, y0, x1, y1 }: Plot, r: number): Generator<Vec> {
  const across = [(y0 + y1) / 2, y0 + LIFT + r, y1 - LIFT - r]
  const along = [(x0 + x1) / 2, x1 - LIFT - r, x0 + LIFT + r]
  for (const y of across) {
    yield vec(x1 + GAP + r, y)
    yield vec(x0 - GAP - r, y)
  }
  for (const x of along) {
    yield vec(x, y1 + GAP + r)
    yield vec(x, y0 - GAP - r)
  }
}

/** What is placed, with a badge beside it. */
export const withBadge = (
  placed: Placed,
  kind: BadgeKind,
  { centre, plot: taken, lines }: Room,
  style: Style,
): Placed => ({
  ...placed,
  labels: [...placed.labels, taken],
  lines: [...placed.lines, ...lines],
  items: [
    ...placed.items,
    ...badgeItems(kind, centre, style),
    ...lines.map(({ a, b }): Item => ({
      ...{ kind: 'stroke', line: 'narrow', runs: [[line(a, b)]] },
    })),
  ],
  badges: [...(placed.badges ?? []), { kind, centre }],
})

export function badgeItems(kind: BadgeKind, centre: Vec, style: Style): Item[] {
  const r = badgeRadius(style)
  if (kind === 'number') return [{ kind: 'stroke', line: 'narrow', runs: [ring(centre, r)] }]
  const [a, b, c] = [
    vec(centre.x - r, centre.y - r),
    vec(centre.x + r, centre.y - r),
    vec(centre.x, centre.y + r),
  ]
  return [{ kind: 'stroke', line: 'narrow', runs: [[line(a, b), line(b, c), line(c, a)]] }]
}

/** A number within its circle, or the mark of a change within its triangle. */
export function badgeWords(text: string, { kind, centre }: Badge, style: Style): Item {
  const r = badgeRadius(style)
  const isRound = kind === 'number'
  const room = isRound ? 1.5 * r : 0.9 * r
  const height = Math.min((isRound ? 0.75 : 0.6) * style.letter, room / widthOf(text, 1))
  const low = isRound ? centre.y - height / 2 : centre.y - 0.78 * r
  return {
    ...{ kind: 'words', height, turned: false, text },
    at: vec(centre.x - widthOf(text, height) / 2, low),
  }
}
