import { arc, line, vec, type Piece, type Vec } from '../geometry'

/**
 * A symbol of a square of 16 by 16, y downwards, as pieces on paper. Of path data (SVG 2, 9.3) it knows what symbols are
 * written with: M, L, H, V, Z and circular A, each absolute.
 * @param at lower left corner of the square, in mm
 * @param size of the square, in mm
 */
export function symbolRuns(path: string, at: Vec, size: number): Piece[][] {
  const by = size / 16
  const place = (x: number, y: number): Vec => vec(at.x + x * by, at.y + (16 - y) * by)
  const runs: Piece[][] = []
  let run: Piece[] = []
  let [x, y, startX, startY] = [0, 0, 0, 0]
  const lineTo = (toX: number, toY: number): void => {
    run.push(line(place(x, y), place(toX, toY)))
    ;[x, y] = [toX, toY]
  }
  for (const [, command = '', rest = ''] of path.matchAll(/([MLHVAZ])([^MLHVAZ]*)/g)) {
    const numbers = (rest.match(/-?\d*\.?\d+/g) ?? []).map(Number)
    const [a = 0, b = 0] = numbers
    switch (command) {
      case 'M':
        if (run.length > 0) runs.push(run)
        run = []
        ;[x, y, startX, startY] = [a, b, a, b]
        for (let i = 2; i + 1 < numbers.length; i += 2) lineTo(numbers[i] ?? 0, numbers[i + 1] ?? 0)
        break
      case 'L':
        for (let i = 0; i + 1 < numbers.length; i += 2) lineTo(numbers[i] ?? 0, numbers[i + 1] ?? 0)
        break
      case 'H':
        lineTo(a, y)
        break
      case 'V':
        lineTo(x, a)
        break
      case 'A': {
        const [r = 0, , , large = 0, sweep = 0, toX = 0, toY = 0] = numbers
        run.push(bow(place(x, y), place(toX, toY), r * by, large === 1, sweep === 1))
        ;[x, y] = [toX, toY]
        break
      }
      case 'Z':
        lineTo(startX, startY)
    }
  }
  return run.length > 0 ? [...runs, run] : runs
}

/** An arc by its ends and radius; of a picture whose y goes down, `sweep` is clockwise here. */
function bow(from: Vec, to: Vec, radius: number, large: boolean, sweep: boolean): Piece {
  const [dx, dy] = [to.x - from.x, to.y - from.y]
  const chord = Math.hypot(dx, dy)
  const r = Math.max(radius, chord / 2)
  const rise = Math.sqrt(Math.max(0, r * r - (chord * chord) / 4))
  const counterClockwise = !sweep
  // To the left of the way for a small counter-clockwise arc.
  const side = counterClockwise !== large ? 1 : -1
  const centre = vec(
    (from.x + to.x) / 2 - (side * rise * dy) / chord,
    (from.y + to.y) / 2 + (side * rise * dx) / chord,
  )
  return arc(from, to, centre, counterClockwise)
}
