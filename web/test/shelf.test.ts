// @vitest-environment jsdom
import { enableAutoUnmount, mount } from '@vue/test-utils'
import { afterEach, describe, expect, it } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import type { PartSummary } from '@lathica/core/inspect'
import type { PartCard as PartOnShelf } from '@lathica/core/wire'
import { clock, day } from '../src/clock'
import PartCard from '../src/shelf/PartCard.vue'
import { sectionPicture } from '../src/shelf/sectionPicture'

enableAutoUnmount(afterEach)

const CYLINDER: PartSummary = {
  lie: 'lying',
  units: { length: 'mm', angle: 'deg', mass: 'kg' },
  material: 'steel C45',
  colour: '#8d979d',
  overall: { diameter: 20, length: 50, mass: 123.3 },
  outline: [[0, 0, 50, 0, 50, 10, 0, 10]],
  pencil: [],
  failedSteps: 0,
}

const router = createRouter({
  history: createMemoryHistory(),
  routes: [
    { path: '/', component: { template: '<i />' } },
    { path: '/part/:id', name: 'model', component: { template: '<i />' } },
  ],
})

const card = (summary: PartSummary) => {
  const part: PartOnShelf = {
    id: 'p1',
    damaged: false,
    name: 'Spindle',
    revision: 3,
    updatedAt: '2026-11-02T10:42:00.000Z',
    summary,
  }
  return mount(PartCard, { props: { part, fresh: false }, global: { plugins: [router] } })
}

describe('the picture on a card', () => {
  it('has the half-section above the axis and the outside below it', () => {
    const picture = sectionPicture(CYLINDER)
    expect(picture?.section).toBe('M0 0L50 0L50 -10L0 -10Z')
    expect(picture?.strips).toEqual([{ d: 'M50 0L50 10L0 10L0 0Z' }])
    const [x = 0, y = 0, width = 0, height = 0] = (picture?.viewBox ?? '').split(' ').map(Number)
    expect(x).toBeLessThan(0)
    expect(y).toBeLessThan(-10)
    expect(x + width).toBeGreaterThan(50)
    expect(y + height).toBeGreaterThan(10)
  })

  it('stands where the part stands, the section on the right', () => {
    const picture = sectionPicture({ ...CYLINDER, lie: 'standing' })
    expect(picture?.section).toBe('M0 0L0 -50L10 -50L10 0Z')
  })

  it('shows what is drawn but not turned in pencil, and nothing of nothing', () => {
    const drawn = { ...CYLINDER, outline: [], overall: null, pencil: [[0, 0, 0, 9]] }
    expect(sectionPicture(drawn)).toMatchObject({ section: '', pencil: 'M0 0L0 -9' })
    expect(sectionPicture({ ...drawn, pencil: [] })).toBeUndefined()
  })

  it('never holds a figure that is none', () => {
    const flat = { ...CYLINDER, outline: [], pencil: [[5, 0, 5, 0]] }
    expect(JSON.stringify(sectionPicture(flat))).not.toMatch(/NaN|Infinity|null/)
  })
})

describe('a card on the shelf', () => {
  it('tells size, mass, material and when it was changed', () => {
    const text = card(CYLINDER).text()
    expect(text).toContain('⌀20 × 50 mm')
    expect(text).toContain('123.3 g')
    expect(text).toContain('steel C45')
    expect(text).toContain('2 Nov 2026')
  })

  it('says so when steps fail or nothing is turned', () => {
    expect(card({ ...CYLINDER, failedSteps: 2 }).text()).toContain('2 failing')
    expect(card({ ...CYLINDER, overall: null }).text()).toContain('nothing turned yet')
  })

  it('asks to be duplicated, downloaded or deleted', async () => {
    const one = card(CYLINDER)
    for (const name of ['Duplicate Spindle', 'Download Spindle', 'Delete Spindle']) {
      await one.find(`[aria-label="${name}"]`).trigger('click')
    }
    expect(Object.keys(one.emitted())).toEqual(
      expect.arrayContaining(['duplicate', 'download', 'remove']),
    )
  })
})

describe('the time of day', () => {
  it('is told from 00:00 to 23:59', () => {
    expect(clock(new Date(2026, 10, 2, 0, 5))).toBe('00:05')
    expect(clock(new Date(2026, 10, 2, 23, 59))).toBe('23:59')
    expect(day(new Date(2026, 10, 2))).toBe('2 Nov 2026')
  })
})
