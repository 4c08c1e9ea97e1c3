// @vitest-environment jsdom
import { METRIC } from '@lathica/core/units'
import { place } from '@lathica/core/geometry'
import { meetingKey } from '@lathica/core/names'
import { sizeWord } from '@lathica/core/constraints'
import type { Step } from '@lathica/core/part'
import { addStep, changeBody, circle, drawDraft, extrudeOf, rectangle } from '@lathica/core/edit'
import type { SolidMesh } from '@lathica/core/mesh'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { endPicture } from '../src/board/endPicture'

import { createActions } from '../src/commands/registry'
import PicksCard from '../src/route/PicksCard.vue'
import { fieldsOf } from '../src/route/kinds'
import { refOfHit, rimsCalled } from '../src/solid/refOfHit'
import { refWords } from '../src/solid/words'
import { solidEdgeWords } from '@lathica/core/route'
import { useRouteStore } from '../src/store/route'
import { act, clickAt, keyOf, lastStep } from './support/acting'
import { openScreen, type Screen } from './support/mount'
import { spindle } from './support/spindle'

vi.mock('../src/kernel/client', async () => {
  const { ref, shallowRef } = await import('vue')
  const never = () => new Promise<never>(() => undefined)
  return {
    waiting: ref(0),
    ahead: shallowRef(),
    prepareKernel: () => Promise.resolve(),
    pictureSolid: never,
    weighSolid: never,
  }
})

let screen: Screen
let route: ReturnType<typeof useRouteStore>
beforeEach(async () => {
  vi.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue(null)
  screen = await openScreen(spindle())
  route = useRouteStore()
})

const action = (id: string) => {
  const found = createActions().find((a) => a.id === id)
  if (!found) throw new Error(`no action ${id}`)
  return found
}
const own = (): string => screen.board.sketch.id
/** Begins an end sketch on the shoulder at 58 and draws on it. */
function begin(...drafts: readonly Parameters<typeof drawDraft>[2][]): void {
  act('mill:endSketch')
  clickAt(58, 18)
  for (const draft of drafts) screen.parts.run(drawDraft('draw', own(), draft))
}
const labels = (step: Step): string[] => {
  const { part } = screen.parts
  if (!part) throw new Error('no part')
  return fieldsOf(step, { part, before: route.bodies[0] }).map((f) => f.label)
}
const square = rectangle({ at: { x: -3, y: -2 } }, { at: { x: 3, y: 2 } })

describe('the card of what is picked on an end', () => {
  it('tells places level and upright, and no diameters', () => {
    begin(rectangle({ at: { x: -6, y: -4 } }, { at: { x: 6, y: 4 } }))
    const [line] = screen.board.sketch.entities
    screen.board.picks = [screen.board.sketch.points[0]?.id ?? '']
    const point = screen.mount(PicksCard)
    const values = point.findAll('input').map((i) => i.element.value.replace('−', '-'))
    expect(values).toEqual(['-6', '-4'])
    expect(point.text()).toMatch(/Level.*Upright/)
    expect(point.text()).not.toContain('⌀')
    screen.board.picks = [line?.id ?? '']
    const ends = screen.mount(PicksCard).text()
    expect(ends).toContain('To level')
    expect(ends).not.toContain('⌀')
  })
})

