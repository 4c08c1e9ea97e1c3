import type { Middleware } from 'koa'
import helmet from 'koa-helmet'
import { HttpProblem } from './problem'

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
    // A browser says so itself when another site's page asks, also where it tells no origin.
    if (ctx.get('sec-fetch-site') === 'cross-site' && ctx.get('sec-fetch-mode') !== 'navigate')
      throw elsewhere
    const origin = ctx.get('origin')
    if (origin !== '' && origin !== `http://${host}`) {
      throw elsewhere
    }
    await next()
  }
}

const elsewhere = new HttpProblem(
  403,
  'origin',
  'Another site asked for this.',
  'Open Lathica itself.',
)

/** Refuses addresses that cannot be read: a % that stands for no letter, or for the one that ends texts. */
export function wellFormedAddress(): Middleware {
  return async (ctx, next) => {
    if (!isWellFormed(ctx.path)) {
      throw new HttpProblem(
        400,
        'address',
        'This address is malformed: it has a % that stands for no letter.',
        'Go back to the shelf.',
      )
    }
    await next()
  }
}

function isWellFormed(path: string): boolean {
  try {
    return !decodeURIComponent(path).includes('\0')
  } catch {
    return false
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
