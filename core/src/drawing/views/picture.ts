import { mapped, vec, type Piece, type Vec } from '../../geometry'
import type { Sheeted } from '../layout/arrange'
import { plot } from '../layout/space'
import { strokes } from '../items'
import type { Seen } from '../seen'
import { hatchLines, hatchingOf } from './hatch'

/** A picture of the part askew, without sizes, hatched where it is cut. */
export function pictureSheet({ lines, cuts }: Seen, by: number): Sheeted {
  const put = (p: Vec): Vec => vec(p.x * by, p.y * by)
  const scaled = (pieces: readonly Piece[]): Piece[] => pieces.map((p) => mapped(p, put, false))
  const wide = scaled(lines)
  const ends = wide.flatMap((p) => [p.from, p.to])
  const [xs, ys] = [ends.map((p) => p.x), ends.map((p) => p.y)]
  const box =
    ends.length === 0
      ? plot(0, 0, 0, 0)
      : plot(Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys))
  const size = Math.max(box.x1 - box.x0, box.y1 - box.y0)
  const hatch = cuts.flatMap((cut, i) => hatchLines([scaled(cut)], hatchingOf(i, size)))
  return {
    view: {
      items: [...(hatch.length > 0 ? [strokes('narrow', hatch)] : []), strokes('wide', wide)],
      outlines: wide,
      outside: () => box.y1,
      ...{ left: box.x0, right: box.x1, radius: box.y1 },
    },
    ...{ extra: [], placed: [], box },
  }
}
