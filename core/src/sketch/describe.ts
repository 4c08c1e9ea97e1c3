import { AXIS_ID, ORIGIN_ID, type Constraint, type Size, type Sketch } from './types'

/** The ids of points and lines a constraint or size stands on, the axis and origin left out. */
export function referencesOf(item: Constraint | Size): string[] {
  return allReferences(item).filter((id) => id !== AXIS_ID && id !== ORIGIN_ID)
}

function allReferences(item: Constraint | Size): string[] {
  switch (item.kind) {
    case 'coincident':
    case 'inLine':
    case 'axialDistance':
      return [item.a, item.b]
    case 'symmetric':
      return [item.a, item.b, item.about]
    case 'axial':
    case 'radial':
    case 'length':
      return [item.line]
    case 'pointOnLine':
    case 'midpoint':
      return [item.point, item.line]
    case 'fixed':
    case 'diameter':
      return [item.point]
    case 'angle':
    case 'parallel':
    case 'perpendicular':
    case 'equal':
      return [item.line, item.to]
  }
}

/** What a point or line is called in a sentence: its kind and its place in the sketch, from 1. */
export function entityName(sketch: Sketch, id: string): string {
  if (id === AXIS_ID) return 'the axis'
  if (id === ORIGIN_ID) return 'the datum point'
  const line = sketch.entities.findIndex((e) => e.id === id)
  if (line >= 0) return `line ${line + 1}`
  const point = sketch.points.findIndex((p) => p.id === id)
  return point >= 0 ? `point ${point + 1}` : 'something deleted'
}

/** A constraint or size in words, as in “line 3 axial” or “⌀ of point 4”. */
export function describeItem(sketch: Sketch, item: Constraint | Size): string {
  const name = (id: string): string => entityName(sketch, id)
  switch (item.kind) {
    case 'coincident':
      return `${name(item.a)} meets ${name(item.b)}`
    case 'axial':
      return `${name(item.line)} axial`
    case 'radial':
      return `${name(item.line)} radial`
    case 'pointOnLine':
      return `${name(item.point)} on ${name(item.line)}`
    case 'fixed':
      return `${name(item.point)} fixed`
    case 'inLine':
      return `${name(item.a)} in line with ${name(item.b)}, ${item.along === 'axial' ? 'axially' : 'radially'}`
    case 'parallel':
    case 'perpendicular':
      return `${name(item.line)} ${item.kind} to ${name(item.to)}`
    case 'equal':
      return `${name(item.line)} as long as ${name(item.to)}`
    case 'midpoint':
      return `${name(item.point)} in the middle of ${name(item.line)}`
    case 'symmetric':
      return `${name(item.a)} and ${name(item.b)} symmetric about ${name(item.about)}`
    case 'length':
      return `length of ${name(item.line)}, ${item.name} = ${item.formula}`
    case 'axialDistance':
      return `axial distance of ${name(item.a)} and ${name(item.b)}, ${item.name} = ${item.formula}`
    case 'diameter':
      return `diameter at ${name(item.point)}, ${item.name} = ⌀${item.formula}`
    case 'angle':
      return `angle of ${name(item.line)} to ${name(item.to)}, ${item.name} = ${item.formula}`
  }
}

/** The constraint or size of an id. */
export function findItem(sketch: Sketch, id: string): Constraint | Size | undefined {
  return sketch.constraints.find((c) => c.id === id) ?? sketch.sizes.find((s) => s.id === id)
}
