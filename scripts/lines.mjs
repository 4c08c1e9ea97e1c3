/** Counts lines that are not blank, of code and of tests, and their share. */
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'

const files = execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard'], {
  encoding: 'utf8',
})
  .split('\n')
  .filter((f) => /\.(ts|vue|mjs|cjs|css)$/.test(f) && !f.endsWith('.d.ts'))

const isTest = (file) => /(^|\/)(test|e2e)\//.test(file) || /\.(test|spec)\./.test(file)
const totals = new Map()
for (const file of files) {
  const folder = file.includes('/') ? file.split('/')[0] : '.'
  const row = totals.get(folder) ?? { code: 0, tests: 0 }
  const lines = readFileSync(file, 'utf8')
    .split('\n')
    .filter((line) => line.trim() !== '').length
  row[isTest(file) ? 'tests' : 'code'] += lines
  totals.set(folder, row)
}
const rows = [...totals].map(([folder, row]) => ({ folder, ...row }))
const code = rows.reduce((sum, row) => sum + row.code, 0)
const tests = rows.reduce((sum, row) => sum + row.tests, 0)
console.table(rows)
const share = ((100 * tests) / (code + tests)).toFixed(1)
console.log(`code ${code}, tests ${tests}: tests are ${share} % of all lines`)
