import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { drawSheet, type SeenLines } from '@lathica/core/drawing'
import { FONT_FILES, writeDrawingPdf } from '@lathica/core/pdf'
import type { PartState } from '@lathica/core/route'

const { resolve } = createRequire(import.meta.url)

/** The sheet of a part as PDF; none where nothing is turned. */
export function pdfOf(state: PartState, seen: SeenLines): { readonly sheetPdf?: Uint8Array } {
  const drawing = drawSheet(state, seen)
  if (!drawing) return {}
  const fonts = FONT_FILES.map((file) => readFileSync(resolve(file)))
  const { owner } = state.part.sheet?.title ?? { owner: '' }
  const about = { title: state.part.name, author: owner, at: new Date() }
  return { sheetPdf: writeDrawingPdf([drawing], fonts, about).bytes }
}
