import type { EndCircle, Part } from '@lathica/core'
import type { EndLines } from '../endview/endLines'
import type { Scene } from './paint'

/** Chords of a circle that is seen from the end. */
const CHORDS = 96

/** The part from its end in the places of an end sketch: x to the right and y up on the board. */
export function endPicture(
  lines: EndLines | undefined,
  circles: readonly EndCircle[],
  lie: Part['lie'],
): NonNullable<Scene['end']> {
  const from = lie === 'lying' ? 'seen from the right' : 'seen from above'
  // The half-section lies upwards of a lying part, to the right of a standing one.
  if (lines) {
    const own = (places: readonly number[]): number[] => {
      const out: number[] = []
      for (let i = 0; i < places.length; i += 2) {
        const [x = 0, y = 0] = [places[i], places[i + 1]]
        out.push(...(lie === 'lying' ? [-y, x] : [x, y]))
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
