// @vitest-environment jsdom
import { createPart } from '@lathica/core/part'
import { drawChain } from '@lathica/core/edit'
import { enableAutoUnmount, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { defineComponent, h, nextTick, ref } from 'vue'
import CommandSearch from '../src/commands/CommandSearch.vue'
import { keyLabel } from '../src/commands/keys'
import { ALSO_CALLED } from '../src/commands/alsoCalled'
import { PAD_KEYS, createActions, type Action, type Page } from '../src/commands/registry'
import { useShortcuts } from '../src/commands/useShortcuts'
import ToolPad from '../src/pad/ToolPad.vue'
import { openScreen, type Screen } from './support/mount'
import { spindle } from './support/spindle'

enableAutoUnmount(afterEach)
let screen: Screen
let actions: readonly Action[]
const page = ref<Page>('draw')
let special: ReturnType<typeof useShortcuts>

beforeEach(async () => {
  screen = await openScreen(spindle())
  actions = createActions()
  page.value = 'draw'
  mount(
    defineComponent({
      setup() {
        special = useShortcuts(actions, page)
        return () => h('input', { id: 'typing' })
      },
    }),
    { attachTo: document.body },
  )
})

const press = (key: string, init: KeyboardEventInit = {}, target: EventTarget = document.body) => {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...init })
  target.dispatchEvent(event)
  return event
}

describe('the registry of actions', () => {
  it('gives every key on a page to one action, each on a place of the pad', () => {
    for (const p of ['draw', 'edit', 'tie', 'turn'] as const) {
      const keys = actions.filter((a) => a.pages?.includes(p)).map((a) => a.key)
      expect(new Set(keys).size).toBe(keys.length)
      expect(keys.every((k) => k !== undefined && PAD_KEYS.includes(k))).toBe(true)
    }
  })

  it('keeps a tool at its place whatever page it stands on', () => {
    const shared = actions.filter((a) => (a.pages?.length ?? 0) > 1)
    expect(shared.map((a) => a.id)).toEqual(['pick', 'size', 'remove', 'aside'])
    expect(new Set(actions.map((a) => a.id)).size).toBe(actions.length)
  })

  it('gives every tool a place on the pad, a sentence in the bottom line and a name to search for', () => {
    const tools = actions.filter((a) => a.tool !== undefined)
    expect(tools.length).toBeGreaterThan(35)
    for (const a of tools) {
      // A polygon is another way of drawing a rectangle; points are put in from the card of a curve.
      if (!['polygon', 'curvePoint', 'bridge'].includes(a.id))
        expect([a.id, a.pages?.length ?? 0]).not.toEqual([a.id, 0])
      expect(a.label).not.toBe('')
      screen.board.picks = []
      a.run()
      expect([a.id, screen.board.toolState?.hint]).toEqual([
        a.id,
        expect.stringMatching(/^[A-Z].*[.;]$/),
      ])
    }
  })

  it('is found by other words only for what there is', () => {
    const known = new Set(actions.map((a) => a.id))
    expect(Object.keys(ALSO_CALLED).filter((id) => !known.has(id))).toEqual([])
  })

  it('says of each action what it does', () => {
    for (const a of actions) expect(a.help).toMatch(/^[A-Z].+\.$/)
  })
})

