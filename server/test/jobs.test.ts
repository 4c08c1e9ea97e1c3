import { strFromU8, unzipSync } from 'fflate'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createPart, type Part } from '@lathica/core/part'
import { EXPORTERS } from '@lathica/core/formats'
import type { JobAnswer } from '@lathica/core/wire'
import type { Repository } from '../src'
import { demo, startServer, stored as textOf, type Started } from './support'

let started: Started
let repository: Repository
let base: string

beforeEach(async () => {
  started = await startServer()
  ;({ repository, base } = started)
})
afterEach(() => started.stop())

const newProject = (): Promise<string> => repository.createProject('Skerry Point tide gauge')
async function stored(project: string, part: Part): Promise<string> {
  const made = await repository.createPart(project, textOf(part))
  return made?.id ?? ''
}

async function call(method: string, path: string, body?: unknown): Promise<Response> {
  const isBytes = body instanceof Uint8Array
  return fetch(base + path, {
    method,
    headers: {
      'content-type': isBytes ? 'application/octet-stream' : 'application/json',
      connection: 'close',
    },
    ...(body === undefined ? {} : { body: isBytes ? new Uint8Array(body) : JSON.stringify(body) }),
  })
}
const jobOf = async (response: Response): Promise<JobAnswer> => (await response.json()) as JobAnswer
const view = async (id: string): Promise<JobAnswer> => jobOf(await call('GET', `/api/jobs/${id}`))
/** The job once it has ended, and all that it was doing on the way. */
async function ended(id: string): Promise<{ readonly job: JobAnswer; readonly seen: string[] }> {
  const seen = new Set<string>()
  const job = await vi.waitFor(
    async () => {
      const now = await view(id)
      seen.add(now.progress.words)
      if (now.state === 'waiting' || now.state === 'running') throw new Error('not yet')
      return now
    },
    { timeout: 120_000, interval: 15 },
  )
  return { job, seen: [...seen] }
}

