/**
 * Measures the figures Lathica holds itself to: all of them, or those of the groups that are named.
 * `--json FILE` also writes them to a file.
 */
import { writeFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { exactnessRows } from './exactness'
import { inspectRows } from './inspect'
import { kernelRows } from './kernel'
import { pageRows } from './page'
import { routeRows } from './route'
import type { Row } from './row'
import { solidRows } from './solids'
import { solverRows } from './solver'
import { turnedRows } from './turned'
import { updateRows } from './update'

const GROUPS = new Map<string, () => Row[] | Promise<Row[]>>([
  ['exactness', exactnessRows],
  ['solver', solverRows],
  ['turned', turnedRows],
  ['update', updateRows],
  ['route', routeRows],
  ['inspect', inspectRows],
  ['kernel', kernelRows],
  ['solids', solidRows],
  ['page', pageRows],
])

const { values, positionals } = parseArgs({
  options: { json: { type: 'string' } },
  allowPositionals: true,
})
const unknown = positionals.filter((name) => !GROUPS.has(name))
if (unknown.length > 0) {
  console.error(
    `There is no group ${unknown.join(', ')}; there are ${[...GROUPS.keys()].join(', ')}.`,
  )
  process.exit(2)
}
const rows: Row[] = []
for (const [name, measure] of GROUPS) {
  if (positionals.length === 0 || positionals.includes(name)) rows.push(...(await measure()))
}
console.table(
  rows.map(({ name, value, unit, goal, limit, holds }) => ({
    figure: name,
    measured: Number(value.toPrecision(3)),
    unit,
    goal: `${limit} ${goal}`,
    holds,
  })),
)
if (values.json !== undefined) writeFileSync(values.json, `${JSON.stringify(rows, null, 2)}\n`)
if (rows.some((r) => !r.holds)) process.exitCode = 1
