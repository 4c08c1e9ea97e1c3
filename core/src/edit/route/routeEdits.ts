import { fail, succeed, type Result } from '../../result'
import {
  newBody,
  bodyOf,
  usesSketch,
  type Body,
  type NewStep,
  type Part,
  type Step,
} from '../../part'
import { stepRules } from '../../route'
import type { Command } from '../command'

/**
 * Puts a step into the route.
 * @param at how many steps stand before it; at the end when left out
 */
export function addStep(step: NewStep, at?: number): Command {
  return {
    label: stepRules(step).name,
    run: (part) => {
      const locked = lockedBody(part, 'body' in step ? step.body : undefined)
      if (locked) return locked
      const place = Math.max(0, Math.min(part.route.length, at ?? part.route.length))
      const made = { ...step, id: `step${part.nextId}`, number: 0, aside: false } as Step
      const route = [...part.route.slice(0, place), made, ...part.route.slice(place)]
      return succeed({ ...part, nextId: part.nextId + 1, route: numbered(route, place) })
    },
  }
}

/** The id that the next step added to a part will get. */
export const nextStepId = (part: Part): string => `step${part.nextId}`

function lockedBody(part: Part, id: string | undefined): Result<never> | undefined {
  const body = part.bodies.find((b) => b.id === id)
  return body?.locked === true
    ? fail('body.locked', `${body.name} is locked.`, 'Unlock it in the list of bodies.')
    : undefined
}

/** Turns a profile into a body. The first takes the part's first body, later ones make their own. */
export function addRevolve(sketchId: string): Command {
  return {
    label: 'revolve',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
      if (part.route.some((s) => usesSketch(s) && s.sketch === sketchId)) {
        return fail(
          'step.used',
          `Profile ${sketch.name} is turned already.`,
          'Change its sizes, or draw another profile.',
        )
      }
      const { part: grown, body } = freeBody(part)
      return addStep(revolveOf(sketchId, body, 'add')).run(grown)
    },
  }
}

/** A full turn of all of a profile. */
export function revolveOf(sketch: string, body: string, effect: 'add' | 'cut' | 'common'): NewStep {
  return {
    kind: 'revolve',
    sketch,
    regions: 'all',
    effect,
    body,
    axis: 'axis',
    turn: '',
    side: 'one',
    back: '',
    facets: '',
    facetTo: 'flats',
    phase: '',
    turnTo: '',
  }
}

/** A wall that is turned fully. */
export const FULL_WALL = {
  ...{ turn: '', turnTo: '', back: '', phase: '' },
  turnSide: 'one',
} as const

/** A body that no step makes yet, put into the part when there is none. */
export function freeBody(part: Part): { readonly part: Part; readonly body: string } {
  const taken = new Set(part.route.map(bodyOf))
  for (const step of part.route) {
    if ('into' in step) taken.add(step.into)
    if ('other' in step) taken.add(step.other)
  }
  const free = part.bodies.find((b) => !taken.has(b.id))
  if (free) return { part, body: free.id }
  const body = `body${part.nextId}`
  const names = new Set(part.bodies.map((b) => b.name))
  let n = part.bodies.length + 1
  while (names.has(`body ${n}`)) n++
  const made = newBody(body, `body ${n}`, part.bodies[0]?.material ?? '')
  return { part: { ...part, nextId: part.nextId + 1, bodies: [...part.bodies, made] }, body }
}

/** Gives a step a body of its own, so that what it adds stands by itself. */
export function intoNewBody(stepId: string): Command {
  return {
    label: 'make a new body',
    run: (part) => {
      const { part: grown, body } = freeBody(part)
      return changeStep(stepId, (s) => ({ ...s, body, effect: 'add' }) as Step).run(grown)
    },
  }
}

/** Lets a step put what it makes into a body of its own. */
export function intoOtherBody(stepId: string): Command {
  return {
    label: 'make a new body',
    run: (part) => {
      const { part: grown, body } = freeBody(part)
      return changeStep(stepId, (s) => ('into' in s ? { ...s, into: body } : s)).run(grown)
    },
  }
}

