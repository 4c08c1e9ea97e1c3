import type { Triangles } from './solids'

/**
 * Binary STL of one or more meshes: an 80-byte header, a triangle count, and 50 bytes a triangle,
 * little-endian. Coordinates are in mm. Triangles without area are left out.
 */
export function writeStl(meshes: readonly Triangles[], name: string): Uint8Array {
  const triangles = meshes.flatMap(trianglesOf)
  const bytes = new Uint8Array(84 + 50 * triangles.length)
  // Readers take files that begin with “solid” for the text form, so the header does not.
  const header = `binary ${name}`.replace(/[^\x20-\x7e]/g, '?').slice(0, 80)
  for (let i = 0; i < header.length; i++) bytes[i] = header.charCodeAt(i)
  const view = new DataView(bytes.buffer)
  view.setUint32(80, triangles.length, true)
  triangles.forEach((numbers, i) => {
    numbers.forEach((value, k) => {
      // A nought has no sign in a file: readers compare places by their bytes.
      view.setFloat32(84 + 50 * i + 4 * k, value + 0, true)
    })
  })
  return bytes
}

/** Normal and corners of every triangle: twelve numbers each. */
function trianglesOf({ positions, indices }: Triangles): number[][] {
  const triangles: number[][] = []
  const corner = (i: number): [number, number, number] => {
    const v = 3 * (indices[i] ?? 0)
    return [positions[v] ?? 0, positions[v + 1] ?? 0, positions[v + 2] ?? 0]
  }
  for (let i = 0; i < indices.length; i += 3) {
    const [a, b, c] = [corner(i), corner(i + 1), corner(i + 2)]
    const u = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const
    const v = [c[0] - a[0], c[1] - a[1], c[2] - a[2]] as const
    const n = [
      u[1] * v[2] - u[2] * v[1],
      u[2] * v[0] - u[0] * v[2],
      u[0] * v[1] - u[1] * v[0],
    ] as const
    const size = Math.hypot(...n)
    if (size > 0) triangles.push([...n.map((x) => x / size), ...a, ...b, ...c])
  }
  return triangles
}
