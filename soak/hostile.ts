import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import type { Random } from '../fuzz/random'
import { hostileAt, type Hostile } from './hostileFiles'
import { ServerProcess, withFolder } from './server'
import type { Outcome, Trial } from './trial'

/** How often it is asked whether the server answers others, in ms, and how long it may let them wait. */
const EVERY = 20
const LONGEST_STALL = 200
/** A hostile thing that is not done with after so long, in ms, hangs. */
const LONGEST = 180_000
/** What may be held when all is over, more than at the beginning, in MB. */
const MOST_HELD = 50
/** A thread with nothing to do is let go after some 30 s. */
const UNTIL_LET_GO = 40_000

interface Told {
  readonly state?: string
  readonly message?: string
  readonly mend?: string
  readonly id?: string
  readonly problem?: { readonly mend?: string }
}

/** Hostile documents and files: each is answered with a mend or taken, nobody waits for it, and no memory stays. */
export const hostile: Trial = {
  name: 'hostile files',
  run: (until, random, goals) => withFolder((folder) => tried(folder, until, random, goals)),
}

async function tried(
  folder: string,
  until: number,
  random: Random,
  goals: boolean,
): Promise<Outcome> {
  const server = await ServerProcess.start(join(folder, 'gauge.sqlite'))
  const project = await server.newProject()
  const wrong: string[] = []
  const stalls: { readonly what: string; readonly ms: number }[] = []
  const slowest: { readonly what: string; readonly ms: number }[] = []
  let what = 'nothing'
  let watching = true
  // While something is made here, it is this process that lets others wait.
  let making = 0
  // Once round without counting, so that all is loaded that is ever loaded.
  await answered(server, project, hostileAt(0, random))
  const before = server.memory()
  const watch = (async () => {
    while (watching) {
      const begun = performance.now()
      const made = making
      await (await server.call('GET', '/api/materials')).arrayBuffer()
      if (made === making) stalls.push({ what, ms: performance.now() - begun })
      await wait(EVERY)
    }
  })()
  let turn = 0
  for (; performance.now() < until || turn === 0; turn++) {
    making++
    const given = hostileAt(turn, random)
    await wait(0)
    making++
    what = given.what
    const begun = performance.now()
    const fault = await answered(server, project, given)
    slowest.push({ what, ms: performance.now() - begun })
    if (fault !== undefined) wrong.push(`${given.what}: ${fault}`)
  }
  watching = false
  await watch
  if (goals) await wait(UNTIL_LET_GO)
  const held = server.memory() - before
  const missed =
    goals && held > MOST_HELD ? [`${held.toFixed(0)} MB more are held than before`] : []
  await server.kill()
  const stall = worst(stalls)
  if (stall.ms > LONGEST_STALL) {
    missed.push(`others waited ${stall.ms.toFixed(0)} ms: ${stall.what}`)
  }
  const slow = worst(slowest)
  return {
    ...{ tried: turn, wrong, missed },
    figures: [
      `longest others waited: ${stall.ms.toFixed(0)} ms, with ${stall.what} (goal ${LONGEST_STALL})`,
      `slowest: ${(slow.ms / 1000).toFixed(1)} s, ${slow.what}`,
      `held afterwards: ${held.toFixed(0)} MB more than the ${before.toFixed(0)} MB before (goal ${MOST_HELD})`,
    ],
  }
}

const worst = (all: readonly { readonly what: string; readonly ms: number }[]) =>
  all.reduce((a, b) => (b.ms > a.ms ? b : a), { what: 'nothing', ms: 0 })

/** What is wrong with how a hostile thing was taken. */
async function answered(
  server: ServerProcess,
  project: string,
  { name, bytes }: Hostile,
): Promise<string | undefined> {
  if (name === undefined) {
    const text = new TextDecoder().decode(bytes)
    const answer = await server.call('POST', `/api/projects/${project}/parts`, text)
    return faultOf(answer.status, (await answer.json()) as Told)
  }
  const path = `/api/projects/${project}/imports?name=${encodeURIComponent(name)}`
  const begun = await server.call('POST', path, bytes)
  const told = (await begun.json()) as Told
  if (begun.status !== 202) return faultOf(begun.status, told)
  const until = performance.now() + LONGEST
  while (performance.now() < until) {
    const job = (await (await server.call('GET', `/api/jobs/${told.id}`)).json()) as Told
    if (job.state === 'done') return undefined
    if (job.state === 'failed') return job.problem?.mend ? undefined : 'it failed without a mend'
    await wait(50)
  }
  await server.call('DELETE', `/api/jobs/${told.id}`)
  return 'it hangs'
}

function faultOf(status: number, { message, mend }: Told): string | undefined {
  if (status < 300) return undefined
  if (status >= 500) return `it is answered with ${status}`
  return message && mend ? undefined : `${status} without a mend`
}
