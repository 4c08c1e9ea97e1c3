import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { drawingOf, type SeenLines } from '@lathica/core/drawing'
import type { Exporter } from '@lathica/core/formats'
import { FONT_FILES, writeDrawingPdf } from '@lathica/core/pdf'
import type { PartState } from '@lathica/core/route'

const { resolve } = createRequire(import.meta.url)

/** The pages of parts as one PDF, and what is worth saying of it; undefined where nothing of them is turned. */
export function pagesOf(
  parts: readonly { readonly state: PartState; readonly seen: SeenLines }[],
  makePages: NonNullable<Exporter['pages']>,
  title: string,
): { readonly content: Uint8Array; readonly notes: readonly string[] } | undefined {
  const at = new Date()
  const made = parts.map(({ state, seen }) => ({
    ...makePages(state, seen, at),
    name: state.part.name,
  }))
  const pages = made.flatMap((m) => m.pages)
  if (pages.length === 0) return undefined
  const fonts = FONT_FILES.map((file) => readFileSync(resolve(file)))
  const author = parts[0] ? drawingOf(parts[0].state.part).title.owner : ''
  let page = 0
  const chapters = made.flatMap(({ name, pages: own }) => {
    const begins = page
    page += own.length
    return own.length === 0 ? [] : [{ title: name, page: begins }]
  })
  const about = { title, author, at, ...(parts.length > 1 ? { chapters } : {}) }
  const { bytes, missing } = writeDrawingPdf(pages, fonts, about)
  return {
    content: bytes,
    notes: [
      ...made.flatMap(({ name, told }) => told.map((words) => `${name}: ${words}`)),
      ...(missing.length > 0 ? [`The fonts have no ${missing.slice(0, 12).join(' ')}.`] : []),
    ],
  }
}