/** Changes a step in place. */
export function changeStep(stepId: string, change: (step: Step) => Step): Command {
  return {
    label: 'change step',
    run: (part) => {
      const step = part.route.find((s) => s.id === stepId)
      if (!step) return fail('step.gone', 'This step is gone.', 'Choose another step.')
      const locked = lockedBody(part, bodyOf(step))
      if (locked) return locked
      const next = change(step)
      if (next === step) return succeed(part)
      return succeed({ ...part, route: part.route.map((s) => (s === step ? next : s)) })
    },
  }
}

export function removeStep(stepId: string): Command {
  return {
    label: 'delete step',
    run: (part) => {
      const step = part.route.find((s) => s.id === stepId)
      const locked = step && lockedBody(part, bodyOf(step))
      if (locked) return locked
      return succeed({ ...part, route: part.route.filter((s) => s.id !== stepId) })
    },
  }
}

export function setAside(stepId: string, aside: boolean): Command {
  return {
    label: aside ? 'set step aside' : 'take step up',
    run: (part) =>
      succeed({ ...part, route: part.route.map((s) => (s.id === stepId ? { ...s, aside } : s)) }),
  }
}

/** Puts a step elsewhere in the route. @param to how many other steps stand before it then */
export function moveStep(stepId: string, to: number): Command {
  return {
    label: 'move step',
    run: (part) => {
      const from = part.route.findIndex((s) => s.id === stepId)
      const step = part.route[from]
      if (!step) return fail('step.gone', 'This step is gone.', 'Choose another step.')
      const others = part.route.filter((s) => s !== step)
      const place = Math.max(0, Math.min(others.length, to))
      if (place === from) return succeed(part)
      const route = [...others.slice(0, place), step, ...others.slice(place)]
      return succeed({ ...part, route: numbered(route, place) })
    },
  }
}

/** Puts a copy of a step behind it; what it refers to stays the same. */
export function duplicateStep(stepId: string): Command {
  return {
    label: 'duplicate step',
    run: (part) => {
      const at = part.route.findIndex((s) => s.id === stepId)
      const step = part.route[at]
      if (!step || step.kind === 'unknown') {
        return fail('step.gone', 'This step cannot be copied.', 'Choose another step.')
      }
      return addStep(step, at + 1).run(part)
    },
  }
}

/** Numbers the step at a place between its neighbours, or all anew where there is no room. */
function numbered(route: readonly Step[], at: number): readonly Step[] {
  const before = route[at - 1]?.number ?? 0
  const behind = route[at + 1]?.number
  const number =
    behind === undefined ? 10 * (Math.floor(before / 10) + 1) : Math.floor((before + behind) / 2)
  const fits = number > before && (behind === undefined || number < behind)
  return route.map((s, i) => {
    if (!fits) return s.number === 10 * (i + 1) ? s : renumbered(s, 10 * (i + 1))
    return i === at ? renumbered(s, number) : s
  })
}

const renumbered = (step: Step, number: number): Step =>
  step.kind === 'unknown'
    ? { ...step, number, kept: { ...step.kept, number } }
    : { ...step, number }

/** Changes a body's name, look or lock. */
export function changeBody(bodyId: string, change: Partial<Omit<Body, 'id'>>): Command {
  return {
    label: 'change body',
    run: (part) => {
      const name = change.name?.trim()
      if (name === '') return fail('name.empty', 'A body needs a name.', 'Type one.')
      if (name !== undefined && part.bodies.some((b) => b.id !== bodyId && b.name === name)) {
        return fail('name.taken', `There is a body called “${name}”.`, 'Choose another name.')
      }
      const next = { ...change, ...(name === undefined ? {} : { name: name.slice(0, 80) }) }
      return succeed({
        ...part,
        bodies: part.bodies.map((b) => (b.id === bodyId ? { ...b, ...next } : b)),
      })
    },
  }
}

/** Deletes a body with the steps that only it has. */
export function removeBody(bodyId: string): Command {
  return {
    label: 'delete body',
    run: (part) => {
      const locked = lockedBody(part, bodyId)
      if (locked) return locked
      if (part.bodies.length < 2) {
        return fail('body.last', 'A part keeps one body.', 'Delete its steps instead.')
      }
      return succeed({
        ...part,
        bodies: part.bodies.filter((b) => b.id !== bodyId),
        route: part.route.filter((s) => bodyOf(s) !== bodyId),
      })
    },
  }
}
