/** Measures the figures Lathica holds itself to. `--json FILE` also writes them to a file. */
import { writeFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { exactnessRows } from './exactness'
import { inspectRows } from './inspect'
import { kernelRows } from './kernel'
import { pageRows } from './page'
import { routeRows } from './route'
import { solidRows } from './solids'
import { solverRows } from './solver'
import { turnedRows } from './turned'
import { updateRows } from './update'

const { values } = parseArgs({ options: { json: { type: 'string' } } })
const rows = [
  ...exactnessRows(),
  ...solverRows(),
  ...turnedRows(),
  ...updateRows(),
  ...routeRows(),
  ...inspectRows(),
  ...(await kernelRows()),
  ...(await solidRows()),
  ...(await pageRows()),
]
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
