import { edgeOfPlace, placeName } from '../../names'
import type { Cubic, Vec } from '../../geometry'
import { edgeKey, edgesOf, type Section, type SectionEdge } from '../types'

/** A place that tells part of a round or free edge, by a key that holds when sizes change. */
export interface GuidePlace {
  readonly key: string
  readonly at: Vec
}

/** What a round or a free edge of a section is made on: its ends and centre, or its control points. */
export interface EdgeGuide {
  readonly kind: 'arc' | 'curve'
  /** Start, end and centre of an arc; start, handles and end of a free curve. */
  readonly places: readonly GuidePlace[]
  /** The way an arc turns. */
  readonly counterClockwise: boolean
}

const ARC_PLACES = ['start', 'end', 'centre'] as const
const CURVE_PLACES = ['from', 'leave', 'come', 'to'] as const

/**
 * The guide of an edge of a section; undefined of a straight one, which corners tell, and of one cubic of several that
 * have one name: nothing would tell which of them is meant when sizes change.
 */
export function guideOf({ piece, name }: SectionEdge, section: Section): EdgeGuide | undefined {
  if (piece.kind === 'line') return undefined
  const base = edgeKey(name)
  const named = (words: readonly string[], places: readonly Vec[]): readonly GuidePlace[] =>
    words.map((word, i) => ({ key: placeName(base, word), at: places[i] ?? piece.from }))
  if (piece.kind === 'cubic') {
    const isOne = edgesOf(section).every(
      (e) => edgeKey(e.name) !== base || (e.piece.kind === 'cubic' && isSame(e.piece.on, piece.on)),
    )
    if (!isOne) return undefined
    return { kind: 'curve', places: named(CURVE_PLACES, piece.on), counterClockwise: true }
  }
  const { from, to, centre, counterClockwise } = piece
  return { kind: 'arc', places: named(ARC_PLACES, [from, to, centre]), counterClockwise }
}

/** Whether two cubics have the same control points. */
const isSame = (a: Cubic, b: Cubic): boolean =>
  a === b || a.every((p, i) => p.x === b[i]?.x && p.y === b[i]?.y)

/** Where a place of a guide lies in a section, by its key; undefined where its edge is gone. */
export function guidePlace(section: Section, key: string): Vec | undefined {
  const base = edgeOfPlace(key)
  if (base === undefined) return undefined
  for (const edge of edgesOf(section)) {
    if (edgeKey(edge.name) !== base) continue
    const found = guideOf(edge, section)?.places.find((p) => p.key === key)
    if (found) return found.at
  }
  return undefined
}
