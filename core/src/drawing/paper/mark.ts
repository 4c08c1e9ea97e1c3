import { cubic, line, vec, type Piece, type Vec } from '../../geometry'
import type { BlockMark } from '../../part'
import type { Item } from '../items'
import type { Room } from './sizes'

/** Room between a mark and the edges of its cell, and for a label above it, in mm. */
const AROUND = 1.2
const LABELLED = 2.6

/** A mark in the middle of its cell, as large as it has room for. */
export function markItems(mark: BlockMark, room: Room, isLabelled: boolean): Item[] {
  const high = room.height - 2 * AROUND - (isLabelled ? LABELLED : 0)
  const by = Math.min((room.width - 2 * AROUND) / mark.width, high / mark.height)
  if (!(by > 0)) return []
  const left = room.x + (room.width - mark.width * by) / 2
  const top = room.y + AROUND + (high + mark.height * by) / 2
  const put = (x: number, y: number): Vec => vec(left + x * by, top - y * by)
  return mark.paths.flatMap(({ tone, d }): Item[] => {
    const loops = runsOf(d, put)
    if (loops.length === 0) return []
    return tone === 'line'
      ? [{ kind: 'stroke', line: 'narrow', runs: loops }]
      : [{ kind: 'fill', tone, loops }]
  })
}

/** Path data of absolute moves, lines, cubics and closings as pieces; what is none of these is passed over. */
function runsOf(d: string, put: (x: number, y: number) => Vec): Piece[][] {
  const runs: Piece[][] = []
  let run: Piece[] = []
  let [start, here] = [put(0, 0), put(0, 0)]
  const end = (): void => {
    if (run.length > 0) runs.push(run)
    run = []
  }
  for (const [, letter = '', rest = ''] of d.matchAll(/([MLCZ])([^MLCZ]*)/g)) {
    const n = rest
      .split(' ')
      .filter((w) => w !== '')
      .map(Number)
    const at = (i: number): Vec => put(n[i] ?? 0, n[i + 1] ?? 0)
    if (letter === 'M') {
      end()
      start = here = at(0)
    } else if (letter === 'L') {
      run.push(line(here, at(0)))
      here = at(0)
    } else if (letter === 'C') {
      run.push(cubic(here, at(0), at(2), at(4)))
      here = at(4)
    } else {
      if (Math.hypot(here.x - start.x, here.y - start.y) > 0) run.push(line(here, start))
      here = start
      end()
    }
  }
  end()
  return runs
}
