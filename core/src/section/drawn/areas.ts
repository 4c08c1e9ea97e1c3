import {
  add,
  boundsOf,
  leftNormal,
  lengthOf,
  pointAt,
  scale,
  windingAround,
  type Vec,
} from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { together, type Faces } from './faces'
import { EMPTY_SECTION, type Region, type Section } from '../types'

/** One of the smallest closed areas that a drawing parts the plane into. */
export interface Area {
  /** What a choice of it is remembered by: the entities around it, and a number where others have the same. */
  readonly key: readonly string[]
  readonly region: Region
  /** Whether it is material as long as nothing is chosen. */
  readonly solid: boolean
}

/** All areas of a drawing, and what choices among them mean. */
export interface Areas {
  readonly all: readonly Area[]
  /** The areas that lists of entities mean: each those that it is most like. */
  readonly meant: (lists: readonly (readonly string[])[]) => ReadonlySet<number>
  /** Chosen areas as one section, without the lines between them. */
  readonly together: (chosen: ReadonlySet<number>) => Section
}

/** Of a drawing that encloses nothing. */
export const NO_AREAS: Areas = {
  all: [],
  meant: () => new Set(),
  together: () => EMPTY_SECTION,
}

/**
 * @param solid the faces that are material as long as nothing is chosen
 * @param section what those are together
 */
export function areasOf(faces: Faces, solid: ReadonlySet<number>, section: Section): Areas {
  const found = [...faces.rounds.keys()]
    .filter((i) => (faces.rounds[i]?.area ?? 0) > 0)
    .flatMap((face) => {
      const [region] = together(faces, new Set([face])).regions
      return region ? [{ face, region, corner: cornerOf(region) }] : []
    })
  found.sort((a, b) => a.corner.x - b.corner.x || a.corner.y - b.corner.y)
  const within = found.map(({ face, region }) =>
    solid.has(face) ? regionAround(section, insideOf(region)) : -1,
  )
  const keys = numbered(found.map(({ region }) => entitiesAround(region)))
  const all = found.map(({ region }, i): Area => ({
    key: keys[i] ?? [],
    region,
    solid: (within[i] ?? -1) >= 0,
  }))
  const wholes = section.regions.map((region, n) => ({
    key: entitiesAround(region),
    areas: [...all.keys()].filter((i) => within[i] === n),
  }))
  const choices = [...all.map(({ key }, i) => ({ key, areas: [i] })), ...wholes]
  const sections = new Map<string, Section>()
  return {
    all,
    meant: (lists) => new Set(lists.flatMap((list) => likest(list, choices)?.areas ?? [])),
    together(chosen) {
      const key = [...chosen].sort((a, b) => a - b).join()
      const known = sections.get(key)
      if (known) return known
      const made =
        chosen.size === 0
          ? EMPTY_SECTION
          : together(faces, new Set([...chosen].flatMap((i) => found[i]?.face ?? [])))
      sections.set(key, made)
      return made
    },
  }
}

/** The entities that draw a region's outer outline. */
export function entitiesAround({ outer }: Region): string[] {
  return [...new Set(outer.filter((e) => e.name.role === 'drawn').map((e) => e.name.entity))]
}

/** Of lists that hold the same, later ones get a number, in the order of their areas. */
function numbered(lists: readonly (readonly string[])[]): (readonly string[])[] {
  const seen = new Map<string, number>()
  return lists.map((list) => {
    const text = [...list].sort().join(' ')
    const before = seen.get(text) ?? 0
    seen.set(text, before + 1)
    return before === 0 ? list : [...list, `#${before + 1}`]
  })
}

interface Choice {
  readonly key: readonly string[]
  readonly areas: readonly number[]
}

/** The choice that shares the most with a list, of all that either has; more than half of the list. */
function likest(list: readonly string[], choices: readonly Choice[]): Choice | undefined {
  let [best, most]: [Choice | undefined, number] = [undefined, 0]
  for (const choice of choices) {
    const shared = list.filter((id) => choice.key.includes(id)).length
    const likeness = shared / (list.length + choice.key.length - shared)
    if (2 * shared > list.length && likeness > most) [best, most] = [choice, likeness]
  }
  return best
}

function cornerOf({ outer }: Region): Vec {
  const boxes = outer.map((e) => boundsOf(e.piece).min)
  return { x: Math.min(...boxes.map((p) => p.x)), y: Math.min(...boxes.map((p) => p.y)) }
}

/** A place just inside a region, beside the middle of its longest edge. */
function insideOf({ outer }: Region): Vec {
  const longest = outer.reduce((a, b) => (lengthOf(b.piece) > lengthOf(a.piece) ? b : a))
  return add(pointAt(longest.piece, 0.5), scale(leftNormal(longest.piece, 0.5), INSIDE))
}

const INSIDE = 10 * VERTEX_TOLERANCE

/** The number of the region around a place; −1 outside of all. */
export function regionAround({ regions }: Section, place: Vec): number {
  return regions.findIndex(({ outer, holes }) => {
    const turned = [outer, ...holes].flat().map(({ piece }) => ({ piece, times: 1 }))
    return windingAround(place, turned) > 0
  })
}
