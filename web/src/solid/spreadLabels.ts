import { place, type Place } from '@lathica/core/geometry'
import type { StepMark } from '@lathica/core/route'

interface Px {
  readonly x: number
  readonly y: number
}

/** A size as it stands on the pane, in pixels: the near end of its words, and the place they are of. */
export interface Label extends Px {
  readonly words: string
  readonly at: Px
  /** To which side of the place the words run on. */
  readonly side: 'left' | 'right'
}

/** More labels than this hide the part. */
const MOST_LABELS = 8

/** Words stand this far beside their place, so that they do not lie on what they are of. */
const ASIDE = 36

/** Labels this near to one another, in pixels, stand one below the other by so much. */
const NEAR = 90
const APART = 22

/** About how wide words are, in pixels: each letter, and the rim. */
const LETTER = 7.3
const RIM = 18

/**
 * Sizes beside their places as they are seen, each once, none on another, outwards from the middle
 * where there is room.
 * @param width of the pane in pixels
 */
export function spreadLabels(
  marks: readonly Pick<StepMark, 'words' | 'at' | 'inSpace'>[],
  project: (at: Place) => Px,
  width: number,
): Label[] {
  const seen = new Set<string>()
  return marks
    .filter(({ words }) => !seen.has(words) && seen.add(words).size <= MOST_LABELS)
    .map(({ at, inSpace, words }) => ({
      words,
      at: project(inSpace ?? place(at.y, 0, at.x)),
    }))
    .sort((a, b) => a.at.y - b.at.y)
    .reduce<Label[]>((placed, { words, at }) => {
      const side = sideOf(at.x, words.length * LETTER + RIM, width)
      const x = at.x + (side === 'right' ? ASIDE : -ASIDE)
      const near = placed.filter((p) => p.side === side && Math.abs(p.x - x) < NEAR)
      const lowest = Math.max(-Infinity, ...near.map((p) => p.y))
      return [...placed, { words, at, side, x, y: Math.max(at.y - APART, lowest + APART) }]
    }, [])
}

function sideOf(x: number, room: number, width: number): Label['side'] {
  const fits = { left: x - ASIDE - room >= 0, right: x + ASIDE + room <= width }
  const outwards = x < width / 2 ? 'left' : 'right'
  if (fits[outwards]) return outwards
  return fits.right ? 'right' : 'left'
}
