import { locator, type InLine } from '../../sketch'
import { x, y, type ConstraintKind } from '../kind'
import { fromFirst, isPoint } from '../picks'

export const inLine: ConstraintKind<InLine> = {
  fields: { a: 'id', b: 'id', along: ['axial', 'radial'] },
  words: (c, { name, words }) => `${name(c.a)} in line with ${name(c.b)}, ${words[c.along]}`,
  demands: ({ index, ties }, c) => {
    const across = c.along === 'axial' ? y : x
    ties.tie(across(index(c.a)), across(index(c.b)), 0, c.id)
    return []
  },
  offer: {
    // Points nearer to one radius go in line axially, others radially.
    make: (sketch, picks) => {
      const locate = locator(sketch)
      return fromFirst(sketch, picks, isPoint).map(([a, b]) => {
        const [p, q] = [locate(a), locate(b)]
        const along = Math.abs(q.y - p.y) <= Math.abs(q.x - p.x) ? 'axial' : 'radial'
        return { kind: 'inLine', a, b, along }
      })
    },
    needs: 'Pick two points or more.',
  },
}
