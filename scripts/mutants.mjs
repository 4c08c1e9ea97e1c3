/**
 * Changes code in many small ways, one at a time, and lists the changes that no test noticed.
 * `npm run mutants -- core/src/names [core/test/names.test.ts ...]`: a file or folder, and the tests it is tried by;
 * all of core's when none are named, which takes hours for the larger folders.
 */
import { mkdirSync, readFileSync, statSync } from 'node:fs'
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'

const [what, ...tests] = process.argv.slice(2)
if (!what) {
  console.error('Name a file or folder: npm run mutants -- core/src/names')
  process.exit(2)
}
const mutate = statSync(what).isDirectory() ? `${what}/**/*.ts` : what
const reports = 'test-results/mutants'
mkdirSync(reports, { recursive: true })
const run = spawnSync(
  join('node_modules', '.bin', 'stryker'),
  ['run', '--mutate', mutate, '--concurrency', process.env['MUTANT_WORKERS'] ?? '2'],
  {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...(tests.length > 0 ? { MUTANT_TESTS: tests.join() } : {}) },
  },
)
if (run.status !== 0) process.exit(run.status ?? 1)

const { files } = JSON.parse(readFileSync(join(reports, 'mutants.json'), 'utf8'))
const counted = new Map()
for (const [file, { mutants, source }] of Object.entries(files)) {
  const lines = source.split('\n')
  for (const m of mutants) {
    counted.set(m.status, (counted.get(m.status) ?? 0) + 1)
    if (m.status !== 'Survived' && m.status !== 'NoCoverage') continue
    const { start, end } = m.location
    const was =
      start.line === end.line ? lines[start.line - 1].slice(start.column - 1, end.column - 1) : '…'
    console.log(
      `${file}:${start.line}  ${m.mutatorName}: ${was}  →  ${m.replacement.split('\n')[0]}`,
    )
  }
}
const of = (...states) => states.reduce((sum, s) => sum + (counted.get(s) ?? 0), 0)
const killed = of('Killed', 'Timeout')
const all = killed + of('Survived', 'NoCoverage')
console.log(`${killed} of ${all} noticed (${((100 * killed) / Math.max(1, all)).toFixed(1)} %)`)
