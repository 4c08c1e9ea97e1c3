/** The unit normal of every triangle, where its first index stands; noughts where it has no area. */
export function triangleNormals(positions: Float32Array, indices: Uint32Array): Float32Array {
  const out = new Float32Array(indices.length)
  for (let i = 0; i < indices.length; i += 3) {
    const [a, b, c] = [3 * (indices[i] ?? 0), 3 * (indices[i + 1] ?? 0), 3 * (indices[i + 2] ?? 0)]
    const [ax, ay, az] = [positions[a] ?? 0, positions[a + 1] ?? 0, positions[a + 2] ?? 0]
    const ux = (positions[b] ?? 0) - ax
    const uy = (positions[b + 1] ?? 0) - ay
    const uz = (positions[b + 2] ?? 0) - az
    const vx = (positions[c] ?? 0) - ax
    const vy = (positions[c + 1] ?? 0) - ay
    const vz = (positions[c + 2] ?? 0) - az
    const [x, y, z] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx]
    const size = Math.sqrt(x * x + y * y + z * z) || 1
    out[i] = x / size
    out[i + 1] = y / size
    out[i + 2] = z / size
  }
  return out
}
