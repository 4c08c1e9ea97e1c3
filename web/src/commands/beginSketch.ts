import type { SketchPlane } from '@lathica/core/sketch'
import { addSketch } from '@lathica/core/edit'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'

/** Adds an empty sketch and takes it in hand; tells whether it could. */
export function beginSketch(plane: SketchPlane): boolean {
  const parts = usePartStore()
  const board = useBoardStore()
  if (!parts.run(addSketch(plane))) return false
  board.sketchId = parts.part?.sketches.at(-1)?.id ?? ''
  board.stepId = undefined
  board.picks = []
  return true
}
