import type { Constraint, Entity, Size } from '@lathica/core/sketch'
import type { Random } from '../random'
import type { Place } from './places'

type Bare<T> = T extends unknown ? Omit<T, 'id'> : never
type BareSize<T> = T extends unknown ? Omit<T, 'id' | 'name' | 'formula' | 'reference'> : never

/** Draws at random, each thing in a way that makes some constraint hold. */
export class Drawing {
  readonly places = new Map<string, Place>()
  readonly entities: Entity[] = []
  readonly wishes: Bare<Constraint>[] = []

  constructor(private readonly random: Random) {}

  point(x: number, y: number): string {
    const id = `p${this.places.size}`
    this.places.set(id, { x, y })
    return id
  }
  at(id: string): Place {
    return this.places.get(id) ?? { x: 0, y: 0 }
  }
  freePoint(): string {
    return this.point(this.random.between(0, 60), this.random.between(2, 40))
  }
  somePoint(): string {
    return this.places.size > 0 && this.random.chance(0.6)
      ? this.random.pick([...this.places.keys()])
      : this.freePoint()
  }
  lines(): (Entity & { kind: 'line' })[] {
    return this.entities.filter((e) => e.kind === 'line')
  }
  rounds(): (Entity & { kind: 'arc' | 'circle' })[] {
    return this.entities.filter((e) => e.kind === 'arc' || e.kind === 'circle')
  }
  line(from: string, to: string): string {
    const id = `e${this.entities.length}`
    const role = this.random.chance(0.85) ? 'outline' : 'construction'
    this.entities.push({ id, kind: 'line', from, to, role })
    return id
  }
  arc(from: string, to: string, centre: string): string {
    const id = `e${this.entities.length}`
    const counterClockwise = this.random.chance(0.5)
    this.entities.push({ id, kind: 'arc', from, to, centre, counterClockwise, role: 'outline' })
    return id
  }
  circle(centre: string, radius: number): string {
    const id = `e${this.entities.length}`
    const c = this.at(centre)
    this.entities.push({
      id,
      kind: 'circle',
      centre,
      rim: this.point(c.x + radius, c.y),
      role: 'outline',
    })
    return id
  }
  polar(from: Place, angle: number, length: number): string {
    return this.point(from.x + length * Math.cos(angle), from.y + length * Math.sin(angle))
  }
  radiusOf(e: Entity & { kind: 'arc' | 'circle' }): number {
    const [c, r] = [this.at(e.centre), this.at(e.kind === 'arc' ? e.from : e.rim)]
    return Math.hypot(r.x - c.x, r.y - c.y)
  }
  directionOf(e: Entity & { kind: 'line' }): number {
    const [a, b] = [this.at(e.from), this.at(e.to)]
    return Math.atan2(b.y - a.y, b.x - a.x)
  }
  lengthOf(e: Entity & { kind: 'line' }): number {
    const [a, b] = [this.at(e.from), this.at(e.to)]
    return Math.hypot(b.x - a.x, b.y - a.y)
  }
  angle(): number {
    return this.random.between(-Math.PI, Math.PI)
  }
  length(): number {
    return this.random.between(3, 25)
  }

