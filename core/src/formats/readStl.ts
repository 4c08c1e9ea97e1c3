import { strFromU8 } from 'fflate'
import { fail, succeed, type Result } from '../result'
import { MOST_TRIANGLES } from '../solid'
import type { ForeignMesh } from './foreignMesh'
import { welded } from '../mesh'
import { tooManyTriangles } from './tooMany'

/** Header and count of the binary form, and bytes of one of its triangles. */
const [HEAD, EACH] = [84, 50]

/** So much of a file tells whether it is text, in bytes. */
const LOOKED_AT = 2048

/**
 * The one mesh of an STL file. It is text when its first words are those of the text form and no byte of them is nought;
 * else its own count tells how long the binary form is, and what stands after that is passed over.
 */
export function readStl(bytes: Uint8Array, name: string): Result<readonly ForeignMesh[]> {
  const head = bytes.subarray(0, LOOKED_AT)
  const words = strFromU8(head)
  if (!head.includes(0) && /^\s*solid\b[\s\S]*?\b(facet|endsolid)\b/i.test(words)) {
    return textMesh(strFromU8(bytes), name)
  }
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const count = bytes.length >= HEAD ? view.getUint32(80, true) : 0
  const needed = HEAD + EACH * count
  const isText = /^\s*solid\b/i.test(words)
  if (
    bytes.length < HEAD ||
    (bytes.length === HEAD && count > 0) ||
    (bytes.length < needed && isText)
  ) {
    return isText ? short() : notOne
  }
  if (bytes.length < needed) {
    // A count that has nothing to do with the length is that of another kind of file.
    return count <= MOST_TRIANGLES ? short(count) : notOne
  }
  if (count > MOST_TRIANGLES) return tooManyTriangles(count)
  const places = new Float32Array(9 * count)
  for (let i = 0; i < places.length; i++) {
    const [triangle, number] = [Math.floor(i / 9), i % 9]
    places[i] = view.getFloat32(HEAD + EACH * triangle + 12 + 4 * number, true)
  }
  return succeed([meshOf(places, name)])
}

const notOne: Result<never> = fail(
  'mesh.kind',
  'This is neither an STL file nor a 3MF file.',
  'Choose a file that ends in .stl or .3mf.',
)

const short = (count?: number): Result<never> =>
  fail(
    'stl.short',
    `This file stops before it is complete${count === undefined ? '' : `: it should have ${count} triangles`}.`,
    'Copy it again.',
  )

function textMesh(text: string, name: string): Result<readonly ForeignMesh[]> {
  const places: number[] = []
  for (const [, x = '', y = '', z = ''] of text.matchAll(/\bvertex\s+(\S+)\s+(\S+)\s+(\S+)/gi)) {
    places.push(Number(x), Number(y), Number(z))
  }
  if (places.length % 9 !== 0 || !/\bendsolid\b/i.test(text)) return short()
  const own = /^\s*solid[ \t]+(\S[^\r\n]*)/i.exec(text)?.[1]?.trim() ?? ''
  return succeed([meshOf(Float32Array.from(places), own === '' ? name : own)])
}

function meshOf(positions: Float32Array, name: string): ForeignMesh {
  const indices = Uint32Array.from({ length: positions.length / 3 }, (_, i) => i)
  const { positions: places, indices: triangles } = welded({ positions, indices })
  return {
    ...{ name: name.slice(0, 80), colour: '' },
    positions: Float32Array.from(places),
    indices: Uint32Array.from(triangles),
  }
}
