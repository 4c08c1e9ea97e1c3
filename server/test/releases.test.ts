import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { createPart } from '@lathica/core/part'
import { toDocument } from '@lathica/core/formats'
import { openDatabase } from '../src'
import { rescueDatabase } from '../src/database/rescue'
import { startServer, type Started } from './support'

let folder: string
let file: string
let started: Started
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'lathica-releases-'))
  file = join(folder, 'gauge.sqlite')
  started = await startServer({ filename: file })
})
afterEach(async () => {
  await started.stop()
  await rm(folder, { recursive: true })
})

async function call(method: string, path: string, body?: unknown) {
  const response = await fetch(started.base + path, {
    method,
    headers: { 'content-type': 'application/json', connection: 'close' },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  })
  const text = await response.text()
  return { status: response.status, body: JSON.parse(text === '' ? '{}' : text) as Answer }
}
interface Answer {
  readonly id?: string
  readonly code?: string
  readonly words?: string
  readonly document?: unknown
  readonly sheets?: readonly string[]
}

const document = toDocument(createPart({ name: 'Float rod' }))
const PDF = Buffer.from('%PDF-1.3 of a sheet')
const release = (mark: string, more: object = {}) => ({
  ...{ mark, words: 'first release', document, sheets: ['<svg/>'], pdf: PDF.toString('base64') },
  ...more,
})

async function newPart(): Promise<string> {
  const project = await call('POST', '/api/projects', { name: 'Skerry Point tide gauge' })
  const made = await call('POST', `/api/projects/${project.body.id}/parts`, { document })
  return String(made.body.id)
}

describe('released drawings', () => {
  it('are kept as they were, each mark once', async () => {
    const id = await newPart()
    const path = `/api/parts/${id}/releases`
    expect((await call('GET', path)).body).toEqual([])
    expect((await call('POST', path, release('A'))).status).toBe(201)
    const again = await call('POST', path, release('A', { words: 'another' }))
    expect([again.status, again.body.code]).toEqual([409, 'release.kept'])
    await call('POST', path, release('B', { words: 'wider' }))
    expect((await call('GET', path)).body).toMatchObject([
      { mark: 'A', words: 'first release' },
      { mark: 'B', words: 'wider' },
    ])
    // What is large is sent by itself.
    const cards = (await call('GET', path)).body as unknown as object[]
    for (const card of cards) {
      for (const large of ['document', 'sheets', 'pdf']) expect(card).not.toHaveProperty(large)
    }
    // The part goes on being changed.
    const other = toDocument(createPart({ name: 'Changed' }))
    expect((await call('PUT', `/api/parts/${id}`, { revision: 1, document: other })).status).toBe(
      200,
    )
    const kept = await call('GET', `${path}/A`)
    expect(kept.body).toMatchObject({ words: 'first release', document, sheets: ['<svg/>'] })
    const pdf = await fetch(`${started.base}${path}/A/pdf`)
    expect(pdf.headers.get('content-type')).toContain('application/pdf')
    expect(pdf.headers.get('content-disposition')).toContain('attachment')
    expect(Buffer.from(await pdf.arrayBuffer())).toEqual(PDF)
    for (const method of ['PUT', 'DELETE', 'PATCH']) {
      const answer = await fetch(`${started.base}${path}/A`, { method })
      expect(answer.status).toBe(405)
    }
  })

  it('are refused where they are none, or of no part', async () => {
    const id = await newPart()
    const path = `/api/parts/${id}/releases`
    expect((await call('POST', '/api/parts/nobody/releases', release('A'))).status).toBe(404)
    expect((await call('GET', `${path}/A`)).status).toBe(404)
    expect((await call('GET', `${path}/A/pdf`)).status).toBe(404)
    for (const wrong of [
      release('1'),
      release('A', { sheets: [] }),
      release('A', { pdf: '<script>' }),
      release('A', { document: { format: 'lathica-part', version: 1 } }),
      release('A', { more: 1 }),
    ]) {
      expect((await call('POST', path, wrong)).status).toBeGreaterThanOrEqual(400)
    }
    expect((await call('GET', path)).body).toEqual([])
  })

  it('are saved out of a damaged database with their parts', async () => {
    const id = await newPart()
    await call('POST', `/api/parts/${id}/releases`, release('A'))
    const to = join(folder, 'rescued.sqlite')
    await rescueDatabase(file, to)
    const database = await openDatabase(to)
    const rows = (await database('releases').select('part_id', 'mark', 'pdf')) as object[]
    await database.destroy()
    expect(rows).toEqual([{ part_id: id, mark: 'A', pdf: PDF.toString('base64') }])
  })
})
