import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import type { Random } from '../fuzz/random'
import { demoPart, marked } from './demo'
import { ServerProcess, withFolder } from './server'
import type { Outcome, Trial } from './trial'

/** So many parts are saved at once when the server is killed. */
const WRITERS = 4

/** What a writer knows of its part: what was answered, and what was sent since. */
interface Writer {
  readonly id: string
  revision: number
  answered: string
  sent: string
}

/** The server is killed in the middle of saving: what it has answered for is there, and nothing is torn. */
export const kills: Trial = {
  name: 'kills while saving',
  run: (until, random) => withFolder((folder) => killed(folder, until, random)),
}

async function killed(folder: string, until: number, random: Random): Promise<Outcome> {
  const database = join(folder, 'gauge.sqlite')
  const part = demoPart('spindle')
  const wrong: string[] = []
  let [tried, saves] = [0, 0]
  let server = await ServerProcess.start(database)
  const project = await server.newProject()
  const writers: Writer[] = []
  for (let i = 0; i < WRITERS; i++) {
    const name = `part ${i}, 0`
    const id = await server.newPart(project, marked(part, name))
    writers.push({ id, revision: 1, answered: name, sent: name })
  }
  while (performance.now() < until) {
    const running = server
    let alive = true
    const write = async (writer: Writer, i: number): Promise<void> => {
      while (alive) {
        writer.sent = `part ${i}, ${writer.revision}`
        const body = { revision: writer.revision, document: marked(part, writer.sent) }
        const answer = await running.call('PUT', `/api/parts/${writer.id}`, body)
        if (answer.status !== 200) throw new Error(`a save was answered with ${answer.status}`)
        writer.revision = ((await answer.json()) as { revision: number }).revision
        writer.answered = writer.sent
        saves++
      }
    }
    const writing = writers.map((w, i) =>
      write(w, i).catch((error: unknown) => {
        if (alive) wrong.push(String(error))
      }),
    )
    // All of them are at it when it comes.
    const begun = saves
    while (saves < begun + 2 * WRITERS && wrong.length === 0) await wait(5)
    await wait(random.between(0, 300))
    alive = false
    await running.kill()
    await Promise.all(writing)
    tried++
    server = await ServerProcess.start(database)
    for (const writer of writers) {
      const answer = await server.call('GET', `/api/parts/${writer.id}`)
      const stored = (await answer.json()) as { revision: number; document: { name: string } }
      const { name } = stored.document
      const isAnswered = stored.revision === writer.revision && name === writer.answered
      const isSent = stored.revision === writer.revision + 1 && name === writer.sent
      if (!isAnswered && !isSent) {
        wrong.push(
          `after kill ${tried}: revision ${stored.revision}, “${name}”, for ${writer.revision}, “${writer.answered}”`,
        )
      }
      Object.assign(writer, { revision: stored.revision, answered: name, sent: name })
    }
  }
  await server.kill()
  return { tried, wrong, missed: [], figures: [`${saves} saves between ${tried} kills`] }
}
