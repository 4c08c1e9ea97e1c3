// @vitest-environment jsdom
import { expect, it, vi } from 'vitest'
import { movedByKey } from '../src/solid/movedByKey'

it('arrow keys turn the part, plus and minus come nearer and go away, others do nothing', () => {
  const scene = { turn: vi.fn(), approach: vi.fn() }
  const pressed = (key: string, more: KeyboardEventInit = {}): boolean =>
    movedByKey(scene, new KeyboardEvent('keydown', { key, ...more }))
  expect(pressed('ArrowLeft')).toBe(true)
  expect(pressed('ArrowDown')).toBe(true)
  expect(scene.turn.mock.calls).toEqual([
    [-Math.PI / 18, 0],
    [0, Math.PI / 18],
  ])
  expect(pressed('+')).toBe(true)
  expect(pressed('-')).toBe(true)
  expect(scene.approach.mock.calls).toEqual([[1.25], [0.8]])
  expect(pressed('a')).toBe(false)
  expect(pressed('ArrowLeft', { ctrlKey: true })).toBe(false)
  expect(scene.turn).toHaveBeenCalledTimes(2)
})
