import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { expect, test } from 'vitest'
import { PART_FRAME, place, vec } from '@lathica/core/geometry'
import { prismTool, rectangleOf, type SolidOp, type SolidPlan } from '@lathica/core/solid'
import { KernelFault, loadKernel } from '../src'
import { sharedKernel } from './support/kernel'

/** A flat that is cut off a shaft of ⌀40 this far out, over 5 mm from a place. */
const flat = (from: number, out: number): SolidOp => ({
  ...{ kind: 'combine', step: `flat${from}`, effect: 'cut' },
  tools: [
    prismTool(
      rectangleOf(`flat${from}`, vec(out, -30), vec(60, 60)),
      { ...PART_FRAME, at: place(from, 0, 0) },
      0,
      5,
    ),
  ],
})
const shaft = (length: number): SolidPlan => ({
  base: rectangleOf('shaft', vec(0, 0), vec(length, 20)),
  ops: [flat(2, 15), flat(12, 16), flat(22, 17)],
})

test('operations of a plan are done one by one, and come to the same as all at once', async () => {
  const kernel = await sharedKernel()
  const plan = shaft(41)
  expect(kernel.ahead(plan)).toEqual({ done: 1, of: 3 })
  expect(kernel.ahead(plan)).toEqual({ done: 2, of: 3 })
  expect(kernel.ahead(plan)).toEqual({ done: 3, of: 3 })
  expect(kernel.ahead(plan)).toBeUndefined()
  const inSteps = kernel.build(plan, 0.05)
  kernel.free()
  expect(kernel.build(plan, 0.05)).toEqual(inSteps)
  // A change in the last operation leaves that one to do.
  const changed = { ...plan, ops: [...plan.ops.slice(0, 2), flat(22, 12)] }
  expect(kernel.ahead(changed)).toEqual({ done: 3, of: 3 })
  expect(kernel.ahead(changed)).toBeUndefined()
})

test('the operation that cannot be done is told by its number', async () => {
  const kernel = await sharedKernel()
  const plan = shaft(43)
  const fails: SolidPlan = {
    ...plan,
    ops: [...plan.ops.slice(0, 1), { kind: 'shell', step: 'shell', thickness: 900, open: [] }],
  }
  expect(kernel.ahead(fails)).toEqual({ done: 1, of: 2 })
  try {
    kernel.ahead(fails)
    expect.unreachable()
  } catch (fault) {
    expect(fault).toBeInstanceOf(KernelFault)
    expect((fault as KernelFault).after).toBe(2)
  }
})

test('a kernel of code that was compiled before builds the same', async () => {
  const wasm = createRequire(import.meta.url).resolve('replicad-opencascadejs/wasm')
  const code = await WebAssembly.compile(readFileSync(wasm))
  const [own, shared] = [await loadKernel(code), await sharedKernel()]
  expect(own.build(shaft(47), 0.05)).toEqual(shared.build(shaft(47), 0.05))
})
