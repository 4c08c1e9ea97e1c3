import Router from '@koa/router'
import { acceptedPart } from '../http/accepted'
import { HttpProblem, notFound } from '../http/problem'
import type { Repository } from '../repository'
import type { Threads } from '../threads'

/** Single parts: read, saved by revision, deleted and brought back. */
export function partRoutes(repository: Repository, threads: Threads): Router {
  const router = new Router({ prefix: '/api/parts' })

  router.get('/:id', async (ctx) => {
    const part = await repository.readPart(ctx.params['id'] ?? '')
    if (!part) throw notFound('part')
    const { text, ...told } = part
    // The document is handed on as it is stored: to read it here would keep others waiting.
    ctx.type = 'json'
    ctx.body = `${JSON.stringify(told).slice(0, -1)},"document":${text}}`
  })

  router.get('/:id/raw', async (ctx) => {
    const raw = await repository.rawPart(ctx.params['id'] ?? '')
    if (!raw) throw notFound('part')
    ctx.type = 'application/octet-stream'
    ctx.attachment(`${raw.name.replace(/[\\/]/g, '-')}.lathica.json`)
    ctx.body = Buffer.from(raw.text)
  })

  router.put('/:id', async (ctx) => {
    const { revision, part } = await acceptedPart(ctx, threads, 'save')
    const saved = await repository.savePart(ctx.params['id'] ?? '', revision, part)
    switch (saved.outcome) {
      case 'missing':
        throw notFound('part')
      case 'stale':
        throw new HttpProblem(
          409,
          'part.stale',
          'This part was changed elsewhere since it was opened.',
          'Take the newer state, or keep yours as a part of its own.',
          { revision: saved.revision },
        )
      case 'saved':
        ctx.body = { revision: saved.revision, updatedAt: saved.updatedAt }
    }
  })

  router.delete('/:id', async (ctx) => {
    if (!(await repository.setPartDeleted(ctx.params['id'] ?? '', true))) throw notFound('part')
    ctx.status = 204
  })

  router.post('/:id/restore', async (ctx) => {
    if (!(await repository.setPartDeleted(ctx.params['id'] ?? '', false))) throw notFound('part')
    ctx.status = 204
  })

  return router
}