  /** One more thing. */
  step(): void {
    const { random } = this
    const lines = this.lines()
    const rounds = this.rounds()
    const kind = random.below(20)
    const from = this.somePoint()
    const start = this.at(from)
    if (kind <= 2 || lines.length === 0) {
      const way = random.below(4)
      const angle = way === 0 ? 0 : way === 1 ? Math.PI / 2 : this.angle()
      const line = this.line(from, this.polar(start, angle, this.length()))
      if (way === 0) this.wishes.push({ kind: 'axial', line })
      if (way === 1) this.wishes.push({ kind: 'radial', line })
      return
    }
    const other = random.pick(lines)
    const direction = this.directionOf(other)
    switch (kind) {
      case 3: {
        const line = this.line(
          from,
          this.polar(start, direction + (random.chance(0.5) ? 0 : Math.PI), this.length()),
        )
        this.wishes.push({ kind: 'parallel', line: other.id, to: line })
        return
      }
      case 4: {
        const line = this.line(from, this.polar(start, direction + Math.PI / 2, this.length()))
        this.wishes.push({ kind: 'perpendicular', line, to: other.id })
        return
      }
      case 5: {
        const line = this.line(from, this.polar(start, this.angle(), this.lengthOf(other)))
        this.wishes.push({ kind: 'equal', curve: line, to: other.id })
        return
      }
      case 6: {
        const centre = this.freePoint()
        const [c, r, a] = [this.at(centre), this.length(), this.angle()]
        this.arc(this.polar(c, a, r), this.polar(c, a + random.between(0.5, 5), r), centre)
        return
      }
      case 7: {
        // An arc that goes on smoothly from the end of a line.
        const end = random.chance(0.5) ? other.to : other.from
        const r = this.length()
        const side = random.chance(0.5) ? 1 : -1
        const centre = this.polar(this.at(end), direction + (side * Math.PI) / 2, r)
        const to = this.polar(this.at(centre), this.angle(), r)
        const arc = random.chance(0.5) ? this.arc(end, to, centre) : this.arc(to, end, centre)
        this.wishes.push({ kind: 'tangent', curve: other.id, to: arc })
        return
      }
      case 8:
        this.circle(from, this.length())
        return
      case 9: {
        // A circle that touches a line somewhere.
        const r = this.length()
        const side = random.chance(0.5) ? 1 : -1
        const foot = this.at(this.polar(this.at(other.from), direction, random.between(-5, 20)))
        const centre = this.polar(foot, direction + (side * Math.PI) / 2, r)
        this.wishes.push({ kind: 'tangent', curve: other.id, to: this.circle(centre, r) })
        return
      }
      case 10: {
        if (rounds.length === 0) return
        const round = random.pick(rounds)
        const [c, r, s] = [this.at(round.centre), this.radiusOf(round), this.length()]
        const outside = random.chance(0.6)
        const centre = this.polar(c, this.angle(), outside ? r + s : Math.abs(r - s))
        this.wishes.push({ kind: 'tangent', curve: round.id, to: this.circle(centre, s) })
        return
      }
      case 11: {
        if (rounds.length === 0) return
        const round = random.pick(rounds)
        const circle = this.circle(from, this.radiusOf(round))
        this.wishes.push({ kind: 'equal', curve: round.id, to: circle })
        return
      }
      case 12: {
        if (rounds.length === 0) return
        const round = random.pick(rounds)
        const c = this.at(round.centre)
        const circle = this.circle(this.point(c.x, c.y), this.length())
        this.wishes.push({ kind: 'concentric', curve: round.id, to: circle })
        return
      }
      case 13: {
        const point = this.polar(this.at(other.from), direction, random.between(-5, 25))
        this.wishes.push({ kind: 'pointOn', point, curve: other.id })
        return
      }
      case 14: {
        if (rounds.length === 0) return
        const round = random.pick(rounds)
        const point = this.polar(this.at(round.centre), this.angle(), this.radiusOf(round))
        this.wishes.push({ kind: 'pointOn', point, curve: round.id })
        return
      }
      case 15: {
        const [a, b] = [this.at(other.from), this.at(other.to)]
        const point = this.point((a.x + b.x) / 2, (a.y + b.y) / 2)
        this.wishes.push({ kind: 'midpoint', point, line: other.id })
        if (random.chance(0.5)) this.line(point, this.somePoint())
        return
      }
      case 16: {
        if (from === other.from || from === other.to) return
        const origin = this.at(other.from)
        const [dx, dy] = [start.x - origin.x, start.y - origin.y]
        const [ux, uy] = [Math.cos(direction), Math.sin(direction)]
        const across = ux * dy - uy * dx
        const image = this.point(start.x + 2 * across * uy, start.y - 2 * across * ux)
        this.wishes.push({ kind: 'symmetric', a: from, b: image, about: other.id })
        if (random.chance(0.5)) this.line(from, image)
        return
      }
      case 17: {
        const about = random.chance(0.3) ? 'axis' : this.somePoint()
        if (about === from) return
        const m = this.at(about)
        const image =
          about === 'axis'
            ? this.point(start.x, -start.y)
            : this.point(2 * m.x - start.x, 2 * m.y - start.y)
        this.wishes.push({ kind: 'symmetric', a: from, b: image, about })
        return
      }
      case 18: {
        const along = random.pick(['axial', 'radial'] as const)
        const length = this.length()
        const to =
          along === 'axial'
            ? this.point(start.x + length, start.y)
            : this.point(start.x, start.y + length)
        this.wishes.push({ kind: 'inLine', a: from, b: to, along })
        if (random.chance(0.3)) {
          const q = this.point(start.x, start.y)
          this.wishes.push({ kind: 'coincident', a: from, b: q })
          this.line(q, this.freePoint())
        }
        return
      }
      default: {
        // A row of what a line's ends are, in one direction.
        const along = random.pick(['axial', 'radial', other.id])
        const angle = along === 'axial' ? 0 : along === 'radial' ? Math.PI / 2 : direction
        const first =
          along === other.id ? [this.freePoint(), this.freePoint()] : [other.from, other.to]
        const pitch = random.between(4, 12)
        const copies = Array.from({ length: 1 + random.below(2) }, (_, k) =>
          first.map((id) => this.polar(this.at(id), angle, (k + 1) * pitch)),
        )
        copies.forEach(([a = '', b = '']) => this.line(a, b))
        this.wishes.push({ kind: 'repeat', points: first, copies, along })
      }
    }
  }

  /** A size of something drawn. */
  size(): BareSize<Size> | undefined {
    const { random } = this
    const points = [...this.places.keys()]
    const [a, b] = [random.pick(points), random.pick(points)]
    const lines = this.lines()
    const rounds = this.rounds()
    const line = lines.length > 0 ? random.pick(lines).id : undefined
    const other = lines.length > 0 ? random.pick(lines).id : undefined
    const round = rounds.length > 0 ? random.pick(rounds) : undefined
    switch (random.below(12)) {
      case 0:
      case 1:
        return line ? { kind: 'length', line } : undefined
      case 2:
        return a === b ? undefined : { kind: 'distance', a, b }
      case 3:
        return a === b ? undefined : { kind: 'axialDistance', a, b }
      case 4:
        return a === b ? undefined : { kind: 'radialDistance', a, b }
      case 5:
      case 6:
        return { kind: 'diameter', point: a }
      case 7:
        return line ? { kind: 'span', point: a, about: line } : undefined
      case 8:
        return line ? { kind: 'gap', item: a, to: line } : undefined
      case 9:
        return round
          ? { kind: random.pick(['radius', 'curveDiameter'] as const), curve: round.id }
          : undefined
      case 10:
        return round?.kind === 'arc' ? { kind: 'arcLength', curve: round.id } : undefined
      default:
        return line && other && line !== other
          ? {
              kind: 'angle',
              line,
              to: random.chance(0.2) ? 'axis' : other,
              reversed: random.chance(0.5),
            }
          : undefined
    }
  }
}
