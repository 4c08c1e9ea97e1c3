import type { Step, StepKind } from '@lathica/core'

const TITLES: Readonly<Record<StepKind, string>> = {
  revolve: 'Revolve',
  wall: 'Wall',
  groove: 'Groove',
  bore: 'Bore',
  fillet: 'Fillet',
  chamfer: 'Chamfer',
  shell: 'Shell',
  mirror: 'Mirror',
  move: 'Move body',
  combine: 'Join bodies',
  import: 'From a file',
  mesh: 'Mesh to go by',
  repeat: 'Repeat',
  length: 'Overall length',
  holes: 'Holes',
  flats: 'Flats',
  slot: 'Slot',
  extrude: 'Extrude',
  sweep: 'Sweep',
  around: 'Round the axis',
  halve: 'Halve',
}

const SLOTS = { keyway: 'Keyway', woodruff: 'Half-round seat', end: 'End slot' }

const COMBINED = { add: 'Join bodies', cut: 'Cut by a body', common: 'Common of bodies' }

/** What a step is called in the route and on its card. */
export function stepTitle(step: Step): string {
  if (step.kind === 'unknown') return String(step.kept['kind'])
  if (step.kind === 'revolve' && step.effect !== 'add') {
    return step.effect === 'cut' ? 'Revolve cut' : 'Revolve, common part'
  }
  if (step.kind === 'holes' && step.way === 'cross') return 'Cross hole'
  if (step.kind === 'move' && step.into !== step.body) return 'Copy body'
  if (step.kind === 'combine') return COMBINED[step.effect]
  if (step.kind === 'slot') return SLOTS[step.form]
  if (step.kind === 'extrude' && step.effect === 'cut') return 'Extrude cut'
  return TITLES[step.kind]
}
