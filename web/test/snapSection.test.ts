import { describe, expect, it } from 'vitest'
import {
  arc,
  cubic,
  line,
  nearestOn,
  simplePieces,
  vec,
  type Piece,
  type Vec,
} from '@lathica/core/geometry'
import { emptySketch } from '@lathica/core/sketch'
import { profileOf } from '@lathica/core/section'
import { onSectionEdge } from '../src/board/snapSection'
import { USUAL, free, type SnapQuery } from '../src/board/snapping'

/** A round base and a side in one free curve. */
const SIDE = cubic(vec(10, 20), vec(25, 30), vec(30, 6), vec(50, 10))
const section = (() => {
  const pieces: Piece[] = [
    line(vec(50, 0), vec(50, 10)),
    ...simplePieces({ ...SIDE, from: SIDE.to, to: SIDE.from, start: 1, end: 0 }),
    arc(vec(10, 20), vec(0, 10), vec(10, 10), true),
    line(vec(0, 10), vec(0, 0)),
  ]
  const edges = pieces.map((piece, i) => ({
    piece,
    name: {
      ...{ step: 's', role: 'drawn' as const },
      entity: piece.kind === 'cubic' ? 'side' : `e${i}`,
    },
  }))
  return profileOf(edges, 's').section
})()

const near = (place: Vec) => {
  const query: SnapQuery = {
    ...{ sketch: emptySketch('sketch9', 'B'), earlier: [], standing: [section], endMarks: [] },
    view: { lie: 'lying', scale: 10, origin: { x: 0, y: 0 } },
    ...{ at: { x: 10 * place.x, y: -10 * place.y }, suggesting: USUAL, from: undefined },
    ...{ refuse: false, straight: true },
  }
  return onSectionEdge(query, free(place))
}

describe('places on edges of the section', () => {
  it('lie on rounds, and follow their ends and centre', () => {
    const snap = near(vec(10 - 7.1, 10 + 7.2))
    expect(snap?.words).toEqual(['on an edge of the section'])
    expect(Math.hypot((snap?.end.at.x ?? 0) - 10, (snap?.end.at.y ?? 0) - 10)).toBeCloseTo(10, 9)
    const guide = snap?.end.link?.guide
    expect(guide?.kind).toBe('arc')
    expect(guide?.places.map((p) => p.key)).toContain(`${snap?.end.link?.item}:centre`)
  })

  it('lie on free curves, and follow their ends and handles', () => {
    const at = { x: 30, y: 15 }
    const on = nearestOn(SIDE, at)
    expect(on.distance).toBeLessThan(1)
    const snap = near(vec(at.x, at.y))
    expect(nearestOn(SIDE, snap?.end.at ?? at).distance).toBeLessThan(1e-9)
    const guide = snap?.end.link?.guide
    expect(guide?.places.map((p) => p.at)).toEqual([...SIDE.on])
  })

  it('lie on no straight edge that ends on the axis, and not inside', () => {
    expect(near(vec(50.1, 4))).toBeUndefined()
    expect(near(vec(0.1, 5))).toBeUndefined()
    expect(near(vec(20, 5))).toBeUndefined()
  })
})
