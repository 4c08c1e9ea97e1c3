import type { Page } from '@lathica/core/drawing'
import type { PdfAbout, WrittenPdf } from '@lathica/core/pdf'
import { wrap } from 'comlink'
import type { PdfThread } from './worker'

/** Writes sheets as PDF in a thread of their own, which ends with it. @throws where a font cannot be read */
export async function pdfOf(pages: readonly Page[], about: PdfAbout): Promise<WrittenPdf> {
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' })
  try {
    return await wrap<PdfThread>(worker).write(pages, about)
  } finally {
    worker.terminate()
  }
}
