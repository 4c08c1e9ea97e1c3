import { METRIC } from '@lathica/core/units'
import { edgeKey, edgesOf, type Section, type SectionEdge } from '@lathica/core/section'
import type { KnownStep } from '@lathica/core/part'
import { faceWords } from '@lathica/core/route'
import { toScreen } from '../../src/board/view'
import { createActions } from '../../src/commands/registry'
import { useBoardStore } from '../../src/store/board'
import { usePartStore } from '../../src/store/part'
import { useRouteStore } from '../../src/store/route'
import { VIEW } from './bench'

/** What a designer does on the modelling screen that is open, without a page to point at. */

/** Something done by its id, as by its key. */
export const act = (id: string): void =>
  createActions()
    .find((a) => a.id === id)
    ?.run()

/** Presses the tool in hand at a place in mm. */
export function clickAt(x: number, y: number): void {
  const board = useBoardStore()
  const px = toScreen(VIEW, { x, y })
  board.feed(board.toolState?.press?.({ px, shift: false }))
}

/** The last step of the route. */
export function lastStep(): KnownStep {
  const step = usePartStore().part?.route.at(-1)
  if (!step || step.kind === 'unknown') throw new Error('no step')
  return step
}

/** The first body's half-section as it stands. */
export const firstSection = (): Section => useRouteStore().bodies[0]?.section ?? { regions: [] }

/** The face that is called so. */
export function face(words: string): SectionEdge {
  const edge = edgesOf(firstSection()).find((e) => faceWords(e, METRIC) === words)
  if (!edge) throw new Error(`no ${words}`)
  return edge
}

export const keyOf = (words: string): string => edgeKey(face(words).name)
