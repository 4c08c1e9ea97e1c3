import Router from '@koa/router'
import { refuseBlock, type TitleBlock } from '@lathica/core/part'
import { titleBlockBody } from '@lathica/core/wire'
import { jsonBody } from '../http/body'
import { HttpProblem, notFound } from '../http/problem'
import { checkBody } from '../http/validate'
import type { TitleBlockLibrary } from '../titleBlocks'

/** More blocks than this no one finds anything among. */
const MOST_BLOCKS = 100

/** Title blocks of one’s own, offered to the sheets of every part. */
export function titleBlockRoutes(library: TitleBlockLibrary): Router {
  const router = new Router({ prefix: '/api/title-blocks' })

  router.get('/', async (ctx) => {
    ctx.body = await library.list()
  })

  router.put('/:name', jsonBody(), async (ctx) => {
    const name = (ctx.params['name'] ?? '').trim()
    if (name === '' || name.length > 80) {
      throw new HttpProblem(422, 'block.name', 'A title block needs a name.', 'Type one.')
    }
    const read = checkBody(titleBlockBody, ctx.request.body) as unknown as TitleBlock
    const block = { ...read, name }
    const refused = refuseBlock(block)
    if (refused && !refused.ok) {
      const { code, message, mend } = refused.problem
      throw new HttpProblem(422, code, message, mend)
    }
    const known = await library.list()
    if (known.length >= MOST_BLOCKS && !known.some((b) => b.name === name)) {
      const message = `At most ${MOST_BLOCKS} title blocks are kept.`
      throw new HttpProblem(409, 'block.many', message, 'Delete some that are not used.')
    }
    await library.put(block)
    ctx.body = block
  })

  router.delete('/:name', async (ctx) => {
    if (!(await library.remove(ctx.params['name'] ?? ''))) throw notFound('title block')
    ctx.status = 204
  })

  return router
}
