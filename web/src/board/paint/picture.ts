import { toScreen } from '../view'
import type { Scene } from './scene'

/** The picture behind the board, as faint as it is asked to be. */
export function paintPicture(ctx: CanvasRenderingContext2D, scene: Scene): void {
  if (!scene.picture) return
  const { image, placed } = scene.picture
  const { at, across, down } = placed
  const origin = toScreen(scene.view, at)
  const column = toScreen(scene.view, { x: at.x + across.x, y: at.y + across.y })
  const row = toScreen(scene.view, { x: at.x + down.x, y: at.y + down.y })
  ctx.save()
  ctx.globalAlpha = placed.strength
  ctx.transform(
    ...([column.x - origin.x, column.y - origin.y] as const),
    ...([row.x - origin.x, row.y - origin.y] as const),
    ...([origin.x, origin.y] as const),
  )
  ctx.drawImage(image, 0, 0)
  ctx.restore()
}
