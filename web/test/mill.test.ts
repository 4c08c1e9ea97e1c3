// @vitest-environment jsdom
import { METRIC } from '@lathica/core/units'
import { PART_FRAME, place, vec } from '@lathica/core/geometry'
import { EMPTY_SECTION } from '@lathica/core/section'
import { rectangleOf, turnedTool, type SolidPlan } from '@lathica/core/solid'
import type { Step } from '@lathica/core/part'
import { addStep } from '@lathica/core/edit'
import type { SolidMesh } from '@lathica/core/mesh'
import { KernelFault, loadKernel } from '@lathica/kernel'
import { enableAutoUnmount } from '@vue/test-utils'
import { Mesh, Ray, Triangle, Vector3, type BufferGeometry } from 'three'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import EndView from '../src/endview/EndView.vue'
import { endLines } from '../src/endview/endLines'
import type { Answer } from '../src/kernel/answers'
import RoutePane from '../src/route/RoutePane.vue'
import { fieldsOf } from '../src/route/kinds'
import StepCard from '../src/route/StepCard.vue'
import { cutSpec } from '../src/solid/cutting'
import type { Manner } from '../src/solid/drawnBody'
import { LiftedBody } from '../src/solid/liftedBody'
import { spreadLabels } from '../src/solid/spreadLabels'
import { refWords } from '../src/solid/words'
import { useRouteStore } from '../src/store/route'
import { useSolidsStore } from '../src/store/solids'
import { act, clickAt, keyOf, lastStep } from './support/acting'
import { openScreen, type Screen } from './support/mount'
import { spindle } from './support/spindle'

const kernel = loadKernel()

// The page asks a worker, of which the test page has none; here the same kernel answers by itself.
vi.mock('../src/kernel/client', async () => {
  const { ref, shallowRef } = await import('vue')
  const answered = async <T>(ask: (k: Awaited<typeof kernel>) => T): Promise<Answer<T>> => {
    try {
      return { ok: true, value: ask(await kernel) }
    } catch (thrown) {
      if (!(thrown instanceof KernelFault)) throw thrown
      return { ok: false, problem: thrown.problem, after: thrown.after }
    }
  }
  return {
    waiting: ref(0),
    ahead: shallowRef(),
    prepareKernel: () => Promise.resolve(),
    pictureSolid: (plan: SolidPlan, tolerance: number) => answered((k) => k.build(plan, tolerance)),
    weighSolid: (plan: SolidPlan) => answered((k) => k.weigh(plan)),
  }
})

enableAutoUnmount(afterEach)
let screen: Screen
let route: ReturnType<typeof useRouteStore>
let solids: ReturnType<typeof useSolidsStore>
beforeEach(async () => {
  vi.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue(null)
  screen = await openScreen(spindle())
  route = useRouteStore()
  solids = useSolidsStore()
})

const mass = (): number => screen.parts.state?.bodies[0]?.mass ?? 0
const weighed = (): Promise<void> =>
  vi.waitFor(() => expect(mass()).toBeGreaterThan(0), { timeout: 120_000, interval: 20 })
const labels = (step: Step): string[] => {
  const { part } = screen.parts
  if (!part) throw new Error('no part')
  return fieldsOf(step, { part, before: route.bodies[0] }).map((f) => f.label)
}

describe('steps that are no full turn are begun', () => {
  it('in the face that is clicked, and weighed when the kernel has told', async () => {
    const before = mass()
    act('mill:holes')
    expect(screen.board.toolState?.hint).toContain('Click the end face')
    clickAt(58, 18)
    expect(lastStep()).toMatchObject({
      kind: 'holes',
      way: 'end',
      on: keyOf('face at 58'),
      count: '6',
    })
    expect(mass()).toBeNaN()
    await weighed()
    expect(mass()).toBeLessThan(before)
    const [body] = route.bodies
    expect(body && solids.meshOf(body)?.faces.length).toBeGreaterThan(12)
  })

  it('in cylinders: cross holes, keyways sized by the shaft, half-round seats', () => {
    act('mill:crossHole')
    clickAt(90, 17.5)
    expect(lastStep()).toMatchObject({ kind: 'holes', way: 'cross', from: keyOf('cylinder ⌀35') })
    act('mill:keyway')
    clickAt(90, 17.5)
    expect(lastStep()).toMatchObject({ kind: 'slot', form: 'keyway', width: '10', depth: '5' })
    act('mill:halfRound')
    clickAt(40, 14)
    expect(lastStep()).toMatchObject({ kind: 'slot', form: 'woodruff', width: '6', cutter: '25' })
  })

  it('at once: flats, a half, a repeat of the step before', () => {
    act('mill:flats')
    const flats = lastStep().id
    expect(lastStep()).toMatchObject({ kind: 'flats', count: '2', end: 'right' })
    act('mill:around')
    expect(lastStep()).toMatchObject({ kind: 'around', steps: [flats], count: '3' })
    act('mill:halve')
    expect(lastStep()).toMatchObject({ kind: 'halve', into: '' })
  })

  it('and undone as any other', async () => {
    const before = mass()
    act('mill:flats')
    await weighed()
    screen.parts.stepBack()
    expect(mass()).toBe(before)
    expect(route.bodies[0]?.plan).toBeUndefined()
  })
})

