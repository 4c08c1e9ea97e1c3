// @vitest-environment jsdom
import { succeed } from '@lathica/core/result'
import { linesOf } from '@lathica/core/sketch'
import { createPart } from '@lathica/core/part'
import { addSize, changeSize, drawChain, removeItems, type End } from '@lathica/core/edit'
import { enableAutoUnmount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import ConstraintMarks from '../src/board/ConstraintMarks.vue'
import BottomLine from '../src/model/BottomLine.vue'
import PicksCard from '../src/route/PicksCard.vue'
import ProfileCard from '../src/route/ProfileCard.vue'
import RoutePane from '../src/route/RoutePane.vue'
import StepCard from '../src/route/StepCard.vue'
import { openScreen, type Screen } from './support/mount'
import { spindle } from './support/spindle'

enableAutoUnmount(afterEach)
let screen: Screen
beforeEach(async () => {
  screen = await openScreen(spindle())
})

const at = (x: number, y: number, extra: Partial<End> = {}): End => ({ at: { x, y }, ...extra })
const sketchId = () => screen.board.sketch.id
const sizeOf = (formula: string) => screen.board.sketch.sizes.find((s) => s.formula === formula)

/** A slanted line that is made shorter than its axial extent. */
function disagree({ parts, board }: Screen): void {
  const { id } = board.sketch
  parts.run(drawChain(id, [at(200, 40), at(220, 60)], [[]]))
  const line = linesOf(board.sketch).at(-1)
  if (!line) throw new Error('the line was drawn')
  parts.run(addSize(id, { kind: 'length', line: line.id }, '30'))
  const length = board.sketch.sizes.at(-1)?.id ?? ''
  parts.run(addSize(id, { kind: 'axialDistance', a: line.from, b: line.to }, '20'))
  parts.run(changeSize(id, length, '10'))
}

describe('the route', () => {
  it('tells every step’s number, what it made and what mass it changed', () => {
    const route = screen.mount(RoutePane)
    expect(route.find('.row').text()).toMatch(/10\s*Revolve\s*\+826\.6 g\s*profile A, ⌀44 × 171/)
  })

  it('opens a step in the step card, and shows that it is open', async () => {
    const route = screen.mount(RoutePane)
    const card = screen.mount(StepCard)
    await route.find('.row').trigger('click')
    expect(route.find('.row').attributes('aria-current')).toBe('step')
    expect(card.text()).toContain('10 Revolve')
    expect(card.text()).toContain('all closed regions')
  })

  it('keeps a failed step in its place, with what it lost and what mends it', async () => {
    const route = screen.mount(RoutePane)
    screen.parts.run(removeItems(sketchId(), [screen.board.sketch.entities[3]?.id ?? '']))
    await nextTick()
    const row = route.find('.row').text()
    expect(row).toContain('Profile A is open')
    expect(row).toContain('Draw on to another end')
    expect(row).not.toContain('+')
  })

  it('sets a step aside and takes it up again by its card', async () => {
    const route = screen.mount(RoutePane)
    const card = screen.mount(StepCard)
    await route.find('.row').trigger('click')
    await card.find('#step-aside').trigger('click')
    expect(route.text()).toContain('set aside')
    expect(screen.parts.state?.bodies[0]?.mass).toBe(0)
    await card.find('#step-aside').trigger('click')
    expect(screen.parts.state?.bodies[0]?.mass).toBeGreaterThan(800)
  })

  it('offers to save the part where the computation broke off, and runs the other steps', async () => {
    const broken = { id: 'x', number: 20, aside: false, kind: 'fillet', body: 'body1' }
    const sets = [{ pick: { kind: 'of no kind there is' }, radius: '1' }]
    screen.parts.run({
      label: 'add a step that breaks off',
      run: (part) => succeed({ ...part, route: [...part.route, { ...broken, sets } as never] }),
    })
    const route = screen.mount(RoutePane)
    expect(screen.parts.state?.steps.map((s) => s.status)).toEqual(['done', 'failed'])
    const saved: string[] = []
    URL.createObjectURL = (blob) => {
      saved.push((blob as Blob).type)
      return 'blob:report'
    }
    URL.revokeObjectURL = () => undefined
    expect(route.findAll('.report')).toHaveLength(1)
    await route.find('.report button').trigger('click')
    expect(saved).toEqual(['application/json'])
  })

  it('says how to begin while it is empty', async () => {
    screen = await openScreen(createPart({ name: 'Float' }))
    expect(screen.mount(RoutePane).text()).toContain('Nothing is made yet')
  })
})

describe('the card of the profile', () => {
  it('tells whether it stands in ink and what it encloses', async () => {
    const card = screen.mount(ProfileCard)
    expect(card.text()).toContain('in ink: nothing can move')
    expect(card.text()).toContain('1 region')
    screen.parts.run(removeItems(sketchId(), [sizeOf('44')?.id ?? '']))
    await nextTick()
    expect(card.text()).toContain('in pencil: 1 freedom left')
  })

  it('names who disagrees, and each way out mends it', async () => {
    screen = await openScreen(createPart({ name: 'Float' }))
    const card = screen.mount(ProfileCard)
    disagree(screen)
    await nextTick()
    expect(screen.board.sketchState?.solution.solved).toBe(false)
    const problem = card.find('.problem')
    expect(problem.text()).toContain('These cannot all hold:')
    expect(problem.findAll('li').map((li) => li.find('.what').text())).toEqual([
      'length of line 1, len1 = 10',
      'axial distance of point 1 and point 2, dist1 = 20',
    ])
    await problem.find('[title="Let it only report"]').trigger('click')
    await nextTick()
    expect(screen.board.sketchState?.solution.solved).toBe(true)
    expect(card.text()).not.toContain('cannot all hold')
    screen.parts.stepBack()
    await nextTick()
    await card.find('.problem [title="Delete"]').trigger('click')
    expect(screen.board.sketchState?.solution.solved).toBe(true)
  })

  it('shows where an outline is open, and picks the line on request', async () => {
    screen = await openScreen(createPart({ name: 'Float' }))
    const ends = [at(0, 0, { on: ['axis'] }), at(0, 9), at(30, 9)]
    screen.parts.run(drawChain(sketchId(), ends, [['radial'], ['axial']]))
    const card = screen.mount(ProfileCard)
    expect(card.text()).toContain('Profile A is open')
    await card.findAll('.problem button')[0]?.trigger('click')
    expect(screen.board.picks.length).toBe(2)
  })

  it('offers to revolve once the profile is closed, and only then', async () => {
    screen = await openScreen(createPart({ name: 'Float' }))
    const card = screen.mount(ProfileCard)
    expect(card.text()).not.toContain('Revolve')
    const ends = [at(0, 0, { on: ['axis'] }), at(0, 9), at(30, 9), at(30, 0, { on: ['axis'] })]
    screen.parts.run(drawChain(sketchId(), ends, [['radial'], ['axial'], ['radial']]))
    await nextTick()
    const button = card.findAll('button').find((b) => b.text().startsWith('Revolve'))
    await button?.trigger('click')
    expect(screen.parts.part?.route).toHaveLength(1)
    expect(screen.board.stepId).toBe(screen.parts.part?.route[0]?.id)
  })
})

describe('the card of what is picked', () => {
  it('tells a line’s figures and what holds it', () => {
    const land = screen.board.sketch.entities[1]
    screen.board.picks = [land?.id ?? '']
    const card = screen.mount(PicksCard)
    expect(card.text()).toContain('Line 2')
    expect(card.text()).toContain('24 mm')
    expect(card.text()).toContain('line 2 axial')
    expect(card.text()).toContain('length of line 2')
  })

  it('tells how a point can move', async () => {
    const land = linesOf(screen.board.sketch)[5]
    screen.parts.run(removeItems(sketchId(), [sizeOf('44')?.id ?? '']))
    screen.board.picks = [land?.from ?? '']
    const card = screen.mount(PicksCard)
    expect(card.text()).toContain('one way')
    screen.parts.stepBack()
    await nextTick()
    expect(card.text()).toContain('no: in ink')
  })

  it('deletes a constraint, which sets something free', async () => {
    const land = screen.board.sketch.entities[1]
    screen.board.picks = [land?.id ?? '']
    const card = screen.mount(PicksCard)
    await card.find('[aria-label="Delete line 2 axial"]').trigger('click')
    expect(screen.board.freedoms).toBe(1)
  })

  it('lets go of picks that an undo takes away', () => {
    const ends = [at(60, 40), at(80, 40)]
    screen.parts.run(drawChain(sketchId(), ends, [['axial']]))
    screen.board.picks = [screen.board.sketch.entities.at(-1)?.id ?? '']
    screen.parts.stepBack()
    expect(screen.board.picks).toEqual([])
  })
})

describe('the bottom line', () => {
  it('holds the live figures and what the next click does', async () => {
    const line = screen.mount(BottomLine)
    expect(line.find('[data-figure="mass"]').text()).toBe('826.6 g')
    expect(line.find('[data-figure="size"]').text()).toBe('⌀44 × 171')
    expect(line.find('[data-figure="freedoms"]').text()).toBe('in ink')
    expect(line.find('.hint').text()).toContain('Click to pick')
    screen.board.useTool('chain')
    await nextTick()
    expect(line.find('.hint').text()).toContain('where the outline begins')
  })

  it('leads to the trouble when sizes disagree or a step fails', async () => {
    const line = screen.mount(BottomLine)
    expect(line.find('.trouble').exists()).toBe(false)
    screen.parts.run(removeItems(sketchId(), [screen.board.sketch.entities[3]?.id ?? '']))
    await nextTick()
    expect(line.find('.trouble').text()).toContain('1 step fails')
    await line.find('.trouble').trigger('click')
    expect(screen.board.stepId).toBe(screen.parts.part?.route[0]?.id)
    disagree(screen)
    await nextTick()
    expect(line.find('.trouble').text()).toContain('sizes disagree')
  })
})

describe('marks of constraints', () => {
  it('are hidden in ink, and shown on what is picked', async () => {
    const marks = screen.mount(ConstraintMarks)
    expect(marks.findAll('.mark')).toHaveLength(0)
    screen.board.picks = [screen.board.sketch.entities[1]?.id ?? '']
    await nextTick()
    expect(marks.findAll('.mark').map((m) => m.attributes('title'))).toContain('line 2 axial')
  })

  it('stand beside what can still move, unless they are switched off', async () => {
    const marks = screen.mount(ConstraintMarks)
    screen.parts.run(removeItems(sketchId(), [sizeOf('44')?.id ?? '']))
    await nextTick()
    expect(marks.findAll('.mark').length).toBeGreaterThan(0)
    screen.board.showMarks = false
    await nextTick()
    expect(marks.findAll('.mark')).toHaveLength(0)
  })
})
