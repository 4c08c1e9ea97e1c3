import type { Problem } from '@lathica/core/result'
import { LONGEST_PICTURE, type BoardPicture } from '@lathica/core/part'
import { setPicture } from '@lathica/core/edit'
import { shallowReactive } from 'vue'
import { tellProblem } from '../notices'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { toPlane, type View } from './view'

/** The kinds of pictures that are taken, and how their files are chosen. */
export const PICTURE_FILES = 'image/png,image/jpeg,image/webp'

/** A file is looked into only up to this size, in bytes, and taken up to so many pixels. */
const LARGEST_FILE = 60_000_000
const MOST_PIXELS = 60_000_000

/** So long the longer side of a kept picture is at most, in pixels, and how often it is made smaller to fit. */
const LONGEST_SIDE = 1400
const MOST_TRIES = 5

type Read = { readonly ok: true; readonly value: Kept } | { readonly ok: false; problem: Problem }

interface Kept {
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
async function readPicture(file: File): Promise<Read> {
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

/** Puts a picture file behind the board, so that it fills most of it; where it belongs is told afterwards. */
export async function takePicture(file: File): Promise<void> {
  const parts = usePartStore()
  const board = useBoardStore()
  const { id } = parts
  const read = await readPicture(file)
  if (!read.ok) {
    tellProblem({ ...read.problem, message: `${file.name}: ${read.problem.message}` })
    return
  }
  // Another part may have been opened meanwhile.
  const { view } = board
  if (parts.id !== id || !view) return
  const placed = filling(read.value, view, board.pane)
  if (parts.run(setPicture(placed))) board.useTool('placePicture')
}

/** A picture over most of the pane of a view. */
function filling(
  kept: Kept,
  view: View,
  pane: { readonly width: number; readonly height: number },
): BoardPicture {
  const scale = MOST * Math.min(pane.width / kept.width, pane.height / kept.height)
  // Its middle on the axis: there that of a turned part is looked for.
  const [x, y] =
    view.lie === 'lying' ? [pane.width / 2, view.origin.y] : [view.origin.x, pane.height / 2]
  const [left, top] = [x - (kept.width * scale) / 2, y - (kept.height * scale) / 2]
  const place = (x: number, y: number) => toPlane(view, { x: left + x * scale, y: top + y * scale })
  const [at, right, low] = [place(0, 0), place(1, 0), place(0, 1)]
  return {
    ...kept,
    at,
    across: { x: right.x - at.x, y: right.y - at.y },
    down: { x: low.x - at.x, y: low.y - at.y },
    strength: 0.5,
    shown: true,
  }
}

/** So large a share of the pane a new picture fills. */
const MOST = 0.9

/** Lets the designer choose a picture. */
export function choosePicture(): void {
  const input = document.createElement('input')
  Object.assign(input, { type: 'file', accept: PICTURE_FILES })
  input.addEventListener('change', () => {
    const [file] = input.files ?? []
    if (file) void takePicture(file)
  })
  input.click()
}

/** Pictures by their data, as the canvas draws them; a board that waits for one is painted again once it is there. */
const images = shallowReactive(new Map<string, HTMLImageElement>())
const asked = new Set<string>()

/** The image of a picture; undefined until the browser has unpacked it. */
export function imageOf({ data }: BoardPicture): HTMLImageElement | undefined {
  const known = images.get(data)
  if (known || asked.has(data)) return known
  asked.add(data)
  const image = new Image()
  image.onload = () => images.set(data, image)
  image.src = data
  return undefined
}
