import {
  emptySketch,
  type Constraint,
  type Entity,
  type Size,
  type Sketch,
  type SketchPoint,
} from '../../src'

export interface Step {
  readonly diameter: number
  readonly length: number
}

/**
 * A stepped shaft from the axis round to the axis: radial and axial lines, a diameter for every
 * land and a length for every step, the datum at the left end. Points start off their places.
 * @param wobble largest misplacement of each coordinate in mm
 */
export function steppedSketch(
  steps: readonly Step[],
  wobble = 0,
  random: () => number = Math.random,
): { sketch: Sketch; values: Map<string, number> } {
  const points: SketchPoint[] = []
  const entities: Entity[] = []
  const constraints: Constraint[] = []
  const sizes: Size[] = []
  const values = new Map<string, number>()
  const off = (): number => (random() - 0.5) * 2 * wobble
  const place = (x: number, y: number): string => {
    const id = `p${points.length}`
    points.push({ id, x: x + off(), y: Math.abs(y + off()) })
    return id
  }
  const draw = (from: string, to: string, kind: 'axial' | 'radial'): string => {
    const id = `e${entities.length}`
    entities.push({ id, kind: 'line', from, to, role: 'outline' })
    constraints.push({ id: `c${constraints.length}`, kind, line: id })
    return id
  }
  let x = 0
  let last = place(0, 0)
  constraints.push({ id: 'start', kind: 'coincident', a: last, b: 'origin' })
  steps.forEach(({ diameter, length }, i) => {
    const up = place(x, diameter / 2)
    x += length
    const along = place(x, diameter / 2)
    draw(last, up, 'radial')
    const land = draw(up, along, 'axial')
    const sized = { reference: false, formula: '' }
    sizes.push({ ...sized, id: `d${i}`, kind: 'diameter', point: up, name: `dia${i}` })
    sizes.push({ ...sized, id: `l${i}`, kind: 'length', line: land, name: `len${i}` })
    values.set(`d${i}`, diameter)
    values.set(`l${i}`, length)
    last = along
  })
  const end = place(x, 0)
  draw(last, end, 'radial')
  constraints.push({ id: 'end', kind: 'pointOn', point: end, curve: 'axis' })
  const own = { ...emptySketch('s', 'A'), nextId: 1000 }
  const sketch = { ...own, points, entities, constraints, sizes }
  return { sketch, values }
}

/**
 * An open chain of slanted lines from the origin, each with its length and its angle to the axis:
 * nothing in it is a mere tie.
 */
export function slantedSketch(
  lines: readonly { readonly length: number; readonly angle: number }[],
  wobble = 0,
  random: () => number = Math.random,
): { sketch: Sketch; values: Map<string, number> } {
  const points: SketchPoint[] = [{ id: 'p0', x: 0, y: 0 }]
  const entities: Entity[] = []
  const sizes: Size[] = []
  const values = new Map<string, number>()
  let [x, y] = [0, 0]
  lines.forEach(({ length, angle }, i) => {
    x += length * Math.cos(angle)
    y += length * Math.sin(angle)
    const off = (): number => (random() - 0.5) * 2 * wobble
    points.push({ id: `p${i + 1}`, x: x + off(), y: y + off() })
    entities.push({ id: `e${i}`, kind: 'line', from: `p${i}`, to: `p${i + 1}`, role: 'outline' })
    const sized = { reference: false, formula: '', line: `e${i}` }
    sizes.push({ ...sized, id: `l${i}`, kind: 'length', name: `len${i}` })
    sizes.push({
      ...sized,
      id: `a${i}`,
      kind: 'angle',
      to: 'axis',
      reversed: false,
      name: `ang${i}`,
    })
    values.set(`l${i}`, length)
    values.set(`a${i}`, Math.abs(angle))
  })
  const constraints: Constraint[] = [{ id: 'start', kind: 'coincident', a: 'p0', b: 'origin' }]
  const own = { ...emptySketch('s', 'A'), nextId: 1000 }
  const sketch = { ...own, points, entities, constraints, sizes }
  return { sketch, values }
}
