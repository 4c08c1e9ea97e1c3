import type { EndPlane } from '@lathica/core/sketch'
import type { EndCircle } from '@lathica/core/section'
import type { Part } from '@lathica/core/part'
import type { EndLines } from '../endview/endLines'
import type { Scene } from './paint'

/** Chords of a circle that is seen from the end. */
const CHORDS = 96

/** From where an end sketch is seen, in words. */
export function seenFrom(lie: Part['lie'], plane: EndPlane): string {
  const greater = plane !== 'lesserEnd'
  if (lie === 'lying') return `seen from the ${greater ? 'right' : 'left'}`
  return `seen from ${greater ? 'above' : 'below'}`
}

/** The part from its end in the places of an end sketch: x to the right and y up on the board. */
export function endPicture(
  lines: EndLines | undefined,
  circles: readonly EndCircle[],
  lie: Part['lie'],
  plane: EndPlane,
): NonNullable<Scene['end']> {
  const from = seenFrom(lie, plane)
  const way = plane === 'lesserEnd' ? -1 : 1
  // The half-section lies upwards of a lying part, to the right of a standing one.
  if (lines) {
    const own = (places: readonly number[]): number[] => {
      const out: number[] = []
      for (let i = 0; i < places.length; i += 2) {
        const [x = 0, y = 0] = [places[i], places[i + 1]]
        out.push(...(lie === 'lying' ? [-way * y, x] : [x, way * y]))
      }
      return out
    }
    return { seen: own(lines.seen), hidden: own(lines.hidden), from }
  }
  const round = (hidden: boolean): number[] =>
    circles
      .filter((c) => c.hidden === hidden)
      .flatMap(({ radius }) =>
        Array.from({ length: CHORDS }, (_, i) =>
          [i, i + 1].flatMap((k) => {
            const angle = (2 * Math.PI * k) / CHORDS
            return [radius * Math.cos(angle), radius * Math.sin(angle)]
          }),
        ).flat(),
      )
  return { seen: round(false), hidden: round(true), from }
}
