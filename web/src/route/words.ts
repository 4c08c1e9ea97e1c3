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
  repeat: 'Repeat',
  length: 'Overall length',
}

/** What a step is called in the route and on its card. */
export function stepTitle(step: Step): string {
  if (step.kind === 'unknown') return String(step.kept['kind'])
  if (step.kind === 'revolve' && step.effect !== 'add') {
    return step.effect === 'cut' ? 'Revolve cut' : 'Revolve, common part'
  }
  return TITLES[step.kind]
}
