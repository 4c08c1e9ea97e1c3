import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { join } from 'node:path'
import type { Trial } from './trial'

const ROOT = join(import.meta.dirname, '..')
/** So many rounds are played in one process. */
const BATCH = 100

/** Two tabs on one part, with crashes and a server that is away: no edit vanishes unsaid. */
export const tabs: Trial = {
  name: 'rounds of two tabs',
  async run(until) {
    let tried = 0
    const wrong: string[] = []
    // The first rounds are played by the tests.
    for (let first = 1001; performance.now() < until && wrong.length === 0; first += BATCH) {
      const env = { ...process.env, LATHICA_ROUNDS: `${BATCH}`, LATHICA_FIRST_ROUND: `${first}` }
      const vitest = join(ROOT, 'node_modules/vitest/vitest.mjs')
      const args = [vitest, 'run', 'web/test/tabs.test.ts']
      const played = spawn(process.execPath, args, { cwd: ROOT, env })
      let said = ''
      played.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()))
      const [code] = (await once(played, 'exit')) as [number]
      tried += BATCH
      if (code !== 0) wrong.push(/round \d+[^]*?deeply equal/.exec(said)?.[0] ?? said.slice(-2000))
    }
    return { tried, wrong, missed: [], figures: [] }
  },
}
