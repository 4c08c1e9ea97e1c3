// @vitest-environment jsdom
import { enableAutoUnmount, mount } from '@vue/test-utils'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Part } from '@lathica/core/part'
import type { SolidPlan } from '@lathica/core/solid'
import { changeStep, perform } from '@lathica/core/edit'
import { STOPPED, type Answer } from '../src/kernel/answers'
import { escape } from '../src/commands/escape'
import BuildingNote from '../src/solid/BuildingNote.vue'
import { useSolidsStore } from '../src/store/solids'
import { act, lastStep } from './support/acting'
import { openScreen, type Screen } from './support/mount'
import { spindle } from './support/spindle'

interface Asked {
  readonly plan: SolidPlan
  readonly stop: AbortSignal
  readonly answer: (answer: Answer<never>) => void
}

/** A thread that never comes to an end by itself, but leaves what is stopped. */
const thread = vi.hoisted(() => ({ asked: [] as Asked[], waiting: { value: 0 } }))
vi.mock('../src/kernel/client', async () => {
  const { ref, shallowRef } = await import('vue')
  const waiting = ref(0)
  thread.waiting = waiting
  const ask = (plan: SolidPlan, stop: AbortSignal): Promise<Answer<never>> => {
    waiting.value++
    return new Promise<Answer<never>>((answer) => {
      thread.asked.push({ plan, stop, answer })
      stop.addEventListener('abort', () => answer(STOPPED))
    }).finally(() => waiting.value--)
  }
  return {
    waiting,
    ahead: shallowRef({ done: 1, of: 3 }),
    prepareKernel: () => Promise.resolve(),
    pictureSolid: (plan: SolidPlan, _: number, stop: AbortSignal) => ask(plan, stop),
    weighSolid: () => new Promise<never>(() => undefined),
  }
})

enableAutoUnmount(afterEach)
let screen: Screen
let solids: ReturnType<typeof useSolidsStore>
beforeEach(async () => {
  vi.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue(null)
  thread.asked.splice(0).forEach(({ answer }) => answer(STOPPED))
  screen = await openScreen(spindle())
  solids = useSolidsStore()
})

const inHand = (): Asked => {
  const last = thread.asked.at(-1)
  if (!last) throw new Error('nothing is asked')
  return last
}
/** Where the half is parted: any change makes another solid. */
const halveAt = (angle: string): void => {
  const step = lastStep()
  if (step.kind !== 'halve') throw new Error('no half')
  screen.parts.run(changeStep(step.id, () => ({ ...step, angle })))
}

test('what an edit has passed is left, and what is wanted now asked for', async () => {
  act('mill:halve')
  await vi.waitFor(() => expect(thread.asked).toHaveLength(1))
  const first = inHand()
  halveAt('20')
  await vi.waitFor(() => expect(thread.asked).toHaveLength(2))
  expect(first.stop.aborted).toBe(true)
  expect(inHand().stop.aborted).toBe(false)
  expect(inHand().plan).not.toEqual(first.plan)
  // Nothing was said about what was left: undone, it is built after all.
  screen.parts.stepBack()
  await vi.waitFor(() => expect(thread.asked).toHaveLength(3))
  expect(inHand().plan).toEqual(first.plan)
  expect(screen.parts.state?.steps.at(-1)?.problem).toBeUndefined()
})

test('what is stopped by hand is not begun again by itself, but when it is asked for', async () => {
  const note = mount(BuildingNote)
  act('mill:halve')
  await vi.waitFor(() => expect(solids.slow).toBe(true))
  expect(note.get('[role=status]').text()).toBe('building the solid …')
  expect(note.get('.count').text()).toBe('1 of 3')
  expect(note.get('progress').attributes()).toMatchObject({ value: '1', max: '3' })
  const first = inHand()
  await note.get('button').trigger('click')
  expect(first.stop.aborted).toBe(true)
  await vi.waitFor(() => expect(solids.working).toBe(false))
  await vi.waitFor(() => expect(note.text()).toContain('Stopped'))
  expect(solids.isStopped).toBe(true)
  expect(thread.asked).toHaveLength(1)

  await note.get('button').trigger('click')
  await vi.waitFor(() => expect(thread.asked).toHaveLength(2))
  expect(inHand().plan).toEqual(first.plan)
  solids.stop()
  await vi.waitFor(() => expect(solids.working).toBe(false))

  // An edit makes something else of it, which is built; what it was before stays stopped.
  halveAt('15')
  await vi.waitFor(() => expect(thread.asked).toHaveLength(3))
  expect(solids.isStopped).toBe(false)
  screen.parts.stepBack()
  await vi.waitFor(() => expect(solids.isStopped).toBe(true))
  expect(thread.asked).toHaveLength(3)
})

test('while something is dragged the last picture is better than none', async () => {
  act('mill:halve')
  await vi.waitFor(() => expect(thread.asked).toHaveLength(1))
  const step = lastStep()
  if (step.kind !== 'halve') throw new Error('no half')
  const turned = (angle: string): Part => {
    const made =
      screen.parts.part &&
      perform(
        screen.parts.part,
        changeStep(step.id, () => ({ ...step, angle })),
      )
    if (made?.ok !== true) throw new Error('not turned')
    return made.value
  }
  screen.parts.preview = turned('12')
  await new Promise((done) => setTimeout(done, 50))
  expect(inHand().stop.aborted).toBe(false)
  screen.parts.take('turn', turned('14'))
  await vi.waitFor(() => expect(thread.asked).toHaveLength(2))
  expect(thread.asked[0]?.stop.aborted).toBe(true)
})

test('Esc closes what is open; over the solid it stops what has taken long', async () => {
  act('mill:halve')
  await vi.waitFor(() => expect(solids.slow).toBe(true))
  expect(screen.board.isAtRest).toBe(false)
  // Pressed twice in a hurry it is meant for the card.
  escape()
  escape()
  expect(screen.board.isAtRest).toBe(true)
  expect(inHand().stop.aborted).toBe(false)
  // And while the pointer is elsewhere as well.
  const now = performance.now()
  const clock = vi.spyOn(performance, 'now').mockReturnValue(now + 5000)
  screen.board.pointed = 'board'
  escape()
  expect(inHand().stop.aborted).toBe(false)
  screen.board.pointed = 'solid'
  escape()
  clock.mockRestore()
  expect(inHand().stop.aborted).toBe(true)
  await vi.waitFor(() => expect(solids.isStopped).toBe(true))
})
