import { copyNumber, edgeCalled, faceInStep, stepOfFace } from '../names'
import type { Step } from '../part'
import { edgeKey, edgesOf, type Section } from '../section'
import type { UnitSettings } from '../units'
import { faceWords } from './words'

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

/** A face that no full turn made, by its step, of several alike with its number: “wall of the hole, from step 70, no. 2”. */
export function solidFaceWords(name: string, route: readonly Step[]): string {
  const [stepId, entity] = [stepOfFace(name), faceInStep(name)]
  const step = route.find((s) => s.id === stepId)
  const told = step?.kind === 'flats' ? { ...SOLID_FACES, ...FLAT_FACES } : SOLID_FACES
  // Those of what came in a file have numbers.
  const [, number] = /^f(\d+)$/.exec(entity) ?? []
  const what = told[entity] ?? (number === undefined ? 'face' : `face ${number}`)
  const which = copyNumber(name)
  const from = step ? `, from step ${step.number}` : ''
  return `${what}${from}${which === '' ? '' : `, no. ${which}`}`
}

/** An edge of a solid by its faces: “edge of wall of the hole, from step 70, and face at 12”. */
export function solidEdgeWords(
  key: string,
  { route, units }: { readonly route: readonly Step[]; readonly units: UnitSettings },
  bodies: readonly { readonly section: Section }[],
): string {
  const turned = bodies.flatMap((b) => edgesOf(b.section))
  const called = edgeCalled(key)
  const faces = (called?.faces ?? []).map((name) => {
    const edge = turned.find((e) => edgeKey(e.name) === name)
    return edge ? faceWords(edge, units) : solidFaceWords(name, route)
  })
  const whole = `edge of ${faces.join(' and ')}`
  return called?.stretch === undefined ? whole : `stretch ${called.stretch} of ${whole}`
}
