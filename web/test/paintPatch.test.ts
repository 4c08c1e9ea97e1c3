import type { Piece } from '@lathica/core/geometry'
import { describe, expect, it } from 'vitest'
import { isClear, isLineClear, isPieceClear, isSizeClear } from '../src/board/paint/patch'
import type { Patch } from '../src/board/paint/scene'
import type { View } from '../src/board/view'

const view: View = { lie: 'lying', scale: 2, origin: { x: 100, y: 200 } }
/** From (0, 50) to (50, 0) in mm, above the axis. */
const patch: Patch = [100, 100, 200, 200]
const scene = { view, patch }

const line = (x: number, y: number, toX: number, toY: number): Piece => ({
  kind: 'line',
  from: { x, y },
  to: { x: toX, y: toY },
})

describe('what lies clear of the patch that is painted anew', () => {
  it('is nothing where all of the pane is painted', () => {
    const whole = { view }
    expect(isClear(whole, { x: 1e4, y: 1e4 })).toBe(false)
    expect(isPieceClear(whole, line(900, 9, 950, 9))).toBe(false)
    expect(isLineClear(whole, { x: 900, y: 9 }, { x: 950, y: 9 })).toBe(false)
  })

  it('is a line that passes beside it, but none that crosses it', () => {
    expect(isPieceClear(scene, line(60, 10, 80, 10))).toBe(true)
    expect(isPieceClear(scene, line(-90, 10, 80, 10))).toBe(false)
    expect(isPieceClear(scene, line(80, 60, -10, 60))).toBe(true)
  })

  it('is not what reaches into it by the width of a halo', () => {
    expect(isPieceClear(scene, line(55, 10, 80, 10))).toBe(false)
    expect(isClear(scene, { x: 210, y: 150 })).toBe(false)
    expect(isClear(scene, { x: 213, y: 150 })).toBe(true)
  })

  it('counts an arc by all of it, not by its ends', () => {
    // Both ends lie to the right of the patch; the arc bows to the left into it.
    const arc: Piece = {
      kind: 'arc',
      from: { x: 70, y: 45 },
      to: { x: 70, y: 5 },
      centre: { x: 70, y: 25 },
      counterClockwise: true,
    }
    expect(isPieceClear(scene, arc)).toBe(false)
    expect(isPieceClear(scene, { ...arc, counterClockwise: false })).toBe(true)
  })

  it('counts an image below the axis where it is seen', () => {
    expect(isPieceClear(scene, line(10, 30, 20, 30), -1)).toBe(true)
    expect(isPieceClear({ view, patch: [100, 230, 200, 300] }, line(10, 30, 20, 30), -1)).toBe(
      false,
    )
  })

  it('is a size all of whose lines are', () => {
    const size = {
      id: 'd1',
      text: '20',
      reference: false,
      label: { x: 300, y: 50 },
      width: 30,
      lines: [
        [
          { x: 230, y: 50 },
          { x: 300, y: 50 },
        ],
      ] as const,
      witnesses: [] as const,
      arrows: [] as const,
    }
    expect(isSizeClear(scene, size)).toBe(true)
    const witnesses = [
      [
        { x: 230, y: 150 },
        { x: 90, y: 150 },
      ],
    ] as const
    expect(isSizeClear(scene, { ...size, witnesses })).toBe(false)
  })
})
