import { changesSince, drawingOf, drawSheets, isKept, nextMark } from '@lathica/core/drawing'
import { release, releaseLabel } from '@lathica/core/edit'
import { toDocument, writeDrawingSvg } from '@lathica/core/formats'
import type { ReleaseAnswer, ReleaseCard } from '@lathica/core/wire'
import { defineStore } from 'pinia'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { api, ApiError } from '../api/client'
import { tell, tellProblem } from '../notices'
import { pdfOf } from '../sheet/pdf'
import { usePartStore } from './part'
import { useSheetStore } from './sheet'

/** Released drawings of the part in hand. */
export const useReleasesStore = defineStore('releases', () => {
  const parts = usePartStore()
  const sheet = useSheetStore()
  const kept = ref<readonly ReleaseCard[]>([])
  /** The release that is shown. */
  const shown = shallowRef<ReleaseAnswer>()
  const busy = ref(false)

  const revisions = computed(() => sheet.all.revisions)
  const next = computed(() =>
    nextMark(
      revisions.value,
      kept.value.map((k) => k.mark),
    ),
  )
  /** What is not the same as when it was released last. */
  const changes = computed((): readonly string[] => {
    const { state } = parts
    if (revisions.value.length === 0 || !state || !sheet.isOpen) return []
    const labels = new Map(drawSheets(state, sheet.seen).flatMap((d) => [...d.labels]))
    return changesSince(revisions.value, labels).map(({ before, now }) =>
      before === undefined
        ? `new: ${now ?? ''}`
        : now === undefined
          ? `gone: ${before}`
          : `${before} is ${now} now`,
    )
  })

  /** Asks the server for what it keeps. @returns whether it answered */
  async function load(): Promise<boolean> {
    const { id } = parts
    if (id === '') return false
    try {
      kept.value = await api.releases(id)
      return true
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      tellProblem(error.problem)
      return false
    }
  }

  /**
   * Releases the drawing: what stands on it is noted in the part, and sheets, PDF and part are kept on the server. Where
   * they cannot be kept there, it is not released.
   * @returns whether it was
   */
  async function releaseNow(words: string, by: string, date: string): Promise<boolean> {
    const { id } = parts
    if (id === '' || busy.value) return false
    busy.value = true
    try {
      // Which mark comes next is known only with what is kept.
      if (!(await load())) return false
      const seen = await sheet.lookAll()
      const { state } = parts
      if (!state || parts.id !== id) return false
      const mark = next.value
      const labels = drawSheets(state, seen).flatMap((d) =>
        [...d.labels].flatMap(([label, { said }]) => (isKept(label) ? [{ id: label, said }] : [])),
      )
      if (!parts.run(release({ mark, words, date, by, labels }))) return false
      await nextTick()
      return await keep(id, mark, words)
    } finally {
      busy.value = false
    }
  }

  async function keep(id: string, mark: string, words: string): Promise<boolean> {
    const { state } = parts
    if (!state) return false
    try {
      const drawings = drawSheets(state, await sheet.lookAll())
      const author = drawingOf(state.part).title.owner
      const { bytes } = await pdfOf(drawings, { title: parts.name, author, at: new Date() })
      await api.release(id, {
        ...{ mark, words, document: toDocument(state.part), pdf: base64Of(bytes) },
        sheets: drawings.map((d) => writeDrawingSvg(d, parts.name)),
      })
    } catch (error) {
      // Not what was done meanwhile.
      if (parts.undoLabel === releaseLabel(mark)) parts.stepBack()
      tellProblem(
        error instanceof ApiError
          ? error.problem
          : { message: 'The drawing could not be released.', mend: 'Try again in a moment.' },
      )
      return false
    }
    tell(`Revision ${mark} is released.`)
    await load()
    return true
  }

  /** Shows a release as it was. */
  async function show(mark: string): Promise<void> {
    const { id } = parts
    if (id === '') return
    try {
      shown.value = await api.released(id, mark)
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      tellProblem(error.problem)
    }
  }

  watch(
    () => parts.id,
    () => {
      kept.value = []
      shown.value = undefined
    },
  )

  return { kept, shown, busy, revisions, next, changes, load, releaseNow, show }
})

/** Bytes as text, in pieces that a call can take. */
function base64Of(bytes: Uint8Array): string {
  let text = ''
  for (let i = 0; i < bytes.length; i += 0x8000) {
    text += String.fromCharCode(...bytes.subarray(i, i + 0x8000))
  }
  return btoa(text)
}
