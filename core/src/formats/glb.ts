import { lightOf } from './colours'
import { strToU8 } from 'fflate'
import type { Look } from '../part'
import type { MeshedBody } from './solids'

/** How surfaces take the light, as glTF tells it. */
const SURFACES: Readonly<Record<Look, { readonly metallic: number; readonly rough: number }>> = {
  metal: { metallic: 1, rough: 0.35 },
  plastic: { metallic: 0, rough: 0.4 },
  glass: { metallic: 0, rough: 0.05 },
  ceramic: { metallic: 0, rough: 0.25 },
  wood: { metallic: 0, rough: 0.75 },
  fabric: { metallic: 0, rough: 0.95 },
}

/** A quarter turn about Y that lays the axis across, and one about X that stands it up. */
const QUARTER = Math.SQRT1_2
const TURNS = {
  lying: [0, QUARTER, 0, QUARTER],
  standing: [-QUARTER, 0, 0, QUARTER],
} as const

/**
 * Bodies as one binary glTF (glTF 2.0): in metres with Y upwards, as that wants it, a node and a
 * material for each body.
 */
export function writeGlb(
  bodies: readonly MeshedBody[],
  title: string,
  lie: 'lying' | 'standing',
): Uint8Array {
  const chunks: Uint8Array[] = []
  const bufferViews: object[] = []
  const accessors: object[] = []
  let length = 0
  const store = (data: Float32Array | Uint32Array, more: object): number => {
    const bytes = new Uint8Array(data.buffer, data.byteOffset, data.byteLength)
    const target = data instanceof Uint32Array ? FOR_INDICES : FOR_VERTICES
    bufferViews.push({ buffer: 0, byteOffset: length, byteLength: bytes.length, target })
    chunks.push(bytes)
    length += bytes.length
    accessors.push({ bufferView: bufferViews.length - 1, ...more })
    return accessors.length - 1
  }
  const meshes = bodies.map(({ name, mesh }, material) => {
    const { positions, normals, indices } = mesh
    const count = positions.length / 3
    const vectors = { componentType: 5126, count, type: 'VEC3' }
    return {
      name,
      primitives: [
        {
          attributes: {
            POSITION: store(positions, { ...vectors, ...boundsOf(positions) }),
            NORMAL: store(normals, vectors),
          },
          indices: store(indices, { componentType: 5125, count: indices.length, type: 'SCALAR' }),
          material,
        },
      ],
    }
  })
  const root = { name: title, rotation: TURNS[lie], scale: [1e-3, 1e-3, 1e-3] }
  const json = {
    asset: { version: '2.0', generator: 'Lathica' },
    scene: 0,
    scenes: [{ nodes: [0] }],
    nodes: [
      { ...root, children: bodies.map((_, i) => i + 1) },
      ...bodies.map(({ name }, mesh) => ({ name, mesh })),
    ],
    meshes,
    materials: bodies.map(materialOf),
    accessors,
    bufferViews,
    buffers: [{ byteLength: length }],
  }
  return assembled(strToU8(JSON.stringify(json)), chunks, length)
}

/** What a stretch of the data is for (glTF 2.0, 5.11.5). */
const [FOR_VERTICES, FOR_INDICES] = [34962, 34963]

function boundsOf(positions: Float32Array): { readonly min: number[]; readonly max: number[] } {
  const [min, max] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ]
  positions.forEach((value, i) => {
    min[i % 3] = Math.min(min[i % 3] ?? value, value)
    max[i % 3] = Math.max(max[i % 3] ?? value, value)
  })
  return { min, max }
}

function materialOf({ name, colour, look }: MeshedBody): object {
  const { metallic, rough } = SURFACES[look]
  const tone = lightOf(colour)
  const glass = look === 'glass'
  return {
    name,
    doubleSided: glass,
    ...(glass ? { alphaMode: 'BLEND' } : {}),
    pbrMetallicRoughness: {
      baseColorFactor: [...tone, glass ? 0.4 : 1],
      metallicFactor: metallic,
      roughnessFactor: rough,
    },
  }
}

/** The file: a head of twelve bytes, the text padded with spaces, the data padded with noughts. */
function assembled(json: Uint8Array, chunks: readonly Uint8Array[], length: number): Uint8Array {
  const padded = (n: number): number => Math.ceil(n / 4) * 4
  const total = 12 + 8 + padded(json.length) + 8 + padded(length)
  const file = new Uint8Array(total)
  const view = new DataView(file.buffer)
  const head = [0x46546c67, 2, total, padded(json.length), 0x4e4f534a]
  head.forEach((word, i) => view.setUint32(4 * i, word, true))
  file.fill(0x20, 20, 20 + padded(json.length))
  file.set(json, 20)
  let at = 20 + padded(json.length)
  view.setUint32(at, padded(length), true)
  view.setUint32(at + 4, 0x004e4942, true)
  at += 8
  for (const chunk of chunks) {
    file.set(chunk, at)
    at += chunk.length
  }
  return file
}
