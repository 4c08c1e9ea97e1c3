import { succeed } from '../result'
import { PLAIN_SHEET, type Part, type SheetSetup, type TitleFields } from '../part'
import type { Command } from './command'

const setupOf = (part: Part): SheetSetup => part.sheet ?? PLAIN_SHEET

/** Draws the sheet in another way: on other paper, at another scale, with other views. */
export function changeSheet(change: Partial<Omit<SheetSetup, 'title' | 'moved'>>): Command {
  return {
    label: 'change the sheet',
    run: (part) => succeed({ ...part, sheet: { ...setupOf(part), ...change } }),
  }
}

/** Writes fields of the title block. */
export function changeTitle(change: Partial<TitleFields>): Command {
  return {
    label: 'change the title block',
    run: (part) => {
      const setup = setupOf(part)
      return succeed({ ...part, sheet: { ...setup, title: { ...setup.title, ...change } } })
    },
  }
}

/**
 * Keeps the label of a size or a note where it was dragged to.
 * @param by how far it stands from where it would, in mm of the paper; undefined to put it back
 */
export function moveSheetLabel(
  id: string,
  by: { readonly x: number; readonly y: number } | undefined,
): Command {
  return {
    label: by ? 'move a label of the sheet' : 'put a label of the sheet back',
    run: (part) => {
      const setup = setupOf(part)
      const others = setup.moved.filter((m) => m.id !== id)
      return succeed({
        ...part,
        sheet: { ...setup, moved: by ? [...others, { id, ...by }] : others },
      })
    },
  }
}

/** Puts all labels back to where they stand by themselves. */
export function tidySheet(): Command {
  return {
    label: 'put all labels of the sheet back',
    run: (part) => succeed({ ...part, sheet: { ...setupOf(part), moved: [] } }),
  }
}
