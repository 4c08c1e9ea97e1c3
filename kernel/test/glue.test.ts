import { afterAll, beforeAll, expect, test } from 'vitest'
import { solidProperties } from '@lathica/core/section'
import { installGlue, loadKernel, type Kernel } from '../src'
import { outline } from './support'

const compiled = globalThis.Function
let kernel: Kernel
beforeAll(async () => {
  installGlue()
  kernel = await loadKernel()
})
afterAll(() => {
  globalThis.Function = compiled
})

test('the kernel works without text being compiled, and functions are still functions', () => {
  const section = outline('s', [0, 4], [30, 4], [30, 10], [0, 12])
  const plan = { base: section, ops: [] }
  const { figures, valid } = kernel.build(plan, 0.05)
  expect(valid).toBe(true)
  expect((figures?.volume ?? 0) / (solidProperties(section)?.volume ?? 1)).toBeCloseTo(1, 11)
  const text = kernel.writeStep(
    [{ bodyId: 'body1', name: 'ring', colour: '#336699', plan }],
    'Ring',
  )
  expect(text).toContain('MANIFOLD_SOLID_BREP')
  expect((() => 1) instanceof Function).toBe(true)
})

test('other texts are refused', () => {
  expect(() => (new Function('a', 'return a') as () => unknown)()).toThrow('not known here')
})
