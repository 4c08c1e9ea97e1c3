import type { Part, PaperName, SheetSetup } from '../../part'
import { edgesOf } from '../../section'
import type { Shown } from '../views/shown'
import { readScale, SCALES, type Scale } from './scales'
import { paperOf, spaceOf, type Paper, type Room } from './sizes'

/** What stands on a sheet by itself, the smallest first: ISO papers for all but inches. */
const SERIES: Readonly<Record<'iso' | 'ansi', readonly PaperName[]>> = {
  iso: ['A4', 'A3', 'A2', 'A1', 'A0'],
  ansi: ['ANSI A', 'ANSI B', 'ANSI C', 'ANSI D', 'ANSI E'],
}

/** Whether paper and scale are told: then they hold, whether or not all fits. */
export const isForced = ({ paper, scale }: SheetSetup): boolean => paper !== 'auto' && scale !== ''

export const ONE: Scale = { words: '1:1', by: 1 }
export const ENDLESS = { width: Infinity, height: Infinity }

export interface Try {
  readonly paper: Paper
  readonly scale: Scale
  readonly cost: number
  /** Whether long plain stretches are broken. */
  readonly isBroken: boolean
}

/** Papers and scales that may do, the best first: a larger sheet rather than less than half the size. */
export function triesFor(
  part: Part,
  setup: SheetSetup,
  isBroken: boolean,
  fits: (paper: Paper, scale: Scale) => boolean,
): Try[] {
  const all = papersFor(part, setup).flatMap((paper, i) =>
    scalesFor(setup, (scale) => fits(paper, scale)).map((scale): Try => {
      const smaller = Math.max(0, -Math.log2(scale.by))
      return { paper, scale, isBroken, cost: i + 1.2 * smaller - 1e-3 * Math.log2(scale.by) }
    }),
  )
  return all.sort((a, b) => a.cost - b.cost)
}

export function papersFor({ units }: Part, { paper, upright }: SheetSetup): Paper[] {
  if (paper !== 'auto') return [paperOf(paper, upright)]
  const names = units.length === 'in' ? SERIES.ansi : SERIES.iso
  // The smallest lies upright by itself (ISO 5457:1999, 3.3).
  return names.map((name, i) => paperOf(name, upright || (i === 0 && name === 'A4')))
}

/** Scales that are worth a try on a paper, the largest first. */
function scalesFor(setup: SheetSetup, fits: (scale: Scale) => boolean): readonly Scale[] {
  const typed = readScale(setup.scale)
  if (typed) return [typed]
  const from = SCALES.findIndex(fits)
  return from < 0 ? [] : SCALES.slice(from, from + 5)
}

/** Whether the view alone fits, with least room round it. @param band how high the title block is, in mm */
export function fitsBare(
  bodies: readonly Shown[],
  paper: Paper,
  { by }: Scale,
  band: number,
): boolean {
  const ends = bodies
    .flatMap((b) => edgesOf(b.section))
    .flatMap(({ piece }) => [piece.from, piece.to])
  const [xs, ys] = [ends.map((p) => p.x), ends.map((p) => p.y)]
  const room = areaOf(paper, band)
  const [w, h] = [Math.max(...xs) - Math.min(...xs), 2 * Math.max(...ys)]
  return w * by + 24 <= room.width && h * by + 30 <= room.height
}

/** Above the title block and what stands beside it. @param band how high they are, in mm */
export function areaOf(paper: Paper, band: number): Room {
  const space = spaceOf(paper)
  const low = band + 3
  return { ...space, y: space.y + low, height: space.height - low - 2 }
}
