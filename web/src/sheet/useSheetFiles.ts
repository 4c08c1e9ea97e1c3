import { drawingOf } from '@lathica/core/drawing'
import { EXPORTERS, writeDrawingSvg, type Exporter } from '@lathica/core/formats'
import { EXPORT_CHORD_TOLERANCE } from '@lathica/core/tolerances'
import { ref } from 'vue'
import { saveFile } from '../dispatch/saveFile'
import { tell, tellProblem } from '../notices'
import { usePartStore } from '../store/part'
import { useSheetStore } from '../store/sheet'
import { pdfOf } from './pdf'
import { pngOf } from './png'

/** What the drawing and its plan are handed over as. */
export function useSheetFiles() {
  const parts = usePartStore()
  const sheet = useSheetStore()
  /** Whether a file is being made. */
  const busy = ref(false)

  async function making(work: () => Promise<void>): Promise<void> {
    if (busy.value) return
    busy.value = true
    try {
      await work()
    } catch {
      tellProblem({
        message: 'The file could not be made.',
        mend: 'Reload the page and try again; nothing of the part is lost.',
      })
    } finally {
      busy.value = false
    }
  }

  /** The name of the sheet that is shown, where there are several. */
  const called = (): string =>
    sheet.all.sheets.length > 1 ? `${parts.name} ${sheet.index + 1}` : parts.name

  /** A kind of file that is drawn: all sheets, or the plan. What its reader should know is said. */
  const saveDrawn = (exporter: Exporter): Promise<void> =>
    making(async () => {
      const { state } = parts
      if (!state) return
      const at = new Date()
      const seen = await sheet.lookAll()
      const made = exporter.pages?.(state, seen, at)
      let pdf: Uint8Array | undefined
      if (made && made.pages.length > 0) {
        const about = { title: parts.name, author: drawingOf(state.part).title.owner, at }
        const { bytes, missing } = await pdfOf(made.pages, about)
        pdf = bytes
        if (!sheet.isOpen) made.told.forEach(tell)
        if (missing.length > 0) {
          tell(
            `The fonts have no ${missing.slice(0, 12).join(' ')}: question marks stand in the PDF for them. The SVG has them.`,
          )
        }
      }
      const settings = { tolerance: EXPORT_CHORD_TOLERANCE, at, seen }
      const written = exporter.write(state, { ...settings, ...(pdf ? { pdf } : {}) })
      if (written.ok) saveFile(written.value, `${parts.name}.${exporter.extension}`, exporter.type)
      else tellProblem(written.problem)
    })

  /** A kind of file by its id. */
  async function saveAs(id: string): Promise<void> {
    const exporter = EXPORTERS.find((e) => e.id === id)
    if (exporter) await saveDrawn(exporter)
  }

  const saveSvg = (): Promise<void> =>
    making(async () => {
      const drawing = await sheet.whole()
      if (!drawing) return
      saveFile(writeDrawingSvg(drawing, parts.name), `${called()}.sheet.svg`, 'image/svg+xml')
    })

  const savePng = (): Promise<void> =>
    making(async () => {
      const drawing = await sheet.whole()
      if (!drawing) return
      saveFile(await pngOf(drawing, parts.name), `${called()}.sheet.png`, 'image/png')
    })

  return { busy, saveDrawn, saveAs, saveSvg, savePng }
}
