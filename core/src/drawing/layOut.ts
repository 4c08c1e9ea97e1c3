import type { Piece, Vec } from '../geometry'
import { mapped, vec } from '../geometry'
import type { PaperName, SheetSetup } from '../part'
import { edgesOf, liesOnAxis } from '../section'
import { drawnPlaces, type DrawnPlace } from './asked/drawn'
import { movesOf, type SheetContent } from './content'
import type { Group, Item } from './items'
import { acrossSheet, cutsAcross, cuttingLine } from './layout/across'
import { layAlong, type AlongSetting } from './layout/along'
import { arrange, boxOf, type Named, type Sheeted } from './layout/arrange'
import type { BadgesFor } from './layout/marks'
import { cellContent } from './layout/contents'
import { detailMark, detailSheet, detailsOf } from './layout/detail'
import { endSheet } from './layout/end'
import type { LeaderAsk } from './layout/leaders'
import { styleFor, type Placed, type Style } from './layout/marks'
import { noteLeaders, threadLines, treatedLines } from './noted'
import { bandOf } from './paper/band'
import type { Scale } from './paper/scales'
import type { Paper } from './paper/sizes'
import { areaOf, ENDLESS, isForced, type Try } from './paper/tries'
import { keyOf, type Seen, type SeenAsk, type SeenLines } from './seen'
import { pictureSheet } from './views/picture'
import { threadEnds } from './views/threadEnds'
import { symmetryLines } from './views/symmetry'
import { alongView, type View } from './views/turned'

/** A sheet as it was laid out on a paper at a scale. */
export interface Laid {
  readonly paper: Paper
  readonly scale: Scale
  readonly style: Style
  readonly groups: readonly Group[]
  readonly placed: readonly { readonly placed: Placed; readonly off: Vec }[]
  /** Where sizes can be drawn from. */
  readonly places: readonly DrawnPlace[]
  readonly left: readonly string[]
  readonly fits: boolean
  readonly band: readonly Group[]
}

/** Height of letters in mm: larger on the largest sheets (ISO 3098-1:2015, Table 1). */
const letterOn = (name: PaperName): number => (name === 'A0' || name === 'ANSI E' ? 5 : 3.5)

const NONE_MOVED: ReadonlyMap<string, Vec> = new Map()

export function layOut(
  content: SheetContent,
  seen: SeenLines,
  badgesFor: BadgesFor,
  { paper, scale }: Pick<Try, 'paper' | 'scale'>,
  isStrict: boolean,
): Laid {
  const { state, setup, bodies, kind, isHere, hidden, looks, asked } = content
  const style = styleFor(letterOn(paper.name))
  const { by } = scale
  const { revisions } = content.drawing
  const band = bandOf({ ...content, revisions, badgesFor }, paper, style)
  const area = areaOf(paper, band.height)
  const moved = movesOf(setup)
  const find = (ask: SeenAsk | undefined): Seen | undefined => ask && seen.get(keyOf(ask))
  const view = alongView(
    bodies,
    by,
    kind === 'outside' ? 'outside' : 'section',
    kind === 'full' ? 'section' : 'outside',
    { outside: find(looks.along), cut: find(looks.cut) },
  )
  const small = setup.details === 'none' ? [] : detailsOf(state, asked, by)
  const cuts = cutsAcross(asked, bodies, scale, lettersTaken(content, small))
  const elsewhere = new Set([...small, ...cuts].flatMap((d) => d.asked))
  const marks = small.map((d) => detailMark(d, { by, style }))
  const setting: AlongSetting = {
    marks: marks.flatMap((m) => m.circle),
    ...{ view, by, style, moved, isStrict, sections: bodies.map((b) => b.section), first: [] },
    ...{ half: kind === 'half', isCut: kind !== 'outside', room: isForced(setup) ? ENDLESS : area },
    badgesFor,
    running: runningFrom(setup, view),
  }
  const lay = (own: AlongSetting) =>
    layAlong(
      asked.filter((a) => !elsewhere.has(a)),
      [
        ...marks.map((m) => m.ask),
        ...noteLeaders(state, { ...own, isHere, hidden }),
        ...itemLeaders(content, own),
      ],
      { ...own, first: cuts.flatMap((c) => cuttingLine(c, own)) },
    )
  const laid = lay(setting)
  // Views stand as they would with every label in its own place, so that dragging one moves no other view.
  const home = moved.size > 0 ? { ...setting, moved: NONE_MOVED } : undefined
  const main: Named = {
    ...{ view, placed: laid.placed, said: 'View along the axis' },
    extra: [
      ...threadLines(state, setting, isHere),
      ...treatedLines(state, setting, isHere),
      ...symmetryLines(state, view, by, isHere),
      ...marks.map((m) => strokeOf(m.circle)),
    ],
    box: boxOf(view, (home ? lay(home) : laid).placed),
  }
  /** A view beside it: laid out, and its room as it would be with nothing dragged. */
  const beside = (
    said: string,
    make: (own: AlongSetting) => Sheeted & { left: readonly string[] },
  ) => ({
    ...{ said, ...make(setting) },
    ...(home ? { box: make(home).box } : {}),
  })
  const ends = [...looks.ends].map(([from, ask]) => ({
    from,
    ...beside(`View from the ${from}`, (own) =>
      endSheet(bodies, asked, from, own, find(ask), threadEnds(state, from, by, isHere)),
    ),
  }))
  const askew = find(looks.picture)
  const pictured = askew
    ? [{ said: 'Picture', ...pictureSheet(askew, scale.by), left: [] as readonly string[] }]
    : []
  const below = [
    ...cuts.map((c) =>
      beside(`Section ${c.letter}–${c.letter}`, (own) =>
        acrossSheet(c, bodies, scale, own, find(looks.across(c.at))),
      ),
    ),
    ...small.map((d) =>
      beside(`Detail ${d.letter}, ${d.scale.words}`, (own) => detailSheet(d, bodies, own)),
    ),
    ...pictured,
  ]
  const { spots, width, height } = arrange(main, ends, below, setup.projection, area.width)
  const left = [...laid.left, ...[...ends, ...below].flatMap((e) => e.left)]
  const x = area.x + Math.max(0, (area.width - width) / 2)
  const y = area.y + Math.max(0, (area.height - height) / 2)
  const groups: Group[] = []
  const placed: { placed: Placed; off: Vec }[] = []
  for (const { sheeted, at, said } of spots) {
    const off = vec(x + at.x, y + at.y)
    groups.push({
      ...{ role: 'view', id: '', said },
      items: [...sheeted.view.items, ...sheeted.extra].map((i) => shifted(i, off)),
    })
    placed.push(...sheeted.placed.map((p) => ({ placed: p, off })))
  }
  const at = spots.find((s) => s.sheeted === main)?.at ?? vec(0, 0)
  const places = placesOn(content, vec(x + at.x, y + at.y), by)
  placed.push(...band.placed.map((p) => ({ placed: p, off: vec(0, 0) })))
  const isWhole = !laid.isStopped && !(isStrict && left.length > 0)
  const fits = isWhole && width <= area.width + 1e-6 && height <= area.height + 1e-6
  return { paper, scale, style, groups, placed, places, left, fits, band: band.groups }
}

