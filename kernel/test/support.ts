import { line, profileOf, vec, welded, type Section, type SolidMesh } from '@lathica/core'

/** A closed outline through corners, its edges called e1, e2 …, those along the axis too. */
export function outline(step: string, ...corners: readonly (readonly [number, number])[]): Section {
  const edges = corners.map(([x, y], i) => {
    const [x1, y1] = corners[(i + 1) % corners.length] ?? [x, y]
    return {
      piece: line(vec(x, y), vec(x1, y1)),
      name: { step, entity: `e${i}`, role: 'drawn' as const },
    }
  })
  return profileOf(edges, step).section
}

/** Whether every edge of the triangles is shared by just two of them, once each way. */
export function watertight(mesh: SolidMesh): boolean {
  const { indices } = welded(mesh)
  const seen = new Map<string, number>()
  for (let i = 0; i < indices.length; i += 3) {
    for (const [a, b] of [
      [0, 1],
      [1, 2],
      [2, 0],
    ] as const) {
      const [from = 0, to = 0] = [indices[i + a], indices[i + b]]
      const [key, way] = from < to ? [`${from} ${to}`, 1] : [`${to} ${from}`, -1]
      const known = seen.get(key) ?? 0
      // A second one the same way round would be a fold.
      if (Math.abs(known + way) > 1) return false
      seen.set(key, known + way)
    }
  }
  return indices.length > 0 && [...seen.values()].every((sum) => sum === 0)
}
