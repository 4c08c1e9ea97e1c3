import type { Problem } from '@lathica/core/result'
import { LONGEST_PICTURE } from '@lathica/core/part'

/** The kinds of pictures that are taken, and how their files are chosen. */
export const PICTURE_FILES = 'image/png,image/jpeg,image/webp'

/** A file is looked into only up to this size, in bytes, and taken up to so many pixels. */
const LARGEST_FILE = 60_000_000
const MOST_PIXELS = 60_000_000

/** So long the longer side of a kept picture is at most, in pixels, and how often it is made smaller to fit. */
const LONGEST_SIDE = 1400
const MOST_TRIES = 5

type Read =
  { readonly ok: true; readonly value: ReadPicture } | { readonly ok: false; problem: Problem }

/** A picture that is small enough to be kept in a part. */
export interface ReadPicture {
  readonly data: string
  readonly width: number
  readonly height: number
}

const refuse = (code: string, message: string, mend: string): Read => ({
  ok: false,
  problem: { code, message, mend },
})

/** Whether a file says it is a picture. */
export const isPictureFile = (file: File): boolean => PICTURE_FILES.split(',').includes(file.type)

/** Reads a picture and makes it small enough to be kept in a part. */
export async function readPicture(file: File): Promise<Read> {
  if (!isPictureFile(file)) {
    return refuse('picture.kind', 'this is no picture.', 'Choose a PNG, JPEG or WebP file.')
  }
  const pixels = file.size <= LARGEST_FILE ? await pixelsIn(file) : Infinity
  if (pixels > MOST_PIXELS) {
    return refuse(
      'picture.pixels',
      'this picture is too large.',
      'Make it smaller than 60 megapixels.',
    )
  }
  let bitmap: ImageBitmap
  try {
    bitmap = await createImageBitmap(file)
  } catch {
    return refuse('picture.broken', 'this picture cannot be read.', 'Save it anew, as PNG or JPEG.')
  }
  try {
    let side = Math.min(LONGEST_SIDE, Math.max(bitmap.width, bitmap.height))
    for (let i = 0; i < MOST_TRIES; i++) {
      const share = side / Math.max(bitmap.width, bitmap.height)
      const width = Math.max(1, Math.round(bitmap.width * share))
      const height = Math.max(1, Math.round(bitmap.height * share))
      const canvas = document.createElement('canvas')
      Object.assign(canvas, { width, height })
      const ctx = canvas.getContext('2d')
      if (!ctx) break
      // What is seen through is paper.
      ctx.fillStyle = '#ffffff'
      ctx.fillRect(0, 0, width, height)
      ctx.drawImage(bitmap, 0, 0, width, height)
      const data = canvas.toDataURL('image/jpeg', 0.8)
      if (data.length <= LONGEST_PICTURE) return { ok: true, value: { data, width, height } }
      side = Math.round(side * 0.75)
    }
    return refuse('picture.detail', 'this picture does not get small enough.', 'Make it smaller.')
  } finally {
    bitmap.close()
  }
}

/** How many pixels a picture says it has, read from its head so that a huge one is never unpacked; 0 where it does not. */
async function pixelsIn(file: File): Promise<number> {
  const head = new DataView(await file.slice(0, 512 * 1024).arrayBuffer())
  const at = (i: number): number => (i < head.byteLength ? head.getUint8(i) : 0)
  const short = (i: number): number => at(i) * 256 + at(i + 1)
  // PNG (ISO/IEC 15948): the first chunk tells width and height.
  if (at(0) === 0x89 && at(1) === 0x50) {
    return head.byteLength > 24 ? head.getUint32(16) * head.getUint32(20) : 0
  }
  // JPEG (ITU-T T.81): segments of a marker and a length, until that of a frame.
  if (short(0) !== 0xffd8) return 0
  for (let i = 2; i + 9 < head.byteLength && at(i) === 0xff;) {
    const marker = at(i + 1)
    const isFrame = marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker)
    if (isFrame) return short(i + 5) * short(i + 7)
    i += 2 + Math.max(2, short(i + 2))
  }
  return 0
}
