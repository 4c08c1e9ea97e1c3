import { expect, test, type BrowserContext, type Page } from '@playwright/test'
import { randomFrom } from '../fuzz/random'
import { Workshop } from './support/board'

/** How many rounds are played; more are asked for by hand. */
const ROUNDS = Number(process.env['LATHICA_TAB_ROUNDS'] ?? 2)
const FIRST = Number(process.env['LATHICA_FIRST_ROUND'] ?? 1)
const STEPS = 9

const namesIn = (text: string): string[] => text.match(/\bedit\d+\b/g) ?? []

/** Two tabs of one browser on one part: both edit, lose the server, are closed, crash and are opened again. */
class Round {
  private readonly random: () => number
  private readonly tabs: (Page | undefined)[] = [undefined, undefined]
  private readonly away = new Set<Page>()
  private readonly done: string[] = []
  readonly log: string[] = []

  constructor(
    private readonly context: BrowserContext,
    private readonly name: string,
    private readonly id: string,
    seed: number,
  ) {
    this.random = randomFrom(seed)
  }

  private async open(tab: number): Promise<void> {
    const page = await this.context.newPage()
    this.tabs[tab] = page
    await page.goto(`/part/${this.id}`)
    await new Workshop(page).ready()
  }

  /** What is on the server of this part and of copies of it, and what this browser keeps. */
  async kept(): Promise<ReadonlySet<string>> {
    const { request } = this.context
    const projects = (await (await request.get('/api/projects')).json()) as {
      parts: { id: string; name: string }[]
    }[]
    const parts = projects.flatMap((p) => p.parts).filter((p) => p.name.includes(this.name))
    const texts = await Promise.all(
      parts.map(async (p) => (await request.get(`/api/parts/${p.id}`)).text()),
    )
    const reader = await this.context.newPage()
    await reader.goto('/mark.svg')
    const drafts = await reader.evaluate(
      () =>
        new Promise<string>((resolve, reject) => {
          const opening = indexedDB.open('lathica')
          opening.onerror = () => reject(new Error('it cannot be opened'))
          opening.onsuccess = () => {
            const stores = [...opening.result.objectStoreNames]
            if (stores.length === 0) return resolve('')
            const all: unknown[] = []
            const reading = opening.result.transaction(stores)
            for (const store of stores) {
              const asked = reading.objectStore(store).getAll()
              asked.onsuccess = () => all.push(asked.result)
            }
            reading.oncomplete = () => {
              opening.result.close()
              resolve(JSON.stringify(all))
            }
          }
        }),
    )
    await reader.close()
    return new Set([...texts, drafts].flatMap(namesIn))
  }

  private async edit(page: Page): Promise<void> {
    const name = `edit${this.done.length + 1}`
    await page.getByLabel('name of a new value').fill(name)
    await page.getByLabel('formula of the new value').fill('1')
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await expect(page.getByRole('rowheader', { name, exact: true })).toBeVisible()
    this.done.push(name)
  }

  /** Whether all that was done is kept somewhere. */
  async expectKept(): Promise<void> {
    await expect
      .poll(async () => {
        const kept = await this.kept()
        return this.done.filter((name) => !kept.has(name))
      })
      .toEqual([])
  }

  /** What the page asks is answered so that nothing is let go. */
  private async answer(page: Page): Promise<void> {
    const mine = page.getByRole('button', { name: 'Keep mine as its own part' })
    const draft = page.getByRole('button', { name: 'Keep as a part of its own' })
    if (await mine.isVisible()) {
      await mine.click()
      await expect(page).not.toHaveURL(new RegExp(this.id))
      await page.goto(`/part/${this.id}`)
      await new Workshop(page).ready()
    } else if (await draft.isVisible()) {
      const other = await draft.count()
      await draft.first().click()
      await expect(draft).toHaveCount(other - 1)
    }
  }

  async step(): Promise<void> {
    const tab = this.random() < 0.5 ? 0 : 1
    const page = this.tabs[tab]
    const what = this.random()
    const note = (words: string): void => void this.log.push(`${tab === 0 ? 'A' : 'B'} ${words}`)
    if (!page) {
      note('opens')
      return this.open(tab)
    }
    if (what < 0.45) {
      note('edits')
      return this.edit(page)
    }
    if (what < 0.6) {
      const isAway = this.away.has(page)
      note(isAway ? 'has the server again' : 'loses the server')
      if (isAway) {
        this.away.delete(page)
        return page.unroute('**/api/**')
      }
      this.away.add(page)
      await page.route('**/api/**', (route) => route.abort())
      return
    }
    if (what < 0.75) {
      if (this.away.has(page)) return
      note('answers')
      return this.answer(page)
    }
    // What is closed or crashes a moment after an edit has been put aside by then.
    await this.expectKept()
    this.tabs[tab] = undefined
    if (what < 0.88) {
      note('is closed')
      return page.close({ runBeforeUnload: false })
    }
    note('crashes')
    const session = await this.context.newCDPSession(page)
    const crashed = page.waitForEvent('crash')
    void session.send('Page.crash').catch(() => undefined)
    await crashed
    await page.close()
  }

  /** Every tab is given the server again and closed; a last look finds what is not on the server. */
  async end(): Promise<void> {
    await this.expectKept()
    for (const page of this.tabs) await page?.close()
    const page = await this.context.newPage()
    await page.goto(`/part/${this.id}`)
    await new Workshop(page).ready()
    await this.expectKept()
    await page.close()
  }
}

for (let seed = FIRST; seed < FIRST + ROUNDS; seed++) {
  test(`two tabs that edit one part lose nothing, whatever happens to them: round ${seed}`, async ({
    browser,
    baseURL,
  }) => {
    const context = await browser.newContext(baseURL === undefined ? {} : { baseURL })
    const page = await context.newPage()
    const shop = new Workshop(page)
    const name = `Round ${seed} of two tabs`
    await shop.newPart(name)
    const id = /part\/([^/?]+)/.exec(page.url())?.[1] ?? ''
    await page.close()
    const round = new Round(context, name, id, seed)
    try {
      for (let step = 0; step < STEPS; step++) await round.step()
      await round.end()
    } catch (error) {
      throw new Error(`after ${round.log.join(', ')}`, { cause: error })
    } finally {
      await context.close()
    }
  })
}
