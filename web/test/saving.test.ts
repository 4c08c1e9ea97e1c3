// @vitest-environment jsdom
import type { Part } from '@lathica/core/part'
import { renamePart } from '@lathica/core/edit'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { draftsLeft, type Draft } from '../src/drafts/drafts'
import { usePartStore } from '../src/store/part'
import {} from '../src/store/saver'
import { tellDeleted } from '../src/store/told'
import { sameDocument } from '../src/store/sameDocument'
import { FakeBrowser } from './support/browser'
import { FakeServer } from './support/server'
import { spindle } from './support/spindle'

let server: FakeServer
let browser: FakeBrowser

beforeEach(() => {
  // What the browser's stores wait for runs on.
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'Date'] })
  browser = new FakeBrowser()
  server = new FakeServer(spindle())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

/** A page that has opened the part: of the tab that was there before, or of another. */
async function openPage(tab: 'same' | 'other' = 'same') {
  if (tab === 'other') browser.otherTab()
  else browser.reload()
  setActivePinia(createPinia())
  const store = usePartStore()
  await store.open('p1')
  return store
}

/** Lets so much time pass, and everything that it sets off. */
async function pass(ms: number): Promise<void> {
  await vi.advanceTimersByTimeAsync(ms)
  await browser.settle()
}
const drafts = (): Promise<readonly Draft[]> => draftsLeft('p1')
const draftName = async (): Promise<string | undefined> => (await drafts())[0]?.name
const storedName = () => (server.document as Part).name

