import { labelExtent, labelsOverlap, type SizeDrawing } from './setting'

/** The side of a cell in pixels: about a label's width. */
const CELL = 48

/** More cells than a pane is high. */
const COLUMN = 1e6

/** A label: its middle and how much room it takes. */
type Label = Pick<SizeDrawing, 'label' | 'width' | 'upright'>

/** Labels by the cells they lie in, so that asking who overlaps does not go through all of them. */
export interface Crowd {
  readonly add: (drawing: SizeDrawing) => void
  /** Whether the label would lie on one that is there. */
  readonly meets: (label: Label) => boolean
}

export function createCrowd(drawings: readonly SizeDrawing[] = []): Crowd {
  const cells = new Map<number, SizeDrawing[]>()
  /** Asks of each cell a label lies in, until one says yes. */
  const someCell = (drawing: Label, ask: (key: number) => boolean): boolean => {
    const { x, y } = labelExtent(drawing)
    const { label } = drawing
    const [right, low] = [cellOf(label.x + x / 2 + 2), cellOf(label.y + y / 2 + 2)]
    for (let i = cellOf(label.x - x / 2 - 2); i <= right; i++) {
      for (let j = cellOf(label.y - y / 2 - 2); j <= low; j++) {
        if (ask(i * COLUMN + j)) return true
      }
    }
    return false
  }
  const add = (drawing: SizeDrawing): void => {
    someCell(drawing, (key) => {
      const cell = cells.get(key)
      if (cell) cell.push(drawing)
      else cells.set(key, [drawing])
      return false
    })
  }
  drawings.forEach(add)
  return {
    add,
    meets: (drawing) =>
      someCell(
        drawing,
        (key) => cells.get(key)?.some((other) => labelsOverlap(drawing, other)) ?? false,
      ),
  }
}

const cellOf = (v: number): number => Math.floor(v / CELL)

/**
 * Those of the drawings whose labels lie in the pane and on no other: what can be read. The first
 * ones go before later ones, and those asked for before all.
 * @param wanted ids that are shown in any case
 * @returns the drawings to show, and how many in the pane were left out
 */
export function legible(
  drawings: readonly SizeDrawing[],
  wanted: ReadonlySet<string>,
  width: number,
  height: number,
): { readonly shown: readonly SizeDrawing[]; readonly hidden: number } {
  const inPane = drawings.filter(
    ({ id, label }) =>
      wanted.has(id) || (label.x > 0 && label.y > 0 && label.x < width && label.y < height),
  )
  const crowd = createCrowd(inPane.filter((d) => wanted.has(d.id)))
  const shown = inPane.filter((drawing) => {
    if (wanted.has(drawing.id)) return true
    if (crowd.meets(drawing)) return false
    crowd.add(drawing)
    return true
  })
  return { shown, hidden: inPane.length - shown.length }
}
