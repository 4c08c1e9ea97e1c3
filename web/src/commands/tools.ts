import type { IconName } from '../icons/paths'
import type { ToolId } from '../board/tools'
import type { Page } from './action'

/** A tool's place on the pad, its name and what it does. */
interface ToolEntry {
  readonly id: ToolId
  readonly key: string
  readonly icon: IconName
  readonly pages: readonly Page[]
  readonly label: string
  readonly help: string
}

const on =
  (page: Page) =>
  (id: ToolId, key: string, icon: IconName, label: string, help: string): ToolEntry => ({
    id,
    key,
    icon,
    pages: [page],
    label,
    help,
  })
const draw = on('draw')
const edit = on('edit')

const EVERYWHERE: readonly Page[] = ['draw', 'edit', 'tie', 'turn', 'mill', 'note']

/** Tools that draw, measure and edit. */
export const TOOLS: readonly ToolEntry[] = [
  {
    ...draw(
      'pick',
      'q',
      'pick',
      'Pick',
      'Click to pick, drag to move; Shift adds, Alt takes away.',
    ),
    pages: EVERYWHERE,
  },
  {
    ...draw('size', 's', 'size', 'Size', 'Click what to measure, then where the label goes.'),
    pages: ['draw', 'edit', 'tie'],
  },
  draw('chain', 'a', 'chain', 'Chain', 'Lines and arcs in one go; Tab flips, figures are typed.'),
  draw(
    'arc',
    'w',
    'arc',
    'Arc',
    'By ends and a place on it; Tab: by centre and ends, then a curve with handles.',
  ),
  draw('circle', 'e', 'circle', 'Circle', 'By centre and diameter.'),
  draw(
    'rectangle',
    'r',
    'rectangle',
    'Rectangle',
    'By two corners; Tab: from its centre, then a polygon.',
  ),
  draw('slot', 't', 'slot', 'Slot', 'By two centres and a width.'),
  draw(
    'curve',
    'd',
    'curve',
    'Free curve',
    'Through as many places as are clicked; Tab: over a frame; Enter ends it.',
  ),
  draw('point', 'f', 'point', 'Point', 'A point by itself, to tie and measure to.'),
  draw(
    'stepped',
    'g',
    'stepped',
    'Stepped chain',
    'A whole shaft from typed pairs: 20, 24; 28, 34.',
  ),
  edit('trim', 'w', 'trim', 'Trim', 'Cuts a stretch away, as far as what crosses it.'),
  edit('extend', 'e', 'extend', 'Extend', 'Draws an end out to the next curve.'),
  edit('split', 'r', 'split', 'Split', 'Divides a line or arc where it is clicked.'),
  edit('repeat', 't', 'repeat', 'Repeat', 'Copies at one pitch, kept equal and changeable.'),
  edit(
    'fillet',
    'a',
    'fillet',
    'Round corner',
    'Rounds a corner of the sketch by a radius: a fillet.',
  ),
  edit(
    'chamfer',
    'd',
    'chamfer',
    'Bevel corner',
    'Bevels a corner of the sketch by a length: a chamfer.',
  ),
  edit('offset', 'f', 'offset', 'Offset', 'Draws a chain beside a chain, at one distance.'),
  edit('mirror', 'g', 'mirror', 'Mirror', 'Mirrors about a line and keeps both alike; Tab flips.'),
  edit('move', 'z', 'move', 'Move', 'By two places, or by typed distances.'),
  edit('copy', 'x', 'copy', 'Copy', 'As move, with constraints and sizes, leaving the first.'),
  edit('rotate', 'c', 'rotate', 'Rotate', 'About a place, by pointing or by an angle.'),
  edit('scale', 'v', 'scale', 'Scale', 'About a place, by pointing or by a factor.'),
]
