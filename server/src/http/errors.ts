import type { Context, Middleware } from 'koa'
import type { Logger } from 'pino'
import { ValidationError } from 'yup'
import { failureOf, DatabaseFailure } from '../database/failure'
import { DamagedPart } from '../repository'
import { HttpProblem, notFound } from './problem'

/** Turns whatever is thrown into an answer; bugs are logged and never shown. */
export function answerErrors(log: Logger): Middleware {
  return async (ctx, next) => {
    try {
      await next()
      if (ctx.status === 404 && ctx.body === undefined) throw notFound('address')
    } catch (error) {
      const problem = toProblem(error)
      if (problem.status >= 500) log.error({ err: error, path: ctx.path }, 'request failed')
      await letRunOut(ctx)
      ctx.status = problem.status
      ctx.body = {
        code: problem.code,
        message: problem.message,
        mend: problem.mend,
        ...problem.extra,
      }
    }
  }
}

/** How long what is not read of a request is let run out, in ms. */
const LONGEST_RUN = 10_000

/** What was not read of a request is let run out, so that whoever sends it hears the answer; nothing follows it. */
async function letRunOut({ req, res }: Context): Promise<void> {
  if (req.complete || req.destroyed) return
  res.setHeader('Connection', 'close')
  await new Promise<void>((resolve) => {
    const timer = setTimeout(resolve, LONGEST_RUN)
    const ended = (): void => {
      clearTimeout(timer)
      resolve()
    }
    req.once('end', ended).once('close', ended).once('error', ended)
    req.removeAllListeners('readable')
    req.on('data', () => undefined)
    req.resume()
  })
}

/** Told of an answer that broke off while it was sent. A page that was left meanwhile is no fault. */
export function logBroken(log: Logger): (error: NodeJS.ErrnoException) => void {
  return (error) => {
    if (error.code !== undefined && LEFT.has(error.code)) return
    log.error({ err: error }, 'answer broke off')
  }
}

/** What Node calls it when whoever asked has gone. */
const LEFT: ReadonlySet<string> = new Set(['ERR_STREAM_PREMATURE_CLOSE', 'ECONNRESET', 'EPIPE'])

/** What an error is answered with. */
export function toProblem(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error
  if (error instanceof DamagedPart) {
    return new HttpProblem(
      422,
      'part.damaged',
      `What is stored of “${error.called}” is damaged and cannot be read.`,
      'Download it as it is from the shelf; all other parts are as they were.',
    )
  }
  if (error instanceof ValidationError) {
    return new HttpProblem(422, 'body.shape', `${error.errors.join('; ')}.`, 'Correct the request.')
  }
  const status = (error as { status?: unknown }).status
  if (status === 413) {
    return new HttpProblem(413, 'body.large', 'This is too large to be saved.', 'Make it smaller.')
  }
  // Files beside the interface's own are none, and no word is lost on where they might be.
  if (status === 403) return notFound('address')
  if (status === 400 || status === 415) {
    return new HttpProblem(400, 'body.json', 'The request is not JSON.', 'Send JSON.')
  }
  const failure = failureOf(error, 'of this server')
  if (failure instanceof DatabaseFailure) {
    return new HttpProblem(failure.status, 'database', failure.message, failure.mend)
  }
  return new HttpProblem(500, 'server', 'The server failed at this.', 'Try again in a moment.')
}
