/**
 * Measures the figures Lathica holds itself to: all of them, or those of the groups that are named.
 * Times are told beside a fixed work done before and after each group, so that they mean the same on a busy
 * machine. `--json FILE` also writes them to a file.
 */
import { writeFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { exactnessRows } from './exactness'
import { curveRows } from './curves'
import { inspectRows } from './inspect'
import { kernelRows } from './kernel'
import { pace } from './pace'
import { pageRows } from './page'
import { routeRows } from './route'
import { judged, type Row } from './row'
import { sheetRows } from './sheet'
import { solidRows } from './solids'
import { solverRows } from './solver'
import { turnedRows } from './turned'
import { updateRows } from './update'
import { varyRows } from './vary'

const GROUPS = new Map<string, () => Row[] | Promise<Row[]>>([
  ['exactness', exactnessRows],
  ['solver', solverRows],
  ['turned', turnedRows],
  ['update', updateRows],
  ['route', routeRows],
  ['inspect', inspectRows],
  ['curves', curveRows],
  ['vary', varyRows],
  ['sheet', sheetRows],
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
const rows: (Row & ReturnType<typeof judged>)[] = []
for (const [name, measure] of GROUPS) {
  if (positionals.length > 0 && !positionals.includes(name)) continue
  const before = pace()
  const measured = await measure()
  const usual = (before + pace()) / 2
  rows.push(...measured.map((row) => ({ ...row, ...judged(row, usual) })))
  console.log(`${name}: ${usual.toFixed(2)} times as slow as usual`)
}
console.table(
  rows.map(({ name, value, atUsualPace, unit, goal, limit, holds }) => ({
    figure: name,
    measured: Number(value.toPrecision(3)),
    'at usual pace': Number(atUsualPace.toPrecision(3)),
    unit,
    goal: `${limit} ${goal}`,
    holds,
  })),
)
if (values.json !== undefined) writeFileSync(values.json, `${JSON.stringify(rows, null, 2)}\n`)
if (rows.some((r) => !r.holds)) process.exitCode = 1
