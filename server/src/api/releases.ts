import Router from '@koa/router'
import { storedPart } from '@lathica/core/formats'
import { releaseBody } from '@lathica/core/wire'
import { jsonBody } from '../http/body'
import { HttpProblem, notFound } from '../http/problem'
import { checkBody } from '../http/validate'
import type { Releases } from '../releases'
import type { Repository } from '../repository'

/** Released drawings of a part: kept, listed and shown, never changed. */
export function releaseRoutes(repository: Repository, releases: Releases): Router {
  const router = new Router({ prefix: '/api/parts/:id/releases' })
  const param = (params: Readonly<Record<string, string>>, name: string): string =>
    params[name] ?? ''

  router.get('/', async (ctx) => {
    ctx.body = await releases.list(param(ctx.params, 'id'))
  })

  router.post('/', jsonBody(), async (ctx) => {
    const id = param(ctx.params, 'id')
    const body = checkBody(releaseBody, ctx.request.body)
    if (!(await repository.rawPart(id))) throw notFound('part')
    const read = storedPart(body.document)
    if (!read.ok) {
      const { code, message, mend } = read.problem
      throw new HttpProblem(422, code, message, mend)
    }
    const { mark, words, sheets, pdf } = body
    const document = JSON.stringify(body.document)
    if (!(await releases.keep(id, { mark, words, document, sheets, pdf }))) {
      throw new HttpProblem(
        409,
        'release.kept',
        `Revision ${mark} was released already, and is kept as it was.`,
        'Take the next mark.',
      )
    }
    ctx.status = 201
    ctx.body = { mark }
  })

  router.get('/:mark', async (ctx) => {
    const found = await releases.read(param(ctx.params, 'id'), param(ctx.params, 'mark'))
    if (!found) throw notFound('release')
    ctx.body = found
  })

  router.get('/:mark/pdf', async (ctx) => {
    const mark = param(ctx.params, 'mark')
    const found = await releases.pdf(param(ctx.params, 'id'), mark)
    if (!found) throw notFound('release')
    ctx.type = 'application/pdf'
    ctx.attachment(`revision ${mark}.pdf`)
    ctx.body = found
  })

  return router
}