describe('an end sketch', () => {
  it('is begun on a face that is clicked, and the board turns to the end', () => {
    expect(screen.board.looksAtEnd).toBe(false)
    begin()
    // It is seen from the side that the shoulder looks to.
    expect(screen.board.sketch.plane).toBe('lesserEnd')
    expect(screen.board.looksAtEnd).toBe(true)
    expect(screen.board.endFaces.get(own())?.key).toBe(keyOf('face at 58'))
    // What is turned is drawn on a half-section.
    for (const id of ['revolve', 'step:wall', 'stepped']) {
      expect(action(id).enabled?.() ?? true).toBe(false)
    }
    // To pick faces it turns back for as long as that takes.
    act('mill:keyway')
    expect(screen.board.looksAtEnd).toBe(false)
    screen.board.useTool('pick')
    expect(screen.board.looksAtEnd).toBe(true)
  })

  it('is drawn out of its own face or into it, and places holes there', () => {
    begin(square)
    act('mill:extrudeCut')
    expect(lastStep()).toMatchObject({ kind: 'extrude', effect: 'cut', on: keyOf('face at 58') })
    expect(lastStep()).toMatchObject({ sketch: own(), side: 'one', reach: 'length' })
    begin(circle({ at: { x: 0, y: 19 } }, 1))
    act('mill:holes')
    expect(lastStep()).toMatchObject({ kind: 'holes', layout: 'sketch', sketch: own() })
    expect(lastStep()).toMatchObject({ on: keyOf('face at 58') })
  })

  it('whose face is not known any more asks for one', () => {
    begin(square)
    screen.board.endFaces.clear()
    act('mill:extrude')
    expect(screen.board.toolState?.hint).toContain('Click the face that this sketch lies on')
    clickAt(112, 14)
    expect(lastStep()).toMatchObject({ kind: 'extrude', effect: 'add', on: keyOf('face at 112') })
  })

  it('comes with its step, and goes for steps without one', () => {
    begin(square)
    act('mill:extrudeCut')
    const end = own()
    const [revolve] = screen.parts.route
    if (!revolve) throw new Error('no step')
    screen.board.lookAt(revolve)
    expect(screen.board.looksAtEnd).toBe(false)
    screen.board.lookAt(lastStep())
    expect(own()).toBe(end)
    act('mill:flats')
    screen.board.lookAt(lastStep())
    expect(screen.board.looksAtEnd).toBe(false)
  })

  it('has level and upright for axial and radial', () => {
    expect(sizeWord('axialDistance', 'end')).toBe('level distance')
    expect(sizeWord('radialDistance', 'end')).toBe('upright distance')
    expect(sizeWord('axialDistance', 'half')).toBe('axial distance')
    expect(sizeWord('radius', 'end')).toBe('radius')
    begin()
    const ties = createActions().filter((a) => a.id === 'tie:axial' || a.id === 'tie:radial')
    expect(ties.map((t) => t.label)).toEqual(['Level', 'Upright'])
  })
})

describe('the card of an extrusion', () => {
  it('asks an end sketch for its face, and a half-section for its plane', () => {
    begin(square)
    act('mill:extrude')
    const step = lastStep()
    expect(labels(step)).toEqual(
      expect.arrayContaining(['Goes', 'Length', 'On face', 'Off it by', 'Draft']),
    )
    expect(labels({ ...step, reach: 'face' } as Step)).toContain('Up to')
    expect(labels({ ...step, reach: 'through' } as Step)).not.toContain('Length')
    const profile = screen.parts.part?.sketches[0]?.id ?? ''
    const half = extrudeOf(profile, 'body1', 'add', { regions: [] }, METRIC)
    screen.parts.run(addStep(half))
    expect(labels(lastStep())).toContain('Plane at')
    expect(labels(lastStep())).not.toContain('On face')
  })
})

