import Router from '@koa/router'
import { EXPORT_CHORD_TOLERANCE } from '@lathica/core/tolerances'
import { isForeignFile } from '@lathica/core/recover'
import { LARGEST_MESH_FILE } from '@lathica/core/formats'
import { createReadStream, rmSync } from 'node:fs'
import type { Context } from 'koa'
import { bodyToFile, jsonBody } from '../http/body'
import { HttpProblem, notFound } from '../http/problem'
import { exportBody } from '@lathica/core/wire'
import { checkBody } from '../http/validate'
import type { Jobs } from '../jobs/jobs'
import type { JobTask } from '../jobs/types'
import type { JobAnswer } from '@lathica/core/wire'
import type { Repository } from '../repository'

/** Files of parts, written and read as jobs: started, asked after, cancelled. */
export function jobRoutes(repository: Repository, jobs: Jobs): Router {
  const router = new Router({ prefix: '/api' })

  const started = (ctx: Context, task: JobTask): void => {
    const job = jobs.start(task)
    if (!job) {
      if (task.kind === 'import') rmSync(task.path, { force: true })
      throw new HttpProblem(
        503,
        'job.many',
        'Too many jobs wait already.',
        'Wait until some of them are done.',
      )
    }
    ctx.status = 202
    ctx.set('Location', `/api/jobs/${job.id}`)
    ctx.body = job
  }
  const known = (id: string | undefined): JobAnswer => {
    const job = jobs.view(id ?? '')
    if (!job) throw notFound('job')
    return job
  }

  router.post('/jobs', jsonBody(), async (ctx) => {
    const asked = checkBody(exportBody, ctx.request.body)
    const { parts, format, tolerance = EXPORT_CHORD_TOLERANCE, name = 'parts' } = asked
    const stored = await Promise.all(parts.map((id) => repository.readPart(id ?? '')))
    const found = stored.flatMap((p) => {
      if (!p) throw notFound('part')
      return [{ name: p.name, document: p.text }]
    })
    started(ctx, { kind: 'export', name, parts: found, format, tolerance })
  })

  router.post('/projects/:id/imports', async (ctx) => {
    const fileName = String(ctx.query['name'] ?? '')
    if (!isForeignFile(fileName)) {
      throw new HttpProblem(
        422,
        'job.kind',
        `“${fileName}” is no file of solids or triangles.`,
        'Name a STEP, STL or 3MF file.',
      )
    }
    const projectId = ctx.params['id'] ?? ''
    if (!(await repository.hasProject(projectId))) throw notFound('project')
    const path = jobs.place()
    await bodyToFile(ctx, path, LARGEST_MESH_FILE)
    started(ctx, { kind: 'import', projectId, fileName, path })
  })

  router.get('/jobs/:id', (ctx) => {
    ctx.body = known(ctx.params['id'])
  })

  router.get('/jobs/:id/file', (ctx) => {
    const { id } = known(ctx.params['id'])
    const file = jobs.file(id)
    if (!file) throw notFound('file')
    ctx.type = file.type
    // What follows the last stroke would be taken for the name.
    ctx.attachment(file.name.replace(/[\\/]/g, '-'))
    ctx.length = file.size
    ctx.body = createReadStream(file.path)
    ctx.res.once('finish', () => jobs.fetched(id))
  })

  router.delete('/jobs/:id', (ctx) => {
    if (!jobs.cancel(ctx.params['id'] ?? '')) throw notFound('job')
    ctx.status = 204
  })

  return router
}
