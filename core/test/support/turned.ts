import {
  emptySketch,
  locator,
  type Constraint,
  type Entity,
  type Size,
  type Sketch,
  type SketchPoint,
  type Vec,
} from '../../src'

/** One stretch of a turned profile, with the figures in mm and radians that hold it. */
export type Stretch =
  /** a shoulder and a land */
  | { readonly kind: 'step'; readonly diameter: number; readonly length: number }
  /** a shoulder that runs into its land by a tangent arc */
  | {
      readonly kind: 'rounded'
      readonly diameter: number
      readonly length: number
      readonly radius: number
    }
  /** a slanted line, given by its length and its angle to the axis */
  | { readonly kind: 'cone'; readonly length: number; readonly angle: number }
  /** a round groove of a width and a radius, level at both ends */
  | { readonly kind: 'groove'; readonly width: number; readonly radius: number }
  /** an axial line */
  | { readonly kind: 'land'; readonly length: number }

type Value = readonly [offer: object, value: number]

/**
 * A profile in ink, from the origin along the axis, with lines, arcs, tangents and sizes.
 * @param share how far points start off their places, as a share of the shortest piece they end
 */
export function turnedSketch(
  stretches: readonly Stretch[],
  share = 0,
  random: () => number = Math.random,
): {
  readonly sketch: Sketch
  readonly values: Map<string, number>
  /** Where every point belongs. */
  readonly intended: ReadonlyMap<string, Vec>
} {
  const points: SketchPoint[] = []
  const entities: Entity[] = []
  const constraints: Constraint[] = []
  const sizes: Size[] = []
  const values = new Map<string, number>()
  const place = (x: number, y: number): string => {
    const id = `p${points.length}`
    points.push({ id, x, y })
    return id
  }
  const tie = (constraint: object): void => {
    constraints.push({ ...constraint, id: `c${constraints.length}` } as Constraint)
  }
  const size = ([offer, value]: Value): void => {
    const id = `s${sizes.length}`
    sizes.push({ ...offer, id, name: id, formula: '', reference: false } as Size)
    values.set(id, value)
  }
  const line = (from: string, to: string, kind?: 'axial' | 'radial'): string => {
    const id = `e${entities.length}`
    entities.push({ id, kind: 'line', from, to, role: 'outline' })
    if (kind) tie({ kind, line: id })
    return id
  }
  const arc = (from: string, to: string, centre: string, counterClockwise: boolean): string => {
    const id = `e${entities.length}`
    entities.push({ id, kind: 'arc', from, to, centre, counterClockwise, role: 'outline' })
    return id
  }

  let [x, y] = [0, 20]
  let last = place(x, y)
  tie({ kind: 'inLine', a: last, b: 'origin', along: 'radial' })
  size([{ kind: 'diameter', point: last }, 2 * y])
  for (const stretch of stretches) {
    const { kind } = stretch
    if (kind === 'step' || kind === 'rounded') {
      const up = Math.sign(stretch.diameter / 2 - y) || 1
      const radius = kind === 'rounded' ? stretch.radius : 0
      const corner = place(x, stretch.diameter / 2 - up * radius)
      const shoulder = line(last, corner, 'radial')
      y = stretch.diameter / 2
      let start = corner
      if (kind === 'rounded') {
        start = place(x + radius, y)
        const centre = place(x + radius, y - up * radius)
        const round = arc(corner, start, centre, up < 0)
        tie({ kind: 'tangent', curve: round, to: shoulder })
        size([{ kind: 'radius', curve: round }, radius])
      }
      const round = entities.at(-1)?.id
      const end = place(x + radius + stretch.length, y)
      const land = line(start, end, 'axial')
      if (kind === 'rounded' && round) tie({ kind: 'tangent', curve: round, to: land })
      size([{ kind: 'diameter', point: end }, stretch.diameter])
      size([{ kind: 'length', line: land }, stretch.length])
      x += radius + stretch.length
      last = end
    } else if (kind === 'cone') {
      x += stretch.length * Math.cos(stretch.angle)
      y += stretch.length * Math.sin(stretch.angle)
      const end = place(x, y)
      const slanted = line(last, end)
      size([{ kind: 'length', line: slanted }, stretch.length])
      size([{ kind: 'angle', line: slanted, to: 'axis', reversed: false }, Math.abs(stretch.angle)])
      last = end
    } else if (kind === 'groove') {
      const { width, radius } = stretch
      const end = place(x + width, y)
      const centre = place(x + width / 2, y + Math.sqrt(radius ** 2 - (width / 2) ** 2))
      const round = arc(last, end, centre, true)
      tie({ kind: 'inLine', a: last, b: end, along: 'axial' })
      size([{ kind: 'axialDistance', a: last, b: end }, width])
      size([{ kind: 'radius', curve: round }, radius])
      x += width
      last = end
    } else {
      x += stretch.length
      const end = place(x, y)
      size([{ kind: 'length', line: line(last, end, 'axial') }, stretch.length])
      last = end
    }
  }
  const own = { ...emptySketch('s', 'A'), nextId: 100000 }
  const whole = { ...own, points, entities, constraints, sizes }
  const intended = new Map(points.map(({ id, ...at }) => [id, at]))
  return { sketch: displaced(whole, share, random), values, intended }
}