describe('parts handed over', () => {
  it('are written by a job that tells how far it is, in one archive', async () => {
    const project = await newProject()
    const segment = await demo('guide-segment')
    const ids = [
      await stored(project, await demo('spindle')),
      await stored(project, segment),
      await stored(project, { ...segment }),
      await stored(project, createPart({ name: 'Nothing yet' })),
    ]
    const begun = await call('POST', '/api/jobs', { parts: ids, format: 'step', name: 'Gauge' })
    expect(begun.status).toBe(202)
    const { id } = await jobOf(begun)
    expect(begun.headers.get('location')).toBe(`/api/jobs/${id}`)
    const { job, seen } = await ended(id)
    expect(job.state).toBe('done')
    expect(job.progress.done).toBe(job.progress.of)
    expect(seen.length).toBeGreaterThan(1)
    expect(job.notes).toEqual([expect.stringContaining('Nothing yet: Nothing is turned yet')])
    expect(job.file?.name).toBe('Gauge.zip')
    const file = await call('GET', `/api/jobs/${id}/file`)
    expect(file.headers.get('content-disposition')).toContain('Gauge.zip')
    const entries = unzipSync(new Uint8Array(await file.arrayBuffer()))
    expect(Object.keys(entries).sort()).toEqual([
      'Guide segment 2.step',
      'Guide segment.step',
      'Spindle.step',
    ])
    for (const bytes of Object.values(entries)) {
      expect(strFromU8(bytes)).toContain('MANIFOLD_SOLID_BREP')
    }
  })

  it('keep their names in the archive, dots and strokes too, and those of one name are told apart', async () => {
    const project = await newProject()
    const spindle = await demo('spindle')
    const names = ['M3.5 shaft', 'M3.5 shaft', 'm3.5 SHAFT', 'a/b/c']
    const ids = await Promise.all(names.map((name) => stored(project, { ...spindle, name })))
    const { id } = await jobOf(await call('POST', '/api/jobs', { parts: ids, format: 'json' }))
    await ended(id)
    const file = await call('GET', `/api/jobs/${id}/file`)
    const entries = unzipSync(new Uint8Array(await file.arrayBuffer()))
    expect(Object.keys(entries).sort()).toEqual([
      'M3.5 shaft 2.lathica.json',
      'M3.5 shaft.lathica.json',
      'a-b-c.lathica.json',
      'm3.5 SHAFT 3.lathica.json',
    ])
    const alone = await jobOf(
      await call('POST', '/api/jobs', { parts: ids.slice(3), format: 'json' }),
    )
    await ended(alone.id)
    const own = await call('GET', `/api/jobs/${alone.id}/file`)
    expect(own.headers.get('content-disposition')).toContain('a-b-c.lathica.json')
  })

  it.each(EXPORTERS.map((e) => [e.id, e.extension]))(
    'alone are no archive: %s',
    async (format, extension) => {
      const part = await stored(await newProject(), await demo('spindle'))
      const { id } = await jobOf(await call('POST', '/api/jobs', { parts: [part], format }))
      const { job } = await ended(id)
      expect(job.file?.name).toBe(`Spindle.${extension}`)
      expect(job.file?.size).toBeGreaterThan(400)
    },
  )

  it('are sheets with what is drilled in them, a page for each part', async () => {
    const project = await newProject()
    const housing = await stored(project, await demo('end-bearing-housing'))
    const drawn = await jobOf(
      await call('POST', '/api/jobs', { parts: [housing], format: 'sheet' }),
    )
    expect((await ended(drawn.id)).job.state).toBe('done')
    const svg = await (await call('GET', `/api/jobs/${drawn.id}/file`)).text()
    const view = /aria-label="View from the right">(.*)/.exec(svg)?.[1] ?? ''
    // Of the part itself there are six circles; holes and heads are fourteen more, each in pieces.
    expect(view.split('A').length).toBeGreaterThan(40)

    const spindle = await stored(project, await demo('spindle'))
    const both = await jobOf(
      await call('POST', '/api/jobs', { parts: [spindle, housing], format: 'pdf', name: 'Gauge' }),
    )
    const { job } = await ended(both.id)
    expect(job.file?.name).toBe('Gauge.pdf')
    const pdf = await (await call('GET', `/api/jobs/${both.id}/file`)).text()
    expect(pdf.match(/\/Type \/Page\b/g)).toHaveLength(2)
    // Readers list the parts beside the pages.
    expect(pdf.match(/\/Dest \[/g)).toHaveLength(2)
  })

  it('that have nothing fail in words; so does what asks for nothing', async () => {
    const part = await stored(await newProject(), createPart({ name: 'Nothing yet' }))
    const { id } = await jobOf(await call('POST', '/api/jobs', { parts: [part], format: 'stl' }))
    const { job } = await ended(id)
    expect(job.state).toBe('failed')
    expect(job.problem?.message).toContain('None of these parts')
    expect((await call('GET', `/api/jobs/${id}/file`)).status).toBe(404)
    for (const [body, status] of [
      [{ parts: [], format: 'step' }, 422],
      [{ parts: [part], format: 'clay' }, 422],
      [{ parts: [part], format: 'stl', tolerance: 0 }, 422],
      [{ parts: ['none'], format: 'step' }, 404],
    ] as const) {
      expect((await call('POST', '/api/jobs', body)).status).toBe(status)
    }
    expect((await call('GET', '/api/jobs/none')).status).toBe(404)
    expect((await call('DELETE', '/api/jobs/none')).status).toBe(404)
  })

  it('are cancelled while they wait and while they run; the next goes on', async () => {
    const project = await newProject()
    const wheel = await stored(project, await demo('winding-wheel'))
    const spindle = await stored(project, await demo('spindle'))
    const start = async (parts: string[], format: string): Promise<string> =>
      (await jobOf(await call('POST', '/api/jobs', { parts, format }))).id
    const [first, second, third] = [
      await start([wheel, wheel, wheel], 'stl'),
      await start([wheel], 'stl'),
      await start([spindle], 'json'),
    ]
    await vi.waitFor(async () => expect((await view(first)).state).toBe('running'), {
      timeout: 120_000,
    })
    expect((await view(second)).state).toBe('waiting')
    expect((await call('DELETE', `/api/jobs/${second}`)).status).toBe(204)
    expect((await call('DELETE', `/api/jobs/${first}`)).status).toBe(204)
    expect((await view(first)).state).toBe('cancelled')
    expect((await ended(third)).job.state).toBe('done')
    expect((await view(second)).state).toBe('cancelled')
    expect((await call('GET', `/api/jobs/${first}/file`)).status).toBe(404)
    // What has ended stays what it was.
    expect((await call('DELETE', `/api/jobs/${third}`)).status).toBe(204)
    expect((await view(third)).state).toBe('done')
  })

  it('wait in a line that is not endless', async () => {
    const wheel = await stored(await newProject(), await demo('winding-wheel'))
    const body = { parts: [wheel], format: 'stl' }
    const answers: number[] = []
    for (let i = 0; i < 23; i++) answers.push((await call('POST', '/api/jobs', body)).status)
    expect(answers.slice(0, 20).every((s) => s === 202)).toBe(true)
    expect(answers.at(-1)).toBe(503)
  })
})

describe('files brought in', () => {
  const post = (project: string, name: string, bytes: Uint8Array): Promise<Response> =>
    call('POST', `/api/projects/${project}/imports?name=${encodeURIComponent(name)}`, bytes)
  /** A demo part as a file. */
  async function fileOf(project: string, format: string): Promise<Uint8Array> {
    const part = await stored(project, await demo('spindle'))
    const { id } = await jobOf(await call('POST', '/api/jobs', { parts: [part], format }))
    await ended(id)
    return new Uint8Array(await (await call('GET', `/api/jobs/${id}/file`)).arrayBuffer())
  }

  it('become parts of the project', async () => {
    const project = await newProject()
    for (const [format, words] of [
      ['step', 'is an editable profile now'],
      ['3mf', 'triangles stand there to go by'],
    ] as const) {
      const bytes = await fileOf(project, format)
      const begun = await post(project, `Came from outside.${format}`, bytes)
      expect(begun.status).toBe(202)
      const { job } = await ended((await jobOf(begun)).id)
      expect(job.state).toBe('done')
      expect(job.notes[0]).toContain(words)
      const part = await repository.readPart(job.partId ?? '')
      expect(part?.name).toBe('Came from outside')
    }
  })

  it('become nothing when that is cancelled, however far it is', async () => {
    const project = await newProject()
    const bytes = await fileOf(project, 'step')
    let came = 0
    for (const word of ['Loading', 'Reading', 'Weighing']) {
      const { id } = await jobOf(await post(project, 'Cancelled.step', bytes))
      await vi.waitFor(
        async () => {
          const { progress, state } = await view(id)
          if (!progress.words.startsWith(word) && state !== 'done') throw new Error('not yet')
        },
        { timeout: 120_000, interval: 1 },
      )
      await call('DELETE', `/api/jobs/${id}`)
      const { state } = await view(id)
      // One that was done before stays done.
      expect(['cancelled', 'done']).toContain(state)
      if (state === 'done') came++
    }
    // What follows is not the answer to what was cancelled.
    const { id } = await jobOf(await post(project, 'After.step', bytes))
    const { job } = await ended(id)
    const made = await repository.readPart(job.partId ?? '')
    expect(made?.name).toBe('After')
    const names = (await repository.listProjects()).flatMap((p) => p.parts.map((x) => x.name))
    expect(names.filter((name) => name === 'Cancelled')).toHaveLength(came)
  })

  it('that are none are refused in words', async () => {
    const project = await newProject()
    const text = new TextEncoder().encode('nonsense')
    expect((await post(project, 'notes.txt', text)).status).toBe(422)
    for (const name of ['a.step', 'a.stl']) {
      const { job } = await ended((await jobOf(await post(project, name, text))).id)
      expect(job.state).toBe('failed')
      expect(job.problem?.mend).toBeTruthy()
    }
    const missing = await post('none', 'a.stl', await fileOf(project, 'stl'))
    expect(missing.status).toBe(404)
    expect(await missing.json()).toMatchObject({ message: 'There is no such project.' })
  })
})
