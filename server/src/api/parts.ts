import Router from '@koa/router'
import { HttpProblem, notFound } from '../http/errors'
import { checkBody, checkPart, savePartBody } from '../http/validate'
import type { Repository } from '../repository'

/** Single parts: read, saved by revision, deleted and brought back. */
export function partRoutes(repository: Repository): Router {
  const router = new Router({ prefix: '/api/parts' })

  router.get('/:id', async (ctx) => {
    const part = await repository.readPart(ctx.params['id'] ?? '')
    if (!part) throw notFound('part')
    ctx.body = part
  })

  router.get('/:id/raw', async (ctx) => {
    const raw = await repository.rawPart(ctx.params['id'] ?? '')
    if (!raw) throw notFound('part')
    ctx.type = 'application/octet-stream'
    ctx.attachment(`${raw.name.replace(/[\\/]/g, '-')}.lathica.json`)
    ctx.body = Buffer.from(raw.text)
  })

  router.put('/:id', async (ctx) => {
    const { revision, document } = checkBody(savePartBody, ctx.request.body)
    const saved = await repository.savePart(ctx.params['id'] ?? '', revision, checkPart(document))
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
