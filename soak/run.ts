import { randomFrom } from '../fuzz/random'
import { hostile } from './hostile'
import { imports } from './imports'
import { kills } from './kills'
import { saves } from './saves'
import { tabs } from './tabs'
import type { Trial } from './trial'

/**
 * Tries the server and pages for some minutes, each trial as long as the others:
 * `run.ts [--minutes M] [--seed S] [--only NAMES] [--losses]`. Figures are printed; what must not be ends with code 1,
 * and so does a missed goal, but where only losses are judged, as on a machine that has other things to do.
 */
const TRIALS: readonly Trial[] = [kills, saves, hostile, imports, tabs]

const say = (line: string): void => void process.stdout.write(`${line}\n`)

const option = (name: string): string | undefined => {
  const place = process.argv.indexOf(`--${name}`)
  return place < 0 ? undefined : process.argv[place + 1]
}
const minutes = Number(option('minutes') ?? 10)
const seed = Number(option('seed') ?? 1)
const only = option('only')?.split(',')
const goals = !process.argv.includes('--losses')

const chosen = TRIALS.filter(({ name }) => only?.includes(name) ?? true)
let findings = 0
for (const [i, trial] of chosen.entries()) {
  const until = performance.now() + (minutes * 60_000) / chosen.length
  const { tried, wrong, missed, figures } = await trial.run(
    until,
    randomFrom(seed * 1000 + i),
    goals,
  )
  findings += wrong.length + (goals ? missed.length : 0)
  say(`${trial.name}: ${wrong.length} wrong of ${tried}`)
  const faults = [...wrong.slice(0, 10), ...missed.map((m) => `goal missed: ${m}`)]
  for (const line of [...figures, ...faults]) say(`  ${line}`)
}
process.exit(findings > 0 ? 1 : 0)
