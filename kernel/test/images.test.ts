import { beforeAll, describe, expect, test } from 'vitest'
import { edgeKey, edgesOf, type SectionEdge } from '@lathica/core/section'
import {
  createPart,
  type MirrorStep,
  type NewStep,
  type Part,
  type SweepStep,
} from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import {
  addSketch,
  addStep,
  circle,
  drawDraft,
  drawPiece,
  endExtrudeOf,
  offeredHoles,
  offeredSlot,
  offeredStep,
  polygon,
  rectangle,
  revolveOf,
  type Draft,
} from '@lathica/core/edit'
import type { Kernel } from '../src'
import { bodyOf, builtBy, changeBy, key, problemOf, run, spindle } from './support'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

function face(part: Part, words: string): SectionEdge {
  const wanted = key(part, words)
  const found = edgesOf(bodyOf(part).section).find((e) => edgeKey(e.name) === wanted)
  if (!found) throw new Error(`there is no ${words}`)
  return found
}
/** The last step of a part, mirrored. */
function mirrored(part: Part, more: Partial<MirrorStep>): Part {
  const { section } = bodyOf(part)
  const step = offeredStep('mirror', 'body1', section, undefined, part.units) as MirrorStep
  const last = part.route.at(-1)?.id ?? ''
  return run(part, addStep({ ...step, steps: [last], ...more } as NewStep))
}
/** An end sketch on the end face, cut 6 deep or added 6 high. */
function milled(effect: 'add' | 'cut', draft: Draft): Part {
  const part = run(spindle(), addSketch('end'))
  const id = part.sketches.at(-1)?.id ?? ''
  const drawn = run(part, drawDraft('draw', id, draft))
  const on = key(drawn, 'face at 90')
  const step = endExtrudeOf(id, 'body1', effect, on, bodyOf(drawn).section, drawn.units)
  return run(drawn, addStep({ ...step, length: '6' } as NewStep))
}
const ALONG = { way: 'along', angle: '0' } as const
const ACROSS = { way: 'across', about: '', at: '45' } as const

describe('steps mirrored', () => {
  test('about a plane through the axis stand on its other side', () => {
    const corner = rectangle({ at: { x: 2, y: 1 } }, { at: { x: 6, y: 4 } })
    const one = milled('cut', corner)
    expect(changeBy(kernel, one)).toBeCloseTo(-12 * 6, 6)
    expect(Math.abs(builtBy(kernel, one).figures?.centre.y ?? 0)).toBeGreaterThan(1e-4)
    const both = mirrored(one, ALONG)
    expect(changeBy(kernel, both)).toBeCloseTo(-2 * 12 * 6, 6)
    // Level with the axis is the plane at 0° of a lying part seen from its end: both sides weigh alike.
    expect(builtBy(kernel, both).figures?.centre.y).toBeCloseTo(0, 9)
    const four = mirrored(mirrored(one, { way: 'along', angle: '90' }), ALONG)
    const { steps } = evaluate(four)
    expect(steps.map((s) => s.status)).not.toContain('failed')
  })

  test('turn about what is round by itself, and arcs with it', () => {
    const round = circle({ at: { x: 4, y: 3 } }, 2)
    const both = mirrored(milled('add', round), ALONG)
    expect(changeBy(kernel, both)).toBeCloseTo(2 * Math.PI * 4 * 6, 6)
    const six = polygon({ at: { x: 4, y: 3 } }, { at: { x: 6, y: 3 } }, 5)
    const { figures } = builtBy(kernel, mirrored(milled('cut', six), { way: 'along', angle: '90' }))
    expect(figures?.centre.x).toBeCloseTo(0, 9)
  })

  test('about a plane square to the axis stand in the other half', () => {
    const part = spindle()
    const holes = {
      ...offeredHoles('body1', face(part, 'face at 90'), bodyOf(part).section, part.units),
      ...{ circle: '8', count: '2', diameter: '3', reach: 'depth', depth: '7', tip: 'flat' },
    } as NewStep
    const both = mirrored(run(part, addStep(holes)), ACROSS)
    expect(changeBy(kernel, both)).toBeCloseTo(-4 * (Math.PI / 4) * 9 * 7, 6)
    const keyway = {
      ...offeredSlot('body1', face(part, 'cylinder ⌀30'), 'keyway', part.units),
      ...{ width: '4', depth: '2', length: '10', ends: 'square', from: '', distance: '2' },
    } as NewStep
    const cut = run(part, addStep(keyway))
    const own = changeBy(kernel, cut)
    // About the middle of its land.
    const twice = mirrored(cut, { way: 'across', about: '', at: '40' })
    expect(changeBy(kernel, twice)).toBeCloseTo(2 * own, 6)
  })

  test('that are turned: part turns on both sides, full ones across', () => {
    const part = run(spindle(), addSketch())
    const id = part.sketches.at(-1)?.id ?? ''
    const ring = rectangle({ at: { x: 70, y: 10 } }, { at: { x: 74, y: 14 } })
    const drawn = run(part, drawDraft('draw', id, ring))
    const turn = { ...revolveOf(id, 'body1', 'add'), turn: '30', phase: '20' } as NewStep
    const volume = (Math.PI * (14 ** 2 - 10 ** 2) * 4 * 30) / 360
    const both = mirrored(run(drawn, addStep(turn)), ALONG)
    expect(changeBy(kernel, both)).toBeCloseTo(2 * volume, 6)
    expect(builtBy(kernel, both).figures?.centre.y).toBeCloseTo(0, 9)
    const full = run(drawn, addStep(revolveOf(id, 'body1', 'add')))
    const across = mirrored(full, { way: 'across', about: '', at: '76' })
    expect(bodyOf(across).solid?.volume).toBeCloseTo(
      (bodyOf(full).solid?.volume ?? 0) + 12 * volume,
      6,
    )
    expect(problemOf(mirrored(full, ALONG))).toContain('its own image')
    const gone = { ...ALONG, steps: ['step99'] }
    expect(problemOf(mirrored(full, gone))).toContain('A step to mirror is gone')
  })
})

