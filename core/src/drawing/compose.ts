import { mapped, vec, type Piece, type Vec } from '../geometry'
import { massProperties, materialOf } from '../inspect'
import { once } from '../once'
import { PLAIN_SHEET, type PaperName, type SheetSetup } from '../part'
import type { PartState } from '../route'
import { edgesOf, liesOnAxis } from '../section'
import { generalWords } from '../standards'
import { formatMass } from '../units'
import { askedOf } from './asked'
import type { Group, Item } from './items'
import { layAlong, type AlongSetting } from './layout/along'
import { arrange, boxOf, type Named } from './layout/arrange'
import { cellContent } from './layout/contents'
import { detailMark, detailSheet, detailsOf } from './layout/detail'
import { endSheet, endsFor } from './layout/end'
import type { LeaderAsk } from './layout/leaders'
import { styleFor, type Moves, type Placed } from './layout/marks'
import { noteLeaders, threadLines, treatedLines } from './noted'
import { bandOf } from './paper/band'
import { fieldAt, frameOf } from './paper/frame'
import { readScale, SCALES, type Scale } from './paper/scales'
import { paperOf, type Paper } from './paper/sizes'
import { titleOf } from './paper/title'
import {
  areaOf,
  ENDLESS,
  fitsBare,
  isForced,
  ONE,
  papersFor,
  triesFor,
  type Try,
} from './paper/tries'
import { NOTHING_SEEN, type SeenFrom, type SeenLines } from './seen'
import { isHollow, shownBodies } from './views/shown'
import { alongView, type Shown } from './views/turned'

/** A sheet, ready to be written: everything on it in mm of paper. */
export interface Drawing {
  readonly paper: Paper
  readonly scale: Scale
  /** Width of outlines in mm. */
  readonly lines: number
  readonly groups: readonly Group[]
  /** Where the label of each dimension and note stands, and the field of the grid it is in. */
  readonly labels: ReadonlyMap<string, SheetLabel>
  /** What the reader of it should know: sizes that found no room, views that are simplified. */
  readonly told: readonly string[]
}

export interface SheetLabel extends Moves {
  readonly at: Vec
  readonly field: string
  readonly said: string
}

/** Height of letters in mm: larger on the largest sheets (ISO 3098-1:2015, Table 1). */
const letterOn = (name: PaperName): number => (name === 'A0' || name === 'ANSI E' ? 5 : 3.5)

/**
 * The sheet of a part as it stands; undefined where nothing is turned yet.
 * @param seen what the kernel told of bodies that are no full turn, see `viewsToSee`; as full turns where it has not
 */
export const drawSheet = (state: PartState, seen = NOTHING_SEEN): Drawing | undefined =>
  sheetsFor(seen)(state)

/** What of a part the kernel has to look at before its sheet can be drawn. */
export function viewsToSee(state: PartState): SeenFrom[] {
  if (!state.bodies.some((b) => b.plan && !b.reference)) return []
  const setup = state.part.sheet ?? PLAIN_SHEET
  return ['along', ...endsFor(state, setup, askedOf(state).asked)]
}

const sheetsFor = once((seen: SeenLines) => once((state: PartState) => sheetOf(state, seen)))

function sheetOf(state: PartState, seen: SeenLines): Drawing | undefined {
  const bodies = shownBodies(state)
  if (bodies.length === 0) return undefined
  const setup = state.part.sheet ?? PLAIN_SHEET
  const tries = triesFor(state.part, setup, bodies)
  // First so that everything has its place; else as much of it as will.
  const made =
    firstFitting(tries, (t) => layOut(state, bodies, setup, seen, t, true)) ??
    firstFitting(tries, (t) => layOut(state, bodies, setup, seen, t, false)) ??
    smallest(state, bodies, setup, seen)
  return finished(state, setup, made, toldOfSeen(state, setup, bodies, seen))
}

function firstFitting(tries: readonly Try[], make: (t: Try) => Laid): Laid | undefined {
  for (const one of tries) {
    const made = make(one)
    if (made.fits) return made
  }
  return undefined
}

