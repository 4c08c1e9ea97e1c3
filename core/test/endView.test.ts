import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { arc, endCircles, line, profileOf, vec, type Piece, type Section } from '../src'

function sectionOf(pieces: readonly Piece[]): Section {
  const edges = pieces.map((piece, i) => ({
    piece,
    name: { step: 's', entity: `e${i}`, role: 'drawn' as const },
  }))
  return profileOf(edges, 's').section
}

function outline(...corners: readonly (readonly [number, number])[]): Piece[] {
  return corners.slice(1).map(([x, y], i) => {
    const [fromX, fromY] = corners[i] ?? [0, 0]
    return line(vec(fromX, fromY), vec(x, y))
  })
}

const seen = (section: Section, from: 'right' | 'left' = 'right') =>
  endCircles(section, from).map(({ radius, hidden }) => `${radius.toFixed(3)}${hidden ? ' -' : ''}`)

const SPINDLE = sectionOf(
  outline([0, 0], [0, 10], [24, 10], [24, 22], [32, 22], [32, 8], [60, 8], [60, 0]),
)

describe('a part seen along its axis', () => {
  it('shows the shoulders that face the eye and hides those behind wider ones', () => {
    expect(seen(SPINDLE, 'right')).toEqual(['8.000', '10.000 -', '22.000'])
    expect(seen(SPINDLE, 'left')).toEqual(['8.000 -', '10.000', '22.000'])
  })

  it('shows the mouth of a bore, and its bottom through it', () => {
    const bored = sectionOf([
      ...outline([0, 0], [0, 20], [40, 20], [40, 6], [15, 6], [15, 0]),
      line(vec(0, 0), vec(15, 0)),
    ])
    expect(seen(bored, 'right')).toEqual(['6.000', '20.000'])
    expect(seen(bored, 'left')).toEqual(['6.000 -', '20.000'])
  })

  it('hides a widening inside a bore that is narrow at the mouth', () => {
    const flask = sectionOf(
      outline([0, 0], [0, 20], [50, 20], [50, 5], [40, 5], [40, 15], [5, 15], [5, 0]),
    )
    expect(seen(flask, 'right')).toEqual(['5.000', '15.000 -', '20.000'])
  })

  it('shows the widest turn of a ball, which has no corner', () => {
    const ball = sectionOf([arc(vec(0, 0), vec(20, 0), vec(10, 0), false)])
    expect(seen(ball)).toEqual(['10.000'])
  })

  it('leaves out points on the axis: they are no circles', () => {
    const cone = sectionOf(outline([0, 0], [0, 12], [30, 0]))
    expect(seen(cone)).toEqual(['12.000'])
  })

  it('has nothing to show of nothing', () => {
    expect(endCircles({ regions: [] }, 'right')).toEqual([])
  })

  it('shows from the left what a mirrored shaft shows from the right', () => {
    const steps = fc.array(fc.integer({ min: 2, max: 40 }), { minLength: 1, maxLength: 8 })
    fc.assert(
      fc.property(steps, (radii) => {
        const build = (list: readonly number[]): Section => {
          const corners: [number, number][] = [[0, 0]]
          list.forEach((r, i) => {
            if (r !== list[i - 1]) corners.push([10 * i, r])
            if (r !== list[i + 1]) corners.push([10 * (i + 1), r])
          })
          corners.push([10 * list.length, 0])
          return sectionOf(outline(...corners))
        }
        const mirrored = build([...radii].reverse())
        expect(seen(build(radii), 'right')).toEqual(seen(mirrored, 'left'))
      }),
    )
  })

  it('never hides the greatest diameter, and shows an edge of the nearest land', () => {
    const steps = fc.array(fc.integer({ min: 2, max: 40 }), { minLength: 1, maxLength: 8 })
    fc.assert(
      fc.property(steps, (radii) => {
        const distinct = radii.filter((r, i) => r !== radii[i - 1])
        const corners: [number, number][] = [[0, 0]]
        distinct.forEach((r, i) => corners.push([10 * i, r], [10 * i + 10, r]))
        corners.push([10 * distinct.length, 0])
        const circles = endCircles(sectionOf(outline(...corners)), 'right')
        const visible = circles.filter((c) => !c.hidden).map((c) => Math.round(c.radius))
        expect(visible).toContain(Math.max(...distinct))
        expect(visible).toContain(distinct[distinct.length - 1])
      }),
    )
  })
})
