import type { Piece, Vec } from '../geometry'
import { mapped, pointAt, radiusOf, vec } from '../geometry'
import type { PaperName, SheetSetup } from '../part'
import { edgesOf, liesOnAxis } from '../section'
import { drawnPlaces, edgePlaceAt } from './asked/drawn'
import type { DrawnPlace } from './asked/drawnPlace'
import { END_AXIS, endSpots, type EndSpot } from './asked/drawnEnds'
import type { PartState } from '../route'
import { movesOf, type SheetContent } from './content'
import type { Group, Item } from './items'
import { acrossSheet, cutsAcross, cuttingLine } from './layout/across'
import { layAlong, type AlongSetting } from './layout/along'
import { arrange, boxOf, type Named, type Sheeted } from './layout/arrange'
import type { BadgesFor } from './layout/marks'
import { textContent } from './layout/contents'
import { detailMark, detailSheet, detailsOf } from './layout/detail'
import { endSheet } from './layout/end'
import type { LeaderAsk } from './layout/leaders'
import { styleFor, type Placed, type Style } from './layout/marks'
import { knurlLines, noteLeaders, threadLines, treatedLines } from './noted'
import { bandOf } from './paper/band'
import type { Scale } from './paper/scales'
import type { Paper } from './paper/sizes'
import { areaOf, ENDLESS, isForced, type Try } from './paper/tries'
import { keyOf, type Seen, type SeenAsk, type SeenLines } from './seen'
import { pictureSheet } from './views/picture'
import { threadEnds } from './views/threadEnds'
import {
  askedIn,
  bodiesIn,
  breaksOf,
  brokenView,
  placeIn,
  seenIn,
  stateIn,
  type Break,
} from './views/long'
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
  { paper, scale, isBroken }: Pick<Try, 'paper' | 'scale' | 'isBroken'>,
  isStrict: boolean,
): Laid {
  const { setup, kind, isHere, hidden, looks } = content
  const style = styleFor(letterOn(paper.name))
  const { by } = scale
  const band = bandOf({ ...content, badgesFor }, paper, style)
  const area = areaOf(paper, band.height)
  const moved = movesOf(setup)
  const find = (ask: SeenAsk | undefined): Seen | undefined => ask && seen.get(keyOf(ask))
  const breaks = isBroken ? breaksIn(content, seen, by) : []
  const state = breaks.length > 0 ? stateIn(breaks, content.state) : content.state
  const bodies = bodiesIn(breaks, content.bodies)
  const asked = breaks.length > 0 ? content.asked.map((a) => askedIn(breaks, a)) : content.asked
  const told = (ask: SeenAsk | undefined): Seen | undefined => {
    const found = find(ask)
    return found && seenIn(breaks, found)
  }
  const { view, open, waves } = brokenView(
    breaks,
    alongView(
      bodies,
      by,
      ({ outside: 'outside', local: 'local', half: 'section', full: 'section' } as const)[kind],
      kind === 'full' ? 'section' : 'outside',
      { outside: told(looks.along), cut: told(looks.cut) },
    ),
    by,
  )
  const small = detailsOf(state, setup, asked, by)
  const cuts = cutsAcross(content.asked, content.bodies, scale, lettersTaken(content, small))
  const elsewhere = new Set([...small, ...cuts].flatMap((d) => d.asked))
  const marks = small.map((d) => detailMark(d, { by, style, moved }))
  const setting: AlongSetting = {
    marks: [...marks.flatMap((m) => m.circle), ...waves],
    ...{ view, by, style, moved, isStrict, sections: bodies.map((b) => b.section), first: [] },
    ...{
      half: kind === 'half' || kind === 'local',
      isCut: kind !== 'outside',
      room: isForced(setup) ? ENDLESS : area,
    },
    badgesFor,
    running: runningFrom(setup, state, view, by),
  }
  const lay = (own: AlongSetting) =>
    layAlong(
      asked.filter((a) => !elsewhere.has(a)),
      [
        ...marks.map((m) => m.ask),
        ...noteLeaders(state, { ...own, isHere, hidden }),
        ...itemLeaders({ state, isHere }, own),
      ],
      {
        ...own,
        first: cuts.flatMap((c) => cuttingLine({ ...c, at: placeIn(breaks, c.at) }, own)),
      },
    )
  const laid = lay(setting)
  // Views stand as they would with every label in its own place, so that dragging one moves no other view.
  const home = moved.size > 0 ? { ...setting, moved: NONE_MOVED } : undefined
  const main: Named = {
    ...{ view, placed: laid.placed, said: 'View along the axis' },
    extra: [
      ...open(threadLines(state, setting, isHere)),
      ...open(treatedLines(state, setting, isHere)),
      // Of a full section the outside is not seen.
      ...(kind === 'full' ? [] : open(knurlLines(state, setting, isHere))),
      ...symmetryLines(state, view, (x) => placeIn(breaks, x) * by, isHere),
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
      endSheet(
        content.bodies,
        asked,
        from,
        own,
        find(ask),
        threadEnds(content.state, from, by, isHere),
      ),
    ),
  }))
  const askew = find(looks.picture)
  const pictured = askew
    ? [{ said: 'Picture', ...pictureSheet(askew, scale.by), left: [] as readonly string[] }]
    : []
  const below = [
    ...cuts.map((c) =>
      beside(`Section ${c.letter}–${c.letter}`, (own) =>
        acrossSheet(c, content.bodies, scale, own, find(looks.across(c.at))),
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
  const places = [
    ...placesOn({ state, bodies }, vec(x + at.x, y + at.y), by),
    ...ends.flatMap((end) => {
      const spot = spots.find((s) => s.sheeted === end)?.at ?? vec(0, 0)
      return placesAtEnd(content, end, vec(x + spot.x, y + spot.y), by)
    }),
  ]
  placed.push(...band.placed.map((p) => ({ placed: p, off: vec(0, 0) })))
  const isWhole = !laid.isStopped && !(isStrict && left.length > 0)
  const fits = isWhole && width <= area.width + 1e-6 && height <= area.height + 1e-6
  return { paper, scale, style, groups, placed, places, left, fits, band: band.groups }
}

/** Where a sheet’s bodies can be broken at a scale; nowhere until what is no full turn was looked at. */
export function breaksIn(
  { bodies, asked, looks }: SheetContent,
  seen: SeenLines,
  by: number,
): Break[] {
  const wanted = [looks.along, looks.cut].flatMap((ask) => ask ?? [])
  const told = wanted.flatMap((ask) => seen.get(keyOf(ask)) ?? [])
  return told.length < wanted.length ? [] : breaksOf(bodies, asked, told, by)
}

/** Where sizes can be drawn from on the view along the axis, on either side of it. */
const placesOn = (
  { state, bodies }: Pick<SheetContent, 'state' | 'bodies'>,
  origin: Vec,
  by: number,
): DrawnPlace[] =>
  bodies
    .flatMap(({ bodyId }) => drawnPlaces(state, bodyId))
    .flatMap((p) =>
      [1, -1].map((side): DrawnPlace => ({
        ...p,
        at: vec(origin.x + p.at.x * by, origin.y + side * p.at.y * by),
      })),
    )

/** Where sizes can be drawn from on the view from an end: what is seen there, and the axis. */
function placesAtEnd(
  { state, bodies }: Pick<SheetContent, 'state' | 'bodies'>,
  { from, view }: { readonly from: 'left' | 'right'; readonly view: View },
  origin: Vec,
  by: number,
): DrawnPlace[] {
  const near = (a: Vec, b: Vec): boolean => Math.hypot(a.x - b.x, a.y - b.y) < SEEN
  const isSeen = ({ what, key, middle, radius }: EndSpot): boolean => {
    const at = vec(middle.x * by, middle.y * by)
    return view.outlines.some((p) => {
      if (p.kind === 'arc' && near(p.centre, at))
        return what === 'point' || Math.abs(radiusOf(p) - radius * by) < SEEN
      return what === 'point' && (key === END_AXIS || near(p.from, at) || near(p.to, at))
    })
  }
  return bodies
    .flatMap(({ bodyId }) => endSpots(state, bodyId, from))
    .filter(isSeen)
    .map(({ end, body, key, what, at }) => ({
      ...{ end, body, key, what },
      at: vec(origin.x + at.x * by, origin.y + at.y * by),
    }))
}

/** So near what is seen a place is taken to be on it, in mm of paper. */
const SEEN = 0.02

/** Where lengths run from. */
function runningFrom(
  { lengths, origin, originAt }: SheetSetup,
  state: PartState,
  { left, right }: View,
  by: number,
): AlongSetting['running'] {
  if (lengths === 'parallel') return undefined
  if (origin !== 'edge') return { auto: 'auto' as const, left, right }[origin]
  const at = originAt && edgePlaceAt(state, originAt)
  return at ? at.x * by : 'auto'
}

/** Letters that sections must not have: datums have them, and details. */
const lettersTaken = (
  { state }: SheetContent,
  details: readonly { readonly letter: string }[],
): ReadonlySet<string> =>
  new Set([
    ...(state.part.notes ?? []).flatMap((n) => (n.kind === 'datum' ? [n.letter] : [])),
    ...details.map((d) => d.letter),
  ])

/** Numbers of bodies are so much higher than other letters. */
const ITEM = 1.6

/** Numbers of the bodies where there are several (ISO 6433:2012). */
function itemLeaders(
  { state, isHere }: Pick<SheetContent, 'state' | 'isHere'>,
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
    const anchorsAt = (share: number): LeaderAsk['anchors'] => {
      const at = pointAt(top.piece, share)
      return [
        { at: vec(at.x * by, at.y * by), out: vec(0, 1) },
        { at: vec(at.x * by, -at.y * by), out: vec(0, -1) },
      ]
    }
    return {
      ...{ id, said: `item ${i + 1}`, end: 'arrow', moved: moved.get(id) },
      content: textContent([{ text: String(i + 1) }], { ...style, letter: ITEM * style.letter }),
      anchors: anchorsAt(0.5),
      others: [0.3, 0.7, 0.15, 0.85].flatMap(anchorsAt),
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
