// @vitest-environment jsdom
import { METRIC } from '@lathica/core/units'
import { cornersOf } from '@lathica/core/section'
import { WHOLE_BODY, createPart, type Step } from '@lathica/core/part'
import { addStep, drawChain, offeredGroove, offeredStep } from '@lathica/core/edit'
import { enableAutoUnmount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { edgesIn, refAt, refsCalled, regionAt, wholeAt } from '../src/board/refs'
import RoutePane from '../src/route/RoutePane.vue'
import StepCard from '../src/route/StepCard.vue'
import { fieldsOf, rowWords } from '../src/route/kinds'
import { useRouteStore } from '../src/store/route'
import { act, clickAt, face, firstSection, keyOf, lastStep } from './support/acting'
import { openScreen, type Screen } from './support/mount'
import { spindle } from './support/spindle'

enableAutoUnmount(afterEach)
let screen: Screen
let route: ReturnType<typeof useRouteStore>
beforeEach(async () => {
  screen = await openScreen(spindle())
  route = useRouteStore()
})

it.each(['mm', 'in'] as const)('a new wall suits what is drawn in a part in %s', async (length) => {
  const bare = createPart({ name: 'Lamp shade', units: { ...METRIC, length } })
  screen = await openScreen(bare)
  const ends = [{ at: { x: 0, y: 30 } }, { at: { x: 80, y: 60 } }]
  screen.parts.run(drawChain(screen.board.sketch.id, ends, [[]]))
  act('step:wall')
  const step = lastStep()
  const thick = step.kind === 'wall' ? Number(step.thickness) * (length === 'in' ? 25.4 : 1) : 0
  expect(thick).toBeGreaterThan(1)
  expect(thick).toBeLessThan(8)
})

describe('what lies under the pointer', () => {
  it('is the nearest face or circular edge of what is accepted, above the axis or below', () => {
    const bodies = route.bodies
    expect(refAt(bodies, { x: 60, y: 22.4 }, 1, 'face')?.key).toBe(keyOf('cylinder ⌀44'))
    expect(refAt(bodies, { x: 60, y: -22.4 }, 1, 'face')?.key).toBe(keyOf('cylinder ⌀44'))
    expect(refAt(bodies, { x: 58.2, y: 18 }, 1, 'plane')?.key).toBe(keyOf('face at 58'))
    expect(refAt(bodies, { x: 60, y: 21.8 }, 1, 'plane')).toBeUndefined()
    expect(refAt(bodies, { x: 58.3, y: 22.2 }, 1, 'corner')?.corner?.at).toMatchObject({
      x: 58,
      y: 22,
    })
    expect(refAt(bodies, { x: 60, y: 30 }, 1, 'face')).toBeUndefined()
    // A point goes before the faces that meet there, though one of them is nearer.
    expect(refAt(bodies, { x: 58, y: 21.6 }, 1, 'any')?.corner?.at).toMatchObject({ x: 58, y: 22 })
    expect(refAt(bodies, { x: 58, y: 21.4 }, 1, 'any')?.edge).toBeDefined()
    expect(refAt(bodies, { x: 0, y: 0.3 }, 1, 'any')?.pole?.at).toEqual({ x: 0, y: 0 })
    expect(refAt(bodies, { x: 0, y: 0.3 }, 1, 'face')?.edge).toBeDefined()
    const whole = wholeAt(bodies, { x: 60, y: 10 })
    expect(whole?.key).toBe(WHOLE_BODY)
    expect(edgesIn(whole ?? {}).length).toBeGreaterThan(8)
    expect(wholeAt(bodies, { x: 60, y: 30 })).toBeUndefined()
    expect(refAt(bodies, { x: 60, y: 0.1 }, 1, 'face')).toBeUndefined()
  })

  it('is found again by its key, and regions by a place inside', () => {
    const [corner] = cornersOf(firstSection())
    expect(refsCalled(route.bodies, [corner?.key ?? '', keyOf('face at 58')])).toHaveLength(2)
    expect(refsCalled(route.bodies, ['gone'])).toEqual([])
    expect(regionAt(firstSection().regions, { x: 60, y: 10 })).toBe(0)
    expect(regionAt(firstSection().regions, { x: 60, y: 40 })).toBeUndefined()
  })
})

describe('steps are begun', () => {
  it('by a key and a click: a groove in the cylinder that was clicked', () => {
    act('step:groove')
    expect(screen.board.toolState?.hint).toContain('Click the cylinder')
    clickAt(60, 40)
    expect(screen.parts.part?.route).toHaveLength(1)
    clickAt(62, 22)
    expect(lastStep()).toMatchObject({ kind: 'groove', on: keyOf('cylinder ⌀44') })
    expect(screen.board.toolId).toBe('pick')
    expect(screen.board.stepId).toBe(lastStep().id)
  })

  it('at once: a bore, a shell that asks for faces, a length, a mirror', () => {
    act('step:bore')
    expect(lastStep().kind).toBe('bore')
    screen.parts.stepBack()
    act('step:shell')
    clickAt(0, 5)
    expect(lastStep()).toMatchObject({ kind: 'shell', open: [keyOf('face at 0')] })
    clickAt(0, 5)
    expect(lastStep()).toMatchObject({ kind: 'shell', open: [] })
    for (const kind of ['mirror', 'length'] as const) {
      act(`step:${kind}`)
      expect(lastStep().kind).toBe(kind)
    }
  })

  it('by corners: the first makes the fillet, more join it, a second click lets go', () => {
    act('step:fillet')
    clickAt(58, 22)
    clickAt(66, 22)
    const corners = (): readonly string[] => {
      const step = lastStep()
      const pick = step.kind === 'fillet' ? step.sets[0]?.pick : undefined
      return pick?.kind === 'corners' ? pick.corners : []
    }
    expect(corners()).toHaveLength(2)
    clickAt(58, 22)
    expect(corners()).toHaveLength(1)
    screen.board.escape()
    expect(route.ask).toBeUndefined()
  })

  it('behind what is shown: in the middle when the route is run to there', () => {
    act('step:bore')
    act('step:length')
    screen.board.stepId = undefined
    route.runTo = 1
    act('step:bore')
    expect(screen.parts.part?.route.map((s) => s.number)).toEqual([10, 15, 20, 30])
    expect(route.runTo).toBe(2)
  })

  it('and copied, moved and set aside by their keys', () => {
    act('step:bore')
    const bore = lastStep().id
    act('duplicateStep')
    expect(screen.parts.part?.route).toHaveLength(3)
    screen.board.stepId = bore
    act('stepDown')
    expect(screen.parts.part?.route.map((s) => s.id)[2]).toBe(bore)
    act('stepUp')
    act('aside')
    expect(screen.parts.part?.route[1]).toMatchObject({ id: bore, aside: true })
  })
})

describe('the card of a step', () => {
  it('shows what is typed before it is taken, refuses what breaks it, and forgets on Esc', async () => {
    act('step:bore')
    await nextTick()
    const card = screen.mount(StepCard)
    const input = card.find<HTMLInputElement>('input[aria-label="Diameter"]')
    const whole = (): number => screen.parts.state?.bodies[0]?.mass ?? 0
    const before = whole()
    await input.setValue('12')
    expect(whole()).toBeLessThan(before)
    expect(screen.parts.history?.part.route.at(-1)).not.toMatchObject({
      parts: [{ diameter: '12' }],
    })
    await input.trigger('keydown', { key: 'Enter' })
    expect(lastStep()).toMatchObject({ parts: [{ diameter: '12' }] })
    await input.setValue('-3')
    await input.trigger('keydown', { key: 'Enter' })
    expect(card.find('[role="alert"]').text()).toContain('greater than zero')
    await input.setValue('12 kg')
    await input.trigger('keydown', { key: 'Enter' })
    expect(card.find('[role="alert"]').text()).toContain('takes a length')
    expect(lastStep()).toMatchObject({ parts: [{ diameter: '12' }] })
    await input.trigger('keydown', { key: 'Escape' })
    expect(input.element.value).toBe('12')
    // With nothing typed, undo in the field is the undo of the part.
    await input.trigger('keydown', { key: 'z', ctrlKey: true })
    expect(lastStep()).not.toMatchObject({ parts: [{ diameter: '12' }] })
  })

  it('adds a counterbore before the diameter that is there, and takes it away again', async () => {
    act('step:bore')
    const card = screen.mount(StepCard)
    await card
      .findAll('button')
      .find((b) => b.text().includes('Another diameter'))
      ?.trigger('click')
    expect(lastStep()).toMatchObject({ kind: 'bore', parts: [{ depth: '1' }, { depth: '' }] })
    await card.find('[aria-label="Remove Diameter 1"]').trigger('click')
    expect(lastStep()).toMatchObject({ kind: 'bore', parts: [{ depth: '' }] })
  })

  it('names faces that are gone, and takes corners by rule', async () => {
    const shell = offeredStep('shell', 'body1', firstSection(), undefined, METRIC)
    screen.parts.run(addStep({ ...shell, open: ['step3/gone'] } as typeof shell))
    screen.board.stepId = lastStep().id
    const card = screen.mount(StepCard)
    expect(card.text()).toContain('gone')
    expect(card.find('[role="alert"]').text()).toContain('no longer there')
    await card.find('[aria-label="let go of gone"]').trigger('click')
    expect(lastStep()).toMatchObject({ open: [] })
    screen.parts.run(addStep(offeredStep('fillet', 'body1', firstSection(), undefined, METRIC)))
    screen.board.stepId = lastStep().id
    await nextTick()
    const rule = card.findAll('select').find((s) => s.text().includes('all inside'))
    await rule?.setValue('inside')
    expect(lastStep()).toMatchObject({ sets: [{ pick: { kind: 'inside' } }] })
  })
})

describe('fields and rows', () => {
  const withPlace = (step: object): Step => ({ id: 's', number: 20, aside: false, ...step }) as Step

  it('every kind of step has its fields, and setting one changes just that', () => {
    const part = screen.parts.part
    if (!part) throw new Error('no part')
    const kinds = ['bore', 'fillet', 'chamfer', 'shell', 'mirror', 'repeat', 'length'] as const
    const steps = [
      ...kinds.map((kind) => offeredStep(kind, 'body1', firstSection(), part.route[0]?.id, METRIC)),
      offeredGroove('body1', face('cylinder ⌀44'), 'belt', METRIC),
    ].map(withPlace)
    for (const step of steps) {
      const fields = fieldsOf(step, { part, before: route.bodies[0] })
      expect(fields.length).toBeGreaterThan(1)
      for (const field of fields) {
        if (field.kind === 'value')
          expect(field.set('7')).toMatchObject({ id: 's', kind: step.kind })
        if (field.kind === 'choice') {
          expect(field.options.map((o) => o.value)).toContain(field.value)
          for (const o of field.options) expect(field.set(o.value).kind).toBe(step.kind)
        }
        if (field.kind === 'faces') expect(field.set([keyOf('face at 58')]).kind).toBe(step.kind)
      }
    }
  })

  it('a groove changes its form with fitting sizes, and its depth for a bottom diameter', () => {
    const part = screen.parts.part
    if (!part) throw new Error('no part')
    const step = withPlace(offeredGroove('body1', face('cylinder ⌀44'), 'rectangular', METRIC))
    const fields = fieldsOf(step, { part, before: route.bodies[0] })
    const form = fields.find((f) => f.kind === 'choice' && f.label === 'Form')
    expect(form?.kind === 'choice' && form.set('retaining')).toMatchObject({
      form: 'retaining',
      sizes: { width: '1.85' },
    })
    const depth = fields.find((f) => f.kind === 'value' && f.label === 'Depth')
    expect(depth?.kind === 'value' && depth.set('2')).toMatchObject({
      sizes: { depth: '2', bottom: '' },
    })
  })

  it('rows tell the key size in figures, not formulas', () => {
    const telling = {
      faceOf: () => 'cylinder ⌀44',
      figure: (f: string) => `<${f}>`,
      lie: 'standing' as const,
      bodyName: (id: string) => `<${id}>`,
    }
    const groove = withPlace(offeredGroove('body1', face('cylinder ⌀44'), 'round', METRIC))
    expect(rowWords(groove as never, telling)).toMatch(/^R<2\.2>, <2\.2> deep, in cylinder ⌀44$/)
    const bore = offeredStep('bore', 'body1', firstSection(), undefined, METRIC)
    expect(rowWords(withPlace(bore) as never, telling)).toMatch(/^⌀<\d+> through$/)
    const cut = offeredStep('length', 'body1', firstSection(), undefined, METRIC)
    expect(rowWords(withPlace(cut) as never, telling)).toBe('<171>, at the upper end')
    const pick = { kind: 'step', step: 'x' }
    const fillet = { kind: 'fillet', body: 'b', sets: [{ pick, radius: 'r' }] }
    expect(rowWords(withPlace(fillet) as never, telling)).toBe('R<r> on all edges of a step')
    const told = (step: object): string => rowWords(withPlace(step) as never, telling)
    const move = { kind: 'move', body: 'b', along: '0', turn: '30', beside: '', into: 'b' }
    expect(told(move)).toBe('<30>')
    expect(told({ ...move, along: '5', beside: '7' })).toBe('<5> along, <30>, <7> beside')
    expect(told({ ...move, turn: '' })).toBe('in its place')
    expect(told({ kind: 'combine', body: 'a', other: 'b' })).toBe('<a> and <b>')
  })

  it('the route is run to a row by the arrow keys, and bodies are shown and hidden', async () => {
    act('step:bore')
    screen.board.stepId = undefined
    const pane = screen.mount(RoutePane)
    const bar = pane.find('[role="slider"]')
    await bar.trigger('keydown', { key: 'ArrowUp' })
    expect(route.runTo).toBe(1)
    expect(pane.find('[role="slider"]').attributes('aria-valuenow')).toBe('1')
    await pane
      .findAll('button')
      .find((b) => b.text() === 'run all')
      ?.trigger('click')
    expect(route.runTo).toBeUndefined()
    await pane.find('.only').trigger('click')
    expect(route.bodyId).toBe('body1')
  })
})
