import { request as httpRequest } from 'node:http'
import { mkdtemp, rm } from 'node:fs/promises'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { createPart, PLAIN_BLOCK, type Part, type TitleBlock } from '@lathica/core/part'
import { toDocument } from '@lathica/core/formats'
import { startServer, type Started } from './support'

let folder: string
let started: Started
let base: string

beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'lathica-'))
  await open()
})

afterEach(async () => {
  await started.stop()
  await rm(folder, { recursive: true })
})

async function open(): Promise<void> {
  started = await startServer({ filename: join(folder, 'test.sqlite') })
  base = started.base
}

interface Answer {
  readonly status: number
  readonly body: Record<string, unknown>
  readonly headers: Headers
}

async function call(
  method: string,
  path: string,
  body?: unknown,
  headers: object = {},
): Promise<Answer> {
  const response = await fetch(base + path, {
    method,
    headers: { 'content-type': 'application/json', connection: 'close', ...headers },
    ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
  })
  const text = await response.text()
  const parsed = text === '' ? {} : (JSON.parse(text) as Record<string, unknown>)
  return { status: response.status, body: parsed, headers: response.headers }
}

/** What must be sent by hand, since fetch sets these headers itself. */
function callWithHost(host: string): Promise<number> {
  return new Promise((resolve, reject) => {
    const { port } = started.server.address() as AddressInfo
    const sent = httpRequest({ port, host: '127.0.0.1', path: '/api/projects', headers: { host } })
    sent.on('response', (r) => resolve(r.statusCode ?? 0)).on('error', reject)
    sent.end()
  })
}

const newProject = async (): Promise<string> =>
  String((await call('POST', '/api/projects', { name: 'Skerry Point tide gauge' })).body['id'])

const float: Part = createPart({ name: 'Float' })

const newPart = async (part: Part = float): Promise<string> => {
  const project = await newProject()
  const made = await call('POST', `/api/projects/${project}/parts`, { document: toDocument(part) })
  expect(made.status).toBe(201)
  return String(made.body['id'])
}

const save = (id: string, revision: number, part: Part): Promise<Answer> =>
  call('PUT', `/api/parts/${id}`, { revision, document: toDocument(part) })

describe('a damaged row', () => {
  it('costs itself only: the shelf and the part say so, and what is stored can be had', async () => {
    const sound = await newPart()
    const { body } = await call('GET', `/api/parts/${sound}`)
    const project = String(body['projectId'])
    const made = await call('POST', `/api/projects/${project}/parts`, {
      document: toDocument(createPart({ name: 'Cord drum' })),
    })
    const torn = String(made.body['id'])
    await started
      .database('parts')
      .where({ id: torn })
      .update({ document: '{"format":"lathica-pa' })
    await started.summaries.settled(120_000)
    const [shelf] = (await call('GET', '/api/projects')).body as unknown as {
      parts: { name: string; damaged: boolean; summary: unknown }[]
    }[]
    expect(shelf?.parts.map((p) => [p.name, p.damaged, p.summary === null])).toEqual([
      ['Float', false, false],
      ['Cord drum', true, true],
    ])
    const read = await call('GET', `/api/parts/${torn}`)
    expect(read.status).toBe(422)
    expect(read.body).toMatchObject({
      code: 'part.damaged',
      message: 'What is stored of “Cord drum” is damaged and cannot be read.',
    })
    const raw = await fetch(`${base}/api/parts/${torn}/raw`, { headers: { connection: 'close' } })
    expect(await raw.text()).toBe('{"format":"lathica-pa')
    expect(raw.headers.get('content-disposition')).toContain('Cord drum.lathica.json')
    expect((await call('GET', `/api/parts/${sound}`)).status).toBe(200)
    // A summary alone that is damaged keeps the shelf no less.
    await started.database('parts').where({ id: sound }).update({ summary: 'torn' })
    const again = await call('GET', '/api/projects')
    expect(again.status).toBe(200)
    expect((await call('GET', `/api/parts/${sound}`)).status).toBe(200)
  })
})

