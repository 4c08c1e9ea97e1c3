import { createWriteStream } from 'node:fs'
import { rm } from 'node:fs/promises'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { bodyParser } from '@koa/bodyparser'
import type { Context, Middleware } from 'koa'
import { NO_ROOM } from '../jobs/room'
import { HttpProblem } from './problem'
import { LARGEST_BODY } from './validate'

/** Reads small bodies in JSON where they are asked for. */
export const jsonBody = (): Middleware =>
  bodyParser({ enableTypes: ['json'], jsonLimit: LARGEST_BODY, jsonStrict: true }) as Middleware

/** A body in JSON as it came, unread, for a thread that reads it. @throws HttpProblem when it is too large or none */
export async function jsonBytes(ctx: Context): Promise<Uint8Array<ArrayBuffer>> {
  const isPlain = ctx.get('content-encoding') === '' || ctx.get('content-encoding') === 'identity'
  if (!ctx.is('json') || !isPlain) {
    throw new HttpProblem(400, 'body.json', 'The request is not JSON.', 'Send JSON.')
  }
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of ctx.req as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > LARGEST_BODY) throw tooLarge('This is too large to be saved.', 'Make it smaller.')
    chunks.push(chunk)
  }
  // A copy of its own can be handed over; a small buffer shares its memory with others.
  return new Uint8Array(Buffer.concat(chunks))
}

/** Writes a body to a file as it comes. @throws HttpProblem when it is larger than so many bytes, or there is no room */
export async function bodyToFile(ctx: Context, path: string, most: number): Promise<void> {
  let size = 0
  const counted = new Transform({
    transform(chunk: Buffer, _, done) {
      size += chunk.length
      if (size > most) done(tooLarge('This file is too large.', 'Write it coarser.'))
      else done(null, chunk)
    },
  })
  try {
    await pipeline(ctx.req, counted, createWriteStream(path))
  } catch (error) {
    await rm(path, { force: true })
    if ((error as NodeJS.ErrnoException).code !== 'ENOSPC') throw error
    throw new HttpProblem(507, NO_ROOM.code, NO_ROOM.message, NO_ROOM.mend)
  }
}

const tooLarge = (message: string, mend: string): HttpProblem =>
  new HttpProblem(413, 'body.large', message, mend)
