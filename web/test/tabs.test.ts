// @vitest-environment jsdom
import { createPart, type Part } from '@lathica/core/part'
import { setValue } from '@lathica/core/edit'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeAll, expect, it, vi } from 'vitest'
import { FakeBrowser } from './support/browser'
import { FakeServer } from './support/server'

/** How many rounds are played; `npm run soak` plays more. */
const ROUNDS = Number(process.env['LATHICA_ROUNDS'] ?? 40)
const FIRST = Number(process.env['LATHICA_FIRST_ROUND'] ?? 1)

type Modules = Awaited<ReturnType<typeof load>>
type Store = ReturnType<Modules['part']['usePartStore']>

/** The page's modules anew, as a tab of its own has them. */
async function load() {
  vi.resetModules()
  return {
    part: await import('../src/store/part'),
    drafts: await import('../src/drafts/drafts'),
    tab: await import('../src/drafts/tab'),
  }
}

let tabs: readonly Modules[]
beforeAll(async () => {
  tabs = [await load(), await load()]
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

/** Numbers from 0 to 1 that are the same each time. (Mulberry32.) */
function randomFrom(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

const editsIn = (document: unknown): ReadonlySet<string> =>
  new Set((document as Part | undefined)?.values.map((v) => v.name) ?? [])

/** Two tabs on one part, each with what was done in its page. */
class Round {
  private readonly random: () => number
  private readonly server: FakeServer
  private readonly browser: FakeBrowser
  private readonly pages: (Store | undefined)[] = [undefined, undefined]
  private readonly done = new Set<string>()
  /** What a designer let go by a choice of their own. */
  private readonly givenUp = new Set<string>()
  readonly log: string[] = []

  constructor(seed: number) {
    this.random = randomFrom(seed)
    this.server = new FakeServer(createPart({ name: 'Spindle' }))
    this.browser = new FakeBrowser(() => {
      const modules = this.modules(this.browser?.inHand ?? 1)
      modules.tab.forgetTab()
      modules.drafts.forgetStore()
    })
    // The second tab.
    this.browser.otherTab()
  }

  private modules(tab: number): Modules {
    const modules = tabs[tab - 1]
    if (!modules) throw new Error(`there is no tab ${tab}`)
    return modules
  }

  private async pass(ms: number): Promise<void> {
    await vi.advanceTimersByTimeAsync(ms)
    await this.browser.settle()
  }

  private async open(tab: number): Promise<void> {
    this.browser.turnTo(tab)
    await this.modules(tab).tab.thisTab()
    setActivePinia(createPinia())
    const store = this.modules(tab).part.usePartStore()
    this.pages[tab - 1] = store
    await store.open('p1')
    await this.browser.settle()
    if (store.loadProblem) {
      // The server is away; the page comes to nothing.
      this.end(tab)
    }
  }

  private end(tab: number): void {
    this.pages[tab - 1]?.close()
    this.pages[tab - 1] = undefined
    this.browser.crash(tab)
  }

  private edit(store: Store): void {
    const name = `edit${this.done.size + 1}`
    const made = store.attempt(setValue({ name, formula: '1', measure: 'number' }))
    if (!made.ok) throw new Error(made.problem.message)
    this.done.add(name)
  }

  /** What one state has and another has not is let go when that one is taken in its place. */
  private giveUp(from: unknown, to: unknown): void {
    const kept = editsIn(to)
    for (const edit of editsIn(from)) if (!kept.has(edit)) this.givenUp.add(edit)
  }

  private async choose(store: Store, tab: number): Promise<void> {
    const own = store.part
    if (store.save.kind === 'stale') {
      if (this.random() < 0.5) {
        await store.takeNewer()
        if (store.part !== own) this.giveUp(own, this.server.document)
      } else if ((await store.keepAsCopy()) !== undefined) this.end(tab)
      return
    }
    const [draft] = store.drafts
    if (!draft) return
    const way = this.random()
    if (way < 0.4) {
      this.giveUp(own, draft.document)
      await store.takeDraft(draft)
    } else if (way < 0.8) await store.keepDraftAsPart(draft, 'kept')
    else {
      this.giveUp(draft.document, undefined)
      await store.letGoDraft(draft)
    }
  }

  async step(): Promise<void> {
    const tab = this.random() < 0.5 ? 1 : 2
    const store = this.pages[tab - 1]
    const what = this.random()
    this.log.push(`${tab}: ${what.toFixed(3)} ${store?.save.kind ?? 'closed'} ${this.server.mode}`)
    if (!store) await this.open(tab)
    else if (what < 0.45) this.edit(store)
    else if (what < 0.55) {
      const modes = ['up', 'up', 'down', 'failing', 'deaf'] as const
      this.server.mode = modes[Math.floor(this.random() * modes.length)] ?? 'up'
    } else if (what < 0.65) this.end(tab)
    else if (what < 0.72) {
      await Promise.race([store.saveNow(), this.pass(1500)])
      this.end(tab)
    } else await this.choose(store, tab)
    await this.pass(this.random() < 0.3 ? 20_000 * this.random() : 900 * this.random())
  }

  /** Edits that are nowhere any more. */
  async lost(): Promise<string[]> {
    await this.pass(100)
    this.end(1)
    this.end(2)
    const drafts = await this.modules(1).drafts.draftsLeft()
    const kept = [this.server.document, ...this.server.created, ...drafts.map((d) => d.document)]
    const found = new Set(kept.flatMap((document) => [...editsIn(document)]))
    return [...this.done].filter((edit) => !found.has(edit) && !this.givenUp.has(edit))
  }
}

it(
  `no edit of two tabs vanishes unsaid, in ${ROUNDS} rounds of crashes, closed pages and a server that is away`,
  async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'Date'] })
    for (let seed = FIRST; seed < FIRST + ROUNDS; seed++) {
      const round = new Round(seed)
      for (let i = 0; i < 30; i++) await round.step()
      const lost = await round.lost()
      expect(lost, `round ${seed}\n${round.log.join('\n')}`).toEqual([])
    }
  },
  60_000 + 2000 * ROUNDS,
)
