// @vitest-environment jsdom
import { renamePart, type Part } from '@lathica/core'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { readDraft } from '../src/store/drafts'
import { usePartStore } from '../src/store/part'
import { sameDocument } from '../src/store/sameDocument'
import { FakeServer } from './support/server'
import { spindle } from './support/spindle'

let server: FakeServer

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
  server = new FakeServer(spindle())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

/** A page of its own that has opened the part. */
async function openPage() {
  setActivePinia(createPinia())
  const store = usePartStore()
  await store.open('p1')
  return store
}

/** Lets so much time pass, and everything that it sets off. */
const pass = (ms: number) => vi.advanceTimersByTimeAsync(ms)
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
    expect(readDraft('p1')).toBeUndefined()
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
    expect((readDraft('p1')?.document as Part).name).toBe('Two')
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
    expect(readDraft('p1')).toBeUndefined()
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

  it('sets a draft against a newer server state before the designer, not over it', async () => {
    const store = await openPage()
    server.mode = 'down'
    store.run(renamePart('Draft'))
    await pass(1000)
    store.close()
    server.mode = 'up'
    server.changeElsewhere({ ...spindle(), name: 'Theirs' })
    const again = await openPage()
    expect([again.part?.name, again.save.kind]).toEqual(['Draft', 'stale'])
    await pass(5000)
    expect(storedName()).toBe('Theirs')
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
    const second = await openPage()
    first.run(renamePart('From the first'))
    await first.saveNow()
    await vi.waitFor(() => expect(second.part?.name).toBe('From the first'))
    expect(second.save.kind).toBe('saved')
    second.stepBack()
    expect(second.part?.name).toBe('Spindle')
    first.close()
    second.close()
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
