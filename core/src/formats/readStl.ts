import { strFromU8 } from 'fflate'
import { fail, succeed, type Result } from '../result'
import type { ForeignMesh } from './foreignMesh'
import { welded } from './solids'

/** Header and count of the binary form, and bytes of one of its triangles. */
const [HEAD, EACH] = [84, 50]

/** The one mesh of an STL file: its length tells the binary form from the text. */
export function readStl(bytes: Uint8Array, name: string): Result<readonly ForeignMesh[]> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const count = bytes.length >= HEAD ? view.getUint32(80, true) : -1
  if (count >= 0 && bytes.length === HEAD + EACH * count) {
    const places = new Float32Array(9 * count)
    for (let i = 0; i < places.length; i++) {
      const [triangle, number] = [Math.floor(i / 9), i % 9]
      places[i] = view.getFloat32(HEAD + EACH * triangle + 12 + 4 * number, true)
    }
    return succeed([meshOf(places, name)])
  }
  const text = strFromU8(bytes.subarray(0, 512))
  if (!/^\s*solid\b/.test(text)) {
    if (count > 0 && bytes.length > HEAD && bytes.length < HEAD + EACH * count) {
      return fail(
        'stl.short',
        `This file stops before it is complete: it should have ${count} triangles.`,
        'Copy it again.',
      )
    }
    return fail(
      'mesh.kind',
      'This is neither an STL file nor a 3MF file.',
      'Choose a file that ends in .stl or .3mf.',
    )
  }
  return textMesh(strFromU8(bytes), name)
}

function textMesh(text: string, name: string): Result<readonly ForeignMesh[]> {
  const places: number[] = []
  for (const [, x = '', y = '', z = ''] of text.matchAll(/\bvertex\s+(\S+)\s+(\S+)\s+(\S+)/g)) {
    places.push(Number(x), Number(y), Number(z))
  }
  if (places.length % 9 !== 0 || !/\bendsolid\b/.test(text)) {
    return fail('stl.short', 'This file stops before it is complete.', 'Copy it again.')
  }
  const own = /^\s*solid[ \t]+(\S[^\r\n]*)/.exec(text)?.[1]?.trim() ?? ''
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
