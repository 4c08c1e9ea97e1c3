import { faceInStep, stepOfFace } from '../names'
import type { Step } from '../part'

/** What the faces of drilled and milled places are called. */
const SOLID_FACES: Readonly<Record<string, string>> = {
  wall: 'wall of the hole',
  tip: 'tip of the hole',
  floor: 'floor of the hole',
  head: 'wall of its head',
  seat: 'seat of its head',
  sink: 'countersink',
  near: 'side',
  far: 'side',
  start: 'end',
  first: 'plane face',
  last: 'plane face',
  rod: 'rod',
  end: 'end',
}

/** What those of flats are called in place of it. */
const FLAT_FACES: typeof SOLID_FACES = {
  start: 'flat',
  first: 'shoulder of the flat',
  last: 'shoulder of the flat',
}

/** A face that no full turn made, by its step: “wall of the hole, from step 70”. */
export function solidFaceWords(name: string, route: readonly Step[]): string {
  const [stepId, entity] = [stepOfFace(name), faceInStep(name)]
  const step = route.find((s) => s.id === stepId)
  const told = step?.kind === 'flats' ? { ...SOLID_FACES, ...FLAT_FACES } : SOLID_FACES
  // Those of what came in a file have numbers.
  const [, number] = /^f(\d+)$/.exec(entity) ?? []
  const what = told[entity] ?? (number === undefined ? 'face' : `face ${number}`)
  return step ? `${what}, from step ${step.number}` : what
}