describe('a step card of a hole', () => {
  it('asks for what its way, its reach and its head need', async () => {
    act('mill:holes')
    clickAt(58, 18)
    const step = lastStep()
    expect(labels(step)).toEqual(
      expect.arrayContaining(['In face', 'Pitch circle', 'Number', 'Left out', 'Thread']),
    )
    expect(labels(step)).not.toContain('Depth')
    expect(labels({ ...step, reach: 'depth', head: 'countersink' } as Step)).toEqual(
      expect.arrayContaining(['Depth', 'Tip angle', 'Head diameter', 'Head angle']),
    )
    expect(labels({ ...step, layout: 'places', places: [] } as Step)).toContain('Another place')
    expect(labels({ ...step, way: 'cross' } as Step)).toEqual(
      expect.arrayContaining(['From', 'Distance']),
    )
    await weighed()
  })

  it('offers part turns and polygons on a revolve', () => {
    const revolve = screen.parts.part?.route[0]
    if (revolve?.kind !== 'revolve') throw new Error('no revolve')
    expect(labels(revolve)).toEqual(expect.arrayContaining(['Turn', 'Sides']))
    expect(labels({ ...revolve, turn: '90', side: 'both' })).toEqual(
      expect.arrayContaining(['To', 'Other side', 'At angle']),
    )
    expect(labels({ ...revolve, facets: '6' })).toEqual(expect.arrayContaining(['Radii to']))
  })

  it('takes numbers left out however they are parted, and a thread as it is written', async () => {
    act('mill:holes')
    clickAt(58, 18)
    await weighed()
    const card = screen.mount(StepCard)
    const out = card.get('[aria-label="Left out"]')
    await out.setValue('2; 5')
    await out.trigger('keydown', { key: 'Enter' })
    expect(lastStep()).toMatchObject({ skip: [2, 5] })
    const thread = card.get('[aria-label="Thread"]')
    await thread.setValue('M4')
    await thread.trigger('blur')
    expect(lastStep()).toMatchObject({ thread: 'M4' })
    await weighed()
    expect(screen.mount(RoutePane).text()).toContain('4 × ⌀')
  })

  it('says what the kernel cannot do at that step, and the others stand', async () => {
    act('mill:flats')
    await weighed()
    const flats = lastStep().id
    const before = mass()
    const pick = { kind: 'step', step: flats } as const
    screen.parts.run(addStep({ kind: 'fillet', body: 'body1', sets: [{ pick, radius: '30' }] }))
    const fillet = lastStep().id
    const state = () => screen.parts.state?.steps.find((s) => s.stepId === fillet)
    await vi.waitFor(() => expect(state()?.status).toBe('failed'), { timeout: 120_000 })
    expect(state()?.problem?.message).toContain('does not fit')
    await weighed()
    expect(mass()).toBe(before)
  })
})

/** A disc of ⌀40 × 10 with one hole of ⌀6 at 12 off the axis, blind from the left. */
async function drilledDisc(): Promise<SolidMesh> {
  const loaded = await kernel
  const drill = turnedTool(rectangleOf('h', vec(0, 0), vec(6, 3)), {
    ...PART_FRAME,
    at: place(12, 0, 0),
  })
  return loaded.build(
    {
      base: rectangleOf('s', vec(0, 0), vec(10, 20)),
      ops: [{ kind: 'combine', step: 'h', effect: 'cut', tools: [drill] }],
    },
    0.02,
  ).mesh
}

const lengthOf = (runs: readonly number[]): number => {
  let sum = 0
  for (let i = 0; i < runs.length; i += 4) {
    const [a = 0, b = 0, c = 0, d = 0] = runs.slice(i, i + 4)
    sum += Math.hypot(c - a, d - b)
  }
  return sum
}

