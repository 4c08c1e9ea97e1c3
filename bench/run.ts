/** Measures the figures Lathica holds itself to. `--json FILE` also writes them to a file. */
import { writeFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { exactnessRows } from './exactness'
import { pageRows } from './page'
import { solverRows } from './solver'
import { updateRows } from './update'

const { values } = parseArgs({ options: { json: { type: 'string' } } })
const rows = [...exactnessRows(), ...solverRows(), ...updateRows(), ...(await pageRows())]
console.table(
  rows.map(({ name, value, unit, goal, holds }) => ({
    figure: name,
    measured: Number(value.toPrecision(3)),
    unit,
    'at most': goal,
    'share of it': Number((value / goal).toPrecision(2)),
    holds,
  })),
)
if (values.json !== undefined) writeFileSync(values.json, `${JSON.stringify(rows, null, 2)}\n`)
if (rows.some((r) => !r.holds)) process.exitCode = 1
