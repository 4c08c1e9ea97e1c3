import {
  addRevolve,
  addSketch,
  fittingConstraints,
  removeItems,
  removeStep,
  setReference,
  setRole,
  type ConstraintKind,
  type LineRole,
} from '@lathica/core'
import type { IconName } from '../icons/paths'
import type { ToolId } from '../board/tools'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'

/** The pages of the tool pad. */
export type Page = 'draw' | 'tie' | 'turn'

/** Something the designer can do by key, by the pad or by the command search. */
export interface Action {
  readonly id: string
  readonly label: string
  /** What it does, in a sentence for the pad and the list of keys. */
  readonly help: string
  /** The key as it is pressed; letters of the pad stand for their place there. */
  readonly key?: string
  readonly icon?: IconName
  /** The pages of the pad it stands on. */
  readonly pages?: readonly Page[]
  readonly tool?: ToolId
  readonly enabled?: () => boolean
  /** True while it would act on what is picked at once. */
  readonly fits?: () => boolean
  readonly run: () => void
}

/** The 15 places of the pad, as the left hand finds them. */
export const PAD_KEYS = ['q', 'w', 'e', 'r', 't', 'a', 's', 'd', 'f', 'g', 'z', 'x', 'c', 'v', 'b']

/** Every action of the modelling screen: the one place where a reader learns what there is. */
export function createActions(): readonly Action[] {
  const parts = usePartStore()
  const board = useBoardStore()
  const pickedLines = (): string[] =>
    board.picks.filter((id) => board.sketch.entities.some((e) => e.id === id))
  const pickedSizes = (): string[] =>
    board.picks.filter((id) => board.sketch.sizes.some((s) => s.id === id))

  const tool = (
    id: ToolId,
    key: string,
    icon: IconName,
    pages: readonly Page[],
    label: string,
    help: string,
  ): Action => ({ id, label, help, key, icon, pages, tool: id, run: () => board.useTool(id) })

  const tie = (
    kind: ConstraintKind,
    key: string,
    icon: IconName,
    label: string,
    help: string,
  ): Action => ({
    ...tool(`tie:${kind}`, key, icon, ['tie'], label, help),
    fits: () => fittingConstraints(board.sketch, board.picks).includes(kind),
  })

  const role = (
    to: LineRole,
    key: string,
    icon: IconName,
    label: string,
    help: string,
  ): Action => ({
    id: `role:${to}`,
    label,
    help,
    key,
    icon,
    pages: ['draw'],
    enabled: () => pickedLines().length > 0,
    run: () => void parts.run(setRole(board.sketch.id, pickedLines(), to)),
  })

  return [
    tool(
      'pick',
      'q',
      'pick',
      ['draw', 'tie', 'turn'],
      'Pick',
      'Click to pick, Shift and click to add, drag to move.',
    ),
    tool(
      'chain',
      'a',
      'chain',
      ['draw'],
      'Chain',
      'Lines in one go, corner by corner. Shift refuses suggestions.',
    ),
    tool(
      'size',
      's',
      'size',
      ['draw', 'tie'],
      'Size',
      'Click what to measure, then where the label goes, then type the value.',
    ),
    role(
      'construction',
      'z',
      'construction',
      'Construction',
      'Makes the picked lines construction lines, which bound no material.',
    ),
    role('centre', 'x', 'centreLine', 'Centre line', 'Makes the picked lines centre lines.'),
    role('outline', 'c', 'outline', 'Outline', 'Makes the picked lines outline again.'),
    tie('axial', 'w', 'axial', 'Axial', 'Lines run along the axis.'),
    tie('radial', 'e', 'radial', 'Radial', 'Lines run square to the axis.'),
    tie('coincident', 'd', 'meet', 'Meet', 'Points become one.'),
    tie(
      'pointOnLine',
      'f',
      'onLine',
      'On line',
      'Points, or other lines, lie on a line or on the axis.',
    ),
    tie('fixed', 'g', 'fix', 'Fixed', 'Points stay where they are.'),
    tie(
      'inLine',
      'z',
      'inLine',
      'In line',
      'Points stand in line, along the axis or square to it.',
    ),
    tie('parallel', 'r', 'parallel', 'Parallel', 'Lines run in the direction of the first.'),
    tie('perpendicular', 't', 'perpendicular', 'Perpendicular', 'Lines stand square to the first.'),
    tie('equal', 'a', 'equal', 'Equal', 'Lines are as long as the first.'),
    tie('midpoint', 'c', 'midpoint', 'Midpoint', 'A point lies in the middle of a line.'),
    tie('symmetric', 'x', 'symmetric', 'Symmetric', 'Two points mirror one another about a line.'),
    {
      id: 'reference',
      label: 'Reference',
      help: 'Lets the picked sizes only report, in parentheses, or drive again.',
      key: 'v',
      icon: 'reference',
      pages: ['tie'],
      enabled: () => pickedSizes().length > 0,
      run: () => {
        for (const id of pickedSizes()) {
          const size = board.sketch.sizes.find((s) => s.id === id)
          if (size) parts.run(setReference(board.sketch.id, id, !size.reference))
        }
      },
    },
    {
      id: 'remove',
      label: 'Delete',
      help: 'Deletes what is picked, and what stands on it. The Delete key does the same.',
      key: 'b',
      icon: 'remove',
      pages: ['draw', 'tie', 'turn'],
      enabled: () => removable().length > 0 || board.stepId !== undefined,
      run: () => {
        if (removable().length > 0) parts.run(removeItems(board.sketch.id, removable()))
        else if (board.stepId !== undefined) parts.run(removeStep(board.stepId))
      },
    },
    {
      id: 'revolve',
      label: 'Revolve',
      help: 'Turns the closed profile about the axis into a body.',
      key: 'r',
      icon: 'revolve',
      pages: ['turn'],
      enabled: () => !isTurned(),
      run: () => {
        if (!parts.run(addRevolve(board.sketch.id))) return
        board.useTool('pick')
        board.picks = []
        board.stepId = parts.part?.route.at(-1)?.id
        board.fit()
      },
    },
    {
      id: 'profile',
      label: 'New profile',
      help: 'Begins another half-section, for another body of the part.',
      key: 't',
      icon: 'profile',
      pages: ['turn'],
      run: () => {
        if (!parts.run(addSketch())) return
        board.sketchId = parts.part?.sketches.at(-1)?.id ?? ''
        board.picks = []
        board.useTool('chain')
      },
    },
    { id: 'fit', label: 'Fit', help: 'Fits the part to the board.', key: ' ', run: board.fit },
    {
      id: 'undo',
      label: 'Undo',
      help: 'Takes the last edit back.',
      key: 'Ctrl+z',
      enabled: () => parts.undoLabel !== undefined,
      run: parts.stepBack,
    },
    {
      id: 'redo',
      label: 'Redo',
      help: 'Does again what was taken back.',
      key: 'Ctrl+Shift+z',
      enabled: () => parts.redoLabel !== undefined,
      run: parts.stepForth,
    },
    {
      id: 'pickAll',
      label: 'Pick all',
      help: 'Picks every line of the profile.',
      key: 'Ctrl+a',
      run: () => (board.picks = board.sketch.entities.map((e) => e.id)),
    },
    {
      id: 'marks',
      label: 'Constraint marks',
      help: 'Shows or hides the marks of constraints beside their lines.',
      key: 'm',
      run: () => (board.showMarks = !board.showMarks),
    },
    {
      id: 'largest',
      label: 'Largest pane',
      help: 'Lets the board or the solid, whichever the pointer is over, fill the place of all.',
      key: 'l',
      run: () => (board.largest = board.largest === 'none' ? board.pointed : 'none'),
    },
    {
      id: 'save',
      label: 'Save now',
      help: 'Saves at once; every accepted edit is saved by itself in any case.',
      key: 'Ctrl+s',
      run: () => void parts.saveNow(),
    },
  ]

  function removable(): string[] {
    return board.picks.filter((id) => id !== 'axis' && id !== 'origin')
  }

  function isTurned(): boolean {
    return (
      parts.part?.route.some((s) => s.kind === 'revolve' && s.sketch === board.sketch.id) === true
    )
  }
}
