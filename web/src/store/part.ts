import type { Problem, Result } from '@lathica/core/result'
import { METRIC } from '@lathica/core/units'
import type { Part } from '@lathica/core/part'
import { stepsFrom } from '@lathica/core/route'
import {
  createHistory,
  edit,
  isSketchShown,
  record,
  redo,
  refuseLocked,
  undo,
  type Command,
  type History,
} from '@lathica/core/edit'
import { readPart, toDocument } from '@lathica/core/formats'
import type { SketchPlane } from '@lathica/core/sketch'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { ApiError, api } from '../api/client'
import type { PartAnswer } from '@lathica/core/wire'
import { dropOwnDraft, setAside, type Draft } from '../drafts/drafts'
import { createUnsaved } from '../drafts/unsaved'
import { tellProblem } from '../notices'
import { useFindingsStore } from './findings'
import { following } from './follow'
import { newPart } from './newPart'
import { createSaver, type SaveState } from './saver'
import { sameDocument } from './sameDocument'

/** The opened part: its document, the way back and forth, and how it stands with the server. */
export const usePartStore = defineStore('part', () => {
  const findings = useFindingsStore()
  const id = ref('')
  const project = ref({ id: '', name: '' })
  const history = shallowRef<History>()
  /** A part shown while a drag or a field is not finished; it is in no history yet. */
  const preview = shallowRef<Part>()
  const loadProblem = shallowRef<Problem>()
  const save = shallowRef<SaveState>({ kind: 'saved', at: '' })
  /** Whether this browser keeps what the server has not yet. */
  const isKept = ref(true)
  const unsaved = createUnsaved({
    isOpen: (partId) => id.value === partId,
    takeUp: (draft) => takeUp(draft),
    async isKept() {
      await saver.kept()
      return isKept.value
    },
  })

  const part = computed<Part | undefined>(() => preview.value ?? history.value?.part)
  // Pieces that a drag leaves as they are, so that what shows them is not drawn anew at every move.
  const materials = computed(() => part.value?.materials ?? [])
  const bodies = computed(() => part.value?.bodies ?? [])
  const units = computed(() => part.value?.units ?? METRIC)
  const route = computed(() => part.value?.route ?? [])
  const profiles = computed<readonly ListedProfile[]>((before) =>
    unlessAlike(before, part.value ? listed(part.value) : []),
  )
  const name = computed(() => part.value?.name ?? '')
  const lie = computed(() => part.value?.lie ?? 'lying')
  const state = computed(() => part.value && findings.stateOf(part.value))
  /** The state for panes and figures that may follow the drawing. */
  const followed = following(state, () => preview.value !== undefined)
  const undoLabel = computed(() => history.value?.past.at(-1)?.label)
  const redoLabel = computed(() => history.value?.future[0]?.label)

  const saver = createSaver({
    document: () => history.value?.part,
    onState: (next) => (save.value = next),
    onNewer: (revision) => void takeNewerQuietly(revision),
    onKept: (is) => (isKept.value = is),
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
      const { own, others } = await unsaved.find(stored)
      if (id.value !== partId) return
      project.value = { id: stored.projectId, name: stored.projectName }
      history.value = createHistory(read.value)
      begin(stored, own?.sent)
      unsaved.drafts.value = others
      if (own && !takeUp(own)) unsaved.drafts.value = [...others, await setAside(own)]
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      if (id.value === partId) loadProblem.value = error.problem
    }
  }

  const begin = (
    { id: partId, projectId, revision, updatedAt }: PartAnswer,
    sent?: readonly object[],
  ): void => saver.begin(partId, projectId, revision, updatedAt, sent)

  /** Makes a draft the state of the part, as an edit. False when it cannot be read; that is told. */
  function takeUp(draft: Draft): boolean {
    const read = readPart(draft.document)
    if (!read.ok) tellProblem(read.problem)
    if (!read.ok || !history.value) return false
    history.value = record(history.value, 'take up unsaved work', read.value)
    preview.value = undefined
    saver.changed()
    return true
  }

  /** Puts a part back that was deleted elsewhere, and returns its id: another one where it is no more. */
  async function putPartBack(): Promise<string | undefined> {
    const own = history.value?.part
    if (!own) return undefined
    try {
      await api.restorePart(id.value)
      const stored = await api.part(id.value)
      begin(stored)
      if (!sameDocument(stored.document, toDocument(own))) saver.changed()
      return id.value
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      if (error.status === 404) {
        const made = await newPart(project.value.id, toDocument(own))
        if (made !== undefined) await dropOwnDraft(id.value)
        return made
      }
      tellProblem(error.problem)
      return undefined
    }
  }

  function close(): void {
    saver.end()
    id.value = ''
    history.value = undefined
    preview.value = undefined
    loadProblem.value = undefined
    unsaved.drafts.value = []
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
    const refused = history.value && refuseLocked(history.value.part, dragged)
    if (refused && !refused.ok) tellProblem(refused.problem)
    else if (history.value) become(record(history.value, label, dragged))
  }

  function stepBack(): void {
    if (history.value) become(undo(history.value))
  }

  function stepForth(): void {
    if (history.value) become(redo(history.value))
  }

  /** The server's state of the part that is open; undefined where there is none, which is told. */
  async function newest(): Promise<
    { readonly stored: PartAnswer; readonly part: Part } | undefined
  > {
    const asked = id.value
    try {
      const stored = await api.part(asked)
      const read = readPart(stored.document)
      return read.ok && id.value === asked ? { stored, part: read.value } : undefined
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      tellProblem(error.problem)
      return undefined
    }
  }

  function put(stored: PartAnswer, newer: Part): void {
    if (!history.value) return
    history.value = record(history.value, 'take the newer state', newer)
    preview.value = undefined
    begin(stored)
  }

  /** Replaces the part by the server's newer state; one's own is an undo away. */
  async function takeNewer(): Promise<void> {
    const found = await newest()
    if (!found) return
    await dropOwnDraft(found.stored.id)
    put(found.stored, found.part)
  }

  /** Another page saved this part while nothing waits here: follow it, unless something was begun meanwhile. */
  async function takeNewerQuietly(revision: number): Promise<void> {
    const found = preview.value ? undefined : await newest()
    const isIdle = !preview.value && save.value.kind === 'saved'
    if (found && isIdle) put(found.stored, found.part)
    else if (history.value && !isIdle) saver.disagree(revision)
  }

  /** Keeps one's own state as a part of its own, and returns its id. */
  async function keepAsCopy(): Promise<string | undefined> {
    const own = history.value?.part
    if (!own) return undefined
    const name = `${own.name} (my copy)`.slice(0, 80)
    const made = await newPart(project.value.id, toDocument({ ...own, name }))
    if (made !== undefined) await dropOwnDraft(id.value)
    return made
  }

  return {
    id,
    project,
    history,
    preview,
    loadProblem,
    save,
    isKept,
    drafts: unsaved.drafts,
    part,
    materials,
    bodies,
    units,
    route,
    profiles,
    name,
    lie,
    state,
    followed,
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
    takeDraft: unsaved.take,
    keepDraftAsPart: unsaved.keepAsPart,
    letGoDraft: unsaved.letGo,
    putPartBack,
    saveNow: () => saver.flush(),
  }
})

/** A profile as it is listed. */
export interface ListedProfile {
  readonly id: string
  readonly name: string
  readonly plane: SketchPlane
  readonly shown: boolean
  /** Hidden by hand, not because a step shows what it has become. */
  readonly putAway: boolean
  readonly locked: boolean
  /** Numbers of the steps that are made from it. */
  readonly steps: string
}

const listed = (part: Part): ListedProfile[] =>
  part.sketches.map((s) => ({
    ...{ id: s.id, name: s.name, plane: s.plane },
    ...{ shown: isSketchShown(part, s), putAway: s.shown === false, locked: s.locked === true },
    steps: (stepsFrom(part.route).get(s.id) ?? []).map((step) => step.number).join(', '),
  }))

/** What was there before, where the list has not changed: every move of a drag makes a new part. */
function unlessAlike(
  before: readonly ListedProfile[] | undefined,
  now: readonly ListedProfile[],
): readonly ListedProfile[] {
  return before && JSON.stringify(before) === JSON.stringify(now) ? before : now
}

const NOTHING_OPEN: Problem = {
  code: 'part.none',
  message: 'No part is open.',
  mend: 'Open one from the shelf.',
}
