import { unzlibSync } from 'fflate'

/**
 * The font in a WOFF file (W3C WOFF 1.0, sections 3 to 5) as it was before it was packed: a directory, and each table.
 * @throws Error where the bytes are no such file
 */
export function fontInWoff(file: Uint8Array): Uint8Array {
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength)
  if (file.byteLength < HEADER || view.getUint32(0) !== SIGNATURE) {
    throw new Error('These bytes are no WOFF file.')
  }
  const [flavour, count, size] = [view.getUint32(4), view.getUint16(12), view.getUint32(16)]
  const font = new Uint8Array(size)
  const out = new DataView(font.buffer)
  const exponent = Math.floor(Math.log2(count))
  out.setUint32(0, flavour)
  out.setUint16(4, count)
  out.setUint16(6, 16 << exponent)
  out.setUint16(8, exponent)
  out.setUint16(10, 16 * count - (16 << exponent))
  let at = 12 + 16 * count
  for (let i = 0; i < count; i++) {
    const entry = HEADER + 20 * i
    const [tag = 0, from = 0, packed = 0, length = 0, checksum = 0] = [0, 4, 8, 12, 16].map((n) =>
      view.getUint32(entry + n),
    )
    const raw = file.subarray(from, from + packed)
    const own = 12 + 16 * i
    ;[tag, checksum, at, length].forEach((n, j) => out.setUint32(own + 4 * j, n))
    font.set(packed === length ? raw : unzlibSync(raw), at)
    // Tables begin at multiples of four.
    at += (length + 3) & ~3
  }
  return font
}

const SIGNATURE = 0x774f4646
const HEADER = 44
