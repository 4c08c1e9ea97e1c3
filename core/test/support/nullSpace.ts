import {
  entityMap,
  lineEnds,
  locator,
  measureSize,
  roundOf,
  signedAngle,
  type Sketch,
  type Vec,
} from '../../src'

/**
 * The number of freedoms of a sketch, found without the solver: residuals are written down from the
 * constraints' meaning, differentiated by central differences where the points stand, and the rank
 * is taken from the singular values (one-sided Jacobi) of the full dense matrix.
 */
export function freedomsByDifferences(sketch: Sketch): number {
  const count = 2 * sketch.points.length
  const base = sketch.points.flatMap((p) => [p.x, p.y])
  const step = 1e-6
  const columns = base.map((_, k) => {
    const shifted = (by: number): number[] =>
      residuals(
        sketch,
        base.map((v, i) => (i === k ? v + by : v)),
      )
    const up = shifted(step)
    const down = shifted(-step)
    return up.map((r, i) => (r - (down[i] ?? 0)) / (2 * step))
  })
  const sizes = singularValues(columns)
  const largest = Math.max(...sizes, 1)
  return count - sizes.filter((s) => s > 1e-7 * largest).length
}

function residuals(sketch: Sketch, coordinates: readonly number[]): number[] {
  const moved: Sketch = {
    ...sketch,
    points: sketch.points.map((p, i) => ({
      ...p,
      x: coordinates[2 * i] ?? 0,
      y: coordinates[2 * i + 1] ?? 0,
    })),
  }
  const lines = entityMap(moved)
  const at = locator(moved)
  const ends = (id: string): [Vec, Vec] => {
    const [a, b] = lineEnds(lines, at, id)
    return [a, b]
  }
  const far = (p: Vec, q: Vec): number => Math.hypot(q.x - p.x, q.y - p.y)
  const round = (id: string): { m: Vec; r: number } | undefined => {
    const found = roundOf(lines.get(id))
    return found && { m: at(found.centre), r: far(at(found.centre), at(found.rim)) }
  }
  const out: number[] = []
  const copied = new Set(
    moved.constraints.flatMap((c) => (c.kind === 'repeat' ? c.copies.flat() : [])),
  )
  for (const e of moved.entities) {
    if (e.kind === 'arc' && !copied.has(e.centre)) {
      out.push(far(at(e.centre), at(e.from)) - far(at(e.centre), at(e.to)))
    }
    if (e.kind === 'circle') out.push(at(e.rim).y - at(e.centre).y)
  }
  for (const c of moved.constraints) {
    if (c.kind === 'coincident') out.push(at(c.a).x - at(c.b).x, at(c.a).y - at(c.b).y)
    if (c.kind === 'fixed') out.push(at(c.point).x, at(c.point).y)
    if (c.kind === 'axial') out.push(ends(c.line)[1].y - ends(c.line)[0].y)
    if (c.kind === 'radial') out.push(ends(c.line)[1].x - ends(c.line)[0].x)
    if (c.kind === 'concentric') {
      const [a, b] = [round(c.curve), round(c.to)]
      if (a && b) out.push(a.m.x - b.m.x, a.m.y - b.m.y)
    }
    if (c.kind === 'tangent')
      out.push(tangency(round(c.curve), round(c.to), ends(c.curve), ends(c.to)))
    if (c.kind === 'repeat') {
      const rows = [c.points, ...c.copies].map((row) => row.map(at))
      const [p, q] = [rows[0]?.[0], rows[1]?.[0]]
      if (!p || !q) continue
      out.push(c.along === 'axial' ? q.y - p.y : q.x - p.x)
      rows.slice(1).forEach((row, k) =>
        row.forEach((s, j) => {
          const b = rows[k]?.[j] ?? s
          out.push(s.x - b.x - q.x + p.x, s.y - b.y - q.y + p.y)
        }),
      )
    }
    if (c.kind === 'pointOn' && round(c.curve)) {
      const { m, r } = round(c.curve) ?? { m: at(c.point), r: 0 }
      out.push(far(m, at(c.point)) - r)
    } else if (c.kind === 'pointOn') {
      const [a, b] = ends(c.curve)
      const p = at(c.point)
      out.push((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x))
    }
    if (c.kind === 'inLine') {
      out.push(c.along === 'axial' ? at(c.a).y - at(c.b).y : at(c.a).x - at(c.b).x)
    }
    const [one, two] = c.kind === 'equal' ? [round(c.curve), round(c.to)] : []
    if (one && two) out.push(one.r - two.r)
    else if (c.kind === 'parallel' || c.kind === 'perpendicular' || c.kind === 'equal') {
      const [[a, b], [p, q]] = [ends('curve' in c ? c.curve : c.line), ends(c.to)]
      const [u, v] = [
        { x: b.x - a.x, y: b.y - a.y },
        { x: q.x - p.x, y: q.y - p.y },
      ]
      if (c.kind === 'parallel') out.push(u.x * v.y - u.y * v.x)
      else if (c.kind === 'perpendicular') out.push(u.x * v.x + u.y * v.y)
      else out.push(Math.hypot(u.x, u.y) - Math.hypot(v.x, v.y))
    }
    if (c.kind === 'midpoint') {
      const [a, b] = ends(c.line)
      out.push(2 * at(c.point).x - a.x - b.x, 2 * at(c.point).y - a.y - b.y)
    }
    if (c.kind === 'symmetric' && moved.points.some((p) => p.id === c.about)) {
      const [a, b, m] = [at(c.a), at(c.b), at(c.about)]
      out.push(a.x + b.x - 2 * m.x, a.y + b.y - 2 * m.y)
    } else if (c.kind === 'symmetric') {
      const [p, q] = ends(c.about)
      const d = { x: q.x - p.x, y: q.y - p.y }
      const [a, b] = [at(c.a), at(c.b)]
      out.push(d.x * (b.x - a.x) + d.y * (b.y - a.y))
      out.push(d.x * ((a.y + b.y) / 2 - p.y) - d.y * ((a.x + b.x) / 2 - p.x))
    }
  }
  for (const s of moved.sizes) {
    if (s.reference) continue
    out.push(s.kind === 'angle' ? signedAngle(s, lines, at) : measureSize(s, lines, at))
  }
  return out
}

