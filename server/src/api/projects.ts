import Router from '@koa/router'
import { notFound } from '../http/errors'
import { checkBody, checkPart, newPartBody, projectBody } from '../http/validate'
import type { Repository } from '../repository'

/** Projects, and new parts in them. */
export function projectRoutes(repository: Repository): Router {
  const router = new Router({ prefix: '/api/projects' })

  router.get('/', async (ctx) => {
    ctx.body = await repository.listProjects()
  })

  router.post('/', async (ctx) => {
    const { name } = checkBody(projectBody, ctx.request.body)
    ctx.status = 201
    ctx.body = { id: await repository.createProject(name) }
  })

  router.patch('/:id', async (ctx) => {
    const { name } = checkBody(projectBody, ctx.request.body)
    if (!(await repository.renameProject(ctx.params['id'] ?? '', name))) throw notFound('project')
    ctx.status = 204
  })

  router.delete('/:id', async (ctx) => {
    if (!(await repository.setProjectDeleted(ctx.params['id'] ?? '', true)))
      throw notFound('project')
    ctx.status = 204
  })

  router.post('/:id/restore', async (ctx) => {
    if (!(await repository.setProjectDeleted(ctx.params['id'] ?? '', false)))
      throw notFound('project')
    ctx.status = 204
  })

  router.post('/:id/parts', async (ctx) => {
    const { document } = checkBody(newPartBody, ctx.request.body)
    const created = await repository.createPart(ctx.params['id'] ?? '', checkPart(document))
    if (!created) throw notFound('project')
    ctx.status = 201
    ctx.body = created
  })

  return router
}
