import { distance as between } from '../../geometry'
import type { DistanceSize } from '../../sketch'
import { apart } from '../../equations'
import { x, y, type SizeKind } from '../kind'

const shared = { fields: { a: 'id', b: 'id' }, measures: 'length', sign: '' } as const

const along = (
  way: 'axial' | 'radial',
  prefix: string,
  axis: (point: number) => number,
): SizeKind<DistanceSize> => ({
  ...shared,
  prefix,
  noun: (words) => `${words[way]} distance`,
  words: (s, { name, words }) => `${words[way]} distance of ${name(s.a)} and ${name(s.b)}`,
  measure: (s, _entities, locate) => {
    const [a, b] = [locate(s.a), locate(s.b)]
    return Math.abs(way === 'axial' ? b.x - a.x : b.y - a.y)
  },
  demands: ({ index, ties, side }, s, target) => {
    const [a, b] = [axis(index(s.a)), axis(index(s.b))]
    ties.tie(a, b, side(s.id, ties.gap(a, b), target) * target, s.id)
    return []
  },
})

export const axialDistance = along('axial', 'dist', x)
export const radialDistance = along('radial', 'rise', y)

export const distance: SizeKind<DistanceSize> = {
  ...shared,
  prefix: 'gap',
  noun: () => 'straight distance',
  words: (s, { name }) => `distance of ${name(s.a)} and ${name(s.b)}`,
  measure: (s, _entities, locate) => between(locate(s.a), locate(s.b)),
  demands: (setting, s, target) => [
    apart(setting, s.id, setting.index(s.a), setting.index(s.b), target),
  ],
}