describe('keys of the modelling screen', () => {
  it('take tools in hand and turn the pad’s page to them', () => {
    press('a')
    expect(screen.board.toolId).toBe('chain')
    press('w')
    expect([screen.board.toolId, page.value]).toEqual(['arc', 'draw'])
    press('2')
    press('w')
    expect([screen.board.toolId, page.value]).toEqual(['trim', 'edit'])
    press('3')
    press('w')
    expect([screen.board.toolId, page.value]).toEqual(['tie:axial', 'tie'])
    press('Escape')
    expect(screen.board.toolId).toBe('pick')
    press('1')
    expect(page.value).toBe('draw')
  })

  it('rest while one types', () => {
    const input = document.querySelector('#typing')
    press('a', {}, input ?? document.body)
    expect(screen.board.toolId).toBe('pick')
  })

  it('undo and redo, and delete what is picked', () => {
    const before = screen.board.sketch.sizes.length
    screen.board.picks = [screen.board.sketch.sizes[0]?.id ?? '']
    press('Delete')
    expect(screen.board.sketch.sizes).toHaveLength(before - 1)
    press('z', { ctrlKey: true })
    expect(screen.board.sketch.sizes).toHaveLength(before)
    press('z', { ctrlKey: true, shiftKey: true })
    expect(screen.board.sketch.sizes).toHaveLength(before - 1)
    press('z', { metaKey: true })
    expect(screen.board.sketch.sizes).toHaveLength(before)
  })

  it('keep the browser’s own keys out of what they do, and leave others alone', () => {
    expect(press('s', { ctrlKey: true }).defaultPrevented).toBe(true)
    expect(press('r', { ctrlKey: true }).defaultPrevented).toBe(false)
    expect(press('F5').defaultPrevented).toBe(false)
    expect(press('Tab').defaultPrevented).toBe(false)
  })

  it('open the search and the list of keys', () => {
    press('/')
    expect(special.searching.value).toBe(true)
    special.searching.value = false
    press('?')
    expect(special.listingKeys.value).toBe(true)
    press('a')
    expect(screen.board.toolId).toBe('pick')
  })

  it('pick everything, and revolve a closed profile', async () => {
    screen = await openScreen(createPart({ name: 'Float' }))
    actions = createActions()
    const end = (x: number, y: number, line?: string) => ({
      at: { x, y },
      ...(line === undefined ? {} : { line }),
    })
    const ends = [end(0, 0, 'axis'), end(0, 9), end(30, 9), end(30, 0, 'axis')]
    screen.parts.run(drawChain(screen.board.sketch.id, ends, [['radial'], ['axial'], ['radial']]))
    actions.find((a) => a.id === 'pickAll')?.run()
    expect(screen.board.picks).toHaveLength(3)
    actions.find((a) => a.id === 'role:construction')?.run()
    expect(screen.board.sketch.entities.every((e) => e.role === 'construction')).toBe(true)
    screen.parts.stepBack()
    actions.find((a) => a.id === 'revolve')?.run()
    expect(screen.parts.state?.bodies[0]?.mass).toBeGreaterThan(0)
    expect(actions.find((a) => a.id === 'revolve')?.enabled?.()).toBe(false)
  })

  it('begin another profile with the chain in hand', () => {
    press('4')
    press('t')
    expect(screen.parts.part?.sketches).toHaveLength(2)
    expect([screen.board.sketch.name, screen.board.toolId]).toEqual(['B', 'chain'])
  })
})

describe('the tool pad', () => {
  it('shows each tool at its key, the held one pressed, the unfit ones off', async () => {
    const pad = screen.mount(ToolPad, { actions, page: 'draw' })
    expect(pad.findAll('.grid > *')).toHaveLength(15)
    const tools = pad.findAll('button.tool').map((b) => b.attributes('aria-label'))
    expect(tools).toEqual([
      ...['Pick', 'Arc', 'Circle', 'Rectangle', 'Slot'],
      ...['Chain', 'Size', 'Free curve', 'Point', 'Stepped chain'],
      ...['Construction', 'Centre line', 'Outline', 'Reference', 'Delete'],
    ])
    expect(pad.find('[aria-label="Pick"]').attributes('aria-pressed')).toBe('true')
    expect(pad.find('[aria-label="Construction"]').attributes('disabled')).toBeDefined()
    screen.board.picks = [screen.board.sketch.entities[0]?.id ?? '']
    await nextTick()
    expect(pad.find('[aria-label="Construction"]').attributes('disabled')).toBeUndefined()
    await pad.find('[aria-label="Chain"]').trigger('click')
    expect(screen.board.toolId).toBe('chain')
  })

  it('marks constraints that fit what is picked', async () => {
    const pad = screen.mount(ToolPad, { actions, page: 'tie' })
    screen.board.picks = [screen.board.sketch.points[2]?.id ?? '', 'axis']
    await nextTick()
    expect(pad.find('[aria-label="On curve"]').classes()).toContain('fits')
    expect(pad.find('[aria-label="Axial"]').classes()).not.toContain('fits')
  })
})

describe('the search over commands', () => {
  it('finds by words of the name and of what it does, and runs what is chosen', async () => {
    const search = screen.mount(CommandSearch, { actions })
    await search.find('input').setValue('radial square')
    expect(search.findAll('li')).toHaveLength(1)
    await search.find('input').trigger('keydown', { key: 'Enter' })
    expect(search.emitted('close')).toHaveLength(1)
    expect(screen.board.toolId).toBe('tie:radial')
  })

  it('goes through what it found with the arrows', async () => {
    const search = screen.mount(CommandSearch, { actions })
    await search.find('input').setValue('lines')
    const count = search.findAll('li').length
    expect(count).toBeGreaterThan(2)
    await search.find('input').trigger('keydown', { key: 'ArrowUp' })
    expect(search.findAll('li')[count - 1]?.attributes('aria-selected')).toBe('true')
    await search.find('input').setValue('no such thing')
    expect(search.text()).toContain('No command has these words.')
  })

  it('does not run what cannot be done now', async () => {
    const search = screen.mount(CommandSearch, { actions })
    await search.find('input').setValue('only report')
    await search.find('input').trigger('keydown', { key: 'Enter' })
    expect(search.emitted('close')).toBeUndefined()
  })
})

describe('keys in print', () => {
  it.each([
    ['q', 'Q'],
    [' ', 'Space'],
    ['Ctrl+Shift+z', 'Ctrl + Shift + Z'],
  ])('%s is told as %s', (key, label) => expect(keyLabel(key)).toBe(label))
})
