import { readFileSync } from 'node:fs'
import { KINDS } from './kinds'

/** Tries what was found before once more: `again.ts FILE …`. */
for (const file of process.argv.slice(2)) {
  const { kind, found } = JSON.parse(readFileSync(file, 'utf8')) as { kind: string; found: unknown }
  const says = KINDS.find((k) => k.name === kind)?.fault(found)
  console.log(`${file}: ${says ?? 'holds'}`)
}
