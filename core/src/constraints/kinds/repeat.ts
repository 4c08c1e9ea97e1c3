import { ALONG_AXIS, ALONG_RADIUS, type Repeat } from '../../sketch'
import {
  offset,
  sumEquation,
  weightedEquation,
  type Demand,
  type Reducible,
  type Setting,
} from '../../equations'
import type { ConstraintKind } from '../kind'

/** Made by its tool alone. */
export const repeat: ConstraintKind<Repeat> = {
  fields: { points: 'ids', copies: 'idLists', along: 'way' },
  words: (c) => `repeat of ${c.points.length} points, ${c.copies.length + 1} in all`,
  demands: repeated,
}

/** Every point of a copy lies one pitch from its like in the copy before. */
function repeated({ index, line, ties }: Setting, c: Repeat): Demand[] {
  const rows = [c.points, ...c.copies].map((row) => row.map(index))
  const [first = [], second = []] = rows
  const [a, b] = [first[0] ?? 0, second[0] ?? 0]
  const demands: Demand[] = []
  const straight = c.along === ALONG_AXIS ? 1 : c.along === ALONG_RADIUS ? 0 : undefined
  if (straight !== undefined) ties.tie(2 * a + straight, 2 * b + straight, 0, c.id)
  else {
    const [p, q] = line(c.along)
    demands.push(
      sumEquation(c.id, [
        [1, offset(b, p, q)],
        [-1, offset(a, p, q)],
      ]),
    )
  }
  // A point that two copies share is said once: it ends the one and begins the other.
  const said = new Set([`${a} ${b}`])
  rows.slice(1).forEach((row, k) => {
    row.forEach((point, j) => {
      const before = rows[k]?.[j] ?? 0
      if (said.has(`${before} ${point}`)) return
      said.add(`${before} ${point}`)
      for (const axis of [0, 1]) {
        const [from, to] = [2 * before + axis, 2 * point + axis]
        const [base, next] = [2 * a + axis, 2 * b + axis]
        if (axis === straight) ties.tie(from, to, 0, c.id)
        else demands.push(samePitch(c.id, [base, next], [from, to]))
      }
    })
  })
  return demands
}

/** One coordinate goes on from another as a second pair does: a tie once that pair is tied. */
function samePitch(
  owner: string,
  [base, next]: readonly [number, number],
  [from, to]: readonly [number, number],
): Reducible {
  return {
    owner,
    reduce: (ties) => {
      for (const [[a, b], [p, q]] of [
        [
          [base, next],
          [from, to],
        ],
        [
          [from, to],
          [base, next],
        ],
      ] as const) {
        const pitch = ties.between(a, b)
        if (pitch === undefined) continue
        ties.tie(p, q, pitch, owner, [a, b])
        return true
      }
      return false
    },
    equations: () => [
      weightedEquation(owner, [
        [to, 1],
        [from, -1],
        [next, -1],
        [base, 1],
      ]),
    ],
  }
}
