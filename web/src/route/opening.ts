import type { Step } from '@lathica/core/part'
import { useBoardStore } from '../store/board'
import { useNotesStore } from '../store/notes'
import { useRouteStore } from '../store/route'

/** Opens the card of a step, a body or a profile, whatever is at hand. */
export function useOpening(): {
  readonly openStep: (step: Step) => void
  readonly openBody: (id: string) => void
  readonly openProfile: (id: string) => void
  readonly openNote: (id: string) => void
} {
  const board = useBoardStore()
  const route = useRouteStore()
  const notes = useNotesStore()
  const letGo = (): void => {
    board.useTool('pick')
    board.picks = []
    notes.noteId = undefined
  }
  return {
    openStep(step) {
      letGo()
      route.bodyId = undefined
      board.stepId = step.id
      board.lookAt(step)
    },
    openBody(id) {
      letGo()
      board.stepId = undefined
      route.bodyId = id
    },
    openNote(id) {
      letGo()
      route.bodyId = undefined
      board.stepId = undefined
      notes.noteId = id
    },
    openProfile(id) {
      letGo()
      route.bodyId = undefined
      board.stepId = undefined
      board.sketchId = id
    },
  }
}
