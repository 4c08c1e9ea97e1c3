import { fail, succeed } from '../result'
import {
  PLAIN_DRAWING,
  PLAIN_SHEET,
  refuseBlock,
  type DrawingSetup,
  type DrawnSize,
  type EdgePlace,
  type EnlargedPlace,
  type Part,
  type SheetSetup,
  type TitleBlock,
  type TitleFields,
} from '../part'
import type { Command } from './command'

const setupOf = (part: Part): DrawingSetup => part.drawing ?? PLAIN_DRAWING

/** The drawing of a part, changed. */
export const withDrawing = (part: Part, change: (setup: DrawingSetup) => DrawingSetup): Part => ({
  ...part,
  drawing: change(setupOf(part)),
})

const withSheet = (part: Part, id: string, change: (sheet: SheetSetup) => SheetSetup): Part =>
  withDrawing(part, (setup) => ({
    ...setup,
    sheets: setup.sheets.map((s) => (s.id === id ? change(s) : s)),
  }))

/** What of a sheet is changed by a choice. */
export type SheetChange = Partial<
  Omit<SheetSetup, 'id' | 'moved' | 'hidden' | 'drawn' | 'enlarged'>
>

/** Draws a sheet in another way: on other paper, at another scale, with other views. */
export function changeSheet(id: string, change: SheetChange): Command {
  return {
    label: 'change the sheet',
    run: (part) => succeed(withSheet(part, id, (s) => ({ ...s, ...change }))),
  }
}

/** So many sheets a part has at most. */
const MOST_SHEETS = 20

/** Puts a sheet behind the others. @param like what it has of another one */
export function addSheet(like: Partial<SheetSetup> = {}): Command {
  return {
    label: 'add a sheet',
    run: (part) => {
      if (setupOf(part).sheets.length >= MOST_SHEETS) {
        return fail(
          'sheet.many',
          `A part has at most ${MOST_SHEETS} sheets.`,
          'Take one off that is no longer needed.',
        )
      }
      const made = { ...PLAIN_SHEET, ...like, id: `sheet${part.nextId}` }
      return succeed(
        withDrawing({ ...part, nextId: part.nextId + 1 }, (setup) => ({
          ...setup,
          sheets: [...setup.sheets, made],
        })),
      )
    },
  }
}

/** Takes a sheet off; the last one stays. */
export function removeSheet(id: string): Command {
  return {
    label: 'take a sheet off',
    run: (part) => {
      const { sheets } = setupOf(part)
      if (sheets.length < 2) {
        return fail('sheet.last', 'A part has at least one sheet.', 'Change this one instead.')
      }
      return succeed(
        withDrawing(part, (setup) => ({ ...setup, sheets: sheets.filter((s) => s.id !== id) })),
      )
    },
  }
}

/** Writes fields of the title block. */
export function changeTitle(change: Partial<TitleFields>): Command {
  return {
    label: 'change the title block',
    run: (part) =>
      succeed(withDrawing(part, (setup) => ({ ...setup, title: { ...setup.title, ...change } }))),
  }
}

/**
 * Keeps the label of a size or a note where it was dragged to.
 * @param by how far it stands from where it would, in mm of the paper; undefined to put it back
 */
export function moveSheetLabel(
  sheet: string,
  id: string,
  by: { readonly x: number; readonly y: number } | undefined,
): Command {
  return {
    label: by ? 'move a label of the sheet' : 'put a label of the sheet back',
    run: (part) =>
      succeed(
        withSheet(part, sheet, (s) => {
          const others = s.moved.filter((m) => m.id !== id)
          return { ...s, moved: by ? [...others, { id, ...by }] : others }
        }),
      ),
  }
}

/** Puts all labels back to where they stand by themselves. */
export function tidySheet(sheet: string): Command {
  return {
    label: 'put all labels of the sheet back',
    run: (part) => succeed(withSheet(part, sheet, (s) => ({ ...s, moved: [] }))),
  }
}

/** Takes a label off the sheet: a size that was drawn there is gone, others can be put on again. */
export function takeOffLabel(sheet: string, id: string): Command {
  return {
    label: 'take a label off the sheet',
    run: (part) =>
      succeed(
        withSheet(part, sheet, (s) =>
          s.drawn.some((d) => d.id === id) || s.enlarged.some((e) => e.id === id)
            ? {
                ...s,
                drawn: s.drawn.filter((d) => d.id !== id),
                enlarged: s.enlarged.filter((e) => e.id !== id),
              }
            : { ...s, hidden: [...s.hidden.filter((h) => h !== id), id] },
        ),
      ),
  }
}

