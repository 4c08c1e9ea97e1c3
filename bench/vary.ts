import { edgeKey, edgesOf } from '@lathica/core/section'
import { locator } from '@lathica/core/sketch'
import { createRandom, createVariation } from '@lathica/core/solver'
import type { NewNote } from '@lathica/core/part'
import { evaluate, settle } from '@lathica/core/route'
import { noteStates } from '@lathica/core/notes'
import { mixedStretches, turnedSketch } from '../core/test/support/turned'
import { atMost, medianTime, type Row } from './row'
import { looseProfile } from './turned'

const VARIANTS = 10_000
const NOTES = 100

/** Every size of a profile of some 60 pieces off by up to 0.05 mm or 0.05 rad, solved anew each time. */
function variants(): number {
  const { sketch, values } = turnedSketch(mixedStretches(60))
  const variation = createVariation(sketch, values)
  const random = createRandom(3)
  const last = sketch.points.at(-1)?.id ?? ''
  const at = locator(sketch)(last)
  return medianTime(
    3,
    () => undefined,
    () => {
      let farthest = 0
      for (let i = 0; i < VARIANTS; i++) {
        const off = new Map([...values].map(([id, v]) => [id, v + 0.1 * (random() - 0.5)]))
        const place = variation.placesAt(off)
        if (!place) throw new Error('a variant does not solve')
        farthest = Math.max(farthest, Math.abs(place(last).x - at.x))
      }
      if (!(farthest > 0.1)) throw new Error('nothing varies')
    },
    1,
  )
}

/** Where a hundred notes of a part stand, after a move of the pointer. */
function noted(): number {
  const { part } = looseProfile(60)
  const [body] = evaluate(part).bodies
  const keys = body ? edgesOf(body.section).map((e) => edgeKey(e.name)) : []
  const notes = Array.from({ length: NOTES }, (_, i): NewNote & { id: string } => ({
    ...{ kind: 'text', id: `note${i}`, words: 'free of burrs', flag: false },
    ...{ body: body?.bodyId ?? '', on: keys[i % keys.length] ?? '' },
  }))
  return medianTime(
    31,
    (i) => evaluate(settle({ ...part, notes, name: `Cord drum ${i}` })),
    (state) => {
      if (noteStates(state).length !== NOTES) throw new Error('a note is lost')
    },
  )
}

/** What is said of sizes and faces: variants and notes. */
export const varyRows = (): Row[] => [
  atMost('10,000 variants of a profile of 60 pieces, each solved anew', variants(), 'ms', 3000),
  atMost('100 notes told where they stand', noted(), 'ms', 2),
]
