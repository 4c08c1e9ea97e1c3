import { writeFileSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { KINDS } from './kinds'
import type { Kind } from './kind'
import { randomFrom } from './random'

/**
 * Tries kinds of cases at random for some minutes, each as long as the others; makes what it finds smaller and
 * writes it where tests read it. `run.ts [--minutes M] [--seed S] [--count N] [--only KIND] [--first]`
 */
const option = (name: string): string | undefined => {
  const place = process.argv.indexOf(`--${name}`)
  return place < 0 ? undefined : process.argv[place + 1]
}
const minutes = Number(option('minutes') ?? 10)
const seed = Number(option('seed') ?? 1)
const count = option('count') === undefined ? Infinity : Number(option('count'))
const only = option('only')
/** Ends at the first finding, as tests do. */
const first = process.argv.includes('--first')

function smallest<C>(kind: Kind<C>, given: C): { readonly found: C; readonly says: string } {
  let found = given
  let says = kind.fault(given) ?? ''
  const until = performance.now() + 30_000
  for (let changed = true; changed && performance.now() < until;) {
    changed = false
    for (const smaller of kind.smaller(found)) {
      const told = kind.fault(smaller)
      if (told === undefined) continue
      ;[found, says, changed] = [smaller, told, true]
      break
    }
  }
  return { found, says }
}

/** So many findings of a kind are made smaller and written. */
const MOST_WRITTEN = 5

let findings = 0
const kinds = Object.values(KINDS).filter((k) => only === undefined || k.name === only)
for (const kind of kinds) {
  const until = performance.now() + (minutes * 60_000) / kinds.length
  let tried = 0
  let wrong = 0
  const counted = new Map<string, number>()
  while (performance.now() < until && tried < count && !(first && findings > 0)) {
    for (let i = 0; i < kind.batch && tried < count; i++, tried++) {
      const given = kind.make(randomFrom(seed * 1_000_003 + tried))
      const says = kind.fault(given)
      for (const what of kind.counts?.(given) ?? []) {
        counted.set(what, (counted.get(what) ?? 0) + 1)
      }
      if (says === undefined) continue
      wrong++
      findings++
      if (wrong > MOST_WRITTEN) continue
      const least = smallest(kind, given)
      const folder = join(import.meta.dirname, 'found')
      mkdirSync(folder, { recursive: true })
      const file = join(folder, `${kind.name.replace(/\W+/g, '-')}-${seed}-${tried}.json`)
      writeFileSync(
        file,
        `${JSON.stringify({ kind: kind.name, says: least.says, found: least.found }, undefined, 1)}\n`,
      )
      console.log(`${kind.name}, case ${tried}: ${least.says}\n  written to ${file}`)
    }
  }
  console.log(`${kind.name}: ${wrong} wrong of ${tried}`)
  counted.forEach((n, what) => console.log(`  ${what}: ${n}`))
  if (first && findings > 0) break
}
process.exit(findings > 0 ? 1 : 0)
