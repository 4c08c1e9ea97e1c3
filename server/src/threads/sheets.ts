import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { drawSheet, type SeenLines } from '@lathica/core/drawing'
import { FONT_FILES, writeDrawingPdf } from '@lathica/core/pdf'
import type { PartState } from '@lathica/core/route'

const { resolve } = createRequire(import.meta.url)

/** The sheets of parts as one PDF, and what is worth saying of it; undefined where nothing of them is turned. */
export function sheetsOf(
  parts: readonly { readonly state: PartState; readonly seen: SeenLines }[],
  title: string,
): { readonly content: Uint8Array; readonly notes: readonly string[] } | undefined {
  const drawn = parts.flatMap(({ state, seen }) => {
    const drawing = drawSheet(state, seen)
    return drawing ? [{ name: state.part.name, drawing }] : []
  })
  if (drawn.length === 0) return undefined
  const fonts = FONT_FILES.map((file) => readFileSync(resolve(file)))
  const about = { title, author: parts[0]?.state.part.sheet?.title.owner ?? '', at: new Date() }
  const { bytes, missing } = writeDrawingPdf(
    drawn.map((d) => d.drawing),
    fonts,
    about,
  )
  return {
    content: bytes,
    notes: [
      ...drawn.flatMap(({ name, drawing }) => drawing.told.map((words) => `${name}: ${words}`)),
      ...(missing.length > 0 ? [`The fonts have no ${missing.slice(0, 12).join(' ')}.`] : []),
    ],
  }
}
