import { once } from '../once'
import type { PartState } from '../route'
import { contentsOf, type SheetContent } from './content'
import { finished } from './finish'
import { layOut, type Laid } from './layOut'
import type { BadgesFor } from './layout/marks'
import { numbersOf } from './numbers'
import { readScale, SCALES } from './paper/scales'
import { paperOf } from './paper/sizes'
import { fitsBare, ONE, papersFor, triesFor, type Try } from './paper/tries'
import { changeMarks } from './released'
import { keyOf, NOTHING_SEEN, type SeenAsk, type SeenLines } from './seen'
import type { Drawing } from './sheet'

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
  const { state, setup, bodies } = content
  const badgesFor = badgesOf(content)
  const tries = triesFor(state.part, setup, bodies)
  // First so that everything has its place; else as much of it as will.
  const made =
    firstFitting(tries, (t) => layOut(content, seen, badgesFor, t, true)) ??
    leastLeft(tries, (t) => layOut(content, seen, badgesFor, t, false)) ??
    smallest(content, seen, badgesFor)
  return finished(content, made, seen)
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
function smallest(content: SheetContent, seen: SeenLines, badgesFor: BadgesFor): Laid {
  const { state, setup, bodies } = content
  const paper = papersFor(state.part, setup).at(-1) ?? paperOf('A3', false)
  const scale =
    readScale(setup.scale) ?? SCALES.find((s) => fitsBare(bodies, paper, s)) ?? SCALES.at(-1) ?? ONE
  const told = { ...setup, paper: paper.name, scale: scale.words }
  return layOut({ ...content, setup: told }, seen, badgesFor, { paper, scale }, false)
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
