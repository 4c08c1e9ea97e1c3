// @vitest-environment jsdom
import { solidProperties } from '@lathica/core/section'
import type { BodyState } from '@lathica/core/route'
import { latheMesh } from '@lathica/core/mesh'
import { checkStates, figureWords } from '@lathica/core/inspect'
import { enableAutoUnmount, type VueWrapper } from '@vue/test-utils'
import { afterEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { demoPart } from '../../core/test/support/demo'
import { inspectActions } from '../src/commands/inspectActions'
import {
  CHARTS,
  chartSource,
  chartTable,
  readout,
  valueAt,
  type ChartSource,
} from '../src/inspect/chartData'
import FillFields from '../src/inspect/FillFields.vue'
import MassPanel from '../src/inspect/MassPanel.vue'
import MeasurePanel from '../src/inspect/MeasurePanel.vue'
import SheetPanel from '../src/inspect/SheetPanel.vue'
import BottomLine from '../src/model/BottomLine.vue'
import StepDependence from '../src/route/steps/StepDependence.vue'
import { useInspectStore } from '../src/store/inspect'
import { useRouteStore } from '../src/store/route'
import { openScreen, type Screen } from './support/mount'

enableAutoUnmount(afterEach)

async function open(name: string): Promise<{
  readonly screen: Screen
  readonly inspect: ReturnType<typeof useInspectStore>
}> {
  const screen = await openScreen(demoPart(name))
  const inspect = useInspectStore()
  inspect.begin()
  return { screen, inspect }
}

describe('charts along the axis', () => {
  async function source(name: string): Promise<ChartSource> {
    const { screen, inspect } = await open(name)
    const { body, cavity } = inspect
    if (!body) throw new Error('there is a body')
    return chartSource(body, cavity, 7.85e-3, screen.parts.units)
  }

  it('tell diameters on both sides of a shoulder, and nothing beyond the part', async () => {
    const data = CHARTS.diameters.data(await source('spindle'))
    const [outer, inner] = data.curves
    if (!outer || !inner)
      throw new Error('there are an outer diameter and that of the centre holes')
    expect(data.curves).toHaveLength(2)
    // Of B 2/6.3: the guard ends after 0.592, and the cone of 60° begins there at ⌀4.25.
    const guard = (6.3 - 4.25) / 2 / Math.sqrt(3)
    expect(valueAt(inner, 1)).toBeCloseTo(4.25 - (2 * (1 - guard)) / Math.sqrt(3), 6)
    expect(valueAt(inner, 90)).toBe(0)
    expect(valueAt(outer, 50)).toBeCloseTo(28, 9)
    expect(valueAt(outer, 57.99)).toBeCloseTo(28, 6)
    expect(valueAt(outer, 58.01)).toBeCloseTo(44, 6)
    expect(valueAt(outer, 172)).toBeUndefined()
    expect(readout(data, 90)).toBe('outer ⌀ 35 mm · inner ⌀ 0 mm')
    expect(readout(data, 300)).toBe('')
  })

  it('tell an inner diameter where there is a bore', async () => {
    const data = CHARTS.diameters.data(await source('bearing-housing'))
    expect(data.curves.map((c) => c.name)).toEqual(['outer ⌀', 'inner ⌀'])
    expect(readout(data, 7)).toBe('outer ⌀ 70 mm · inner ⌀ 24 mm')
  })

  it('have moments and mass that end in the whole', async () => {
    const found = await source('spindle')
    const mass = CHARTS.mass.data(found).curves[0]?.points.at(-1)?.value
    expect(mass).toBeCloseTo(0.825037, 5)
    const moment = CHARTS.secondMoment.data(found)
    expect(moment.unit).toBe('mm⁴')
    const [curve] = moment.curves
    expect(curve && valueAt(curve, 90)).toBeCloseTo((Math.PI / 64) * 35 ** 4, 3)
    const area = CHARTS.area.data(found)
    expect(area.curves[0] && valueAt(area.curves[0], 90)).toBeCloseTo((Math.PI / 400) * 35 ** 2, 6)
  })

  it('hold as a table what they show, with units in its head', async () => {
    const rows = chartTable('mass', await source('spindle'))
    expect(rows[0]?.[0]).toBe('place [mm]')
    expect(rows[0]).toHaveLength(6)
    expect(rows.slice(1).every((r) => r.every((c) => !String(c).includes('NaN')))).toBe(true)
    const filling = chartTable('capacity', await source('float'))
    expect(filling[0]).toEqual(['height [mm]', 'capacity [cm³]'])
    expect(Number(filling.at(-1)?.[1])).toBeCloseTo(409.09, 1)
  })
})

describe('charts of a body that is no full turn', () => {
  it('go by its triangles, and hold nothing until there are some', async () => {
    const { screen, inspect } = await open('winding-spindle')
    const { body: spindle } = inspect
    if (!spindle?.plan) throw new Error('it is no full turn')
    // Rounded edges are the kernel's alone.
    const rounding = { kind: 'edges', step: 'step99', sets: [] } as const
    const plan = { ...spindle.plan, ops: [...spindle.plan.ops, rounding] }
    const body = { ...spindle, plan }
    const { units } = screen.parts
    const waiting = chartSource(body, undefined, 7.85e-3, units)
    expect(waiting.stations).toEqual([])
    expect(CHARTS.mass.data(waiting).curves[0]?.points).toEqual([])
    // The triangles of its full turn, with the figures that such a solid would have.
    const turned = solidProperties(body.section)
    if (!turned) throw new Error('it has material')
    const mesh = { ...latheMesh(body.section, 0.01), faces: [] }
    const solid = { ...turned, pieces: 1 } as unknown as BodyState['solid']
    const found = chartSource({ ...body, solid }, undefined, 7.85e-3, units, () => mesh)
    expect(found.isExact).toBeUndefined()
    const data = CHARTS.secondMoment.data(found)
    expect(data.curves.map((c) => c.name)).toEqual(['least', 'greatest'])
    for (const curve of data.curves) {
      expect((valueAt(curve, 50) ?? 0) / ((Math.PI / 64) * 30 ** 4)).toBeCloseTo(1, 3)
    }
    const mass = CHARTS.mass.data(found).curves[0]?.points.at(-1)?.value
    expect(mass).toBeCloseTo((turned.volume * 7.85e-3) / 1000, 9)
    const [head, ...rows] = chartTable('mass', found)
    expect(head?.slice(4)).toEqual([
      'least second moment [mm⁴]',
      'cumulative mass [kg]',
      'greatest second moment [mm⁴]',
    ])
    expect(rows.every((r) => r.length === 7 && r.every((c) => !String(c).includes('NaN')))).toBe(
      true,
    )
  })

  it('go by exact sections where there are some, and wait for no picture', async () => {
    const { screen, inspect } = await open('winding-spindle')
    const { body } = inspect
    if (!body?.solid) throw new Error('it is weighed without the kernel')
    const never = (): undefined => {
      throw new Error('no picture is asked for')
    }
    const found = chartSource(body, undefined, 7.85e-3, screen.parts.units, never)
    expect(found.isExact).toBe(true)
    const [least, greatest] = CHARTS.secondMoment.data(found).curves
    if (!least || !greatest) throw new Error('there are two curves')
    const whole = (Math.PI / 64) * 30 ** 4
    // Beside the keyway it is round, and within weaker one way than the other.
    expect(valueAt(least, 33)).toBeCloseTo(whole, 6)
    expect(valueAt(greatest, 33)).toBeCloseTo(whole, 6)
    expect(valueAt(least, 53)).toBeLessThan(0.9 * whole)
    expect(valueAt(greatest, 53)).toBeGreaterThan(0.98 * whole)
    const mass = CHARTS.mass.data(found).curves[0]?.points.at(-1)?.value
    expect(mass).toBeCloseTo((body.solid.volume * 7.85e-3) / 1000, 9)
  })

  it('tell that play is that of full turns where nothing shows that it is that of the solids too', async () => {
    const { screen, inspect } = await open('guide-roller')
    const { part } = screen.parts
    const [first, second] = inspect.standing
    // Flats, a keyway and a cross hole leave half-planes between them as they were; a knob of facets does not.
    const spindle = (await open('winding-spindle')).inspect.body?.plan
    const knob = (await open('setting-knob')).inspect.body?.plan
    if (!part || !first || !second || !spindle || !knob) throw new Error('they are open')
    const play = { kind: 'radialPlay', body: first.bodyId, other: second.bodyId } as const
    const plain = figureWords(play, part, [first, second])
    expect(plain).toMatch(/^radial play of .* in /)
    expect(figureWords(play, part, [first, { ...second, plan: spindle }])).toBe(plain)
    expect(figureWords(play, part, [first, { ...second, plan: knob }])).toBe(
      `${plain}, of full turns`,
    )
  })

  it('tell that a capacity is that of the full turn where more was done to it', async () => {
    const { screen, inspect } = await open('sampling-can')
    const { part } = screen.parts
    const [body] = inspect.standing
    if (!part || !body?.plan) throw new Error('it is open')
    const capacity = { kind: 'capacity', body: 'body1', height: '' } as const
    // Its handle stays out of it.
    expect(figureWords(capacity, part, [body])).toBe('capacity to the brim')
    const shell = { kind: 'shell', step: 's9', thickness: 1, open: [] } as const
    const plan = { ...body.plan, ops: [...body.plan.ops, shell] }
    expect(figureWords(capacity, part, [{ ...body, plan }])).toBe(
      'capacity to the brim, of the full turn',
    )
    const float = await open('float')
    const other = float.screen.parts.part
    if (!other) throw new Error('it is open')
    expect(figureWords(capacity, other, float.inspect.standing)).toBe('capacity to the brim')
  })
})

describe('picks to be measured', () => {
  it('are at most two unless more are added; a second click lets go', async () => {
    const { inspect } = await open('spindle')
    const pick = (key: string) => ({ body: 'body1', key })
    inspect.take(pick('a'))
    inspect.take(pick('b'))
    expect(inspect.picks.map((p) => p.key)).toEqual(['a', 'b'])
    expect(inspect.tab).toBe('measure')
    inspect.take(pick('c'), true)
    expect(inspect.picks).toHaveLength(3)
    inspect.take(pick('b'), true)
    expect(inspect.picks.map((p) => p.key)).toEqual(['a', 'c'])
    inspect.take(pick('d'))
    expect(inspect.picks.map((p) => p.key)).toEqual(['d'])
  })

  it('come from what is asked on section and solid, and say when they are gone', async () => {
    const { screen, inspect } = await open('spindle')
    const route = useRouteStore()
    route.ask?.take({ body: 'body1', key: 'step99/l1' })
    const panel = screen.mount(MeasurePanel)
    expect(panel.text()).toContain('gone')
    expect(panel.find('[aria-label="Figures of the picks"]').exists()).toBe(false)
    await panel.get('[aria-label="let go of gone"]').trigger('click')
    expect(inspect.picks).toEqual([])
  })

  it('are kept in the sheet with the unit they are told in', async () => {
    const { screen, inspect } = await open('guide-roller')
    const panel = screen.mount(MeasurePanel)
    const row = panel.findAll('tr').find((r) => r.text().startsWith('radial play'))
    await row?.get('button').trigger('click')
    const kept = screen.parts.part?.checks.at(-1)
    expect(kept).toMatchObject({ figure: { kind: 'radialPlay' }, unit: 'mm', target: '' })
    expect(inspect.standing).toHaveLength(2)
  })
})

describe('the inspection sheet on the page', () => {
  const sheet = async (): Promise<{ screen: Screen; panel: VueWrapper }> => {
    const { screen } = await open('line-sheave')
    return { screen, panel: screen.mount(SheetPanel) }
  }
  const rowOf = (panel: VueWrapper, words: string) => {
    const row = panel.findAll('li').find((li) => li.text().includes(words))
    if (!row) throw new Error(`there is no ${words}`)
    return row
  }

  it('tells value, target, difference, and why a row fails', async () => {
    const { panel } = await sheet()
    expect(panel.get('[role="status"]').text()).toBe('5 of 6 pass, 1 fail')
    const row = rowOf(panel, 'what the drive can carry')
    expect(row.attributes('data-verdict')).toBe('fails')
    expect(row.text()).toContain('at most 1.2 kg')
    expect(row.text()).toContain('+0.050531')
  })

  it('keeps what is typed even where it has no meaning, and can be taken back', async () => {
    const { screen, panel } = await sheet()
    await rowOf(panel, 'least web').get('button.row').trigger('click')
    const field = rowOf(panel, 'least web').get('[data-first]')
    await field.setValue('three')
    await field.trigger('change')
    expect(rowOf(panel, 'least web').attributes('data-verdict')).toBe('open')
    expect(rowOf(panel, 'least web').text()).toContain('There is no value or unit called “three”.')
    screen.parts.stepBack()
    await nextTick()
    expect(rowOf(panel, 'least web').attributes('data-verdict')).toBe('passes')
  })

  it('adds, moves and deletes rows', async () => {
    const { screen, panel } = await sheet()
    const add = panel.get<HTMLSelectElement>('[aria-label="Add to the sheet"]')
    await add.setValue('area')
    const made = screen.parts.part?.checks.at(-1)
    expect(made).toMatchObject({ figure: { kind: 'area', body: '' }, unit: 'cm²' })
    const button = (words: string) => {
      const found = rowOf(panel, 'surface area')
        .findAll('.check-form button')
        .find((b) => b.text() === words)
      if (!found) throw new Error(`there is no ${words}`)
      return found
    }
    await button('Up').trigger('click')
    expect(screen.parts.part?.checks.map((c) => c.figure.kind).indexOf('area')).toBe(5)
    await button('Delete row').trigger('click')
    expect(screen.parts.part?.checks.some((c) => c.figure.kind === 'area')).toBe(false)
  })

  it('is summed up in the bottom line', async () => {
    const { screen } = await open('spindle')
    const line = screen.mount(BottomLine, { hint: 'Measure.' })
    expect(line.text()).toContain('Measure.')
    expect(line.get('[data-figure="checks"]').text()).toBe('✓ 6 of 6 checks')
    const [first] = screen.parts.state ? checkStates(screen.parts.state) : []
    expect(first?.verdict).toBe('passes')
  })
})

describe('mass properties on the page', () => {
  it('are of one body or of all, with the bar it is turned from', async () => {
    const { screen } = await open('guide-roller')
    const panel = screen.mount(MassPanel)
    const line = (what: string): string =>
      panel
        .findAll('tr')
        .find((r) => r.text().startsWith(what))
        ?.text() ?? ''
    expect(line('mass')).toContain('0.31108')
    expect(line('bar')).toBe('')
    await panel.get('#mass-of').setValue('body1')
    expect(line('mass')).toContain('0.23056')
    expect(line('bar')).toContain('⌀45 × 26')
    await panel.get('#mass-length').setValue('in')
    expect(line('bounding cylinder')).toContain('⌀1.7323 × 0.9449')
  })
})

describe('filling a vessel', () => {
  it('takes a height or a volume, and says what it cannot hold', async () => {
    const { screen, inspect } = await open('float')
    inspect.chosenChart = 'capacity'
    expect(inspect.chart).toBe('capacity')
    const fields = screen.mount(FillFields)
    const height = fields.get<HTMLInputElement>('[aria-label="Fill height"]')
    const volume = fields.get<HTMLInputElement>('[aria-label="Volume"]')
    await height.setValue('10')
    const cap = (Math.PI * 100 * (39 - 10 / 3)) / 1000
    expect(Number(volume.element.value)).toBeCloseTo(cap, 3)
    volume.element.value = '500'
    await volume.trigger('change')
    expect(fields.get('[role="alert"]').text()).toContain('It holds no more than 409.09 cm³.')
    await height.setValue('999')
    expect(fields.get('[role="alert"]').text()).toBe('That is over the brim.')
    await height.setValue('-3')
    expect(fields.get('[role="alert"]').text()).toBe('A height is not below zero.')
  })

  it('offers no capacity for what holds nothing', async () => {
    const { inspect } = await open('line-sheave')
    inspect.chosenChart = 'capacity'
    expect(inspect.charts).not.toContain('capacity')
    expect(inspect.chart).toBe('diameters')
  })
})

describe('looking back along the route', () => {
  it('shows a step fewer or more, with its own sizes', async () => {
    await open('bearing-housing')
    const route = useRouteStore()
    route.reset()
    route.runBy(-4)
    expect(route.current?.number).toBe(20)
    expect(route.marks.map((m) => m.words)).toEqual(['⌀35 × 20', '⌀24 × 14'])
    route.runBy(-9)
    expect(route.current?.number).toBe(10)
    expect(route.marks).toEqual([])
    route.playing = true
    route.runBy(99)
    expect(route.playing).toBe(false)
    expect(route.shownCount).toBe(6)
  })

  it('opens what a step stands on by a click', async () => {
    const { screen } = await open('bearing-housing')
    const groove = screen.parts.route[2]
    const card = screen.mount(StepDependence, { step: groove })
    expect(card.text()).toContain('20 Bore')
    await card.get('button').trigger('click')
    expect(screen.board.stepId).toBe(screen.parts.route[1]?.id)
  })
})

describe('actions of the inspection screen', () => {
  it('have a key each, and go round charts and panels', async () => {
    const { inspect } = await open('float')
    const actions = inspectActions()
    const keys = actions.flatMap((a) => a.key ?? [])
    expect(new Set(keys).size).toBe(keys.length)
    const run = (id: string): void => actions.find((a) => a.id === id)?.run()
    run('tab:mass')
    expect(inspect.tab).toBe('mass')
    const seen = inspect.charts.map(() => {
      run('nextChart')
      return inspect.chart
    })
    expect(new Set(seen).size).toBe(inspect.charts.length)
    inspect.take({ body: '', key: 'axis' })
    run('letGo')
    expect(inspect.picks).toEqual([])
  })
})
