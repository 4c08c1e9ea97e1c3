import { tidySheet } from '@lathica/core/edit'
import { usePartStore } from '../store/part'
import { usePlanStore } from '../store/plan'
import { useSheetStore } from '../store/sheet'
import type { Action } from './action'
import { lookActions } from './lookActions'
import { screenActions } from './registry'
import { viewActions } from './viewActions'

/** What the sheet is handed over by. */
export interface SheetWork {
  readonly savePdf: () => void
  readonly saveSvg: () => void
  readonly savePng: () => void
  readonly print: () => void
  readonly giveUp: () => void
}

/** A label goes so far with a press of an arrow key, in mm of the paper. */
const NUDGE = 1

/** Every action of the sheet. */
export function sheetActions(work: SheetWork): readonly Action[] {
  const parts = usePartStore()
  const sheet = useSheetStore()
  const plan = usePlanStore()
  const nudge = (key: string, where: string, x: number, y: number): Action => ({
    ...{ id: `nudge:${key}`, label: `Label ${where}`, key, repeats: true },
    help: `Moves the picked label a millimetre ${where}.`,
    enabled: () => sheet.picked !== undefined,
    run: () => sheet.picked !== undefined && sheet.move(sheet.picked, x * NUDGE, y * NUDGE),
  })
  const other = screenActions().filter((a) => a.id !== 'largest' && a.id !== 'fit')
  return [
    {
      ...{ id: 'nextLabel', label: 'Next label', key: 'e', repeats: true },
      help: 'Picks the next size or note, as one reads.',
      run: () => sheet.step(1),
    },
    {
      ...{ id: 'lastLabel', label: 'Label before', key: 'w', repeats: true },
      help: 'Picks the size or note before.',
      run: () => sheet.step(-1),
    },
    nudge('ArrowLeft', 'to the left', -1, 0),
    nudge('ArrowRight', 'to the right', 1, 0),
    nudge('ArrowUp', 'up', 0, 1),
    nudge('ArrowDown', 'down', 0, -1),
    {
      ...{ id: 'putBack', label: 'Put the label back', key: 'b' },
      help: 'Lets the picked label stand where it would by itself.',
      enabled: () => sheet.picked !== undefined && sheet.isMoved(sheet.picked),
      run: () => sheet.picked !== undefined && sheet.putBack(sheet.picked),
    },
    {
      ...{ id: 'tidy', label: 'Put all labels back', key: 'y' },
      help: 'Lets every label stand where it would by itself.',
      enabled: () => sheet.setup.moved.length > 0,
      run: () => void parts.run(tidySheet(sheet.setup.id)),
    },
    {
      ...{ id: 'drawSize', label: 'Draw a size', key: 's' },
      help: 'Draws a size between two edges; it drives nothing, and stands in parentheses.',
      enabled: () => sheet.drawing !== undefined,
      run: () => sheet.choose('size'),
    },
    {
      ...{ id: 'drawLarger', label: 'Draw a place larger', key: 'd' },
      help: 'Draws what lies round an edge once more beside the views, larger, with its sizes.',
      enabled: () => sheet.drawing !== undefined,
      run: () => sheet.choose('larger'),
    },
    {
      ...{ id: 'runFrom', label: 'Run lengths from an edge', key: 'z' },
      help: 'Lets lengths run over each other on one line, from the edge that is clicked.',
      enabled: () => sheet.drawing !== undefined,
      run: () => sheet.choose('origin'),
    },
    {
      ...{ id: 'takeOff', label: 'Take the label off', key: 'Delete' },
      help: 'Takes the picked label off the sheet; it can be put on again.',
      enabled: () => sheet.picked !== undefined,
      run: () => sheet.takeOff(),
    },
    {
      ...{ id: 'nextSheet', label: 'Next sheet', key: 'r' },
      help: 'Shows the next sheet of the part.',
      enabled: () => sheet.all.sheets.length > 1,
      run: () => sheet.turn(1),
    },
    {
      id: 'addSheet',
      label: 'Add a sheet',
      help: 'Puts one more sheet behind the others.',
      run: () => sheet.add(),
    },
    {
      ...{ id: 'plan', label: 'Inspection plan', key: 'g' },
      help: 'Shows what is measured of every piece, and how it stands; again for the drawing alone.',
      run: () => (sheet.page = sheet.page === 'plan' ? 'sheet' : 'plan'),
    },
    {
      ...{ id: 'revisions', label: 'Revisions', key: 't' },
      help: 'Shows what was released, and what was changed since.',
      run: () => (sheet.page = sheet.page === 'revisions' ? 'sheet' : 'revisions'),
    },
    {
      ...{ id: 'balloons', label: 'Numbers on the sheet', key: 'v' },
      help: 'Shows the numbers of the inspection plan beside what is asked, or takes them off.',
      run: () => void plan.toggleBalloons(),
    },
    {
      ...{ id: 'letGo', label: 'Let go', key: 'Escape' },
      help: 'Lets a dragged label stand where it was, or lets go of what is picked.',
      run: () => {
        work.giveUp()
        sheet.letGo()
      },
    },
    { id: 'fit', label: 'Fit', help: 'Shows the whole sheet.', key: ' ', run: sheet.fit },
    {
      ...{ id: 'pdf', label: 'Save as PDF', key: 'f' },
      help: 'Saves the sheet in true size, lines and text as such.',
      run: work.savePdf,
    },
    {
      id: 'svg',
      label: 'Save as SVG',
      help: 'Saves the sheet as a picture of lines.',
      run: work.saveSvg,
    },
    {
      id: 'png',
      label: 'Save as PNG',
      help: 'Saves the sheet as a picture of dots.',
      run: work.savePng,
    },
    {
      ...{ id: 'print', label: 'Print', key: 'Ctrl+p' },
      help: 'Prints the sheet in true size, if the printer has the paper.',
      run: work.print,
    },
    ...lookActions(),
    ...viewActions('sheet'),
    ...other,
  ]
}
