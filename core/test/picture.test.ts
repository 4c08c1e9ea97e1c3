import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  add,
  changePicture,
  createPart,
  distance,
  layPictureOnAxis,
  perform,
  readPart,
  removePicture,
  scale,
  scalePicture,
  setPicture,
  toDocument,
  type BoardPicture,
  type Command,
  type Part,
  type Vec,
} from '../src'
import { must } from './support/parts'

const DOT = 'data:image/png;base64,iVBORw0KGgo='
const picture: BoardPicture = {
  ...{ data: DOT, width: 400, height: 300, strength: 0.5, shown: true },
  ...{ at: { x: -20, y: 80 }, across: { x: 0.5, y: 0 }, down: { x: 0, y: -0.5 } },
}
const withPicture = (): Part => must(createPart({ name: 'Ink flask' }), setPicture(picture))

/** Where a pixel of the picture lies. */
const pixel = (part: Part, column: number, row: number): Vec => {
  const { at, across, down } = part.picture ?? picture
  return add(at, add(scale(across, column), scale(down, row)))
}
const refusal = (part: Part, command: Command): string => {
  const result = perform(part, command)
  return result.ok ? 'taken' : result.problem.code
}

describe('a picture behind the board', () => {
  test('property: two of its places come to lie on the axis, and a known distance apart, square as it was', () => {
    const any = (most: number) => fc.integer({ min: 0, max: most })
    fc.assert(
      fc.property(any(400), any(300), any(400), any(300), (a, b, c, d) => {
        fc.pre(Math.hypot(a - c, b - d) > 5)
        const part = withPicture()
        const laid = must(part, layPictureOnAxis(pixel(part, a, b), pixel(part, c, d)))
        const [p, q] = [pixel(laid, a, b), pixel(laid, c, d)]
        const sized = must(laid, scalePicture(p, q, 120))
        const [r, s] = [pixel(sized, a, b), pixel(sized, c, d)]
        const { across, down } = sized.picture ?? picture
        const turn = across.x * down.y - across.y * down.x
        return (
          Math.abs(p.y) < 1e-9 &&
          Math.abs(q.y) < 1e-9 &&
          Math.abs(r.y) < 1e-9 &&
          Math.abs(distance(r, s) - 120) < 1e-9 &&
          Math.abs(across.x * down.x + across.y * down.y) < 1e-9 &&
          turn < 0
        )
      }),
      { numRuns: 200 },
    )
  })

  test('is kept in the part file, hidden and shown, and removed', () => {
    const part = withPicture()
    const read = readPart(toDocument(part))
    expect(read.ok && read.value).toEqual(part)
    const faint = must(part, changePicture({ strength: 0.2, shown: false }))
    expect(faint.picture).toMatchObject({ strength: 0.2, shown: false, at: picture.at })
    const bare = must(part, removePicture())
    expect('picture' in bare).toBe(false)
    expect(readPart(toDocument(bare)).ok).toBe(true)
  })

  test('that is none, is too large, or has no extent is refused with a mend', () => {
    const part = withPicture()
    const bare = createPart({ name: 'Ink flask' })
    expect(refusal(must(bare), changePicture({ shown: false }))).toBe('picture.none')
    const large = { ...picture, data: DOT + 'A'.repeat(500_000) }
    expect(refusal(part, setPicture(large))).toBe('picture.large')
    const one = pixel(part, 3, 4)
    expect(refusal(part, layPictureOnAxis(one, one))).toBe('picture.place')
    expect(refusal(part, scalePicture(one, one, 20))).toBe('picture.place')
    expect(refusal(part, scalePicture(one, pixel(part, 9, 9), 0))).toBe('picture.apart')
    for (const data of ['https://example.org/a.png', 'data:text/html;base64,AAAA', `${DOT}"`]) {
      expect(readPart(toDocument({ ...part, picture: { ...picture, data } })).ok).toBe(false)
    }
  })
})
