import type { Problem } from '@lathica/core/result'
import type { Part } from '@lathica/core/part'
import { toDocument } from '@lathica/core/formats'
import { ApiError, api } from '../api/client'
import { dropOwnDraft, keepDraft } from '../drafts/drafts'
import { sameDocument } from './sameDocument'
import { CHANNEL, type Told } from './told'

/** How the opened part stands with the server. */
export type SaveState =
  | { readonly kind: 'saved'; readonly at: string }
  | { readonly kind: 'waiting' }
  | { readonly kind: 'saving' }
  /** The server is away or failed; saving is tried again by itself. */
  | { readonly kind: 'unreachable'; readonly problem: Problem }
  /** The server refuses this very document; it is tried again with the next change. */
  | { readonly kind: 'refused'; readonly problem: Problem }
  /** Someone else saved in between; the designer chooses. */
  | { readonly kind: 'stale'; readonly revision: number }
  /** Someone else deleted the part; the designer chooses. */
  | { readonly kind: 'gone' }

interface SaverOptions {
  readonly document: () => Part | undefined
  readonly onState: (state: SaveState) => void
  /** Another page saved this part, and nothing waits here. */
  readonly onNewer: (revision: number) => void
  /** Whether this browser keeps what the server has not yet. */
  readonly onKept: (isKept: boolean) => void
}

export interface Saver {
  /**
   * Starts to keep a part of a project that stands at a revision.
   * @param sent what an earlier page sent without hearing whether it came through
   */
  begin(
    partId: string,
    projectId: string,
    revision: number,
    at: string,
    sent?: readonly object[],
  ): void
  /** Says that the part has changed; it is saved in a moment. */
  changed(): void
  /** Says that the server has a state one's own does not follow from. */
  disagree(revision: number): void
  /** Saves at once what waits. */
  flush(): Promise<void>
  /** Resolves when what was changed last is kept by the browser, or cannot be. */
  kept(): Promise<void>
  end(): void
}

/** Time between a change and its being saved, so that quick edits go together. */
const SETTLE_MS = 500
const FIRST_RETRY_MS = 1500
const LONGEST_RETRY_MS = 15_000
/** So many documents sent without an answer are remembered: the first ones, and the last. */
const MOST_SENT = 4

/**
 * Saves a part whenever it changes: one request at a time, tried again while the server is away,
 * stopped when another page's work would be overwritten. Open pages tell one another what they saved.
 */