/** Where nothing fits: the smallest scale on the last paper. */
function smallest(
  state: PartState,
  bodies: readonly Shown[],
  setup: SheetSetup,
  seen: SeenLines,
): Laid {
  const paper = papersFor(state.part, setup).at(-1) ?? paperOf('A3', false)
  const scale =
    readScale(setup.scale) ?? SCALES.find((s) => fitsBare(bodies, paper, s)) ?? SCALES.at(-1)
  const told = { ...setup, paper: paper.name, scale: (scale ?? ONE).words }
  return layOut(state, bodies, told, seen, { paper, scale: scale ?? ONE }, false)
}

interface Laid {
  readonly paper: Paper
  readonly scale: Scale
  readonly groups: readonly Group[]
  readonly placed: readonly { readonly placed: Placed; readonly off: Vec }[]
  readonly left: readonly string[]
  readonly fits: boolean
  readonly band: readonly Group[]
}

const NONE_MOVED: ReadonlyMap<string, Vec> = new Map()

function layOut(
  state: PartState,
  bodies: readonly Shown[],
  setup: SheetSetup,
  seen: SeenLines,
  { paper, scale }: Pick<Try, 'paper' | 'scale'>,
  isStrict: boolean,
): Laid {
  const style = styleFor(letterOn(paper.name))
  const { by } = scale
  const { asked, beside } = askedOf(state)
  const band = bandOf(state, paper, style, beside)
  const area = areaOf(paper, band.height)
  const moved = new Map(setup.moved.map((m) => [m.id, vec(m.x, m.y)]))
  const kind = kindOf(setup, bodies)
  const view = alongView(
    bodies,
    by,
    kind === 'outside' ? 'outside' : 'section',
    kind === 'full' ? 'section' : 'outside',
    seen.along,
  )
  const small = setup.details === 'none' ? [] : detailsOf(state, asked, by)
  const inDetails = new Set(small.flatMap((d) => d.asked))
  const marks = small.map((d) => detailMark(d, { by, style }))
  const setting: AlongSetting = {
    marks: marks.flatMap((m) => m.circle),
    ...{ view, by, style, moved, isStrict, sections: bodies.map((b) => b.section) },
    ...{ half: kind === 'half', isCut: kind !== 'outside', room: isForced(setup) ? ENDLESS : area },
  }
  const lay = (own: AlongSetting) =>
    layAlong(
      asked.filter((a) => !inDetails.has(a)),
      [...marks.map((m) => m.ask), ...noteLeaders(state, own), ...balloons(state, own)],
      own,
    )
  const laid = lay(setting)
  // Views stand as they would with every label in its own place, so that dragging one moves no other view.
  const home = moved.size > 0 ? { ...setting, moved: NONE_MOVED } : undefined
  const main: Named = {
    ...{ view, placed: laid.placed, said: 'View along the axis' },
    extra: [
      ...threadLines(state, by, setting.half, setting.isCut),
      ...treatedLines(state, by, style),
      ...marks.map((m) => strokeOf(m.circle)),
    ],
    box: boxOf(view, (home ? lay(home) : laid).placed),
  }
  const ends = endsFor(state, setup, asked).map((from) => ({
    ...{ from, said: `View from the ${from}` },
    ...endSheet(bodies, asked, from, setting, seen),
    ...(home ? { box: endSheet(bodies, asked, from, home, seen).box } : {}),
  }))
  const details = small.map((d) => ({
    said: `Detail ${d.letter}, ${d.scale.words}`,
    ...detailSheet(d, bodies, setting),
    ...(home ? { box: detailSheet(d, bodies, home).box } : {}),
  }))
  const { spots, width, height } = arrange(main, ends, details, setup.projection)
  const left = [...laid.left, ...[...ends, ...details].flatMap((e) => e.left)]
  const x = area.x + Math.max(0, (area.width - width) / 2)
  const y = area.y + Math.max(0, (area.height - height) / 2)
  const groups: Group[] = []
  const placed: { placed: Placed; off: Vec }[] = []
  for (const { sheeted, at, said } of spots) {
    const off = vec(x + at.x, y + at.y)
    groups.push({
      role: 'view',
      id: '',
      said,
      items: [...sheeted.view.items, ...sheeted.extra].map((i) => shifted(i, off)),
    })
    placed.push(...sheeted.placed.map((p) => ({ placed: p, off })))
  }
  const isWhole = !laid.isStopped && !(isStrict && left.length > 0)
  const fits = isWhole && width <= area.width + 1e-6 && height <= area.height + 1e-6
  return { paper, scale, groups, placed, left, fits, band: band.groups }
}