/** Where sizes can be drawn from on the view along the axis, on either side of it. */
const placesOn = ({ state, bodies }: SheetContent, origin: Vec, by: number): DrawnPlace[] =>
  bodies
    .flatMap(({ bodyId }) => drawnPlaces(state, bodyId))
    .flatMap((p) =>
      [1, -1].map((side): DrawnPlace => ({
        ...p,
        at: vec(origin.x + p.at.x * by, origin.y + side * p.at.y * by),
      })),
    )

/** Where lengths run from. */
const runningFrom = (
  { lengths, origin }: SheetSetup,
  { left, right }: View,
): AlongSetting['running'] =>
  lengths === 'parallel' ? undefined : { auto: 'auto' as const, left, right }[origin]

/** Letters that sections must not have: datums have them, and details. */
const lettersTaken = (
  { state }: SheetContent,
  details: readonly { readonly letter: string }[],
): ReadonlySet<string> =>
  new Set([
    ...(state.part.notes ?? []).flatMap((n) => (n.kind === 'datum' ? [n.letter] : [])),
    ...details.map((d) => d.letter),
  ])

/** Numbers of the bodies where there are several (ISO 6433:2012). */
function itemLeaders(
  { state, isHere }: SheetContent,
  { by, style, moved }: AlongSetting,
): LeaderAsk[] {
  const own = state.bodies.filter(
    (b) => !b.reference && b.section.regions.length > 0 && isHere(b.bodyId),
  )
  if (own.length < 2) return []
  return own.map(({ bodyId, section }, i): LeaderAsk => {
    const id = `item/${bodyId}`
    const edges = edgesOf(section).filter((e) => !liesOnAxis(e))
    const top = edges.reduce(
      (a, b) => (b.piece.from.y > a.piece.from.y ? b : a),
      edges[0] as (typeof edges)[number],
    )
    const at = vec(
      ((top.piece.from.x + top.piece.to.x) / 2) * by,
      ((top.piece.from.y + top.piece.to.y) / 2) * by,
    )
    return {
      ...{ id, said: `item ${i + 1}`, end: 'dot', moved: moved.get(id) },
      content: cellContent([{ words: String(i + 1) }], true, style),
      anchors: [
        { at, out: vec(0, 1) },
        { at: vec(at.x, -at.y), out: vec(0, -1) },
      ],
    }
  })
}

const strokeOf = (pieces: readonly Piece[]): Item => ({
  ...{ kind: 'stroke', line: 'narrow', runs: [pieces] },
})

/** What stands somewhere else by so much. */
export function shifted(item: Item, by: Vec): Item {
  const put = (p: Vec): Vec => vec(p.x + by.x, p.y + by.y)
  switch (item.kind) {
    case 'stroke':
      return { ...item, runs: item.runs.map((run) => run.map((p) => mapped(p, put, false))) }
    case 'fill':
      return { ...item, loops: item.loops.map((loop) => loop.map((p) => mapped(p, put, false))) }
    case 'words':
      return { ...item, at: put(item.at) }
  }
}