describe('an opened part', () => {
  it('is saved in a moment after each edit, quick edits together', async () => {
    const store = await openPage()
    expect(store.save.kind).toBe('saved')
    store.run(renamePart('One'))
    store.run(renamePart('Two'))
    expect(store.save.kind).toBe('waiting')
    await pass(2000)
    expect(store.save.kind).toBe('saved')
    expect([storedName(), server.saves]).toEqual(['Two', 1])
    expect(await drafts()).toEqual([])
  })

  it('saves undo and redo like any edit', async () => {
    const store = await openPage()
    store.run(renamePart('One'))
    await pass(2000)
    store.stepBack()
    await pass(2000)
    expect(storedName()).toBe('Spindle')
    store.stepForth()
    await pass(2000)
    expect(storedName()).toBe('One')
    expect([store.undoLabel, store.redoLabel]).toEqual(['rename part', undefined])
  })

  it('does not save what a refused edit left as it was', async () => {
    const store = await openPage()
    expect(store.attempt(renamePart('   ')).ok).toBe(false)
    await pass(2000)
    expect([store.save.kind, server.saves]).toEqual(['saved', 0])
  })

  it('goes on while the server is away, says so, and saves when it is back', async () => {
    const store = await openPage()
    server.mode = 'down'
    store.run(renamePart('One'))
    await pass(2000)
    expect(store.save.kind).toBe('unreachable')
    store.run(renamePart('Two'))
    await pass(2000)
    expect(store.save.kind).toBe('unreachable')
    expect(await draftName()).toBe('Two')
    server.mode = 'up'
    await pass(40_000)
    expect([store.save.kind, storedName()]).toEqual(['saved', 'Two'])
  })

  it('tries again after the server failed', async () => {
    const store = await openPage()
    server.mode = 'failing'
    store.run(renamePart('One'))
    await pass(1000)
    expect(store.save.kind).toBe('unreachable')
    server.mode = 'up'
    await pass(40_000)
    expect([store.save.kind, storedName()]).toEqual(['saved', 'One'])
  })

  it('takes up what an earlier visit could not save', async () => {
    const store = await openPage()
    server.mode = 'down'
    store.run(renamePart('Unsaved'))
    await pass(1000)
    store.close()
    server.mode = 'up'
    const again = await openPage()
    expect(again.part?.name).toBe('Unsaved')
    expect(again.undoLabel).toBe('take up unsaved work')
    await pass(2000)
    expect(storedName()).toBe('Unsaved')
    again.stepBack()
    expect(again.part?.name).toBe('Spindle')
  })

  it('never overwrites what was saved elsewhere: one’s own waits for a choice', async () => {
    const store = await openPage()
    server.changeElsewhere({ ...spindle(), name: 'Theirs' })
    store.run(renamePart('Mine'))
    await pass(2000)
    expect(store.save).toMatchObject({ kind: 'stale', revision: 2 })
    store.run(renamePart('Mine too'))
    await pass(60_000)
    expect([storedName(), server.saves]).toEqual(['Theirs', 1])
    await store.takeNewer()
    expect([store.part?.name, store.save.kind]).toEqual(['Theirs', 'saved'])
    store.stepBack()
    expect(store.part?.name).toBe('Mine too')
  })

  it('can keep one’s own state as a part of its own', async () => {
    const store = await openPage()
    server.changeElsewhere({ ...spindle(), name: 'Theirs' })
    store.run(renamePart('Mine'))
    await pass(2000)
    expect(await store.keepAsCopy()).toBe('copy')
    expect(server.created).toMatchObject([{ name: 'Mine (my copy)' }])
    expect(await drafts()).toEqual([])
    expect(storedName()).toBe('Theirs')
  })

  it('takes a stale answer for its own when the server has this very state', async () => {
    const store = await openPage()
    // A request that went out as the page closed: it came through, but nobody heard the answer.
    server.changeElsewhere({ ...spindle(), name: 'Mine' })
    store.run(renamePart('Mine'))
    await pass(2000)
    expect(store.save.kind).toBe('saved')
    store.run(renamePart('Mine again'))
    await pass(2000)
    expect(storedName()).toBe('Mine again')
  })

  it('goes on from what it sent itself when the answer was lost on the way', async () => {
    const store = await openPage()
    server.mode = 'deaf'
    store.run(renamePart('Sent'))
    await pass(600)
    expect([store.save.kind, storedName(), server.revision]).toEqual(['unreachable', 'Sent', 2])
    store.run(renamePart('And on'))
    server.mode = 'up'
    await pass(40_000)
    expect([store.save.kind, storedName(), store.drafts]).toEqual(['saved', 'And on', []])
  })

  it('that is loaded anew while it is saved takes up what was done since', async () => {
    const store = await openPage()
    let answer = (): void => undefined
    server.held = new Promise<void>((resolve) => (answer = resolve))
    store.run(renamePart('Sent'))
    await pass(600)
    expect(store.save.kind).toBe('saving')
    store.stepBack()
    store.run(renamePart('Done since'))
    await pass(0)
    server.held = Promise.resolve()
    // The request comes through, and the page that would hear of it is gone.
    server.changeElsewhere({ ...spindle(), name: 'Sent' })
    store.close()
    const again = await openPage()
    expect([again.part?.name, again.drafts, again.undoLabel]).toEqual([
      'Done since',
      [],
      'take up unsaved work',
    ])
    await pass(2000)
    expect([storedName(), again.save.kind]).toEqual(['Done since', 'saved'])
    expect(await drafts()).toEqual([])
    answer()
    await pass(0)
    expect(storedName()).toBe('Done since')
  })

  it('that is loaded anew before what it sent came through goes on from that as well', async () => {
    const store = await openPage()
    server.held = new Promise(() => undefined)
    store.run(renamePart('Sent'))
    await pass(600)
    store.run(renamePart('Done since'))
    await pass(0)
    server.held = Promise.resolve()
    store.close()
    const again = await openPage()
    expect(again.part?.name).toBe('Done since')
    server.changeElsewhere({ ...spindle(), name: 'Sent' })
    await pass(2000)
    expect([storedName(), again.save.kind]).toEqual(['Done since', 'saved'])
  })

  it('offers a draft beside a newer server state, and does not put it over that', async () => {
    const store = await openPage()
    server.mode = 'down'
    store.run(renamePart('Draft'))
    await pass(1000)
    store.close()
    server.mode = 'up'
    server.changeElsewhere({ ...spindle(), name: 'Theirs' })
    const again = await openPage()
    expect([again.part?.name, again.save.kind]).toEqual(['Theirs', 'saved'])
    expect(again.drafts.map((d) => d.name)).toEqual(['Draft'])
    await pass(5000)
    expect([storedName(), await draftName()]).toEqual(['Theirs', 'Draft'])
    const [draft] = again.drafts
    if (draft) await again.takeDraft(draft)
    await pass(2000)
    expect([storedName(), again.drafts, await drafts()]).toEqual(['Draft', [], []])
    again.stepBack()
    expect(again.part?.name).toBe('Theirs')
  })

  it('offers what another tab left behind; what a tab that is open has not saved is its own', async () => {
    const first = await openPage()
    server.mode = 'down'
    first.run(renamePart('Of the first'))
    await pass(1000)
    server.mode = 'up'
    const second = await openPage('other')
    expect(second.drafts).toEqual([])
    browser.crash(1)
    const third = await openPage('other')
    expect([third.part?.name, third.drafts.map((d) => d.name)]).toEqual([
      'Spindle',
      ['Of the first'],
    ])
    third.run(renamePart('Of the third'))
    await pass(1000)
    // Its own draft went with its saving, the other one stays until it is chosen.
    expect([storedName(), await draftName()]).toEqual(['Of the third', 'Of the first'])
    const [draft] = third.drafts
    const back = draft && (await third.letGoDraft(draft))
    expect(await drafts()).toEqual([])
    await back?.()
    expect(third.drafts.map((d) => d.name)).toEqual(['Of the first'])
    expect(await (draft && third.keepDraftAsPart(draft, 'Of the first (kept)'))).toBe('copy')
    expect(server.created).toMatchObject([{ name: 'Of the first (kept)' }])
    expect(await drafts()).toEqual([])
  })

  it('of a doubled tab is not mistaken for that of the first', async () => {
    const first = await openPage()
    server.mode = 'down'
    first.run(renamePart('Of the first'))
    await pass(1000)
    server.mode = 'up'
    // What a doubled tab takes over says that it is the first, which is still there.
    browser.doubleTab()
    setActivePinia(createPinia())
    const double = usePartStore()
    await double.open('p1')
    expect([double.part?.name, double.drafts]).toEqual(['Spindle', []])
    server.mode = 'down'
    double.run(renamePart('Of the double'))
    await pass(1000)
    browser.crash(1)
    browser.crash(2)
    expect((await drafts()).map((d) => d.name).sort()).toEqual(['Of the double', 'Of the first'])
  })

  it('says where a browser keeps nothing', async () => {
    const store = await openPage()
    browser.keepNothing()
    server.mode = 'down'
    store.run(renamePart('One'))
    await pass(1000)
    expect([store.save.kind, store.isKept]).toEqual(['unreachable', false])
    server.mode = 'up'
    await pass(40_000)
    expect([store.save.kind, storedName()]).toEqual(['saved', 'One'])
  })

  it('takes over drafts as they were kept once', async () => {
    const document = JSON.parse(JSON.stringify({ ...spindle(), name: 'Kept once' })) as object
    localStorage.setItem('lathica.draft.p1', JSON.stringify({ revision: 1, document }))
    const store = await openPage()
    expect(store.drafts.map((d) => d.name)).toEqual(['Kept once'])
    expect(localStorage.length).toBe(0)
  })

  it('that was deleted elsewhere is told, kept, and put back at a word', async () => {
    const store = await openPage()
    server.deleted = true
    store.run(renamePart('Goes on'))
    await pass(2000)
    expect([store.save.kind, await draftName()]).toEqual(['gone', 'Goes on'])
    store.run(renamePart('Goes on and on'))
    await pass(60_000)
    expect(store.save.kind).toBe('gone')
    expect(await store.putPartBack()).toBe('p1')
    await pass(2000)
    expect([store.save.kind, storedName(), await drafts()]).toEqual(['saved', 'Goes on and on', []])
  })

  it('that is no more at all becomes a new part', async () => {
    const store = await openPage()
    server.deleted = 'for good'
    store.run(renamePart('Goes on'))
    await pass(2000)
    expect(await store.putPartBack()).toBe('copy')
    expect(server.created).toMatchObject([{ name: 'Goes on' }])
    expect(await drafts()).toEqual([])
  })

  it('says what is wrong when it cannot be opened', async () => {
    setActivePinia(createPinia())
    const store = usePartStore()
    await store.open('gone')
    expect(store.loadProblem?.message).toBe('There is no such part.')
    server.mode = 'down'
    await store.open('p1')
    expect(store.loadProblem?.code).toBe('offline')
    server.mode = 'up'
    server.document = { format: 'lathica-part', version: 99 }
    await store.open('p1')
    expect(store.loadProblem?.code).toBe('file.newer')
  })

  it('has a way to save at once', async () => {
    const store = await openPage()
    store.run(renamePart('Now'))
    await store.saveNow()
    expect([store.save.kind, storedName()]).toEqual(['saved', 'Now'])
  })
})

