import { Inflate, deflateSync, strFromU8, strToU8 } from 'fflate'
import { secondOf, type Frame } from '../geometry'

/** The longest packed file a part may hold. */
export const LARGEST_PACKED = 4_000_000

/** The most that comes out of one, in bytes, and how much of it is unpacked at a time. */
const LARGEST_UNPACKED = 80_000_000
const SLICE = 16_384

/** More triangles than this are too many to go by, in a file that comes in and in a part. */
export const MOST_TRIANGLES = 200_000

/** Triangles without more: places in mm, x, y, z each, and three of them for each triangle. */
export interface BareMesh {
  readonly positions: Float32Array
  readonly indices: Uint32Array
}

/** A mesh that came in a file, and how it stands in the part. */
export interface PlacedMesh {
  readonly packed: string
  readonly frame: Frame
  /** What its own lengths are multiplied by. */
  readonly scale: number
}

/** A text, deflated (RFC 1951) and in base64 (RFC 4648): exchange files shrink to a sixth. */
export const packText = (text: string): string => packBytes(strToU8(text))

/** The text again. @throws when it is no packed text */
export const unpackText = (packed: string): string => strFromU8(unpackBytes(packed))

/** A mesh packed as a text is: two counts, the places and the indices, little-endian, 32 bits each. */
export function packMesh({ positions, indices }: BareMesh): string {
  const view = new DataView(new ArrayBuffer(8 + 4 * (positions.length + indices.length)))
  view.setUint32(0, positions.length, true)
  view.setUint32(4, indices.length, true)
  positions.forEach((p, i) => {
    view.setFloat32(8 + 4 * i, p, true)
  })
  const from = 8 + 4 * positions.length
  indices.forEach((n, i) => {
    view.setUint32(from + 4 * i, n, true)
  })
  return packBytes(new Uint8Array(view.buffer))
}

/** The mesh again. @throws when it is no packed mesh, has too many triangles, or they name places it has not */
export function unpackMesh(packed: string): BareMesh {
  const bytes = unpackBytes(packed)
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const [places, corners] = [view.getUint32(0, true), view.getUint32(4, true)]
  if (places % 3 !== 0 || corners % 3 !== 0 || bytes.length !== 8 + 4 * (places + corners)) {
    throw new RangeError('this is no packed mesh')
  }
  if (corners > 3 * MOST_TRIANGLES || places > 9 * MOST_TRIANGLES) {
    throw new RangeError('this mesh has too many triangles')
  }
  const positions = Float32Array.from({ length: places }, (_, i) =>
    view.getFloat32(8 + 4 * i, true),
  )
  const from = 8 + 4 * places
  const indices = Uint32Array.from({ length: corners }, (_, i) =>
    view.getUint32(from + 4 * i, true),
  )
  if (!positions.every(Number.isFinite) || indices.some((i) => 3 * i >= places)) {
    throw new RangeError('this mesh is broken')
  }
  return { positions, indices }
}

/** A placed mesh in the part's own places. @throws as unpackMesh does */
export function meshInPart({ packed, frame, scale }: PlacedMesh): BareMesh {
  const { positions, indices } = unpackMesh(packed)
  const out = new Float32Array(positions.length)
  const { at, x, z } = frame
  const y = secondOf(frame)
  for (let i = 0; i < positions.length; i += 3) {
    const [a = 0, b = 0, c = 0] = positions.subarray(i, i + 3)
    out[i] = at.x + scale * (a * x.x + b * y.x + c * z.x)
    out[i + 1] = at.y + scale * (a * x.y + b * y.y + c * z.y)
    out[i + 2] = at.z + scale * (a * x.z + b * y.z + c * z.z)
  }
  return { positions: out, indices }
}

function packBytes(plain: Uint8Array): string {
  const bytes = deflateSync(plain, { level: 9 })
  let letters = ''
  for (let i = 0; i < bytes.length; i += 8192) {
    letters += String.fromCharCode(...bytes.subarray(i, i + 8192))
  }
  return btoa(letters)
}

/** @throws RangeError when more comes out than any part has: a few bytes can hold very many */
function unpackBytes(packed: string): Uint8Array {
  const bytes = Uint8Array.from(atob(packed), (c) => c.charCodeAt(0))
  const pieces: Uint8Array[] = []
  let size = 0
  let ended = false
  const stream = new Inflate((piece, last) => {
    size += piece.length
    if (size > LARGEST_UNPACKED) throw new RangeError('this holds more than a part can')
    pieces.push(piece)
    ended = last
  })
  for (let i = 0; i < bytes.length; i += SLICE) {
    stream.push(bytes.subarray(i, i + SLICE), i + SLICE >= bytes.length)
  }
  if (!ended) throw new RangeError('this is not packed')
  const all = new Uint8Array(size)
  let at = 0
  for (const piece of pieces) {
    all.set(piece, at)
    at += piece.length
  }
  return all
}
