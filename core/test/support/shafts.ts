import { createPart, type Part } from '../../src/part'
import { steppedSketch, type Step } from './chains'

/** A part that is a stepped shaft, turned of one profile. */
export function shaftPart(steps: readonly Step[], name = 'Spindle'): Part {
  const { sketch, values } = steppedSketch(steps)
  const sizes = sketch.sizes.map((s) => ({ ...s, formula: String(values.get(s.id) ?? 0) }))
  const profile = { ...sketch, id: 'sketch2', sizes }
  const plain = createPart({ name })
  return {
    ...plain,
    nextId: 4,
    sketches: [profile],
    route: [
      {
        ...{ kind: 'revolve', id: 'step3', number: 10, aside: false, sketch: 'sketch2' },
        ...{ regions: 'all', effect: 'add', body: 'body1', axis: 'axis', turn: '', turnTo: '' },
        ...{ side: 'one', back: '', facets: '', facetTo: 'flats', phase: '' },
      },
    ],
  }
}

/** Steps of a random shaft, as a designer would have them: whole and half millimetres, neighbours of different diameters. */
export function randomSteps(count: number, random: () => number): Step[] {
  const steps: Step[] = []
  for (let i = 0; i < count; i++) {
    const before = steps.at(-1)?.diameter
    let diameter = 10 + Math.floor(random() * 70)
    if (diameter === before) diameter += 3
    steps.push({ diameter, length: (4 + Math.floor(random() * 80)) / 2 })
  }
  return steps
}
