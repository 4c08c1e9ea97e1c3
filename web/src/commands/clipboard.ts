import {
  excerpt,
  moved,
  pasteDraft,
  removeItems,
  shift,
  unbound,
  type Draft,
} from '@lathica/core/edit'
import { tellProblem } from '../notices'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'

/** Kept where every page of this browser finds it, so that one can paste into another part. */
const PLACE = 'lathica.clipboard'

/** How far a copy lands from what it was copied from, in pixels. */
const BESIDE = 24

interface Kept {
  readonly sketch: string
  readonly part: string
  readonly draft: Draft
}

export interface Clipboard {
  readonly copy: () => boolean
  readonly cut: () => void
  readonly paste: () => void
}

export function createClipboard(): Clipboard {
  const parts = usePartStore()
  const board = useBoardStore()

  function copy(): boolean {
    const draft = excerpt(board.sketch, board.picks)
    if (Object.keys(draft.points).length === 0) {
      tellProblem({ message: 'Nothing is picked to copy.', mend: 'Pick lines or curves first.' })
      return false
    }
    const kept: Kept = { sketch: board.sketch.id, part: parts.id, draft }
    localStorage.setItem(PLACE, JSON.stringify(kept))
    return true
  }

  function cut(): void {
    const ids = [...board.picks]
    if (copy()) parts.run(removeItems(board.sketch.id, ids))
  }

  function paste(): void {
    const kept = read()
    if (!kept) {
      tellProblem({
        message: 'Nothing has been copied yet.',
        mend: 'Pick lines or curves and press Ctrl+C, here or in another part.',
      })
      return
    }
    const here = kept.sketch === board.sketch.id && kept.part === parts.id
    const by = BESIDE / (board.view?.scale ?? 1)
    const draft = here ? unbound(moved(kept.draft, shift({ x: by, y: by })), true) : kept.draft
    const before = new Set(board.sketch.entities.map((e) => e.id))
    if (!parts.run(pasteDraft(board.sketch.id, draft))) return
    board.useTool('pick')
    board.picks = board.sketch.entities.filter((e) => !before.has(e.id)).map((e) => e.id)
  }

  return { copy, cut, paste }
}

/** What was copied, if it is something this page can read. */
function read(): Kept | undefined {
  try {
    const kept = JSON.parse(localStorage.getItem(PLACE) ?? 'null') as Partial<Kept> | null
    const draft = kept?.draft
    if (!draft || typeof draft.points !== 'object' || !Array.isArray(draft.entities)) {
      return undefined
    }
    return { sketch: '', part: '', ...kept, draft }
  } catch {
    return undefined
  }
}
