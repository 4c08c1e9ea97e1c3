/**
 * Writes the demo project's part files, built through the same commands the interface uses.
 * Run with `--check` to learn whether the files on disk are still what the commands make.
 */
import { readFile, writeFile } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import { join } from 'node:path'
import { demoParts } from './demo/parts'

const folder = fileURLToPath(new URL('../demo', import.meta.url))
const check = process.argv.includes('--check')
for (const [name, text] of demoParts()) {
  const path = join(folder, name)
  if (!check) await writeFile(path, text)
  else if ((await readFile(path, 'utf8').catch(() => '')) !== text) {
    console.error(`${name} is out of date: run npm run demo:data.`)
    process.exitCode = 1
  }
}
