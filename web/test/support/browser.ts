import { IDBFactory } from 'fake-indexeddb'
import 'fake-indexeddb/auto'
import { vi } from 'vitest'
import { forgetStore } from '../../src/drafts/drafts'
import { forgetTab } from '../../src/drafts/tab'

function forgetAll(): void {
  forgetTab()
  forgetStore()
}

/**
 * A browser's tabs as pages see them: each has its store of the session, all share the stores of the site and the
 * locks, which go with the page that holds them. The first tab is there from the start; tabs count from one.
 */
export class FakeBrowser {
  private readonly holders = new Map<string, number>()
  private readonly sessions = new Map<number, [string, string][]>()
  private tab = 1
  private tabs = 1

  /** @param forget what a page that begins forgets of the one before it */
  constructor(private readonly forget: () => void = forgetAll) {
    localStorage.clear()
    sessionStorage.clear()
    vi.stubGlobal('indexedDB', new IDBFactory())
    Object.defineProperty(navigator, 'locks', { configurable: true, value: this.locks() })
    this.begin()
  }

  /** The page in hand is loaded anew: it lets go of what it held. */
  reload(): void {
    this.crash(this.tab)
    this.begin()
  }

  /** A tab of its own is opened, and is the one in hand. */
  otherTab(): void {
    this.turnTo(++this.tabs)
  }

  /** The tab in hand is doubled, with its store of the session; the double is in hand. */
  doubleTab(): void {
    const session = Object.entries({ ...sessionStorage }) as [string, string][]
    this.sessions.set(++this.tabs, session)
    this.turnTo(this.tabs)
  }

  /** Goes back to a tab, whose page is loaded anew. */
  turnTo(tab: number): void {
    this.sessions.set(this.tab, Object.entries({ ...sessionStorage }) as [string, string][])
    this.tab = tab
    sessionStorage.clear()
    for (const [key, value] of this.sessions.get(tab) ?? []) sessionStorage.setItem(key, value)
    this.begin()
  }

  /** The number of the tab in hand. */
  get inHand(): number {
    return this.tab
  }

  /** A tab's page ends, whatever it was doing. */
  crash(tab: number): void {
    for (const [name, holder] of this.holders) if (holder === tab) this.holders.delete(name)
  }

  /** From now on the browser refuses to store anything. */
  keepNothing(): void {
    const refuse = (): never => {
      throw new DOMException('It is not allowed here.', 'SecurityError')
    }
    vi.stubGlobal('indexedDB', { open: refuse })
    forgetStore()
  }

  /** Lets the stores do what they were asked to. */
  async settle(): Promise<void> {
    for (let i = 0; i < 40; i++) await new Promise((resolve) => setImmediate(resolve))
  }

  private begin(): void {
    this.forget()
  }

  private locks(): object {
    return {
      request: (name: string, _: object, then: (lock: object | null) => unknown) => {
        const isFree = !this.holders.has(name)
        if (isFree) this.holders.set(name, this.tab)
        return Promise.resolve(then(isFree ? { name } : null))
      },
      query: () => Promise.resolve({ held: [...this.holders.keys()].map((name) => ({ name })) }),
    }
  }
}
