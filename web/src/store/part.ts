import {
  METRIC,
  createHistory,
  edit,
  evaluate,
  readPart,
  record,
  redo,
  toDocument,
  undo,
  type Command,
  type History,
  type Part,
  type Problem,
  type Result,
} from '@lathica/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { ApiError, api, type PartData } from '../api/client'
import { told } from '../kernel/told'
import { tellProblem } from '../notices'
import { following } from './follow'
import { createSaver, type SaveState } from './saver'
import { dropDraft, readDraft } from './drafts'
import { sameDocument } from './sameDocument'

/** The opened part: its document, the way back and forth, and how it stands with the server. */
export const usePartStore = defineStore('part', () => {
  const id = ref('')
  const project = ref({ id: '', name: '' })
  const history = shallowRef<History>()
  /** A part shown while a drag or a field is not finished; it is in no history yet. */
  const preview = shallowRef<Part>()
  const loadProblem = shallowRef<Problem>()
  const save = shallowRef<SaveState>({ kind: 'saved', at: '' })

  const part = computed<Part | undefined>(() => preview.value ?? history.value?.part)
  // Pieces that a drag leaves as they are, so that what shows them is not drawn anew at every move.
  const materials = computed(() => part.value?.materials ?? [])
  const bodies = computed(() => part.value?.bodies ?? [])
  const units = computed(() => part.value?.units ?? METRIC)
  const route = computed(() => part.value?.route ?? [])
  const name = computed(() => part.value?.name ?? '')
  const lie = computed(() => part.value?.lie ?? 'lying')
  const state = computed(() => {
    void told.value
    return part.value ? evaluate(part.value) : undefined
  })
  /** The state for panes and figures that may follow the drawing. */
  const followed = following(state, () => preview.value !== undefined)
  /** The part for the same. */
  const followedPart = following(part, () => preview.value !== undefined)
  const undoLabel = computed(() => history.value?.past.at(-1)?.label)
  const redoLabel = computed(() => history.value?.future[0]?.label)

  const saver = createSaver({
    document: () => history.value?.part,
    onState: (next) => (save.value = next),
    onNewer: (revision) => void takeNewerQuietly(revision),
  })

  /** Opens a part. What an earlier visit could not save is taken up again. */
  async function open(partId: string): Promise<void> {
    close()
    id.value = partId
    try {
      const stored = await api.part(partId)
      if (id.value !== partId) return
      const read = readPart(stored.document)
      if (!read.ok) {
        loadProblem.value = read.problem
        return
      }
      project.value = { id: stored.projectId, name: stored.projectName }
      history.value = createHistory(read.value)
      saver.begin(partId, stored.revision, stored.updatedAt)
      takeUpDraft(partId, stored)
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      if (id.value === partId) loadProblem.value = error.problem
    }
  }

  function takeUpDraft(partId: string, stored: PartData): void {
    const draft = readDraft(partId)
    if (!draft || !history.value) return
    const read = readPart(draft.document)
    if (!read.ok || sameDocument(draft.document, stored.document)) {
      dropDraft(partId)
      return
    }
    history.value = record(history.value, 'take up unsaved work', read.value)
    if (draft.revision === stored.revision) saver.changed()
    else saver.disagree(stored.revision)
  }

  function close(): void {
    saver.end()
    id.value = ''
    history.value = undefined
    preview.value = undefined
    loadProblem.value = undefined
  }

  function become(next: History): void {
    preview.value = undefined
    if (next === history.value) return
    const changed = next.part !== history.value?.part
    history.value = next
    if (changed) saver.changed()
  }

  /** Runs a command on the part without telling of refusals; the caller shows them in place. */
  function attempt(command: Command): Result<Part> {
    if (!history.value) return { ok: false, problem: NOTHING_OPEN }
    const result = edit(history.value, command)
    if (!result.ok) return result
    become(result.value)
    return { ok: true, value: result.value.part }
  }

  /** Runs a command on the part; a refusal is told with its mend. */
  function run(command: Command): boolean {
    const result = attempt(command)
    if (!result.ok) tellProblem(result.problem)
    return result.ok
  }

  /** Takes a part that came about by dragging as one edit. */
  function take(label: string, dragged: Part): void {
    if (history.value) become(record(history.value, label, dragged))
  }

  function stepBack(): void {
    if (history.value) become(undo(history.value))
  }

  function stepForth(): void {
    if (history.value) become(redo(history.value))
  }

  /** Replaces the part by the server's newer state; one's own is an undo away. */
  async function takeNewer(): Promise<void> {
    try {
      const stored = await api.part(id.value)
      const read = readPart(stored.document)
      if (!read.ok || !history.value) return
      history.value = record(history.value, 'take the newer state', read.value)
      saver.begin(stored.id, stored.revision, stored.updatedAt)
    } catch (error) {
      if (error instanceof ApiError) tellProblem(error.problem)
      else throw error
    }
  }

  /** Another page saved this part while nothing waits here: follow it. */
  async function takeNewerQuietly(revision: number): Promise<void> {
    if (preview.value) saver.disagree(revision)
    else await takeNewer()
  }

  /** Keeps one's own state as a part of its own, and returns its id. */
  async function keepAsCopy(): Promise<string | undefined> {
    const own = history.value?.part
    if (!own) return undefined
    try {
      const copy = { ...own, name: `${own.name} (my copy)`.slice(0, 80) }
      const made = await api.createPart(project.value.id, toDocument(copy))
      dropDraft(id.value)
      return made.id
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      tellProblem(error.problem)
      return undefined
    }
  }

  return {
    id,
    project,
    history,
    preview,
    loadProblem,
    save,
    part,
    materials,
    bodies,
    units,
    route,
    name,
    lie,
    state,
    followed,
    followedPart,
    undoLabel,
    redoLabel,
    open,
    close,
    attempt,
    run,
    take,
    stepBack,
    stepForth,
    takeNewer,
    keepAsCopy,
    saveNow: () => saver.flush(),
  }
})

const NOTHING_OPEN: Problem = {
  code: 'part.none',
  message: 'No part is open.',
  mend: 'Open one from the shelf.',
}
