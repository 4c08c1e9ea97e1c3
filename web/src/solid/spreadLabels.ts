import { place, type Place, type StepMark } from '@lathica/core'

/** A size as it stands on the pane, in pixels. */
export interface Label {
  readonly words: string
  readonly x: number
  readonly y: number
}

/** More labels than this hide the part. */
const MOST_LABELS = 8

/** Labels this near to one another, in pixels, stand one below the other by so much. */
const NEAR = 90
const APART = 22

/** Sizes beside their places as they are seen, each once, none on another. */
export function spreadLabels(
  marks: readonly Pick<StepMark, 'words' | 'at' | 'inSpace'>[],
  project: (at: Place) => { readonly x: number; readonly y: number },
): Label[] {
  const seen = new Set<string>()
  return marks
    .filter(({ words }) => !seen.has(words) && seen.add(words).size <= MOST_LABELS)
    .map(({ at, inSpace, words }) => ({ words, ...project(inSpace ?? place(at.y, 0, at.x)) }))
    .sort((a, b) => a.y - b.y)
    .reduce<Label[]>((placed, next) => {
      const near = placed.filter((p) => Math.abs(p.x - next.x) < NEAR)
      const lowest = Math.max(-Infinity, ...near.map((p) => p.y))
      return [...placed, { ...next, y: Math.max(next.y, lowest + APART) }]
    }, [])
}
