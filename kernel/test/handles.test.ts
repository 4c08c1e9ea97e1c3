import { beforeAll, describe, expect, test } from 'vitest'
import { AXIS_ID, ORIGIN_ID, locator } from '@lathica/core/sketch'
import { solidProperties } from '@lathica/core/section'
import { createPart, type Part } from '@lathica/core/part'
import {
  addRevolve,
  addSketch,
  addStep,
  circle,
  drawChain,
  drawCurve,
  drawDraft,
  offeredSweep,
  setCurveEnd,
} from '@lathica/core/edit'
import { loadKernel, type Kernel } from '../src'
import { bodyOf, builtBy, problemOf, run } from './support'

let kernel: Kernel
beforeAll(async () => {
  kernel = await loadKernel()
})

const at = (x: number, y: number) => ({ at: { x, y } })

/** A mug of ⌀60 × 80, full or with a wall, and an empty profile for its handle. */
function mug(wall: number): Part {
  const part = createPart({ name: 'Mug' })
  const sketch = part.sketches[0]?.id ?? ''
  const inner = 30 - wall
  const hollow = [at(80, inner), at(3, inner), { ...at(3, 0), on: [AXIS_ID] }]
  const rest = wall < 30 ? hollow : [{ ...at(80, 0), on: [AXIS_ID] }]
  const ends = [{ ...at(0, 0), point: ORIGIN_ID }, at(0, 30), at(80, 30), ...rest]
  return run(part, drawChain(sketch, ends, []), addRevolve(sketch), addSketch())
}

/** A handle over the mug, a free curve that leaves it squarely, drawn from a radius on. */
function withHandle(part: Part, from: number, diameter = '10'): Part {
  const path = part.sketches[1]?.id ?? ''
  const curve = drawCurve({
    ...{ sketch: path, way: 'through', role: 'outline', square: false },
    places: [at(20, 30), at(26, 50), at(40, 56), at(54, 50), at(60, 30)],
  })
  const drawn = run(part, curve)
  const [spline] = drawn.sketches[1]?.entities ?? []
  if (spline?.kind !== 'spline') throw new Error('the curve is drawn')
  const square = run(
    drawn,
    setCurveEnd(path, spline.id, spline.from, 'square'),
    setCurveEnd(path, spline.id, spline.to, 'square'),
  )
  const deep =
    from === 30
      ? square
      : run(
          square,
          drawChain(path, [at(20, from), { ...at(20, 30), point: spline.from }], [['radial']]),
          drawChain(path, [{ ...at(60, 30), point: spline.to }, at(60, from)], [['radial']]),
        )
  const step = offeredSweep(path, 'body1', bodyOf(part).section, false, part.units)
  return run(deep, addStep({ ...step, width: diameter } as typeof step))
}

const volumeOf = (part: Part): number => builtBy(kernel, part).figures?.volume ?? 0
const bare = (part: Part): number => solidProperties(bodyOf(part).section)?.volume ?? 0

describe('a handle whose path ends on the outside of a vessel', () => {
  test('goes on into the material, as if it had been drawn into it', () => {
    const part = withHandle(mug(30), 30)
    expect(problemOf(part)).toBe('')
    const [curve] = part.sketches[1]?.entities ?? []
    const locate = locator(part.sketches[1] ?? { points: [] })
    expect(curve && 'from' in curve ? locate(curve.from).y : 0).toBeCloseTo(30, 9)
    const added = volumeOf(part) - bare(mug(30))
    const deep = volumeOf(withHandle(mug(30), 22)) - bare(mug(30))
    expect(added / deep).toBeCloseTo(1, 9)
    // Where it met the outside in a line alone there would be a plane end to be seen: it goes all round.
    const short = volumeOf(withHandle(mug(30), 29.9)) - bare(mug(30))
    expect(short).toBeLessThan(added)
  })

  test('does not come out inside of a thin wall', () => {
    const thin = mug(2)
    const added = volumeOf(withHandle(thin, 30)) - bare(thin)
    const full = volumeOf(withHandle(mug(30), 30)) - bare(mug(30))
    expect(added / full).toBeCloseTo(1, 6)
  })
})

describe('rings of wire that a rod is to join', () => {
  /** Two round rings about the axis, and a rod between their middles. */
  function frame(plane: string): Part {
    const part = createPart({ name: 'Lamp frame' })
    const own = part.sketches[0]?.id ?? ''
    const rings = [
      [90, 35.7],
      [0, 10.5],
    ] as const
    const drawn = rings.reduce(
      (here, [x, y]) => run(here, drawDraft('draw ring', own, circle(at(x, y), 1.2))),
      part,
    )
    const turned = run(drawn, addRevolve(own), addSketch())
    const path = turned.sketches[1]?.id ?? ''
    const wire = run(turned, drawChain(path, [at(0, 10.5), at(90, 35.7)], []))
    const step = offeredSweep(path, 'body1', bodyOf(turned).section, false, part.units)
    return run(wire, addStep({ ...step, width: '1.8', plane } as typeof step))
  }

  test.each(['', '30', '45'])('are joined, or said to be lost, at an angle of %s°', (plane) => {
    const part = frame(plane)
    const { plan } = bodyOf(part)
    if (!plan) throw new Error('it is no full turn')
    const rings = 2 * Math.PI * (35.7 + 10.5) * Math.PI * 1.2 ** 2
    let volume = 0
    let said = ''
    try {
      volume = kernel.build(plan, 0.05).figures?.volume ?? 0
    } catch (thrown) {
      said = thrown instanceof Error ? thrown.message : String(thrown)
    }
    // Nothing that was there may go without a word.
    if (said === '') expect(volume).toBeGreaterThan(rings)
    else expect(said).toMatch(/lost|inside out|could not be/)
  })
})