describe('the part from its end', () => {
  it('stands with its half-section upwards when it lies, to the right when it stands', () => {
    const lines = { seen: [1, 2, 3, 4], hidden: [5, 6, 7, 8], reach: 9 }
    expect(endPicture(lines, [], 'lying', 'end')).toMatchObject({
      seen: [-2, 1, -4, 3],
      hidden: [-6, 5, -8, 7],
      from: 'seen from the right',
    })
    expect(endPicture(lines, [], 'standing', 'end')).toMatchObject({
      seen: [1, 2, 3, 4],
      from: 'seen from above',
    })
    // From the other end left and right are changed for one another, or up and down.
    expect(endPicture(lines, [], 'lying', 'lesserEnd')).toMatchObject({
      seen: [2, 1, 4, 3],
      from: 'seen from the left',
    })
    expect(endPicture(lines, [], 'standing', 'lesserEnd').from).toBe('seen from below')
  })

  it('of full turns is circles, what is behind apart', () => {
    const circles = [
      { radius: 5, hidden: false },
      { radius: 2, hidden: true },
    ]
    const { seen, hidden } = endPicture(undefined, circles, 'lying', 'end')
    const radii = (all: readonly number[]): number[] =>
      all.flatMap((x, i) => (i % 2 === 0 ? [Math.hypot(x, all[i + 1] ?? 0)] : []))
    expect(radii(seen).every((r) => Math.abs(r - 5) < 1e-9)).toBe(true)
    expect(radii(hidden).every((r) => Math.abs(r - 2) < 1e-9)).toBe(true)
  })
})

describe('edges of a solid', () => {
  /** A mesh with one edge between a turned face and a pocket's side, and one between turned faces. */
  function mesh(): SolidMesh {
    return {
      positions: new Float32Array(),
      normals: new Float32Array(),
      indices: new Uint32Array(),
      faces: [],
      edges: new Float32Array([0, 0, 0, 10, 0, 0, 0, 5, 0, 10, 5, 0]),
      rims: [
        { key: meetingKey(keyOf('face at 58'), 'step9/l1'), start: 0, count: 6 },
        { key: meetingKey(keyOf('face at 58'), keyOf('cylinder ⌀44')), start: 6, count: 6 },
      ],
    }
  }
  const hitAt = (y: number, own = mesh()) => ({
    ...{ body: 'body1', at: { x: 58, y: 20 }, t: 1, angle: 0, face: 'step9/l1' },
    ...{ place: place(4, y, 0), mesh: own, perPixel: 0.05 },
  })
  const ask = () => ({
    ...{ hint: '', accept: 'corner' as const, rims: true as const },
    ...{ bodies: () => route.bodies, chosen: () => [], take: () => undefined },
  })

  it('are found near the pointer, by the names of their two faces', () => {
    const found = refOfHit(hitAt(0.1), ask(), route.bodies, false)
    expect(found?.key).toBe(mesh().rims?.[0]?.key)
    expect([...(found?.rim ?? [])]).toEqual([0, 0, 0, 10, 0, 0])
    expect(refOfHit(hitAt(2.5), ask(), route.bodies, false)).toBeUndefined()
    expect(refWords(found ?? {}, screen.parts, route.bodies)).toBe('edge of face at 58 and face')
  })

  it('that are circular edges of the section are taken as those', () => {
    const found = refOfHit(hitAt(4.9), ask(), route.bodies, false)
    expect(found?.corner?.at).toMatchObject({ x: 58, y: 22 })
    expect(found?.rim).toBeUndefined()
  })

  it('are lit again by their names, and told by their faces', () => {
    const [first, second] = mesh().rims?.map((r) => r.key) ?? []
    const lit = rimsCalled([{ id: 'body1', mesh: mesh() }], [first ?? '', second ?? ''])
    expect(lit[0]?.rim).toHaveLength(12)
    expect(rimsCalled([{ id: 'body1', mesh: mesh() }], ['gone'])).toEqual([])
    expect(rimsCalled([{ id: 'body1', mesh: undefined }], [first ?? ''])).toEqual([])
    const words = solidEdgeWords(second ?? '', screen.parts, route.bodies)
    expect(words).toContain('face at 58')
    expect(words).toContain('cylinder ⌀44')
  })
})

describe('a body to go by', () => {
  it('is not weighed, not on the board, and shown on the solid', () => {
    const [before] = screen.board.sections
    expect(before).toBeDefined()
    screen.parts.run(changeBody('body1', { reference: true }))
    expect(screen.board.sections).toEqual([])
    expect(route.onSolid).toHaveLength(1)
    expect(screen.parts.state?.bodies[0]?.mass).toBe(0)
  })
})
