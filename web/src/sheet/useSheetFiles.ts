import type { Drawing } from '@lathica/core/drawing'
import { writeDrawingSvg } from '@lathica/core/formats'
import { nextTick, ref } from 'vue'
import { saveFile } from '../dispatch/saveFile'
import { tell, tellProblem } from '../notices'
import { usePartStore } from '../store/part'
import { useSheetStore } from '../store/sheet'
import { pdfOf } from './pdf'
import { pngOf } from './png'

/** What the sheet is handed over as. */
export function useSheetFiles() {
  const parts = usePartStore()
  const sheet = useSheetStore()
  /** Whether a file is being made. */
  const busy = ref(false)
  /** Whether the sheet stands on the page to be printed. */
  const printing = ref(false)

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

  /** The whole sheet; what its reader should know is said, since not everybody has it before him. */
  async function told(): Promise<Drawing | undefined> {
    const drawing = await sheet.whole()
    if (!sheet.isOpen) drawing?.told.forEach(tell)
    return drawing
  }

  const savePdf = (): Promise<void> =>
    making(async () => {
      const { setup } = sheet
      const drawing = await told()
      if (!drawing) return
      const about = { title: parts.name, author: setup.title.owner, at: new Date() }
      const { bytes, missing } = await pdfOf([drawing], about)
      saveFile(bytes, `${parts.name}.pdf`, 'application/pdf')
      if (missing.length > 0) {
        tell(
          `The fonts have no ${missing.slice(0, 12).join(' ')}: question marks stand in the PDF for them. The SVG has them.`,
        )
      }
    })

  const saveSvg = (): Promise<void> =>
    making(async () => {
      const drawing = await told()
      if (!drawing) return
      saveFile(writeDrawingSvg(drawing, parts.name), `${parts.name}.sheet.svg`, 'image/svg+xml')
    })

  const savePng = (): Promise<void> =>
    making(async () => {
      const drawing = await told()
      if (!drawing) return
      saveFile(await pngOf(drawing, parts.name), `${parts.name}.sheet.png`, 'image/png')
    })

  async function print(): Promise<void> {
    if (!sheet.drawing) return
    printing.value = true
    await nextTick()
    try {
      window.print()
    } catch {
      tellProblem({
        message: 'This browser does not print here.',
        mend: 'Save the PDF and print that.',
      })
    } finally {
      printing.value = false
    }
  }

  return { busy, printing, savePdf, saveSvg, savePng, print }
}
