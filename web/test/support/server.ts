import type { Part } from '@lathica/core/part'
import { toDocument } from '@lathica/core/formats'
import { vi } from 'vitest'

/** A server in memory with one part, as the page sees it through fetch. */
export class FakeServer {
  revision = 1
  document: unknown
  /** What the next requests meet: a working server, none, one that fails, or one whose answers are lost. */
  mode: 'up' | 'down' | 'failing' | 'deaf' = 'up'
  /** The part is no more: it can be brought back, or not. */
  deleted: boolean | 'for good' = false
  /** Answers wait for this. */
  held: Promise<unknown> = Promise.resolve()
  asked = 0
  saves = 0
  created: unknown[] = []

  constructor(part: Part) {
    this.document = JSON.parse(JSON.stringify(toDocument(part)))
    vi.stubGlobal('fetch', (path: string, init?: RequestInit) => this.answer(path, init))
  }

  /** Someone else saves: the document changes and its revision counts up. */
  changeElsewhere(part: Part): void {
    this.document = JSON.parse(JSON.stringify(toDocument(part)))
    this.revision++
  }

  private async answer(path: string, init: RequestInit = {}): Promise<Response> {
    this.asked++
    await this.held
    if (this.mode === 'down') throw new TypeError('Failed to fetch')
    if (this.mode === 'failing') {
      return json(500, { code: 'server', message: 'The server failed.', mend: 'Try again.' })
    }
    const answer = this.answerTo(path, init)
    if (this.mode === 'deaf') throw new TypeError('Failed to fetch')
    return answer
  }

  private answerTo(path: string, init: RequestInit): Response {
    const body = init.body === undefined ? {} : (JSON.parse(String(init.body)) as SaveBody)
    if (path === '/api/projects' && init.method === 'GET') {
      return json(200, [{ id: 'g1', name: 'Skerry Point tide gauge', updatedAt: '', parts: [] }])
    }
    if (path.endsWith('/restore') && this.deleted !== 'for good') {
      this.deleted = false
      return new Response(null, { status: 204 })
    }
    if (init.method === 'POST' && path.endsWith('/parts')) {
      this.created.push(body.document)
      return json(201, { id: 'copy', revision: 1 })
    }
    if (!path.includes('/p1') || this.deleted !== false) {
      return json(404, { code: 'not-found', message: 'There is no such part.', mend: 'Go back.' })
    }
    if (init.method === 'PUT') return this.save(body)
    return json(200, {
      id: 'p1',
      projectId: 'g1',
      projectName: 'Skerry Point tide gauge',
      revision: this.revision,
      updatedAt: '2026-11-02T10:42:00.000Z',
      document: this.document,
    })
  }

  private save({ revision, document }: SaveBody): Response {
    this.saves++
    if (revision !== this.revision) {
      const stale = { code: 'part.stale', message: 'Changed elsewhere.', mend: 'Take it.' }
      return json(409, { ...stale, revision: this.revision })
    }
    this.document = document
    this.revision++
    return json(200, { revision: this.revision, updatedAt: '2026-11-02T10:43:00.000Z' })
  }
}

interface SaveBody {
  readonly revision?: number
  readonly document?: unknown
}

function json(status: number, body: unknown): Response {
  return new Response(JSON.stringify(body), { status })
}
