import { fail, succeed, type Result } from '../result'
import { add, distance, scale, subtract, type Vec } from '../geometry'
import { LONGEST_PICTURE, type BoardPicture, type Part } from '../part'
import { VERTEX_TOLERANCE } from '../tolerances'
import type { Command } from './command'

/** Puts a picture behind the board, in the place of one that is there. */
export function setPicture(picture: BoardPicture): Command {
  return {
    label: 'put a picture behind the board',
    run: (part) => {
      if (picture.data.length > LONGEST_PICTURE) {
        const mend = 'Take one with fewer pixels.'
        return fail('picture.large', 'This picture is too large to be kept in the part.', mend)
      }
      return succeed({ ...part, picture })
    },
  }
}

/** Takes the picture behind the board away. */
export function removePicture(): Command {
  return {
    label: 'remove the picture',
    run: (part) => {
      const { picture: _, ...rest } = part
      return succeed(rest)
    },
  }
}

/** Shows or hides the picture, or lets more or less of it be seen. */
export function changePicture(change: Partial<Pick<BoardPicture, 'strength' | 'shown'>>): Command {
  return {
    label: 'change the picture',
    run: (part) => ofPicture(part, (picture) => succeed({ ...picture, ...change })),
  }
}

/** Turns and moves the picture so that two places of it, in mm as it lies, come to lie on the part's axis. */
export function layPictureOnAxis(a: Vec, b: Vec): Command {
  return {
    label: 'lay the picture on the axis',
    run: (part) =>
      ofPicture(part, (picture) => {
        const way = subtract(b, a)
        const length = distance(a, b)
        if (length <= VERTEX_TOLERANCE) return onePlace
        // The axis runs to the right of the paper as it did in the picture, or as near to that as it was.
        const sign = way.x < 0 ? -1 : 1
        const [c, s] = [(sign * way.x) / length, (sign * way.y) / length]
        const turned = (v: Vec): Vec => ({ x: c * v.x + s * v.y, y: c * v.y - s * v.x })
        return succeed({
          ...picture,
          at: add({ x: a.x, y: 0 }, turned(subtract(picture.at, a))),
          across: turned(picture.across),
          down: turned(picture.down),
        })
      }),
  }
}

/**
 * Makes the picture so large that two places of it, in mm as it lies, are a distance apart; on the axis it stays, and
 * the foot of the first there.
 * @param apart in mm
 */
export function scalePicture(a: Vec, b: Vec, apart: number): Command {
  return {
    label: 'scale the picture',
    run: (part) =>
      ofPicture(part, (picture) => {
        const length = distance(a, b)
        if (length <= VERTEX_TOLERANCE) return onePlace
        if (!(apart > 0)) {
          return fail('picture.apart', 'A distance is greater than zero.', 'Type a length.')
        }
        const by = apart / length
        const fixed = { x: a.x, y: 0 }
        return succeed({
          ...picture,
          at: add(fixed, scale(subtract(picture.at, fixed), by)),
          across: scale(picture.across, by),
          down: scale(picture.down, by),
        })
      }),
  }
}

const onePlace: Result<never> = fail(
  'picture.place',
  'These are one place.',
  'Click two that are farther apart.',
)

function ofPicture(
  part: Part,
  change: (picture: BoardPicture) => Result<BoardPicture>,
): Result<Part> {
  if (!part.picture) {
    return fail('picture.none', 'There is no picture behind the board.', 'Choose one first.')
  }
  const changed = change(part.picture)
  return changed.ok ? succeed({ ...part, picture: changed.value }) : changed
}
