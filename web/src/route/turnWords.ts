import type { ExtrudeStep, Measure, Step } from '@lathica/core'

/** What a formula comes to, short. */
type Figure = (formula: string, want?: Measure) => string

/** How a profile is turned, or drawn out, where it is not fully and round. */
export function turnWords(step: Step, figure: Figure): string {
  if (step.kind === 'extrude') return `, ${extrudeWords(step, figure)}`
  if (step.kind === 'sweep') return `, ${step.form === 'round' ? '⌀' : ''}${figure(step.width)}`
  if (step.kind !== 'revolve') return ''
  if (step.facets !== '') return `, ${figure(step.facets, 'number')} sides`
  return step.turn === '' ? '' : `, by ${figure(step.turn, 'angle')}`
}

function extrudeWords({ reach, length, effect }: ExtrudeStep, figure: Figure): string {
  if (reach === 'through') return 'through all'
  if (reach === 'face') return 'up to a face'
  return `${figure(length)} ${effect === 'cut' ? 'deep' : 'long'}`
}
