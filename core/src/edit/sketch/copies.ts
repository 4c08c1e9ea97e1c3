import { measureSize, referencesOf, renamed } from '../../constraints'
import { fail, succeed, type Result } from '../../result'
import { add, dot, rotate, scale, subtract, unit, type Vec } from '../../geometry'
import {
  AXIS_ID,
  ORIGIN_ID,
  entityMap,
  locator,
  pointsOf,
  withPoints,
  type Entity,
  type Sketch,
} from '../../sketch'
import { sketchCommand, type Command } from '../command'
import { drawDraft, placeDraft, type Draft } from './draft'

/** A way of moving the plane that keeps shapes: x and y in mm to x and y in mm. */
export interface Motion {
  readonly place: (p: Vec) => Vec
  /** True when it turns left into right: arcs then turn the other way. */
  readonly mirrors: boolean
}

export const shift = (by: Vec): Motion => ({ place: (p) => add(p, by), mirrors: false })

export const turn = (about: Vec, angle: number): Motion => ({
  place: (p) => add(about, rotate(subtract(p, about), angle)),
  mirrors: false,
})

export const grow = (about: Vec, factor: number): Motion => ({
  place: (p) => add(about, scale(subtract(p, about), factor)),
  mirrors: factor < 0,
})

/** Mirrors about the line through two places. */
export function reflect(a: Vec, b: Vec): Motion {
  const u = unit(subtract(b, a))
  return {
    place: (p) => {
      const w = subtract(p, a)
      return add(a, subtract(scale(u, 2 * dot(u, w)), w))
    },
    mirrors: true,
  }
}

/** Entities of a sketch with what stands on them alone: what a clipboard holds. */
export function excerpt(sketch: Sketch, ids: readonly string[]): Draft {
  const picked = new Set(ids)
  // What follows a curve is copied with that curve alone.
  const entities = sketch.entities.filter(
    (e) => picked.has(e.id) && (e.kind !== 'parallel' || picked.has(e.of)),
  )
  const held = new Set([
    ...entities.flatMap(pointsOf),
    ...sketch.points.filter((p) => picked.has(p.id)).map((p) => p.id),
  ])
  const locate = locator(sketch)
  const known = new Set([...held, ...entities.map((e) => e.id), AXIS_ID, ORIGIN_ID])
  const within = (item: Parameters<typeof referencesOf>[0]): boolean => {
    const references = referencesOf(item)
    return references.length > 0 && references.every((id) => known.has(id))
  }
  const rename = (id: string): string => (held.has(id) || picked.has(id) ? `~${id}` : id)
  return {
    points: Object.fromEntries([...held].map((id) => [`~${id}`, { at: locate(id) }])),
    entities: entities.map((e) => ({ ...withPoints(e, rename), id: `~${e.id}` })),
    ties: sketch.constraints.filter(within).map(({ id: _, ...tie }) => renamed(tie, rename)),
    sizes: sketch.sizes.filter(within).map((size) => {
      const { id: _, name, formula, reference, label: __, ...offer } = size
      const measured = measureSize(size, entityMap(sketch), locate)
      return { offer: renamed(offer, rename), formula, reference, formerName: name, measured }
    }),
  }
}

/** Puts in what was copied elsewhere; links to other profiles stay behind. */
export function pasteDraft(sketchId: string, draft: Draft): Command {
  const ties = (draft.ties ?? []).filter((tie) => tie.kind !== 'linked')
  return drawDraft('paste', sketchId, { ...draft, ties })
}

/** A draft moved; constraints to the axis and fixed places hold no longer and are left out. */
export function moved(draft: Draft, motion: Motion): Draft {
  const flip = <E extends Entity>(e: E): E =>
    motion.mirrors && e.kind === 'arc' ? { ...e, counterClockwise: !e.counterClockwise } : e
  const points = Object.entries(draft.points).map(
    ([name, end]) => [name, { ...end, at: motion.place(end.at) }] as const,
  )
  return { ...draft, points: Object.fromEntries(points), entities: draft.entities.map(flip) }
}

/** What of a draft still holds after it was moved from where it stood. */
export function unbound(draft: Draft, keepDirections: boolean): Draft {
  const bound = (item: object): boolean =>
    Object.values(item).some((v) => v === AXIS_ID || v === ORIGIN_ID)
  return {
    ...draft,
    ties: (draft.ties ?? []).filter(
      (tie) =>
        tie.kind !== 'fixed' &&
        tie.kind !== 'linked' &&
        !bound(tie) &&
        (keepDirections ||
          (tie.kind !== 'axial' && tie.kind !== 'radial' && tie.kind !== 'inLine')),
    ),
    sizes: (draft.sizes ?? []).filter(
      ({ offer }) =>
        !bound(offer) &&
        offer.kind !== 'diameter' &&
        (keepDirections || (offer.kind !== 'axialDistance' && offer.kind !== 'radialDistance')),
    ),
  }
}

/** Copies entities by a motion, with their constraints and sizes among themselves. */
export function copyItems(
  sketchId: string,
  ids: readonly string[],
  motion: Motion,
  keepDirections: boolean,
): Command {
  return {
    label: 'copy',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
      const draft = excerpt(sketch, ids)
      if (Object.keys(draft.points).length === 0) return nothingPicked()
      const placed = placeDraft(part, sketchId, unbound(moved(draft, motion), keepDirections))
      return placed.ok ? succeed(placed.value.part) : placed
    },
  }
}

/** What follows a curve is told by the curve: an image of it would follow another. */
export function followsAlone(what: 'mirror' | 'repeat'): Result<never> {
  return fail(
    'copy.parallel',
    'What follows a curve goes with that curve alone.',
    `Leave it out, ${what} the curve, and take what is beside each.`,
  )
}

export function nothingPicked(): Result<never> {
  return fail(
    'copy.nothing',
    'Nothing is picked that could be copied.',
    'Pick lines or curves first.',
  )
}

/**
 * Moves what is picked by a motion. What holds it elsewhere is applied afterwards; directions that a
 * turn contradicts are taken off.
 */
export function moveItems(
  sketchId: string,
  ids: readonly string[],
  motion: Motion,
  label: string,
  keepDirections: boolean,
): Command {
  return sketchCommand(label, sketchId, (sketch) => {
    const picked = new Set(ids)
    const points = new Set([
      ...sketch.entities.filter((e) => picked.has(e.id)).flatMap(pointsOf),
      ...sketch.points.filter((p) => picked.has(p.id)).map((p) => p.id),
    ])
    if (points.size === 0) return nothingPicked()
    const contradicted = (c: Sketch['constraints'][number]): boolean =>
      !keepDirections &&
      (c.kind === 'axial' || c.kind === 'radial' || c.kind === 'inLine') &&
      referencesOf(c).every((id) => points.has(id) || picked.has(id))
    const flip = (e: Entity): Entity =>
      motion.mirrors && e.kind === 'arc' && picked.has(e.id)
        ? { ...e, counterClockwise: !e.counterClockwise }
        : e
    return succeed({
      ...sketch,
      points: sketch.points.map((p) => (points.has(p.id) ? { ...p, ...motion.place(p) } : p)),
      entities: sketch.entities.map(flip),
      constraints: sketch.constraints.filter((c) => !contradicted(c)),
    })
  })
}