describe('a rod as an end sketch shows', () => {
  /** A bail along a line of 30 beside the axis, its outline 2 × 4 about the path. */
  function rod(outline: Draft, more: Partial<SweepStep> = {}): Part {
    const part = run(createPart({ name: 'Bail' }), addSketch('end'))
    const [path, drawn] = part.sketches.map((s) => s.id)
    const sketched = run(
      part,
      drawPiece({
        sketch: path ?? '',
        role: 'outline',
        from: { at: { x: 0, y: 20 } },
        to: { at: { x: 30, y: 20 } },
      }),
      drawDraft('draw', drawn ?? '', outline),
    )
    const step = {
      ...{ kind: 'sweep', sketch: path, body: 'body1', effect: 'add', form: 'sketch' },
      ...{ outline: drawn, width: '', height: '', corner: '', plane: '', side: 'one' },
    }
    return run(sketched, addStep({ ...step, ...more } as NewStep))
  }

  test('has its area along the path, and lies as it was drawn', () => {
    const bar = rectangle({ at: { x: -1, y: -2 } }, { at: { x: 1, y: 2 } })
    expect(builtBy(kernel, rod(bar)).figures?.volume).toBeCloseTo(8 * 30, 6)
    // What lies right in the sketch lies right of the path: nearer to the axis here.
    const aside = rectangle({ at: { x: 0, y: -2 } }, { at: { x: 2, y: 2 } })
    const { centre } = builtBy(kernel, rod(aside)).figures ?? {}
    expect([centre?.x, centre?.y]).toEqual([expect.closeTo(21, 6), expect.closeTo(0, 6)])
  })

  test('is refused in words where it shows no outline, or does not fit the path', () => {
    const two = { ...rectangle({ at: { x: 1, y: 1 } }, { at: { x: 2, y: 2 } }) }
    expect(problemOf(rod(two, { outline: 'gone' }))).toContain('end sketch of the rod is missing')
    const open: Draft = { points: { '~p': { at: { x: 1, y: 1 } } }, entities: [] }
    expect(problemOf(rod(open))).toContain('one closed outline')
  })
})
