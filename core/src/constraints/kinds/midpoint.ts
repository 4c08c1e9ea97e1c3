import type { Midpoint } from '../../sketch'
import { middle } from '../../equations'
import { x, y, type ConstraintKind } from '../kind'
import { endsIn, linesIn, ownPointsIn } from '../picks'

export const midpoint: ConstraintKind<Midpoint> = {
  fields: { point: 'id', line: 'id' },
  words: (c, { name }) => `${name(c.point)} in the middle of ${name(c.line)}`,
  demands: ({ index, line }, c) => {
    const [a, b] = line(c.line)
    return [x, y].map((axis) => middle(c.id, axis(index(c.point)), axis(a), axis(b)))
  },
  offer: {
    make: (sketch, picks) => {
      const [line] = linesIn(sketch, picks)
      const [point] = ownPointsIn(sketch, picks)
      if (line === undefined || point === undefined || picks.length !== 2) return []
      return endsIn(sketch, line).includes(point) ? [] : [{ kind: 'midpoint', point, line }]
    },
    needs: 'Pick a point and a line.',
  },
}
