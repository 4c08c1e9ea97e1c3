import { scale, subtract, unit } from '@lathica/core/geometry'
import { pointsOf } from '@lathica/core/sketch'
import { nudgePoints } from '@lathica/core/edit'
import { toPlane } from '../board/view'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import type { Action } from './action'

const WAYS = [
  { key: 'ArrowLeft', words: 'to the left', x: -1, y: 0 },
  { key: 'ArrowRight', words: 'to the right', x: 1, y: 0 },
  { key: 'ArrowUp', words: 'up', x: 0, y: -1 },
  { key: 'ArrowDown', words: 'down', x: 0, y: 1 },
] as const

/** Moving what is picked by keys: by a finer line of the grid, or by a tenth of that. */
export function nudgeActions(): Action[] {
  const board = useBoardStore()
  const parts = usePartStore()
  /** The points that are picked, and those of what is picked. */
  const points = (): string[] => {
    const { picks, sketch } = board
    const own = sketch.entities.filter((e) => picks.includes(e.id)).flatMap(pointsOf)
    const all = new Set([...picks, ...own])
    return sketch.points.map((p) => p.id).filter((id) => all.has(id))
  }
  return WAYS.flatMap(({ key, words, x, y }) =>
    [
      { shift: '', share: 1, by: 'one step of the grid' },
      { shift: 'Shift+', share: 0.1, by: 'a tenth of a step of the grid' },
    ].map(({ shift, share, by }): Action => ({
      id: `nudge:${shift}${key}`,
      label: `Push ${words}${share === 1 ? '' : ' a little'}`,
      help: `Moves what is picked ${words} by ${by}; the rest follows.`,
      key: `Ctrl+${shift}${key}`,
      repeats: true,
      enabled: () => board.view !== undefined && points().length > 0,
      run: () => {
        const { view, suggesting } = board
        if (!view) return
        const way = unit(subtract(toPlane(view, { x, y }), toPlane(view, { x: 0, y: 0 })))
        parts.run(nudgePoints(board.sketch.id, points(), scale(way, share * suggesting.grid.minor)))
      },
    })),
  )
}