/** Points off their places by up to a share of the shortest piece that has them. */
function displaced(sketch: Sketch, share: number, random: () => number): Sketch {
  if (share === 0) return sketch
  const locate = locator(sketch)
  const reach = new Map<string, number>()
  for (const e of sketch.entities) {
    if (e.kind === 'circle') continue
    const [a, b] = [locate(e.from), locate(e.to)]
    const chord = Math.hypot(b.x - a.x, b.y - a.y)
    for (const id of e.kind === 'arc' ? [e.from, e.to, e.centre] : [e.from, e.to]) {
      reach.set(id, Math.min(reach.get(id) ?? chord, chord))
    }
  }
  return {
    ...sketch,
    points: sketch.points.map((p) => {
      const far = share * (reach.get(p.id) ?? 0) * random()
      const way = 2 * Math.PI * random()
      return { ...p, x: p.x + far * Math.cos(way), y: p.y + far * Math.sin(way) }
    }),
  }
}

/** A profile of about so many entities, with every kind of stretch in turn. */
export function mixedStretches(entities: number): Stretch[] {
  const stretches: Stretch[] = []
  for (let i = 0, made = 0; made < entities; i++) {
    const high = i % 2 === 0
    const unit: Stretch[] = [
      { kind: 'rounded', diameter: (high ? 60 : 44) + 3 * (i % 3), length: 9 + (i % 4), radius: 2 },
      { kind: 'cone', length: 4 + 0.5 * (i % 3), angle: high ? -0.5 : 0.5 },
      { kind: 'groove', width: 4, radius: 3 + 0.25 * (i % 5) },
      { kind: 'land', length: 5 + (i % 3) },
      { kind: 'step', diameter: (high ? 50 : 52) + (i % 2), length: 6 },
    ]
    stretches.push(...unit)
    made += 8
  }
  return stretches
}

/** A random profile whose figures leave each piece room enough to be told from its mirror image. */
export function randomStretches(random: () => number): Stretch[] {
  const between = (low: number, high: number): number => low + (high - low) * random()
  let radius = 20
  return Array.from({ length: 1 + Math.floor(10 * random()) }, (): Stretch => {
    const kind = Math.floor(5 * random())
    if (kind === 0 || kind === 1) {
      const away = radius > 30 ? -1 : radius < 15 ? 1 : random() < 0.5 ? -1 : 1
      radius += away * between(5, 9)
      const sized = { diameter: 2 * radius, length: between(4, 20) }
      return kind === 0
        ? { kind: 'step', ...sized }
        : { kind: 'rounded', ...sized, radius: between(1, 3) }
    }
    if (kind === 2) {
      const away = radius > 25 ? -1 : 1
      const [length, angle] = [between(3, 9), away * between(0.42, 1.15)]
      radius += length * Math.sin(angle)
      return { kind: 'cone', length, angle }
    }
    if (kind === 3) {
      const width = between(2, 8)
      return { kind: 'groove', width, radius: width * between(0.55, 1.2) }
    }
    return { kind: 'land', length: between(2, 15) }
  })
}
