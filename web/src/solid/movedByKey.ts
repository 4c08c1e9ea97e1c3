import type { SolidScene } from './scene'

/** With the pane in focus arrow keys turn the part, plus and minus come nearer and go away. */
const TURN = Math.PI / 18
const TURNS: Readonly<Record<string, readonly [azimuth: number, polar: number]>> = {
  ArrowLeft: [-TURN, 0],
  ArrowRight: [TURN, 0],
  ArrowUp: [0, -TURN],
  ArrowDown: [0, TURN],
}
const APPROACHES: Readonly<Record<string, number>> = { '+': 1.25, '=': 1.25, '-': 0.8 }

/** Moves the eye as a key says; false where the key says nothing. */
export function movedByKey(
  scene: Pick<SolidScene, 'turn' | 'approach'>,
  { key, altKey, ctrlKey, metaKey }: KeyboardEvent,
): boolean {
  if (altKey || ctrlKey || metaKey) return false
  const [turn, near] = [TURNS[key], APPROACHES[key]]
  if (turn) scene.turn(...turn)
  else if (near !== undefined) scene.approach(near)
  return turn !== undefined || near !== undefined
}
