import Router from '@koa/router'
import { notFound } from '../http/problem'
import { acceptedPart } from '../http/accepted'
import { jsonBody } from '../http/body'
import { projectBody } from '@lathica/core/wire'
import { checkBody } from '../http/validate'
import type { Repository } from '../repository'
import type { Summaries } from '../summaries'
import type { Threads } from '../threads'

/** The shelf waits so long for what it shows of parts that were just saved, in ms. */
const LONGEST_FOR_SUMMARIES = 1500

/** Projects, and new parts in them. */
export function projectRoutes(
  repository: Repository,
  threads: Threads,
  summaries: Summaries,
): Router {
  const router = new Router({ prefix: '/api/projects' })

  router.get('/', async (ctx) => {
    await summaries.settled(LONGEST_FOR_SUMMARIES)
    ctx.body = await repository.listProjects()
  })

  router.post('/', jsonBody(), async (ctx) => {
    const { name } = checkBody(projectBody, ctx.request.body)
    ctx.status = 201
    ctx.body = { id: await repository.createProject(name) }
  })

  router.patch('/:id', jsonBody(), async (ctx) => {
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
    const id = ctx.params['id'] ?? ''
    if (!(await repository.hasProject(id))) throw notFound('project')
    const { part } = await acceptedPart(ctx, threads, 'new')
    const created = await repository.createPart(id, part)
    if (!created) throw notFound('project')
    ctx.status = 201
    ctx.body = created
  })

  return router
}
