import { entityMap, locator, measureSize, signedAngle, type Sketch, type Vec } from '../../src'

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
    const line = lines.get(id)
    return line
      ? [at(line.from), at(line.to)]
      : [
          { x: 0, y: 0 },
          { x: 1, y: 0 },
        ]
  }
  const out: number[] = []
  for (const c of moved.constraints) {
    if (c.kind === 'coincident') out.push(at(c.a).x - at(c.b).x, at(c.a).y - at(c.b).y)
    if (c.kind === 'fixed') out.push(at(c.point).x, at(c.point).y)
    if (c.kind === 'axial') out.push(ends(c.line)[1].y - ends(c.line)[0].y)
    if (c.kind === 'radial') out.push(ends(c.line)[1].x - ends(c.line)[0].x)
    if (c.kind === 'pointOnLine') {
      const [a, b] = ends(c.line)
      const p = at(c.point)
      out.push((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x))
    }
    if (c.kind === 'inLine') {
      out.push(c.along === 'axial' ? at(c.a).y - at(c.b).y : at(c.a).x - at(c.b).x)
    }
    if (c.kind === 'parallel' || c.kind === 'perpendicular' || c.kind === 'equal') {
      const [[a, b], [p, q]] = [ends(c.line), ends(c.to)]
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
    if (c.kind === 'symmetric') {
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
