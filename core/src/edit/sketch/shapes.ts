import { add, distance, scale, subtract, unit, type Vec } from '../../geometry'
import { AXIS_ID, type Entity, type Role } from '../../sketch'
import type { Draft, DraftSize } from './draft'
import type { NewConstraint } from '../../constraints'
import type { End } from './ends'

const at = (place: Vec): End => ({ at: place })

const lineBetween = (id: string, from: string, to: string, role: Role): Entity => ({
  id,
  kind: 'line',
  from,
  to,
  role,
})

/** A rectangle with axial and radial sides. Both corners may be put onto something. */
export function rectangle(a: End, b: End, role: Role = 'outline'): Draft {
  return {
    points: {
      '~a': a,
      '~b': at({ x: b.at.x, y: a.at.y }),
      '~c': b,
      '~d': at({ x: a.at.x, y: b.at.y }),
    },
    entities: [
      lineBetween('~ab', '~a', '~b', role),
      lineBetween('~bc', '~b', '~c', role),
      lineBetween('~cd', '~c', '~d', role),
      lineBetween('~da', '~d', '~a', role),
    ],
    ties: [
      { kind: 'axial', line: '~ab' },
      { kind: 'radial', line: '~bc' },
      { kind: 'axial', line: '~cd' },
      { kind: 'radial', line: '~da' },
    ],
  }
}

/** A rectangle about its centre: the centre stays in the middle of a diagonal. */
export function centredRectangle(centre: End, corner: End, role: Role = 'outline'): Draft {
  const opposite = subtract(scale(centre.at, 2), corner.at)
  const plain = rectangle(at(opposite), corner, role)
  return {
    points: { ...plain.points, '~m': centre },
    entities: [...plain.entities, lineBetween('~ac', '~a', '~c', 'construction')],
    ties: [...(plain.ties ?? []), { kind: 'midpoint', point: '~m', line: '~ac' }],
  }
}

/** A circle about a centre. @param radius in mm */
export function circle(centre: End, radius: number, role: Role = 'outline'): Draft {
  return {
    points: { '~m': centre, '~r': at({ x: centre.at.x + radius, y: centre.at.y }) },
    entities: [{ id: '~circle', kind: 'circle', centre: '~m', rim: '~r', role }],
  }
}

/**
 * An arc about a centre from one end to a place that gives its direction only.
 * @param turn signed angle in radians by which it turns
 */
export function arcAbout(centre: End, from: End, turn: number, role: Role = 'outline'): Draft {
  const radius = subtract(from.at, centre.at)
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  const to = { x: c * radius.x - s * radius.y, y: s * radius.x + c * radius.y }
  const ends = { from: '~from', to: '~to', centre: '~m' }
  return {
    points: { '~m': centre, '~from': from, '~to': at(add(centre.at, to)) },
    entities: [{ id: '~arc', kind: 'arc', ...ends, counterClockwise: turn > 0, role }],
  }
}

/** A slot: two half circles about centres, joined smoothly by parallel lines. @param radius in mm */
export function slot(a: End, b: End, radius: number, role: Role = 'outline'): Draft {
  const along = unit(subtract(b.at, a.at))
  const side = scale({ x: -along.y, y: along.x }, radius)
  const round = { counterClockwise: true, role, kind: 'arc' as const }
  const smooth = (curve: string, to: string): NewConstraint => ({ kind: 'tangent', curve, to })
  return {
    points: {
      '~m': a,
      '~n': b,
      '~a': at(add(a.at, side)),
      '~b': at(subtract(a.at, side)),
      '~c': at(subtract(b.at, side)),
      '~d': at(add(b.at, side)),
    },
    entities: [
      { ...round, id: '~left', from: '~a', to: '~b', centre: '~m' },
      lineBetween('~bc', '~b', '~c', role),
      { ...round, id: '~right', from: '~c', to: '~d', centre: '~n' },
      lineBetween('~da', '~d', '~a', role),
    ],
    ties: [
      smooth('~left', '~bc'),
      smooth('~right', '~bc'),
      smooth('~right', '~da'),
      smooth('~left', '~da'),
    ],
  }
}

/** A regular polygon on a construction circle; its sides are one set of equal lines. */
export function polygon(centre: End, corner: End, sides: number, role: Role = 'outline'): Draft {
  const radius = subtract(corner.at, centre.at)
  const names = Array.from({ length: sides }, (_, i) => `~p${i}`)
  const ends = names.map((name, i) => {
    const [c, s] = [Math.cos((2 * Math.PI * i) / sides), Math.sin((2 * Math.PI * i) / sides)]
    const place = { x: c * radius.x - s * radius.y, y: s * radius.x + c * radius.y }
    return [name, i === 0 ? corner : at(add(centre.at, place))] as const
  })
  const lines = names.map((name, i) =>
    lineBetween(`~l${i}`, name, names[(i + 1) % sides] ?? name, role),
  )
  return {
    points: {
      '~m': centre,
      '~r': at({ x: centre.at.x + distance(corner.at, centre.at), y: centre.at.y }),
      ...Object.fromEntries(ends),
    },
    entities: [
      { id: '~round', kind: 'circle', centre: '~m', rim: '~r', role: 'construction' },
      ...lines,
    ],
    ties: [
      ...names.map((point): NewConstraint => ({ kind: 'pointOn', point, curve: '~round' })),
      ...lines.slice(1).map((l): NewConstraint => ({ kind: 'equal', curve: l.id, to: '~l0' })),
    ],
  }
}

/** A step of a shaft: formulas as they were typed, and what they come to in mm. */
export interface ShaftStep {
  readonly diameter: { readonly formula: string; readonly value: number }
  readonly length: { readonly formula: string; readonly value: number }
}

/**
 * A stepped shaft from the axis round to the axis, every land sized by its diameter and length.
 * @param start where on the axis it begins
 */
export function steppedShaft(start: End, steps: readonly ShaftStep[]): Draft {
  const points: Record<string, End> = { '~p0': { ...start, at: { x: start.at.x, y: 0 } } }
  const entities: Entity[] = []
  const ties: NewConstraint[] = []
  const sizes: DraftSize[] = []
  let x = start.at.x
  let last = '~p0'
  const go = (to: string, place: Vec, kind: 'axial' | 'radial', on?: string): string => {
    points[to] = on === undefined ? at(place) : { at: place, on: [on] }
    const id = `~l${entities.length}`
    entities.push(lineBetween(id, last, to, 'outline'))
    ties.push({ kind, line: id })
    last = to
    return id
  }
  let before = 0
  steps.forEach(({ diameter, length }, i) => {
    const y = diameter.value / 2
    if (y !== before) go(`~u${i}`, { x, y }, 'radial')
    before = y
    x += length.value
    const land = go(`~v${i}`, { x, y }, 'axial')
    sizes.push({ offer: { kind: 'diameter', point: last }, formula: diameter.formula })
    sizes.push({ offer: { kind: 'length', line: land }, formula: length.formula })
  })
  go('~end', { x, y: 0 }, 'radial', AXIS_ID)
  return { points, entities, ties, sizes }
}
