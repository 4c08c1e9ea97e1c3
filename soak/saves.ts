import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { demoPart, marked } from './demo'
import { ServerProcess, withFolder } from './server'
import { quantile, type Trial } from './trial'

const CLIENTS = 50
/** Goals: the time that 95 of 100 saves take, and what one takes of a processor, in ms. */
const LONGEST = 150
const BUSIEST = 5
/** How often each of them saves, in ms. */
const EVERY = 1000
/** It goes on for so long at least, in ms. */
const LEAST = 8000
const WARM = 8000

/** Fifty designers save once a second each. */
export const saves: Trial = {
  name: 'saves of fifty clients',
  run: (until, random) =>
    withFolder(async (folder) => {
      const server = await ServerProcess.start(join(folder, 'gauge.sqlite'))
      const project = await server.newProject()
      const part = demoPart('spindle')
      const ids: string[] = []
      for (let i = 0; i < CLIENTS; i++)
        ids.push(await server.newPart(project, marked(part, `${i}`)))
      const took: number[] = []
      const wrong: string[] = []
      // What the server loads at its first saves is not counted.
      const start = performance.now() + WARM
      const end = Math.max(until, start + LEAST)
      let before = 0
      const counting = wait(WARM).then(() => (before = server.busy()))
      const client = async (id: string): Promise<void> => {
        await wait(random.between(0, EVERY))
        for (let revision = 1; performance.now() < end;) {
          const begun = performance.now()
          const document = marked(part, `${id.slice(0, 8)} ${revision}`)
          const answer = await server.call('PUT', `/api/parts/${id}`, { revision, document })
          if (answer.status === 200)
            revision = ((await answer.json()) as { revision: number }).revision
          else wrong.push(`a save was answered with ${answer.status}`)
          const ms = performance.now() - begun
          if (begun > start) took.push(ms)
          await wait(Math.max(0, EVERY * random.between(0.8, 1.2) - ms))
        }
      }
      await Promise.all([counting, ...ids.map(client)])
      // What the shelf shows is made after the saves, and is part of what they cost.
      await server.call('GET', '/api/projects')
      const busy = (server.busy() - before) / took.length
      await server.kill()
      const p95 = quantile(took, 0.95)
      return {
        ...{ tried: took.length, wrong },
        missed: [
          ...(p95 > LONGEST ? [`a save takes ${p95.toFixed(0)} ms`] : []),
          ...(busy > BUSIEST ? [`a save takes ${busy.toFixed(1)} ms of a processor`] : []),
        ],
        figures: [
          `a save: median ${quantile(took, 0.5).toFixed(0)} ms, p95 ${p95.toFixed(0)} ms (goal ${LONGEST})`,
          `processor time of a save with its summary: ${busy.toFixed(1)} ms (goal ${BUSIEST})`,
        ],
      }
    }),
}