describe('parts', () => {
  it('come back as they were saved, also after the server was closed', async () => {
    const id = await newPart()
    const saved = await save(id, 1, { ...float, name: 'Float, upper half' })
    expect(saved.body).toMatchObject({ revision: 2 })
    await started.stop()
    await open()
    const read = await call('GET', `/api/parts/${id}`)
    expect(read.body).toMatchObject({ revision: 2, projectName: 'Skerry Point tide gauge' })
    expect(read.body['document']).toEqual(toDocument({ ...float, name: 'Float, upper half' }))
    await started.summaries.catchUp()
    await started.summaries.settled(120_000)
    const [project] = (await call('GET', '/api/projects')).body as unknown as { parts: object[] }[]
    expect(project?.parts[0]).toMatchObject({
      id,
      name: 'Float, upper half',
      summary: { overall: null },
    })
  })

  it('are never overwritten by a stale state: the later writer is told the current revision', async () => {
    const id = await newPart()
    const [first, second] = await Promise.all([
      save(id, 1, { ...float, name: 'one' }),
      save(id, 1, { ...float, name: 'two' }),
    ])
    expect([first.status, second.status].sort()).toEqual([200, 409])
    const stale = first.status === 409 ? first : second
    expect(stale.body).toMatchObject({ code: 'part.stale', revision: 2 })
    expect(String(stale.body['mend'])).not.toBe('')
    const winner = first.status === 200 ? 'one' : 'two'
    const { body } = await call('GET', `/api/parts/${id}`)
    expect((body['document'] as Part).name).toBe(winner)
  })

  it('can be deleted and brought back; deleted ones cannot be saved', async () => {
    const id = await newPart()
    expect((await call('DELETE', `/api/parts/${id}`)).status).toBe(204)
    expect((await call('GET', `/api/parts/${id}`)).status).toBe(404)
    expect((await save(id, 1, float)).status).toBe(404)
    expect((await call('POST', `/api/parts/${id}/restore`)).status).toBe(204)
    expect((await call('GET', `/api/parts/${id}`)).status).toBe(200)
  })
})

describe('projects', () => {
  it('are made, renamed, deleted and brought back', async () => {
    const id = await newProject()
    expect((await call('PATCH', `/api/projects/${id}`, { name: 'Gauge' })).status).toBe(204)
    const names = async (): Promise<string[]> =>
      ((await call('GET', '/api/projects')).body as unknown as { name: string }[]).map(
        (p) => p.name,
      )
    expect(await names()).toEqual(['Gauge'])
    await call('DELETE', `/api/projects/${id}`)
    expect(await names()).toEqual([])
    await call('POST', `/api/projects/${id}/restore`)
    expect(await names()).toEqual(['Gauge'])
    expect((await call('PATCH', '/api/projects/none', { name: 'x' })).status).toBe(404)
    expect(
      (await call('POST', '/api/projects/none/parts', { document: toDocument(float) })).status,
    ).toBe(404)
  })
})

describe('bad requests', () => {
  it.each<[string, unknown, number]>([
    ['no name', {}, 422],
    ['an empty name', { name: '' }, 422],
    ['a name of another type', { name: 7 }, 422],
    ['a field too many', { name: 'a', admin: true }, 422],
    ['broken JSON', '{"name": ', 400],
    ['no object', '"text"', 400],
  ])('with %s are answered with a code, a sentence and a mend', async (_, body, status) => {
    const answer = await call('POST', '/api/projects', body)
    expect(answer.status).toBe(status)
    expect(Object.keys(answer.body).sort()).toEqual(['code', 'mend', 'message'])
  })

  it('with a part that is none say what is wrong with it, and change nothing', async () => {
    const id = await newPart()
    const wrong = { ...toDocument(float), lie: 'flying' }
    const answer = await call('PUT', `/api/parts/${id}`, { revision: 1, document: wrong })
    expect(answer.status).toBe(422)
    expect(answer.body).toMatchObject({ code: 'file.shape' })
    expect((await call('GET', `/api/parts/${id}`)).body).toMatchObject({ revision: 1 })
    const newer = await call('PUT', `/api/parts/${id}`, {
      revision: 1,
      document: { ...toDocument(float), version: 99 },
    })
    expect(newer.body).toMatchObject({ code: 'file.newer' })
  })

  it('that are too large are refused unread', async () => {
    const answer = await call('POST', '/api/projects', { name: 'x'.repeat(9_000_000) })
    expect(answer.status).toBe(413)
    expect(answer.body).toMatchObject({ code: 'body.large' })
  })

  it('from other sites or by other host names are refused', async () => {
    expect(
      (await call('GET', '/api/projects', undefined, { origin: 'http://skerry.example' })).status,
    ).toBe(403)
    expect((await call('GET', '/api/projects', undefined, { origin: base })).status).toBe(200)
    expect(await callWithHost('skerry.example')).toBe(403)
    expect(await callWithHost('localhost:4317')).toBe(200)
  })

  it('to unknown addresses are answered, and every answer carries the security headers', async () => {
    const answer = await call('GET', '/api/nothing')
    expect(answer.status).toBe(404)
    const policy = answer.headers.get('content-security-policy') ?? ''
    expect(policy).toContain("default-src 'self'")
    expect(policy).not.toContain("'unsafe-eval'")
    expect(answer.headers.get('x-content-type-options')).toBe('nosniff')
    expect(answer.headers.get('strict-transport-security')).toBeNull()
  })
})

