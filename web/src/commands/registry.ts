import { isEndSketch, type Role } from '@lathica/core/sketch'
import {
  changePicture,
  fittingConstraints,
  placeLabels,
  removeItems,
  removeStep,
  setReference,
  setRole,
} from '@lathica/core/edit'
import { chooseOutline, saveOutline } from '../board/boardOutline'
import { choosePicture } from '../board/boardPicture'
import { chooseFiles } from '../files/bringIn'
import type { IconName } from '../icons/paths'
import { PAD_CONSTRAINTS } from '../constraints/kinds'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { counted } from './known'
import { createClipboard } from './clipboard'
import { lookActions } from './lookActions'
import { noteActions } from './noteActions'
import { nudgeActions } from './nudgeActions'
import { stepActions } from './stepActions'
import { TOOLS } from './tools'
import { viewActions } from './viewActions'
import type { Action } from './action'

export { PAD_KEYS, type Action, type Page } from './action'

/** Every action of the modelling screen: the one place where a reader learns what there is. */
export function createActions(): readonly Action[] {
  return [
    ...toolActions(),
    ...sketchActions(),
    ...nudgeActions(),
    ...stepActions(),
    ...noteActions(),
    ...lookActions(),
    ...viewActions('model'),
    ...screenActions(),
  ].map(counted)
}

function toolActions(): Action[] {
  const board = useBoardStore()
  return [
    ...TOOLS.map(({ id, ...rest }): Action => ({
      id,
      ...rest,
      tool: id,
      // A stepped shaft is a half-section.
      enabled: () => id !== 'stepped' || board.sketch.plane === 'half',
      run: () => board.useTool(id),
    })),
    ...PAD_CONSTRAINTS.map(({ kind, across, ...rest }): Action => ({
      id: `tie:${kind}`,
      ...rest,
      get label() {
        return (isEndSketch(board.sketch) ? across?.label : undefined) ?? rest.label
      },
      get help() {
        return (isEndSketch(board.sketch) ? across?.help : undefined) ?? rest.help
      },
      icon: kind,
      pages: ['tie'],
      tool: `tie:${kind}`,
      fits: () => fittingConstraints(board.sketch, board.picks).includes(kind),
      run: () => board.useTool(`tie:${kind}`),
    })),
  ]
}

