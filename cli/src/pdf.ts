import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { drawingOf, type Page } from '@lathica/core/drawing'
import type { Part } from '@lathica/core/part'
import { FONT_FILES, writeDrawingPdf } from '@lathica/core/pdf'

const { resolve } = createRequire(import.meta.url)

/** Pages of a part as PDF; none where there are none. */
export function pdfOf(part: Part, pages: readonly Page[], at: Date): { readonly pdf?: Uint8Array } {
  if (pages.length === 0) return {}
  const fonts = FONT_FILES.map((file) => readFileSync(resolve(file)))
  const about = { title: part.name, author: drawingOf(part).title.owner, at }
  return { pdf: writeDrawingPdf(pages, fonts, about).bytes }
}
