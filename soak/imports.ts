import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import { EXPORTERS, needsKernel, readPart, toDocument, writeStep } from '@lathica/core/formats'
import { builtGeometry, loadKernel, partFromFile, settlePlans, type Kernel } from '@lathica/kernel'
import type { Random } from '../fuzz/random'
import { star, stepped } from '../fuzz/sections/make'
import { partWith, revolveStep, sketchOf } from '../fuzz/sections/parts'
import { milledShaft, unturned } from './solidsMade'
import type { Trial } from './trial'

/** Turned and exact, as shares of the volume. */
const EXACT = 1e-6
/** So many of a hundred are to be. */
const GOAL = 95

const volumesOf = (kernel: Kernel, part: Part): number[] => {
  return settlePlans(part, (plan) => kernel.weigh(plan))
    .bodies.filter((b) => !b.reference)
    .map((b) => b.solid?.volume ?? NaN)
}

/** Solids that go out and come in again: turned ones exactly, others as they came, nothing in silence. */
export const imports: Trial = {
  name: 'solids that come in',
  async run(until, random) {
    const kernel = await loadKernel()
    const wrong: string[] = []
    let [tried, turned, exact, others, milled, rebuilt] = [0, 0, 0, 0, 0, 0]
    for (; performance.now() < until || tried < 2; tried++) {
      if (tried % 4 === 3) {
        others++
        const { text, what } = random.chance(0.3) ? notTurned(random) : unturned(kernel, random)
        const { solids } = partFromFile(kernel, text, what)
        if (solids.some((s) => s.isTurned)) wrong.push(`${what} is called turned`)
        continue
      }
      if (tried % 4 === 1) {
        milled++
        const fault = milledFault(kernel, milledShaft(random), () => rebuilt++)
        if (fault !== undefined) wrong.push(fault)
        continue
      }
      const part = turnedPart(random)
      const written =
        part &&
        EXPORTERS.find((e) => e.id === 'step')?.write(evaluate(part), {
          ...{ tolerance: 0.01, at: new Date(0) },
        })
      if (!part || !written?.ok) continue
      turned++
      const text = written.value
      const found = partFromFile(
        kernel,
        typeof text === 'string' ? text : new TextDecoder().decode(text),
        'a',
      )
      const [was, is] = [volumesOf(kernel, part), volumesOf(kernel, found.part)]
      const off = Math.abs(sum(is) / sum(was) - 1)
      // One that stands as it came is no loss, and is said; one that is another solid is.
      if (!(off < 1e-4))
        wrong.push(`a turned part came in as ${sum(is)} mm³ instead of ${sum(was)}`)
      if (off < EXACT && found.solids.every((s) => s.isTurned && !s.isKept)) exact++
    }
    const share = turned > 0 ? (100 * exact) / turned : NaN
    return {
      ...{ tried, wrong },
      missed: share < GOAL ? [`only ${share.toFixed(1)} % come in exactly`] : [],
      figures: [
        `turned, all of it, and exact to a millionth: ${exact} of ${turned}, ${share.toFixed(1)} % (goal ${GOAL})`,
        `with holes, flats and keyways, rebuilt by steps to a millionth: ${rebuilt} of ${milled}; all others stand as they came`,
        `not turned, and not called so: ${others - wrong.filter((w) => w.includes('called')).length} of ${others}`,
      ],
    }
  },
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0)

/**
 * Brings a part in that was drilled and milled.
 * @param onRebuilt called when all of it is steps
 * @returns what is wrong: what stands for it is another solid, or a difference is not told
 */
function milledFault(kernel: Kernel, part: Part, onRebuilt: () => void): string | undefined {
  const [was = NaN] = volumesOf(kernel, part)
  const state = evaluate(part)
  const text = needsKernel(state)
    ? builtGeometry(kernel, state, 0.1).step
    : writeStep(state, new Date(0))
  if (text === undefined) return 'a milled part could not be written'
  const found = partFromFile(kernel, text, 'a')
  const off = Math.abs(sum(volumesOf(kernel, found.part)) / was - 1)
  const [solid] = found.solids
  if (solid?.isTurned === true && !solid.isKept) onRebuilt()
  const words = part.route.map((s) => s.kind).join(', ')
  return off < EXACT
    ? undefined
    : `a part of ${words} came in with ${(100 * off).toPrecision(3)} % off`
}

function turnedPart(random: Random): Part | undefined {
  const drawn = random.chance(0.5) ? stepped(random) : star(random, 0, random.pick([0, 0.3]))
  const read = readPart(
    toDocument(partWith([sketchOf('s1', drawn)], [revolveStep('r1', 10, 's1')])),
  )
  if (!read.ok) return undefined
  const state = evaluate(read.value)
  return state.steps.every((s) => s.status !== 'failed') && state.bodies.length > 0
    ? read.value
    : undefined
}

/** A box or a loft of other proportions, somewhere else: stretched along the axes it remains one. */
function notTurned(random: Random): { readonly text: string; readonly what: string } {
  const file = join(import.meta.dirname, '..', 'kernel', 'test', 'files', 'box.step')
  const by = [random.between(0.3, 3), random.between(0.3, 3), random.between(0.3, 3)]
  const at = [random.between(-50, 50), random.between(-50, 50), random.between(-50, 50)]
  const text = readFileSync(file, 'utf8').replace(
    /CARTESIAN_POINT\('',\(([^,()]+),([^,()]+),([^,()]+)\)\)/g,
    (_, ...c: string[]) =>
      `CARTESIAN_POINT('',(${[0, 1, 2].map((i) => (Number(c[i]) * (by[i] ?? 1) + (at[i] ?? 0)).toPrecision(17)).join(',')}))`,
  )
  return { text, what: `a box of ${by.map((b) => (10 * b).toFixed(2)).join(' × ')}` }
}
