import type { Middleware } from 'koa'
import helmet from 'koa-helmet'
import { HttpProblem } from './errors'

const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]'])

/**
 * Lets in only requests that were meant for this server: the Host must be a loopback name, which
 * stops rebinding of foreign names to it, and a page's Origin must be the server's own.
 */
export function guardHostAndOrigin(): Middleware {
  return async (ctx, next) => {
    const host = ctx.get('host')
    if (!LOOPBACK.has(host.replace(/:\d+$/, ''))) {
      throw new HttpProblem(403, 'host', 'This host name is not served.', 'Use 127.0.0.1.')
    }
    const origin = ctx.get('origin')
    if (origin !== '' && origin !== `http://${host}`) {
      throw new HttpProblem(403, 'origin', 'Another site asked for this.', 'Open Lathica itself.')
    }
    await next()
  }
}

/** Security headers. Transport security stays off: the server speaks plain HTTP on loopback. */
export function securityHeaders(): Middleware {
  return helmet({
    strictTransportSecurity: false,
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        // Component styles are computed and set at run time.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'", 'blob:'],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
  }) as Middleware
}
