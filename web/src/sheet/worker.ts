import type { Page } from '@lathica/core/drawing'
import { writeDrawingPdf, type PdfAbout, type WrittenPdf } from '@lathica/core/pdf'
import latin from '@fontsource/ibm-plex-mono/files/ibm-plex-mono-latin-400-normal.woff?url&no-inline'
import latinExt from '@fontsource/ibm-plex-mono/files/ibm-plex-mono-latin-ext-400-normal.woff?url&no-inline'
import vietnamese from '@fontsource/ibm-plex-mono/files/ibm-plex-mono-vietnamese-400-normal.woff?url&no-inline'
import cyrillic from '@fontsource/ibm-plex-mono/files/ibm-plex-mono-cyrillic-400-normal.woff?url&no-inline'
import cyrillicExt from '@fontsource/ibm-plex-mono/files/ibm-plex-mono-cyrillic-ext-400-normal.woff?url&no-inline'
import { expose, transfer } from 'comlink'

const FILES = [latin, latinExt, vietnamese, cyrillic, cyrillicExt]

let fonts: Promise<Uint8Array[]> | undefined
const loaded = (): Promise<Uint8Array[]> =>
  (fonts ??= Promise.all(
    FILES.map(async (file) => {
      const answer = await fetch(file)
      if (!answer.ok) throw new Error(`The font ${file} is not there.`)
      return new Uint8Array(await answer.arrayBuffer())
    }),
  ))

/** PDF is written in a thread of its own: its writer is large, and fonts are packed. */
const thread = {
  async write(pages: readonly Page[], about: PdfAbout): Promise<WrittenPdf> {
    const made = writeDrawingPdf(pages, await loaded(), about)
    return transfer(made, [made.bytes.buffer])
  },
}

export type PdfThread = typeof thread

expose(thread)
