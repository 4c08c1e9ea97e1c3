import { drawOutline } from '@lathica/core/edit'
import type { Problem } from '@lathica/core/result'
import { choose } from '../files/choose'
import { saveFile } from '../dispatch/saveFile'
import { tell, tellProblem } from '../notices'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'

/** Whether a file says it is a drawing of lines and curves. */
export const isOutlineFile = (file: File): boolean => /\.svg$/i.test(file.name)

/** Draws what an SVG file holds into the profile in hand, and picks it, so that it can be moved to its place. */
export async function takeOutline(file: File): Promise<void> {
  const parts = usePartStore()
  const board = useBoardStore()
  const { id } = parts
  const refuse = ({ message, mend }: Problem): void =>
    tellProblem({ message: `${file.name}: ${message}`, mend })
  const { readOutlineSvg } = await import('@lathica/core/formats')
  const read = readOutlineSvg(await file.text(), parts.lie)
  // Another part may have been opened meanwhile.
  if (parts.id !== id) return
  if (!read.ok) return refuse(read.problem)
  const before = new Set([...board.sketch.points, ...board.sketch.entities].map((x) => x.id))
  const drawn = parts.attempt(drawOutline(board.sketch.id, read.value.runs))
  if (!drawn.ok) return refuse(drawn.problem)
  board.useTool('pick')
  board.stepId = undefined
  board.picks = board.sketch.entities.map((e) => e.id).filter((e) => !before.has(e))
  board.fit()
  const { moved } = read.value
  const where = moved
    ? 'It was laid with its lower edge on the axis and begins at the datum.'
    : 'It lies where it was drawn, its zero at the datum.'
  tell(`${file.name} was drawn: ${board.picks.length} pieces. ${where}`)
}

/** Lets the designer choose a drawing. */
export const chooseOutline = (): void => choose('.svg,image/svg+xml', takeOutline)

/** Saves the profile in hand as an SVG drawing. */
export async function saveOutline(): Promise<void> {
  const parts = usePartStore()
  const { sketch } = useBoardStore()
  const { writeProfileSvg } = await import('@lathica/core/formats')
  const text = writeProfileSvg(sketch, parts.lie)
  if (text === undefined) {
    tellProblem({ message: 'Nothing is drawn in this profile.', mend: 'Draw its outline first.' })
    return
  }
  saveFile(text, `${parts.name} ${sketch.name}.svg`, 'image/svg+xml')
}