describe('the end view of a solid', () => {
  it('shows a blind hole from its own end, and hides it from the other', async () => {
    const mesh = await drilledDisc()
    const left = endLines([mesh], 'left')
    const right = endLines([mesh], 'right')
    const hole = 2 * Math.PI * 3
    const rim = 2 * 2 * Math.PI * 20
    // Its mouth and its floor; the disc has a rim at both ends, of which the far one is seen too.
    expect(lengthOf(left.seen) + lengthOf(left.hidden)).toBeCloseTo(2 * hole + rim, 0)
    expect(lengthOf(left.seen)).toBeCloseTo(2 * hole + rim, 0)
    expect(lengthOf(right.hidden)).toBeCloseTo(2 * hole, 0)
    expect(left.reach).toBeCloseTo(20, 4)
  })

  it('is drawn once the kernel has built the body', async () => {
    act('mill:flats')
    await weighed()
    const view = screen.mount(EndView)
    expect(view.findAll('circle').length === 0 || view.find('path.edge').exists()).toBe(true)
  })
})

describe('a solid in the pane', () => {
  const manner: Manner = {
    ...{ display: 'edged', tones: { edge: '#000', paper: '#fff', dark: false } },
    ...{ cut: cutSpec('half', 'lying', 0), planes: [], pitch: 2 },
  }
  const shown = (mesh: SolidMesh) => ({
    ...{ id: 'body1', section: EMPTY_SECTION, mesh, colour: '#888', look: 'metal' as const },
    glassy: false,
    said: [],
  })

  it('tells the face that a ray meets, through what is cut away', async () => {
    const body = new LiftedBody(await drilledDisc())
    const into = (x: number, y: number): Ray =>
      new Ray(new Vector3(x, y, -50), new Vector3(0, 0, 1))
    expect(body.hit(into(12, 0), undefined)?.face).toBe('h/end')
    expect(body.hit(into(-12, 0), undefined)).toMatchObject({ face: 's/start', t: 50 })
    expect(body.hit(into(30, 0), undefined)).toBeUndefined()
    const cut = cutSpec('across', 'lying', 4)
    const back = new Ray(new Vector3(-12, 0, 50), new Vector3(0, 0, -1))
    expect(body.hit(back, cut)?.at.x).toBeCloseTo(0, 6)
    body.dispose()
  })

  it('is cut open with the faces that the plane shows', async () => {
    const mesh = await drilledDisc()
    const body = new LiftedBody(mesh)
    body.show(shown(mesh), manner, 0)
    let area = 0
    body.group.traverse((item) => {
      if (!(item instanceof Mesh)) return
      // The surface, which stands first, is no cut face.
      if (item === body.group.children[0]) return
      const { geometry } = item as Mesh<BufferGeometry>
      const [places, index] = [geometry.getAttribute('position'), geometry.getIndex()]
      const corner = (i: number): Vector3 =>
        new Vector3().fromBufferAttribute(places, index?.getX(i) ?? i)
      for (let i = 0; i < (index?.count ?? 0); i += 3) {
        area += new Triangle(corner(i), corner(i + 1), corner(i + 2)).getArea()
      }
    })
    // The plane through the axis is square to x: half of the disc's own, the hole lies in it.
    expect(area).toBeCloseTo(40 * 10 - 6 * 6, 0)
    body.dispose()
  })

  it('says of a face which step it is from', () => {
    const part = { bodies: [], route: screen.parts.route, units: METRIC }
    const { id } = screen.parts.route[0] ?? { id: '' }
    expect(refWords({ solidFace: `${id}/wall@3` }, part)).toBe(
      'wall of the hole, from step 10, no. 3',
    )
    expect(refWords({ solidFace: 'gone/other' }, part)).toBe('face')
  })
})

describe('sizes on the pane', () => {
  const pixels = ({ x }: { readonly x: number }) => ({ x: x < 3 ? 100 : 300, y: 50 })

  it('stand each once, beside their places, and one below the other where they would meet', () => {
    const marks = ['⌀6', '⌀6', '6 × M5', '⌀40'].map((words, i) => ({ words, at: vec(i, i) }))
    const labels = spreadLabels(marks, pixels, 400)
    expect(labels.map((l) => [l.words, l.side, l.x, l.y])).toEqual([
      ['⌀6', 'left', 64, 28],
      ['6 × M5', 'left', 64, 50],
      ['⌀40', 'right', 336, 28],
    ])
    expect(labels.map((l) => l.at.x)).toEqual([100, 100, 300])
  })

  it('run towards the middle where there is no room beyond', () => {
    const marks = [0, 3].map((y) => ({ words: `on a circle of ⌀${70 + y}`, at: vec(0, y) }))
    const sides = spreadLabels(marks, pixels, 400).map((l) => l.side)
    expect(sides).toEqual(['right', 'left'])
  })
})