interface Round {
  readonly m: Vec
  readonly r: number
}

/** Distance of centres or of a centre from a line, less what it is where curves touch. */
function tangency(
  one: Round | undefined,
  two: Round | undefined,
  first: readonly [Vec, Vec],
  second: readonly [Vec, Vec],
): number {
  if (one && two) {
    const gap = Math.hypot(two.m.x - one.m.x, two.m.y - one.m.y)
    const outside = gap > Math.max(one.r, two.r)
    return outside ? gap - one.r - two.r : gap - Math.abs(one.r - two.r)
  }
  const { m, r } = one ?? two ?? { m: first[0], r: 0 }
  const [a, b] = one ? second : first
  const off = (b.x - a.x) * (m.y - a.y) - (b.y - a.y) * (m.x - a.x)
  return Math.abs(off) / Math.hypot(b.x - a.x, b.y - a.y) - r
}

function singularValues(columns: number[][]): number[] {
  const a = columns.map((c) => [...c])
  for (let sweep = 0; sweep < 60; sweep++) {
    let turned = 0
    for (let p = 0; p < a.length; p++) {
      for (let q = p + 1; q < a.length; q++) {
        const [u, v] = [a[p] ?? [], a[q] ?? []]
        let [uu, vv, uv] = [0, 0, 0]
        u.forEach((x, i) => {
          const y = v[i] ?? 0
          uu += x * x
          vv += y * y
          uv += x * y
        })
        if (Math.abs(uv) <= 1e-15 * Math.sqrt(uu * vv) || uv === 0) continue
        turned++
        const z = (vv - uu) / (2 * uv)
        const t = Math.sign(z || 1) / (Math.abs(z) + Math.sqrt(1 + z * z))
        const c = 1 / Math.sqrt(1 + t * t)
        const s = c * t
        u.forEach((x, i) => {
          const y = v[i] ?? 0
          u[i] = c * x - s * y
          v[i] = s * x + c * y
        })
      }
    }
    if (turned === 0) break
  }
  return a.map((column) => Math.hypot(...column))
}
