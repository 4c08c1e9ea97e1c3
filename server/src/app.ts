import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import Koa, { type Middleware } from 'koa'
import compress from 'koa-compress'
import serve from 'koa-static'
import type { Knex } from 'knex'
import type { Logger } from 'pino'
import { jobRoutes } from './api/jobs'
import { materialRoutes } from './api/materials'
import { partRoutes } from './api/parts'
import { projectRoutes } from './api/projects'
import { releaseRoutes } from './api/releases'
import { titleBlockRoutes } from './api/titleBlocks'
import { answerErrors, logBroken } from './http/errors'
import { guardHostAndOrigin, securityHeaders, wellFormedAddress } from './http/guard'
import { createMaterialLibrary } from './materials'
import type { Jobs } from './jobs/jobs'
import { patiently, type Write } from './database/writing'
import { createReleases } from './releases'
import { createRepository, type Repository } from './repository'
import type { Summaries } from './summaries'
import type { Threads } from './threads'
import { createTitleBlockLibrary } from './titleBlocks'

export interface AppOptions {
  readonly database: Knex
  readonly log: Logger
  /** Do what takes long. */
  readonly threads: Threads
  /** Keeps up to date what the shelf shows. */
  readonly summaries: Summaries
  /** How the database takes a write; patiently, if left out. */
  readonly write?: Write
  /** Writes and reads files; left out, there are no jobs. */
  readonly jobs?: (repository: Repository) => Jobs
  /** The folder of the built interface; left out, only the API is served. */
  readonly webRoot?: string
}

/** The server as a Koa application: guards, then the API, then the interface's files. */
export function createApp(options: AppOptions): Koa {
  const { database, log, threads, summaries, write = patiently, jobs, webRoot } = options
  const app = new Koa()
  const repository = createRepository(database, (id) => summaries.want(id), write)
  app.on('error', logBroken(log))
  app.use(answerErrors(log))
  app.use(securityHeaders())
  app.use(guardHostAndOrigin())
  app.use(wellFormedAddress())
  app.use(compress({ threshold: 2048 }) as Middleware)
  app.use(async (ctx, next) => {
    if (ctx.path.startsWith('/api/')) ctx.set('Cache-Control', 'no-store')
    await next()
  })
  const routers = [
    projectRoutes(repository, threads, summaries),
    partRoutes(repository, threads),
    releaseRoutes(repository, createReleases(database, write)),
    materialRoutes(createMaterialLibrary(database, write)),
    titleBlockRoutes(createTitleBlockLibrary(database, write)),
  ]
  if (jobs) routers.push(jobRoutes(repository, jobs(repository)))
  for (const router of routers) {
    app.use(router.routes() as Middleware)
    app.use(router.allowedMethods() as Middleware)
  }
  if (webRoot !== undefined) {
    app.use(serve(webRoot, { setHeaders: cacheForever, brotli: true, gzip: true }))
    app.use(pageForAnyRoute(webRoot))
  }
  return app
}

/** Built files carry their content's hash in their name; only the page itself is asked for anew. */
function cacheForever(
  response: { setHeader(name: string, value: string): void },
  path: string,
): void {
  const hashed = path.includes('/assets/')
  response.setHeader('Cache-Control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache')
}

/** Addresses within the interface are answered with its page, which finds its own way. */
function pageForAnyRoute(webRoot: string): Middleware {
  return async (ctx, next) => {
    const isPage = ctx.method === 'GET' && ctx.accepts('html') !== false
    if (!isPage || ctx.path.startsWith('/api/') || ctx.path.startsWith('/assets/')) return next()
    ctx.type = 'html'
    ctx.set('Cache-Control', 'no-cache')
    const [, part] = /^\/part\/([\w-]+)/.exec(ctx.path) ?? []
    // What the page will ask for first is on its way before its script is read (RFC 8288; HTML, link type preload).
    if (part) ctx.set('Link', `</api/parts/${part}>; rel=preload; as=fetch; crossorigin`)
    ctx.body = await readFile(join(webRoot, 'index.html'), 'utf8')
  }
}