describe('two pages with the same part', () => {
  it('follow each other while nothing waits', async () => {
    vi.useRealTimers()
    const first = await openPage()
    const second = await openPage('other')
    first.run(renamePart('From the first'))
    await first.saveNow()
    await vi.waitFor(() => expect(second.part?.name).toBe('From the first'))
    expect(second.save.kind).toBe('saved')
    second.stepBack()
    expect(second.part?.name).toBe('Spindle')
    tellDeleted('p1')
    await vi.waitFor(() => expect([first.save.kind, second.save.kind]).toEqual(['gone', 'gone']))
    first.close()
    second.close()
  })
})

describe('what another page saved', () => {
  it('is not put over what was begun while it was on its way', async () => {
    vi.useRealTimers()
    const store = await openPage()
    server.changeElsewhere({ ...spindle(), name: 'Theirs' })
    let release = (): void => undefined
    server.held = new Promise<void>((resolve) => (release = resolve))
    const before = server.asked
    const pages = new BroadcastChannel('lathica.saved')
    pages.postMessage({ id: 'p1', revision: 2 })
    await vi.waitFor(() => expect(server.asked).toBe(before + 1))
    store.run(renamePart('Mine'))
    release()
    await vi.waitFor(() => expect(store.save.kind).toBe('stale'))
    expect(store.part?.name).toBe('Mine')
    await browser.settle()
    expect(await draftName()).toBe('Mine')
    expect(storedName()).toBe('Theirs')
    pages.close()
    store.close()
  })
})

describe('documents', () => {
  it('are the same up to rounding, and no further', () => {
    expect(sameDocument({ a: [1, 'x', null] }, { a: [1 + 1e-12, 'x', null] })).toBe(true)
    expect(sameDocument({ a: 1 }, { a: 1.000001 })).toBe(false)
    expect(sameDocument({ a: 1 }, { a: 1, b: 2 })).toBe(false)
    expect(sameDocument({ a: 1, c: 2 }, { a: 1, b: 2 })).toBe(false)
    expect(sameDocument([1], { 0: 1 })).toBe(false)
    expect(sameDocument(null, {})).toBe(false)
    expect(sameDocument('1', 1)).toBe(false)
  })
})
