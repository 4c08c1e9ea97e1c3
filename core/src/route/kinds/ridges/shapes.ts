import {
  arc,
  arcThrough,
  cubic,
  distance,
  line,
  add,
  scale,
  subtract,
  type Piece,
  type Vec,
} from '../../../geometry'
import type { RidgesStep } from '../../../part'

/** The shapes a ridge can have. */
export const RIDGE_SHAPES: readonly RidgesStep['shape'][] = ['round', 'vee', 'wave']

/** A place of a face, with the way on from there, of length 1. */
export interface Along {
  readonly at: Vec
  readonly way: Vec
}

/** A ridge from one place of a face over its crest to another, without what it stands on. */
export const RIDGE_PIECES: Readonly<
  Record<RidgesStep['shape'], (from: Along, crest: Along, to: Along) => readonly Piece[]>
> = {
  vee: (from, crest, to) => [line(from.at, crest.at), line(crest.at, to.at)],
  round: (from, crest, to) => {
    const through = arcThrough(from.at, crest.at, to.at)
    if (!through) return [line(from.at, crest.at), line(crest.at, to.at)]
    return [arc(from.at, to.at, through.centre, through.counterClockwise)]
  },
  wave: (from, crest, to) => [flank(from, crest), flank(crest, to)],
}

/** Handles so long, as shares of the width of a flank, make a cubic that is next to a cosine. */
const COSINE = 0.3642

/** Half a wave: it leaves and comes along the face. */
function flank(from: Along, to: Along): Piece {
  const reach = COSINE * distance(from.at, projected(to, from))
  const [leave, come] = [
    add(from.at, scale(from.way, reach)),
    subtract(to.at, scale(to.way, reach)),
  ]
  return cubic(from.at, leave, come, to.at)
}

/** A place carried square to the way at another, to the line there. */
const projected = (place: Along, onto: Along): Vec => {
  const off = subtract(place.at, onto.at)
  const far = off.x * onto.way.x + off.y * onto.way.y
  return add(onto.at, scale(onto.way, far))
}

/** Beyond this share of its width a round ridge would be more than half a circle. */
export const HIGHEST_ROUND = 0.5