describe('the library of title blocks', () => {
  const put = (name: string, block: object) =>
    call('PUT', `/api/title-blocks/${encodeURIComponent(name)}`, block)
  const names = async (): Promise<string[]> => {
    const { body } = await call('GET', '/api/title-blocks')
    return (body as unknown as TitleBlock[]).map((b) => b.name)
  }

  it('keeps what is put in by its name, changes it, and lets it go', async () => {
    expect((await put('Boat shed', PLAIN_BLOCK)).status).toBe(200)
    expect((await put('a / b?', PLAIN_BLOCK)).status).toBe(200)
    const other = { ...PLAIN_BLOCK, rows: [20, 8, 8, 8] }
    expect((await put('Boat shed', other)).status).toBe(200)
    await started.stop()
    await open()
    expect(await names()).toEqual(['Boat shed', 'a / b?'])
    const { body } = await call('GET', '/api/title-blocks')
    expect((body as unknown as TitleBlock[])[0]).toEqual({ ...other, name: 'Boat shed' })
    const path = `/api/title-blocks/${encodeURIComponent('a / b?')}`
    expect((await call('DELETE', path)).status).toBe(204)
    expect((await call('DELETE', path)).status).toBe(404)
  })

  it('refuses what is no block, says why, and keeps nothing of it', async () => {
    const [first, ...cells] = PLAIN_BLOCK.cells
    const over = { ...PLAIN_BLOCK, cells: [{ ...first, across: 3 }, ...cells] }
    const refused = await put('Boat shed', over)
    expect([refused.status, refused.body['code']]).toEqual([422, 'block.overlap'])
    const mark = { width: 1, height: 1, paths: [{ tone: 'ink', d: 'M0 0"><script>' }] }
    expect((await put('Boat shed', { ...PLAIN_BLOCK, mark })).status).toBe(422)
    expect((await put('Boat shed', { ...PLAIN_BLOCK, colour: 'red' })).status).toBe(422)
    const wide = { ...PLAIN_BLOCK, cells: [{ ...first, down: 1e9, across: 1e9 }] }
    expect((await put('Boat shed', wide)).status).toBe(422)
    expect((await put(' ', PLAIN_BLOCK)).status).toBe(422)
    expect(await names()).toEqual([])
  })
})

describe('the library of materials', () => {
  const bronze = { name: 'bell bronze', density: 8.7e-3, colour: '#b08040', look: 'metal' }

  it('keeps what is put in, changes it, and lets it go', async () => {
    expect((await call('PUT', '/api/materials/own-1', bronze)).status).toBe(200)
    await call('PUT', '/api/materials/own-2', { ...bronze, name: 'aspen', look: 'wood' })
    await call('PUT', '/api/materials/own-1', { ...bronze, density: 8.6e-3 })
    await started.stop()
    await open()
    const listed = (await call('GET', '/api/materials')).body as unknown as object[]
    expect(listed).toEqual([
      { ...bronze, id: 'own-2', name: 'aspen', look: 'wood' },
      { ...bronze, id: 'own-1', density: 8.6e-3 },
    ])
    expect((await call('DELETE', '/api/materials/own-1')).status).toBe(204)
    expect((await call('DELETE', '/api/materials/own-1')).status).toBe(404)
  })

  it('refuses densities no material has, names that are taken, and bodies of another shape', async () => {
    const put = async (id: string, body: object): Promise<number> =>
      (await call('PUT', `/api/materials/${id}`, body)).status
    for (const density of [0, -1, 5]) expect(await put('own-1', { ...bronze, density })).toBe(422)
    expect(await put('own-1', { ...bronze, name: ' ' })).toBe(422)
    expect(await put('own-1', { ...bronze, look: 'shiny' })).toBe(422)
    expect(await put('own-1', { ...bronze, price: 3 })).toBe(422)
    expect(await put('Not_an_id', bronze)).toBe(404)
    expect(await put('own-1', bronze)).toBe(200)
    expect(await put('own-2', bronze)).toBe(409)
  })
})
