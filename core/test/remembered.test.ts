import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, test } from 'vitest'
import { randomFrom } from '../../fuzz/random'
import {
  addSketch,
  addStep,
  changeBody,
  createPart,
  drawDraft,
  evaluate,
  moveStep,
  perform,
  planKey,
  readPartFile,
  rectangle,
  removeItems,
  removeStep,
  revolveOf,
  sectionArea,
  setAside,
  type Command,
  type NewStep,
  type Part,
} from '../src'
import { must } from './support/parts'

/** A part's state by what is remembered of its steps, not of it as a whole. */
const again = (part: Part): ReturnType<typeof evaluate> => evaluate({ ...part })

/** All that a route comes to, in words and figures. */
function told(part: Part): unknown {
  const { steps, bodies } = again(part)
  return {
    steps: steps.map((s) => [
      ...[s.stepId, s.status, s.problem?.message, s.problem?.mend, s.notes],
      s.sizes.map((z) => [z.body, z.words, z.at]),
    ]),
    bodies: bodies.map((b) => [b.bodyId, sectionArea(b.section), b.plan && planKey(b.plan)]),
  }
}

/** What is remembered is what comes out when nothing is. */
const expectFresh = (part: Part): void => expect(told(part)).toEqual(told(structuredClone(part)))

test('a part turn up to a point that was deleted goes up to it again after undo', () => {
  const start = createPart({ name: 'Line guide' })
  const profile = start.sketches[0]?.id ?? ''
  const drawn = must(
    must(
      start,
      drawDraft('draw', profile, rectangle({ at: { x: 0, y: 30 } }, { at: { x: 10, y: 36 } })),
    ),
    addSketch('end'),
  )
  const end = drawn.sketches.at(-1)?.id ?? ''
  const points = { '~p': { at: { x: -20, y: 0 } } }
  const marked = must(drawn, drawDraft('draw a point', end, { points, entities: [] }))
  const point = marked.sketches.at(-1)?.points[0]?.id ?? ''
  const turn = { ...revolveOf(profile, 'body1', 'add'), turnTo: `${end}.${point}` } as NewStep
  const whole = must(marked, addStep(turn))
  const status = (part: Part): unknown => again(part).steps.at(-1)?.status
  expect(status(whole)).toBe('done')
  const without = must(whole, removeItems(end, [point]))
  expect(status(without)).toBe('failed')
  // Undo is the part as it was; redo the one without.
  expect(status(whole)).toBe('done')
  expect(status(without)).toBe('failed')
  expectFresh(whole)
  expectFresh(without)
  // The sketch as a whole, too, and the end it is seen from.
  const bare = { ...whole, sketches: whole.sketches.slice(0, 1) }
  expect(status(bare)).toBe('failed')
  expect(status(whole)).toBe('done')
  expectFresh({ ...whole, lie: 'standing' })
})

const DEMO = join(import.meta.dirname, '..', '..', 'demo')
const parts = readdirSync(DEMO).map((file) => {
  const read = readPartFile(readFileSync(join(DEMO, file), 'utf8'))
  if (!read.ok) throw new Error(read.problem.message)
  return [file.replace('.lathica.json', ''), read.value] as const
})

/** An edit that takes away, moves or renames something that steps may read. */
function editOf(part: Part, random: () => number): Command | undefined {
  const pick = <T>(all: readonly T[]): T | undefined => all[Math.floor(random() * all.length)]
  const [sketch, step, body] = [pick(part.sketches), pick(part.route), pick(part.bodies)]
  const other = (change: (part: Part) => Part): Command => ({
    label: 'change',
    run: (from) => ({ ok: true, value: change(from) }),
  })
  const what = Math.floor(random() * 8)
  if (what === 0 && sketch) {
    const item = pick([...sketch.points, ...sketch.entities])
    return item && removeItems(sketch.id, [item.id])
  }
  if (what === 1 && step) return removeStep(step.id)
  if (what === 2 && step) return setAside(step.id, !step.aside)
  if (what === 3 && step) return moveStep(step.id, Math.floor(random() * part.route.length))
  if (what === 4 && body) return changeBody(body.id, { name: `${body.name} b` })
  if (what === 5) return other((p) => ({ ...p, lie: p.lie === 'lying' ? 'standing' : 'lying' }))
  if (what === 6) return other((p) => ({ ...p, units: { ...p.units, length: 'in' } }))
  const gone = sketch?.id
  return other((p) => ({ ...p, sketches: p.sketches.filter((s) => s.id !== gone) }))
}

describe('what is remembered of a route is what it comes to anew, through edits, undo and redo', () => {
  test.each(parts)('of the %s', (name, part) => {
    const random = randomFrom(name.length * 7919 + name.charCodeAt(0))
    for (let round = 0; round < 6; round++) {
      const states = [part]
      for (let k = 0; k < 3; k++) {
        const edit = editOf(states.at(-1) ?? part, random)
        const made = edit && perform(states.at(-1) ?? part, edit)
        if (made?.ok) states.push(made.value)
      }
      for (const state of states) again(state)
      // Back to the first, and forth again.
      for (const state of [...states].reverse()) expectFresh(state)
      for (const state of states) expectFresh(state)
    }
  })
})
