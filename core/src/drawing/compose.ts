import { once } from '../once'
import type { SheetSetup } from '../part'
import type { PartState } from '../route'
import { contentsOf, type SheetContent } from './content'
import { finished } from './finish'
import { breaksIn, layOut, type Laid } from './layOut'
import type { BadgesFor } from './layout/marks'
import { numbersOf } from './numbers'
import { readScale, SCALES, type Scale } from './paper/scales'
import { paperOf, spaceOf, type Paper } from './paper/sizes'
import { fitsBare, ONE, papersFor, triesFor, type Try } from './paper/tries'
import { blockOf } from './paper/title'
import { changeMarks } from './released'
import { keyOf, NOTHING_SEEN, type SeenAsk, type SeenLines } from './seen'
import type { Drawing } from './sheet'
import { bodiesIn } from './views/long'

/**
 * A sheet of a part as it stands; undefined where nothing is turned yet.
 * @param seen what the kernel told of bodies that are no full turn, see `asksToSee`; as full turns where it has not
 * @param index which of its sheets, from 0
 */
export const drawSheet = (
  state: PartState,
  seen: SeenLines = NOTHING_SEEN,
  index = 0,
): Drawing | undefined => sheetsFor(seen)(state)[index]?.()

/** All sheets of a part, those on which something stands. */
export const drawSheets = (state: PartState, seen: SeenLines = NOTHING_SEEN): Drawing[] =>
  sheetsFor(seen)(state).flatMap((draw) => draw() ?? [])

/** What of a part the kernel has to look at before a sheet can be drawn, or any of them. */
export function asksToSee(state: PartState, index?: number): SeenAsk[] {
  const all = contentsOf(state)
    .filter((c, i) => c && (index === undefined || i === index))
    .flatMap((c) => c?.looks.all ?? [])
  return [...new Map(all.map((ask) => [keyOf(ask), ask])).values()]
}

const sheetsFor = once((seen: SeenLines) =>
  once((state: PartState) =>
    contentsOf(state).map((content) => {
      let made: Drawing | undefined
      return () => (made ??= content && sheetOf(content, seen))
    }),
  ),
)

function sheetOf(content: SheetContent, seen: SeenLines): Drawing {
  const whole = bestOf(content, seen, false)
  const isLong = content.setup.long === 'auto' && breaksIn(content, seen, whole.scale.by).length > 0
  const broken = isLong ? bestOf(content, seen, true) : undefined
  const made = broken && isWorth(broken, whole) ? broken : whole
  return finished(content, made, seen, made.fits ? '' : mendFor(content, seen))
}

/** What of the wished paper and scale can be kept so that all fits. */
function mendFor(content: SheetContent, seen: SeenLines): string {
  const { setup } = content
  const fitting = (change: Partial<SheetSetup>, words: (made: Laid) => string) => {
    const made = bestOf({ ...content, setup: { ...setup, ...change } }, seen, false)
    return made.fits ? [{ words: words(made), isWhole: made.left.length === 0 }] : []
  }
  const all = [
    ...(setup.scale === '' ? [] : fitting({ scale: '' }, (l) => `at ${l.scale.words}`)),
    ...(setup.paper === 'auto' ? [] : fitting({ paper: 'auto' }, (l) => `on ${l.paper.name}`)),
  ]
  // Rather one that has room for every label, too.
  const whole = all.filter((w) => w.isWhole)
  const ways = (whole.length > 0 ? whole : all).map((w) => w.words)
  return ways.length === 0
    ? 'choose a larger sheet or a smaller scale'
    : `they do ${ways.join(', or ')}`
}

/** A view is broken where it is drawn larger then, or on smaller paper. */
function isWorth(broken: Laid, whole: Laid): boolean {
  if (broken.fits !== whole.fits) return broken.fits
  const sizeOf = ({ paper }: Laid): number => paper.width * paper.height
  const [scale, paper] = [broken.scale.by / whole.scale.by, sizeOf(broken) / sizeOf(whole)]
  return (scale > 1.01 && paper < 1.01) || (scale > 0.99 && paper < 0.99)
}

/** A sheet on the paper and at the scale that do best. */
function bestOf(content: SheetContent, seen: SeenLines, isBroken: boolean): Laid {
  const { state, setup, bodies, drawing } = content
  const badgesFor = badgesOf(content)
  const bodiesAt = once(({ by }: Scale) =>
    isBroken ? bodiesIn(breaksIn(content, seen, by), bodies) : bodies,
  )
  const fits = (paper: Paper, scale: Scale): boolean =>
    fitsBare(bodiesAt(scale), paper, scale, blockOf(drawing, spaceOf(paper)).height)
  const tries = triesFor(state.part, setup, isBroken, fits)
  // First so that everything has its place; else as much of it as will.
  return (
    firstFitting(tries, (t) => layOut(content, seen, badgesFor, t, true)) ??
    leastLeft(tries, (t) => layOut(content, seen, badgesFor, t, false)) ??
    smallest(content, seen, badgesFor, isBroken, fits)
  )
}

function firstFitting(tries: readonly Try[], make: (t: Try) => Laid): Laid | undefined {
  for (const one of tries) {
    const made = make(one)
    if (made.fits) return made
  }
  return undefined
}

/** A larger sheet is worth so many labels that find no room. */
const A_SIZE = 4

/** Of the first that fits, and the largest scale that does, the one with less left out for its paper. */
function leastLeft(tries: readonly Try[], make: (t: Try) => Laid): Laid | undefined {
  const makeOnce = once(make)
  const first = firstFitting(tries, makeOnce)
  const largestFirst = [...tries].sort((a, b) => b.scale.by - a.scale.by)
  const largest = first && firstFitting(largestFirst, makeOnce)
  // Each size has twice the area of the one before.
  const cost = ({ left, paper }: Laid): number =>
    left.length + A_SIZE * Math.log2(paper.width * paper.height)
  return first && largest && cost(largest) < cost(first) ? largest : first
}

/** Where nothing fits: the smallest scale on the last paper. */
function smallest(
  content: SheetContent,
  seen: SeenLines,
  badgesFor: BadgesFor,
  isBroken: boolean,
  fits: (paper: Paper, scale: Scale) => boolean,
): Laid {
  const { state, setup } = content
  const paper = papersFor(state.part, setup).at(-1) ?? paperOf('A3', false)
  const scale = readScale(setup.scale) ?? SCALES.find((s) => fits(paper, s)) ?? SCALES.at(-1) ?? ONE
  const told = { ...setup, paper: paper.name, scale: scale.words }
  return layOut({ ...content, setup: told }, seen, badgesFor, { paper, scale, isBroken }, false)
}

/** Numbers beside what is asked, where they are wanted; a triangle beside what was changed since it was released. */
function badgesOf(content: SheetContent): BadgesFor {
  const numbers = numbersOf(content.state)
  const markOf = changeMarks(content.drawing.revisions)
  return (label) => [
    ...(content.setup.balloons && numbers.has(label.id) ? (['number'] as const) : []),
    ...(markOf(label) === undefined ? [] : (['change'] as const)),
  ]
}