function sketchActions(): Action[] {
  const parts = usePartStore()
  const board = useBoardStore()
  const clipboard = createClipboard()
  const pickedCurves = (): string[] =>
    board.picks.filter((id) => board.sketch.entities.some((e) => e.id === id))
  const pickedSizes = (): string[] =>
    board.picks.filter((id) => board.sketch.sizes.some((s) => s.id === id))
  const make = (role: Role): void => void parts.run(setRole(board.sketch.id, pickedCurves(), role))
  const roleAction = (
    to: Role,
    key: string,
    icon: IconName,
    label: string,
    help: string,
  ): Action => ({
    ...{ id: `role:${to}`, label, help, key, icon, pages: ['draw'] },
    enabled: () => pickedCurves().length > 0,
    run: () => make(to),
  })
  const removable = (): string[] => board.picks.filter((id) => id !== 'axis' && id !== 'origin')

  return [
    roleAction(
      'construction',
      'z',
      'construction',
      'Construction',
      'Makes what is picked construction lines, which bound no material.',
    ),
    {
      id: 'centreLine',
      label: 'Centre line',
      help: 'Draws a centre line, or makes what is picked centre lines.',
      key: 'x',
      icon: 'centreLine',
      pages: ['draw'],
      tool: 'centreLine',
      run: () => (pickedCurves().length > 0 ? make('centre') : board.useTool('centreLine')),
    },
    roleAction('outline', 'c', 'outline', 'Outline', 'Makes what is picked outline again.'),
    {
      id: 'reference',
      label: 'Reference',
      help: 'Lets the picked sizes only report, in parentheses, or drive again.',
      key: 'v',
      icon: 'reference',
      pages: ['draw'],
      enabled: () => pickedSizes().length > 0,
      run: () => {
        for (const id of pickedSizes()) {
          const size = board.sketch.sizes.find((s) => s.id === id)
          if (size) parts.run(setReference(board.sketch.id, id, !size.reference))
        }
      },
    },
    {
      id: 'polygon',
      label: 'Polygon',
      help: 'Regular, by centre and corner; the sides are typed. On the pad: the rectangle, and Tab twice.',
      tool: 'polygon',
      run: () => board.useTool('polygon'),
    },
    {
      id: 'curvePoint',
      label: 'Add curve points',
      help: 'Puts points into a free curve; its shape stays.',
      tool: 'curvePoint',
      run: () => board.useTool('curvePoint'),
    },
    {
      id: 'bridge',
      label: 'Bridge',
      help: 'Joins two open ends: by a curve that goes on smoothly, round or flat; Tab changes which.',
      tool: 'bridge',
      run: () => board.useTool('bridge'),
    },
    {
      id: 'picture',
      label: 'Picture behind the board',
      help: 'A photograph or a sketch to draw after; it can be dropped on the board too.',
      run: choosePicture,
    },
    {
      id: 'showPicture',
      label: 'Show or hide the picture',
      help: 'Hides the picture behind the board, or shows it again.',
      key: 'Alt+b',
      enabled: () => parts.part?.picture !== undefined,
      run: () => void parts.run(changePicture({ shown: parts.part?.picture?.shown === false })),
    },
    {
      id: 'takeOutline',
      label: 'Draw an outline from SVG',
      help: 'Lines, arcs and curves of an SVG drawing become pieces of the profile; it can be dropped on the board too.',
      run: chooseOutline,
    },
    {
      id: 'saveOutline',
      label: 'Save the profile as SVG',
      help: 'The profile in hand as a drawing in mm, its guides in dashes.',
      enabled: () => !board.isBlank,
      run: () => void saveOutline(),
    },
    {
      id: 'bringIn',
      label: 'Bring in a file',
      help: 'Solids of a STEP file as bodies, triangles of an STL or 3MF file to go by.',
      run: chooseFiles,
    },
    {
      id: 'remove',
      label: 'Delete',
      help: 'Deletes what is picked, and what stands on it. The Delete key does the same.',
      key: 'b',
      icon: 'remove',
      pages: ['draw', 'edit', 'turn', 'mill'],
      enabled: () => removable().length > 0 || board.stepId !== undefined,
      run: () => {
        if (removable().length > 0) parts.run(removeItems(board.sketch.id, removable()))
        else if (board.stepId !== undefined) parts.run(removeStep(board.stepId))
      },
    },
    {
      id: 'cut',
      label: 'Cut',
      help: 'Copies what is picked, with its constraints and sizes, and deletes it.',
      key: 'Ctrl+x',
      run: clipboard.cut,
    },
    {
      id: 'copyPicks',
      label: 'Copy to the clipboard',
      help: 'Copies what is picked, with its constraints and sizes, also for other parts.',
      key: 'Ctrl+c',
      run: () => void clipboard.copy(),
    },
    {
      id: 'paste',
      label: 'Paste',
      help: 'Puts in what was copied: beside it, or in place in another profile.',
      key: 'Ctrl+v',
      run: clipboard.paste,
    },
    {
      id: 'pickAll',
      label: 'Pick all',
      help: 'Picks every line and curve of the profile.',
      key: 'Ctrl+a',
      run: () => (board.picks = board.sketch.entities.map((e) => e.id)),
    },
    {
      id: 'alignLabels',
      label: 'Align labels',
      help: 'Puts dragged labels back in their rows: those picked, or all.',
      key: 'y',
      enabled: () => board.sketch.sizes.some((s) => s.label),
      run: () => {
        const picked = pickedSizes()
        const ids = picked.length > 0 ? picked : board.sketch.sizes.map((s) => s.id)
        parts.run(placeLabels(board.sketch.id, new Map(ids.map((id) => [id, undefined]))))
      },
    },
    {
      id: 'suggestions',
      label: 'Suggestions',
      help: 'Shows what is suggested while one draws, to switch kinds on and off; the grid too.',
      key: 'n',
      run: () => (board.suggestionsOpen = !board.suggestionsOpen),
    },
    {
      id: 'marks',
      label: 'Constraint marks',
      help: 'Shows or hides the marks of constraints beside their lines.',
      key: 'm',
      run: () => (board.showMarks = !board.showMarks),
    },
  ]
}

/** What every screen of a part offers. */
export function screenActions(): Action[] {
  const parts = usePartStore()
  const board = useBoardStore()
  return [
    { id: 'fit', label: 'Fit', help: 'Fits the part to the board.', key: ' ', run: board.fit },
    {
      id: 'undo',
      label: 'Undo',
      help: 'Takes the last edit back.',
      key: 'Ctrl+z',
      repeats: true,
      enabled: () => parts.undoLabel !== undefined,
      run: parts.stepBack,
    },
    {
      id: 'redo',
      label: 'Redo',
      help: 'Does again what was taken back.',
      key: 'Ctrl+Shift+z',
      repeats: true,
      enabled: () => parts.redoLabel !== undefined,
      run: parts.stepForth,
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
}