/** Numbers of the bodies where there are several (ISO 6433:2012). */
function balloons(state: PartState, { by, style, moved }: AlongSetting): LeaderAsk[] {
  const own = state.bodies.filter((b) => !b.reference && b.section.regions.length > 0)
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

function shifted(item: Item, by: Vec): Item {
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

function finished(
  state: PartState,
  setup: SheetSetup,
  made: Laid,
  more: readonly string[],
): Drawing {
  const { part } = state
  const { paper, scale } = made
  const mass = massProperties(
    part,
    state.bodies.filter((b) => !b.reference),
  )
  const materials = new Set(
    state.bodies
      .filter((b) => !b.reference && b.section.regions.length > 0)
      .map((b) => materialOf(part, b.bodyId)?.name ?? ''),
  )
  const title = titleOf(paper, setup.title, {
    ...{ name: part.name, scale: scale.words, projection: setup.projection, sheet: '1 / 1' },
    material:
      materials.size === 1 ? ([...materials][0] ?? '') : materials.size > 1 ? 'see the list' : '',
    mass: mass && mass.mass > 0 ? formatMass(mass.mass, part.units) : '',
    general: generalWords(part) ?? '',
  })
  const labels = new Map(
    made.placed.map(({ placed, off }) => {
      const at = vec(placed.at.x + off.x, placed.at.y + off.y)
      return [
        placed.id,
        { at, field: fieldAt(paper, at), said: placed.said, ...placed.moves },
      ] as const
    }),
  )
  const placed = made.placed.map(({ placed: p, off }): Group => ({
    role: p.id.startsWith('note/') ? 'note' : 'size',
    ...{ id: p.id, said: p.said, items: p.items.map((i) => shifted(i, off)) },
  }))
  return {
    ...{ paper, scale, labels, lines: Number(setup.lines) },
    groups: [frameOf(paper), ...made.groups, ...placed, ...made.band, title],
    told: [...toldOf(state, made, setup), ...more],
  }
}

/** How the part is seen along its axis. */
const kindOf = ({ view }: SheetSetup, bodies: readonly Shown[]): 'outside' | 'half' | 'full' =>
  view !== 'auto' ? view : isHollow(bodies) ? 'half' : 'outside'

/** What of bodies that are no full turn is not drawn as it is. */
function toldOfSeen(
  state: PartState,
  setup: SheetSetup,
  bodies: readonly Shown[],
  seen: SeenLines,
): string[] {
  const wanted = viewsToSee(state)
  if (wanted.length === 0) return []
  if (wanted.some((from) => !seen[from])) {
    return ['Holes, flats and slots are not in the views yet: the solid is being looked at.']
  }
  return kindOf(setup, bodies) === 'outside'
    ? []
    : ['The section is that of the full turn: holes, flats and slots are not cut in it.']
}

function toldOf(state: PartState, { left, fits, paper, scale }: Laid, setup: SheetSetup): string[] {
  const n = left.length
  return [
    ...(fits
      ? []
      : [
          `At ${scale.words} the views do not fit on ${paper.name}: choose a larger sheet or a smaller scale.`,
        ]),
    ...(n === 0
      ? []
      : [
          `${n} ${n === 1 ? 'label' : 'labels'} found no room and ${n === 1 ? 'is' : 'are'} left out: choose a larger sheet or scale.`,
        ]),
    ...(setup.scale !== '' && !readScale(setup.scale)
      ? [`“${setup.scale}” is no scale: write one as in 1:2.`]
      : []),
    ...state.steps.flatMap((s) =>
      s.status === 'failed'
        ? [
            `Step ${state.part.route.find((r) => r.id === s.stepId)?.number ?? ''} fails, and is not drawn.`,
          ]
        : [],
    ),
  ]
}