export function createSaver({ document, onState, onNewer, onKept }: SaverOptions): Saver {
  let partId = ''
  let projectId = ''
  let revision = 0
  let state: SaveState = { kind: 'saved', at: '' }
  let timer: ReturnType<typeof setTimeout> | undefined
  let running: Promise<void> | undefined
  let retryMs = FIRST_RETRY_MS
  /** What the draft in the browser holds. */
  let kept: Part | undefined
  let keeping: Promise<void> = Promise.resolve()
  /** Documents sent to follow on the revision, of which nobody knows yet whether they came through. */
  let sent: readonly object[] = []
  const pages = new BroadcastChannel(CHANNEL)

  const become = (next: SaveState): void => {
    state = next
    onState(next)
  }

  const schedule = (ms: number): void => {
    clearTimeout(timer)
    timer = setTimeout(() => void flush(), ms)
  }

  const keep = (part: Part): void => {
    kept = part
    const { name } = part
    const draft = { partId, projectId, name, revision, document: toDocument(part), sent }
    keeping = keepDraft(draft).then(onKept)
  }

  const changed = (): void => {
    const part = document()
    if (!part || partId === '') return
    keep(part)
    if (isAtOdds()) return
    if (state.kind !== 'saving') become({ kind: 'waiting' })
    schedule(SETTLE_MS)
  }

  /** Saving waits for a choice of the designer. */
  const isAtOdds = (): boolean => state.kind === 'stale' || state.kind === 'gone'

  const flush = async (): Promise<void> => {
    clearTimeout(timer)
    if (running) await running
    if (partId === '' || state.kind === 'saved' || isAtOdds()) return
    running = saveOnce().finally(() => (running = undefined))
    await running
  }

  const saveOnce = async (): Promise<void> => {
    const part = document()
    const savedId = partId
    if (!part) return
    become({ kind: 'saving' })
    try {
      const sending = toDocument(part)
      sent = [...sent.slice(0, MOST_SENT - 1), sending]
      const saved = await api.savePart(savedId, revision, sending)
      if (kept === part) void dropOwnDraft(savedId)
      settled(savedId, part, saved.revision, saved.updatedAt)
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      if (savedId !== partId) return
      if (error.status === 409) await stale(savedId, part, error)
      else if (error.status === 404) become({ kind: 'gone' })
      else failed(error)
    }
  }

  /** The server has this very state now, under a revision. */
  const settled = (savedId: string, part: Part, at: number, savedAt: string): void => {
    pages.postMessage({ id: savedId, revision: at } satisfies Told)
    if (savedId !== partId) return
    revision = at
    sent = []
    retryMs = FIRST_RETRY_MS
    if (document() === part) become({ kind: 'saved', at: savedAt })
    else changed()
  }

  /** A request nobody heard the answer of may have come through after all: then nothing is at odds. */
  const stale = async (savedId: string, part: Part, error: ApiError): Promise<void> => {
    const there = await api.part(savedId).catch(() => undefined)
    if (savedId !== partId) return
    if (there && sameDocument(there.document, toDocument(part))) {
      if (kept === part) void dropOwnDraft(savedId)
      settled(savedId, part, there.revision, there.updatedAt)
    } else if (there && sent.some((one) => sameDocument(one, there.document))) {
      revision = there.revision
      sent = []
      pages.postMessage({ id: savedId, revision } satisfies Told)
      become({ kind: 'waiting' })
      changed()
    } else become({ kind: 'stale', revision: error.revision ?? revision + 1 })
  }

  const failed = (error: ApiError): void => {
    if (error.status >= 400 && error.status < 500) {
      become({ kind: 'refused', problem: error.problem })
    } else {
      become({ kind: 'unreachable', problem: error.problem })
      schedule(retryMs)
      retryMs = Math.min(LONGEST_RETRY_MS, retryMs * 2)
    }
  }

  pages.onmessage = ({ data }: MessageEvent<Told>) => {
    if (data.id !== partId) return
    if (data.revision === 'gone') {
      become({ kind: 'gone' })
      return
    }
    if (data.revision <= revision || state.kind === 'gone') return
    if (state.kind === 'saved') onNewer(data.revision)
    else if (state.kind !== 'saving') become({ kind: 'stale', revision: data.revision })
  }

  /** A page that closes sends what waits; should that fail, the draft is there at the next visit. */
  const onLeave = (): void => {
    const part = document()
    if (!part || partId === '' || state.kind === 'saved') return
    if (kept !== part) keep(part)
    if (state.kind === 'waiting') {
      void api.savePart(partId, revision, toDocument(part), true).catch(() => undefined)
    }
  }
  const onBack = (): void => {
    if (state.kind === 'unreachable') schedule(0)
  }

  return {
    begin(id, project, at, savedAt, unheard = []) {
      clearTimeout(timer)
      partId = id
      projectId = project
      revision = at
      sent = unheard
      retryMs = FIRST_RETRY_MS
      become({ kind: 'saved', at: savedAt })
      window.addEventListener('pagehide', onLeave)
      window.addEventListener('online', onBack)
    },
    changed,
    disagree(newer) {
      const part = document()
      if (part) keep(part)
      become({ kind: 'stale', revision: newer })
    },
    flush,
    kept: () => keeping,
    end() {
      clearTimeout(timer)
      partId = ''
      window.removeEventListener('pagehide', onLeave)
      window.removeEventListener('online', onBack)
    },
  }
}
