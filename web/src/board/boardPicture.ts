import { setPicture } from '@lathica/core/edit'
import type { BoardPicture } from '@lathica/core/part'
import { shallowReactive } from 'vue'
import { choose } from '../files/choose'
import { PICTURE_FILES, readPicture, type ReadPicture } from '../files/readPicture'
import { tellProblem } from '../notices'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { toPlane, type View } from './view'

/** Puts a picture file behind the board, so that it fills most of it; where it belongs is told afterwards. */
export async function takePicture(file: File): Promise<void> {
  const parts = usePartStore()
  const board = useBoardStore()
  const { id } = parts
  const read = await readPicture(file)
  if (!read.ok) {
    tellProblem({ ...read.problem, message: `${file.name}: ${read.problem.message}` })
    return
  }
  // Another part may have been opened meanwhile.
  const { view } = board
  if (parts.id !== id || !view) return
  const placed = filling(read.value, view, board.pane)
  if (parts.run(setPicture(placed))) board.useTool('placePicture')
}

/** A picture over most of the pane of a view. */
function filling(
  kept: ReadPicture,
  view: View,
  pane: { readonly width: number; readonly height: number },
): BoardPicture {
  const scale = MOST * Math.min(pane.width / kept.width, pane.height / kept.height)
  // Its middle on the axis: there that of a turned part is looked for.
  const [x, y] =
    view.lie === 'lying' ? [pane.width / 2, view.origin.y] : [view.origin.x, pane.height / 2]
  const [left, top] = [x - (kept.width * scale) / 2, y - (kept.height * scale) / 2]
  const place = (x: number, y: number) => toPlane(view, { x: left + x * scale, y: top + y * scale })
  const [at, right, low] = [place(0, 0), place(1, 0), place(0, 1)]
  return {
    ...kept,
    at,
    across: { x: right.x - at.x, y: right.y - at.y },
    down: { x: low.x - at.x, y: low.y - at.y },
    strength: 0.5,
    shown: true,
  }
}

/** So large a share of the pane a new picture fills. */
const MOST = 0.9

/** Lets the designer choose a picture. */
export const choosePicture = (): void => choose(PICTURE_FILES, takePicture)

/** Pictures by their data, as the canvas draws them; a board that waits for one is painted again once it is there. */
const images = shallowReactive(new Map<string, HTMLImageElement>())
const asked = new Set<string>()

/** The image of a picture; undefined until the browser has unpacked it. */
export function imageOf({ data }: BoardPicture): HTMLImageElement | undefined {
  const known = images.get(data)
  if (known || asked.has(data)) return known
  asked.add(data)
  const image = new Image()
  image.onload = () => images.set(data, image)
  image.src = data
  return undefined
}
