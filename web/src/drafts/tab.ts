/** Where a page finds again which one it was before it was loaded anew. */
const KEY = 'lathica.tab'

const lockOf = (id: string): string => `lathica.tab.${id}`

/** How long a page that is loaded anew waits for the one it was before to let go, in ms. */
const LONGEST = 2000

let claimed: Promise<string> | undefined

/**
 * What this page is called, as long as its tab is open. A tab that was doubled has the name of the first in its
 * store, but cannot hold it, and gets one of its own.
 */
export const thisTab = (): Promise<string> => (claimed ??= claim())

/** Forgets who this page is, as a page that is loaded anew does. */
export function forgetTab(): void {
  claimed = undefined
}

async function claim(): Promise<string> {
  const before = stored()
  if (before !== undefined && (await hold(before, isReload() ? LONGEST : 0))) return before
  const own = crypto.randomUUID()
  await hold(own, 0)
  try {
    sessionStorage.setItem(KEY, own)
  } catch {
    // Without a store the page is a new one each time; its drafts are offered like those of others.
  }
  return own
}

function stored(): string | undefined {
  try {
    return sessionStorage.getItem(KEY) ?? undefined
  } catch {
    return undefined
  }
}

const isReload = (): boolean => {
  const [entry] = performance.getEntriesByType('navigation') as { readonly type?: string }[]
  return entry?.type === 'reload' || entry?.type === 'back_forward'
}

/** Holds a name for as long as the page is there. False when another page does. */
function hold(id: string, longest: number): Promise<boolean> {
  const { locks } = navigator as { readonly locks?: LockManager }
  if (!locks) return Promise.resolve(true)
  const asked: LockOptions =
    longest > 0 ? { signal: AbortSignal.timeout(longest) } : { ifAvailable: true }
  return new Promise((resolve) => {
    locks
      .request(lockOf(id), asked, (lock) => {
        resolve(lock !== null)
        return lock ? new Promise(() => undefined) : undefined
      })
      .catch(() => resolve(false))
  })
}

/** The tabs that are open, this one too. */
export async function openTabs(): Promise<ReadonlySet<string>> {
  const { locks } = navigator as { readonly locks?: LockManager }
  const held = (await locks?.query())?.held ?? []
  const start = lockOf('')
  const names = held.flatMap(({ name }) => (name === undefined ? [] : [name]))
  return new Set([
    await thisTab(),
    ...names.filter((n) => n.startsWith(start)).map((n) => n.slice(start.length)),
  ])
}
