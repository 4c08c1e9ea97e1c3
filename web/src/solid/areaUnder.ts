import { areaRef, regionAt, type SectionRef } from '../board/refs'
import type { Ask } from '../board/tools'
import type { SolidScene } from './scene'

/** The area of a profile under the pointer on the solid pane, where a step asks for areas. */
export function areaUnder(
  scene: SolidScene | undefined,
  canvas: HTMLCanvasElement | null,
  ask: Ask,
  event: PointerEvent,
): SectionRef | undefined {
  const { frame, regions, mirrored } = ask.areas?.() ?? {}
  if (!scene || !canvas || !frame || !regions) return undefined
  const box = canvas.getBoundingClientRect()
  const place = scene.placeOn(frame, event.clientX - box.left, event.clientY - box.top)
  const number = place && regionAt(regions, place, mirrored)
  return number === undefined ? undefined : areaRef(number)
}
