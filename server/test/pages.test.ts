import { request } from 'node:http'
import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import pino from 'pino'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { createRepository, openDatabase } from '../src'
import { loadDemo } from '../src/demo'
import { startServer, type Started } from './support'

const DEMO = fileURLToPath(new URL('../../demo', import.meta.url))
const logged: string[] = []
const log = pino({ level: 'warn' }, { write: (line: string) => void logged.push(line) })
let folder: string
let started: Started

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'lathica-pages-'))
  await mkdir(join(folder, 'assets'))
  await writeFile(join(folder, 'index.html'), '<title>Lathica</title>')
  await writeFile(join(folder, 'assets', 'main-abc123.js'), `/* ${'x'.repeat(5000)} */`)
  await writeFile(join(folder, 'assets', 'large.bin'), Buffer.alloc(30_000_000, 7))
  await writeFile(join(folder, '..', 'secret.txt'), 'secret')
  started = await startServer({ log, webRoot: folder })
})
afterAll(async () => {
  await started.stop()
  await rm(folder, { recursive: true })
})

interface Answer {
  readonly status: number
  readonly headers: Readonly<Record<string, string | string[] | undefined>>
  readonly body: string
}

/** Asks with the path exactly as written: fetch would tidy it up first. */
function get(path: string, headers: Record<string, string> = {}): Promise<Answer> {
  const { port } = started.server.address() as AddressInfo
  return new Promise((resolve, reject) => {
    const asked = request({ host: '127.0.0.1', port, path, headers }, (response) => {
      let body = ''
      response.on('data', (chunk: Buffer) => (body += chunk.toString('latin1')))
      response.on('end', () =>
        resolve({ status: response.statusCode ?? 0, headers: response.headers, body }),
      )
    })
    asked.on('error', reject)
    asked.end()
  })
}

const PAGE = { accept: 'text/html' }

describe('the interface’s files', () => {
  it('come with the page for every address within the interface', async () => {
    for (const path of ['/', '/part/some-id', '/part/some-id/dispatch']) {
      const { status, body, headers } = await get(path, PAGE)
      expect([path, status, body]).toEqual([path, 200, '<title>Lathica</title>'])
      expect(headers['cache-control']).toBe('no-cache')
    }
  })

  it('name the part that a page will ask for first, and nothing else', async () => {
    for (const path of ['/part/some-id', '/part/some-id/dispatch']) {
      const { headers } = await get(path, PAGE)
      expect(headers.link).toBe('</api/parts/some-id>; rel=preload; as=fetch; crossorigin')
    }
    for (const path of ['/', '/part', '/part/', '/part/%3E%3B/inspect', '/parts/some-id']) {
      expect((await get(path, PAGE)).headers.link).toBeUndefined()
    }
  })

  it('are kept for ever when their name carries their content’s hash', async () => {
    const { status, headers } = await get('/assets/main-abc123.js')
    expect(status).toBe(200)
    expect(headers['cache-control']).toContain('immutable')
  })

  it('are compressed when the browser takes that', async () => {
    const plain = await get('/assets/main-abc123.js')
    const packed = await get('/assets/main-abc123.js', { 'accept-encoding': 'gzip' })
    expect(packed.headers['content-encoding']).toBe('gzip')
    expect(packed.body.length).toBeLessThan(plain.body.length / 10)
  })

  it('that are not there are told so, and never answered with the page', async () => {
    const script = await get('/assets/gone.js', PAGE)
    expect([script.status, script.body]).toEqual([404, expect.stringContaining('not-found')])
    expect((await get('/api/gone', PAGE)).status).toBe(404)
  })

  it('break off where the page is left, which is no fault; what else breaks is logged', async () => {
    const brokenOff = new Promise<NodeJS.ErrnoException>((done) => started.app.once('error', done))
    const { port } = started.server.address() as AddressInfo
    const asked = request({ host: '127.0.0.1', port, path: '/assets/large.bin' }, (response) => {
      response.once('data', () => response.destroy())
    })
    asked.on('error', () => undefined)
    asked.end()
    expect((await brokenOff).code).toBeDefined()
    expect(logged).toEqual([])
    started.app.emit('error', new Error('the disk is gone'))
    expect(logged.join('')).toContain('the disk is gone')
  })

  it('are all there is: no way leads out of their folder', async () => {
    for (const path of ['/../secret.txt', '/assets/../../secret.txt', '/%2e%2e/secret.txt']) {
      const { status, body } = await get(path)
      expect([path, status]).toEqual([path, 404])
      expect(body).toContain('There is no such address.')
    }
  })

  it('a malformed address is told as one, also to the part of the server that answers', async () => {
    for (const path of ['/%zz', '/assets/%E0%A4%A', '/api/parts/%zz', '/a%00b']) {
      const { status, body } = await get(path)
      expect([path, status, body]).toEqual([path, 400, expect.stringContaining('malformed')])
    }
  })

  it('are not for pages of other sites, whatever they say of where they come from', async () => {
    expect((await get('/api/projects', { 'sec-fetch-site': 'cross-site' })).status).toBe(403)
    expect((await get('/api/projects', { 'sec-fetch-site': 'same-origin' })).status).toBe(200)
    // A link that is followed from elsewhere opens Lathica itself.
    const link = { ...PAGE, 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' }
    expect((await get('/', link)).status).toBe(200)
  })

  it('may run no script but their own', async () => {
    const { headers } = await get('/', PAGE)
    const policy = String(headers['content-security-policy'])
    expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval'")
    expect(policy).not.toContain("'unsafe-eval'")
    expect(policy).toContain("frame-ancestors 'none'")
    expect(headers['strict-transport-security']).toBeUndefined()
  })
})

describe('the demo project', () => {
  it('fills an empty database once, and leaves a used one alone', async () => {
    const fresh = await startServer()
    await loadDemo(fresh.database, DEMO, log)
    await fresh.summaries.catchUp()
    await fresh.summaries.settled(120_000)
    const { repository } = fresh
    const [project] = await repository.listProjects()
    expect(project?.name).toBe('Skerry Point tide gauge')
    expect(project?.parts.map((p) => p.name).sort()).toEqual([
      'Bearing housing',
      'Cord drum',
      'Counterweight',
      'End bearing housing',
      'Float',
      'Gauge cover',
      'Gauge lamp',
      'Guide roller',
      'Guide segment',
      'Ink flask',
      'Ink funnel',
      'Line sheave',
      'Sampling can',
      'Setting knob',
      'Spindle',
      'Winding grip',
      'Winding spindle',
      'Winding wheel',
    ])
    const spindle = project?.parts.find((p) => p.name === 'Spindle')
    expect(spindle?.summary?.overall).toMatchObject({ diameter: 44, length: 171 })
    expect(spindle?.summary?.outline[0]?.length).toBeGreaterThan(20)
    await loadDemo(fresh.database, DEMO, log)
    expect(await repository.listProjects()).toHaveLength(1)
    await fresh.stop()
  })

  it('leaves out a file that cannot be read, and takes the others', async () => {
    const mixed = join(folder, 'mixed')
    await mkdir(mixed)
    await writeFile(join(mixed, 'a.lathica.json'), '{"format": "lathica-part", "version": 1')
    await writeFile(join(mixed, 'notes.txt'), 'not a part')
    const fresh = await openDatabase(':memory:')
    await loadDemo(fresh, mixed, log)
    const [project] = await createRepository(fresh).listProjects()
    expect(project?.parts).toEqual([])
    await fresh.destroy()
  })
})