/** Puts labels on again that were taken off. */
export function putOnLabels(sheet: string): Command {
  return {
    label: 'put labels on the sheet again',
    run: (part) => succeed(withSheet(part, sheet, (s) => ({ ...s, hidden: [] }))),
  }
}

/** So many sizes are drawn on a sheet at most. */
const MOST_DRAWN = 200

/** Draws a size between two edges of a body; it drives nothing. */
export function drawSize(sheet: string, size: Omit<DrawnSize, 'id'>): Command {
  return {
    label: 'draw a size on the sheet',
    run: (part) => {
      const own = setupOf(part).sheets.find((s) => s.id === sheet)?.drawn ?? []
      const isAlike = (d: DrawnSize): boolean =>
        d.kind === size.kind &&
        d.end === size.end &&
        d.body === size.body &&
        d.from === size.from &&
        d.to === size.to &&
        d.other === size.other
      if (own.some(isAlike)) {
        return fail('drawn.twice', 'This size is drawn already.', 'Pick other edges.')
      }
      if (own.length >= MOST_DRAWN) {
        return fail(
          'drawn.many',
          `A sheet has at most ${MOST_DRAWN} sizes that are drawn.`,
          'Take some off first.',
        )
      }
      const made = { ...size, id: `drawn${part.nextId}` }
      return succeed(
        withSheet({ ...part, nextId: part.nextId + 1 }, sheet, (s) => ({
          ...s,
          drawn: [...s.drawn, made],
        })),
      )
    },
  }
}

/** Lets a size that was drawn between two places tell another distance between them. */
export function measureDrawn(sheet: string, id: string, kind: DrawnSize['kind']): Command {
  return {
    label: 'change what a size on the sheet measures',
    run: (part) =>
      succeed(
        withSheet(part, sheet, (s) => ({
          ...s,
          drawn: s.drawn.map((d) => (d.id === id ? { ...d, kind } : d)),
          // Where it was dragged to was told along other lines.
          moved: s.moved.filter((m) => m.id !== id),
        })),
      ),
  }
}

/** So many places are drawn larger on a sheet at most: there are no more letters for them. */
const MOST_ENLARGED = 6

/** Draws larger what lies round an edge. @param radius in mm of the part */
export function enlarge(sheet: string, place: EdgePlace, radius: number): Command {
  return {
    label: 'draw a place larger',
    run: (part) => {
      const own = setupOf(part).sheets.find((s) => s.id === sheet)?.enlarged ?? []
      if (own.some((e) => e.body === place.body && e.corner === place.corner)) {
        return fail('sheet.enlarged', 'This place is drawn larger already.', 'Choose another edge.')
      }
      if (own.length >= MOST_ENLARGED) {
        return fail(
          'sheet.enlargedMany',
          `At most ${MOST_ENLARGED} places are drawn larger on a sheet.`,
          'Take one off, or add a sheet.',
        )
      }
      const made = { ...place, id: `enlarged${part.nextId}`, radius, scale: '' }
      return succeed(
        withSheet({ ...part, nextId: part.nextId + 1 }, sheet, (s) => ({
          ...s,
          enlarged: [...s.enlarged, made],
        })),
      )
    },
  }
}

/** Draws a place larger in another way: more round it, at another scale. */
export function changeEnlarged(
  sheet: string,
  id: string,
  change: Partial<Pick<EnlargedPlace, 'radius' | 'scale'>>,
): Command {
  return {
    label: 'change what is drawn larger',
    run: (part) => {
      if (change.radius !== undefined && !(change.radius > 0)) {
        return fail('sheet.radius', 'A circle has a radius.', 'Type one greater than nought.')
      }
      return succeed(
        withSheet(part, sheet, (s) => ({
          ...s,
          enlarged: s.enlarged.map((e) => (e.id === id ? { ...e, ...change } : e)),
        })),
      )
    },
  }
}

/** Puts a title block of one’s own on all sheets of the part, or the plain one again. */
export function changeBlock(block: TitleBlock | undefined): Command {
  return {
    label: block ? 'change the title block' : 'put the plain title block on again',
    run: (part) => {
      const refused = block && refuseBlock(block)
      if (refused) return refused
      return succeed(
        withDrawing(part, ({ block: _, ...setup }) => (block ? { ...setup, block } : setup)),
      )
    },
  }
}
