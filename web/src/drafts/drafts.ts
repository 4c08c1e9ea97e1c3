import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { openTabs, thisTab } from './tab'

/** Work that is not on the server, kept by the browser: that of one tab on one part. */
export interface Draft {
  readonly tab: string
  readonly partId: string
  readonly projectId: string
  /** What the part is called in it. */
  readonly name: string
  /** The revision the work began from. */
  readonly revision: number
  /** When it was last changed, in ms since 1970. */
  readonly at: number
  /** Another one at every change: what was read once may have been replaced since. */
  readonly stamp: string
  readonly document: object
  /** What was sent to follow on the revision, without hearing whether it came through. */
  readonly sent?: readonly object[]
}

interface Schema extends DBSchema {
  drafts: { key: [string, string]; value: Draft; indexes: { partId: string } }
}

let opened: Promise<IDBPDatabase<Schema>> | undefined

const database = (): Promise<IDBPDatabase<Schema>> => (opened ??= open())

async function open(): Promise<IDBPDatabase<Schema>> {
  const made = await openDB<Schema>('lathica', 1, {
    upgrade(made) {
      const drafts = made.createObjectStore('drafts', { keyPath: ['tab', 'partId'] })
      drafts.createIndex('partId', 'partId')
    },
    // A browser that swept its stores up is asked anew the next time.
    terminated: forgetStore,
  }).catch((error: unknown) => {
    forgetStore()
    throw error
  })
  await bringOver(made)
  return made
}

/** The next one who asks opens the store anew. */
export function forgetStore(): void {
  opened = undefined
}

/** Drafts as they were kept once: by part, as text. */
const FORMER = 'lathica.draft.'

async function bringOver(made: IDBPDatabase<Schema>): Promise<void> {
  for (const key of Object.keys(localStorage).filter((k) => k.startsWith(FORMER))) {
    const partId = key.slice(FORMER.length)
    try {
      const { revision, document } = JSON.parse(localStorage.getItem(key) ?? '') as Draft
      const { name } = document as { readonly name?: unknown }
      const draft = { tab: 'former', partId, projectId: '', name: String(name), revision, document }
      await made.put('drafts', { ...draft, at: Date.now(), stamp: crypto.randomUUID() })
    } catch {
      // What cannot be read is no work that could be lost.
    }
    localStorage.removeItem(key)
  }
}

/** Keeps this tab's work on a part, in place of what it was. False when this browser cannot. */
export async function keepDraft(draft: Omit<Draft, 'tab' | 'at' | 'stamp'>): Promise<boolean> {
  const made = { at: Date.now(), stamp: crypto.randomUUID() }
  try {
    const tab = await thisTab()
    await (await database()).put('drafts', { ...draft, ...made, tab })
    return true
  } catch {
    return false
  }
}

/** Lets this tab's draft of a part go: what it holds is saved. */
export async function dropOwnDraft(partId: string): Promise<void> {
  try {
    await (await database()).delete('drafts', [await thisTab(), partId])
  } catch {
    // One that cannot be let go is offered once more.
  }
}

/** Lets a draft go that was read before; not what its tab has put in its place since. */
export async function dropDraft({ tab, partId, stamp }: Draft): Promise<void> {
  try {
    const { store, done } = (await database()).transaction('drafts', 'readwrite')
    const now = await store.get([tab, partId])
    if (now?.stamp === stamp) await store.delete([tab, partId])
    await done
  } catch {
    // As above.
  }
}

/** Makes room for new work of this tab beside a draft of its own that waits for a choice. */
export async function setAside(draft: Draft): Promise<Draft> {
  const aside = { ...draft, tab: crypto.randomUUID() }
  const moving = (await database()).transaction('drafts', 'readwrite')
  await Promise.all([
    moving.store.put(aside),
    moving.store.delete([draft.tab, draft.partId]),
    moving.done,
  ])
  return aside
}

/** Puts a draft back that was let go. */
export async function putBack(draft: Draft): Promise<void> {
  await (await database()).put('drafts', draft)
}

/**
 * Drafts that no open page works on, and this page's own; the newest first.
 * @param partId of one part; of all, if left out
 */
export async function draftsLeft(partId?: string): Promise<readonly Draft[]> {
  try {
    const store = await database()
    const all = await (partId === undefined
      ? store.getAll('drafts')
      : store.getAllFromIndex('drafts', 'partId', partId))
    const [own, open] = [await thisTab(), await openTabs()]
    return all
      .filter(({ tab }) => tab === own || !open.has(tab))
      .sort((a, b) => Number(b.tab === own) - Number(a.tab === own) || b.at - a.at)
  } catch {
    return []
  }
}
