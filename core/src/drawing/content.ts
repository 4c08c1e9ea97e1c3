import { vec, type Vec } from '../geometry'
import { once } from '../once'
import { PLAIN_DRAWING, type DrawingSetup, type Part, type SheetSetup } from '../part'
import type { PartState } from '../route'
import { askedOf, cutPlace, endOf, type Asked } from './asked'
import { drawnSizes } from './asked/drawn'
import { endsFor } from './layout/end'
import type { SeenAsk } from './seen'
import { hollowShare } from './views/local'
import { isHollow, shownBodies } from './views/shown'
import type { Shown } from './views/shown'

/** What stands on one sheet of a part. */
export interface SheetContent {
  readonly state: PartState
  readonly drawing: DrawingSetup
  readonly setup: SheetSetup
  /** Which of the sheets it is, from 0. */
  readonly index: number
  readonly bodies: readonly Shown[]
  readonly isHere: (body: string) => boolean
  readonly asked: readonly Asked[]
  /** Values that have no place on a view. */
  readonly beside: readonly Asked[]
  readonly hidden: ReadonlySet<string>
  /** How many sizes that were drawn have lost a place, and how many stand on an end that is not shown. */
  readonly drawn: { readonly lost: number; readonly unseen: number }
  /** How the part is seen along its axis. */
  readonly kind: 'outside' | 'local' | 'half' | 'full'
  readonly looks: Looks
}

/** What the kernel is asked for each view. */
export interface Looks {
  readonly along?: SeenAsk
  readonly cut?: SeenAsk
  readonly ends: ReadonlyMap<'left' | 'right', SeenAsk>
  readonly picture?: SeenAsk
  /** Across the axis at a place of it. */
  readonly across: (at: number) => SeenAsk
  /** What it has to be asked indeed: nothing where all is a full turn. */
  readonly all: readonly SeenAsk[]
}

/** The drawing of a part, or the plain one. */
export const drawingOf = (part: Part): DrawingSetup => part.drawing ?? PLAIN_DRAWING

/** What stands on each sheet of a part; nothing where nothing is turned. */
export const contentsOf = once((state: PartState): readonly (SheetContent | undefined)[] => {
  const drawing = drawingOf(state.part)
  return drawing.sheets.map((setup, index) => contentOf(state, drawing, setup, index))
})

function contentOf(
  state: PartState,
  drawing: DrawingSetup,
  setup: SheetSetup,
  index: number,
): SheetContent | undefined {
  const bodies = shownBodies(state, setup.body)
  if (bodies.length === 0) return undefined
  // Where the first sheet is of all bodies, sizes of those with a sheet of their own stand there.
  const apart = new Set(drawing.sheets.flatMap((s) => (s.body === '' ? [] : [s.body])))
  const isHere = (body: string): boolean => setup.body === '' || body === setup.body
  const isOwn = ({ body }: Asked): boolean =>
    setup.body === '' ? !apart.has(body) : body === setup.body
  const hidden = new Set(setup.hidden)
  const all = askedOf(state)
  const shown = (list: readonly Asked[]): Asked[] =>
    list
      .filter(isOwn)
      .flatMap((a) => (setup.sections === 'auto' && a.parts ? a.parts : [a]))
      .filter((a) => !hidden.has(a.id))
  const onViews = shown(all.asked)
  const drawn = drawnSizes(state, setup)
  const ends = endsFor(state, setup, [...onViews, ...drawn], isHere)
  // What an end shows that is not drawn is told in words.
  const isSeen = ({ shape }: Asked): boolean => {
    const end = endOf(shape)
    return end === undefined || ends.includes(end)
  }
  const asked = [...onViews, ...drawn].filter(isSeen)
  const unseen = drawn.filter((a) => !isSeen(a)).length
  const lost = setup.drawn.length - drawn.length
  const kind = setup.view !== 'auto' ? setup.view : kindFor(bodies)
  const partial = {
    ...{ state, drawing, setup, index, bodies, isHere, asked, hidden, kind },
    drawn: { lost, unseen },
  } as const
  const beside = [...onViews.filter((a) => !isSeen(a)), ...shown(all.beside)]
  return { ...partial, beside, looks: looksOf(partial, ends) }
}

function looksOf(
  content: Pick<SheetContent, 'state' | 'setup' | 'bodies' | 'asked' | 'kind'>,
  from: readonly ('left' | 'right')[],
): Looks {
  const { state, setup, bodies, asked, kind } = content
  const ids = bodies.map((b) => b.bodyId)
  const across = (at: number): SeenAsk => ({ from: 'left', cut: { at }, bodies: ids })
  const isLifted = state.bodies.some((b) => b.plan && ids.includes(b.bodyId))
  const ends = new Map(from.map((f) => [f, { from: f, bodies: ids }] as const))
  const whole = bodies.map((b) => b.whole)
  const askew: SeenAsk = { from: 'askew', bodies: ids }
  const picture =
    setup.picture === 'none'
      ? undefined
      : setup.picture === 'whole'
        ? askew
        : { ...askew, cut: { at: 0 }, whole }
  const pictured = picture ? { picture } : {}
  if (!isLifted) return { ends, across, ...pictured, all: picture ? [picture] : [] }
  const along: SeenAsk = { from: 'along', bodies: ids }
  const cut: SeenAsk = { from: 'along', cut: { at: 0 }, bodies: ids, whole }
  const places = new Set(asked.flatMap(({ shape }) => cutPlace(shape) ?? []))
  return {
    ...(kind === 'full' ? {} : { along }),
    ...(kind === 'outside' ? {} : { cut }),
    ...{ ends, across, ...pictured },
    all: [
      ...(kind === 'full' ? [] : [along]),
      ...(kind === 'outside' ? [] : [cut]),
      ...ends.values(),
      ...[...places].map(across),
      ...(picture ? [picture] : []),
    ],
  }
}

/** More of a part than this is cut along half of it, not here and there. */
const MOSTLY = 0.4

/** How a part is seen best along its axis. */
function kindFor(bodies: readonly Shown[]): SheetContent['kind'] {
  if (bodies.length > 1) return isHollow(bodies) ? 'half' : 'outside'
  const share = hollowShare(bodies)
  return share === 0 ? 'outside' : share < MOSTLY ? 'local' : 'half'
}

/** Where labels were dragged to. */
export const movesOf = ({ moved }: SheetSetup): ReadonlyMap<string, Vec> =>
  new Map(moved.map((m) => [m.id, vec(m.x, m.y)]))
