import Router from '@koa/router'
import { refuseMaterial } from '@lathica/core/part'
import { materialBody } from '@lathica/core/wire'
import { jsonBody } from '../http/body'
import { HttpProblem, notFound } from '../http/problem'
import { checkBody } from '../http/validate'
import type { MaterialLibrary } from '../materials'

/** More materials than this no one finds anything among. */
const MOST_MATERIALS = 1000

/** Materials of one's own, offered to every part beside those in stock. */
export function materialRoutes(library: MaterialLibrary): Router {
  const router = new Router({ prefix: '/api/materials' })

  router.get('/', async (ctx) => {
    ctx.body = await library.list()
  })

  router.put('/:id', jsonBody(), async (ctx) => {
    const id = ctx.params['id'] ?? ''
    if (!/^[a-z0-9-]{1,60}$/.test(id)) throw notFound('material')
    const material = { ...checkBody(materialBody, ctx.request.body), id }
    const refused = refuseMaterial(material)
    if (refused && !refused.ok) {
      const { code, message, mend } = refused.problem
      throw new HttpProblem(422, code, message, mend)
    }
    const known = await library.list()
    if (known.some((m) => m.id !== id && m.name === material.name)) {
      const message = `There is a material called “${material.name}”.`
      throw new HttpProblem(409, 'material.taken', message, 'Choose another name.')
    }
    if (known.length >= MOST_MATERIALS) {
      const message = `The library holds at most ${MOST_MATERIALS} materials.`
      throw new HttpProblem(409, 'material.many', message, 'Delete some that are not used.')
    }
    await library.put(material)
    ctx.body = material
  })

  router.delete('/:id', async (ctx) => {
    if (!(await library.remove(ctx.params['id'] ?? ''))) throw notFound('material')
    ctx.status = 204
  })

  return router
}
