/**
 * Writes NOTICE: every package that ships with Lathica, its version, licence and the licence's text, and the licence
 * of the fonts beside them. `--check` writes nothing, and fails where what is there differs.
 */
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'

const root = join(import.meta.dirname, '..')

interface Locked {
  readonly version?: string
  readonly license?: string
  readonly dev?: boolean
  readonly devOptional?: boolean
  readonly optional?: boolean
  readonly link?: boolean
}

const lock = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8')) as {
  readonly packages: Readonly<Record<string, Locked>>
}

/** The text a package's licence is told in, where it has one of its own. */
function licenceText(path: string): string {
  const folder = join(root, path)
  if (!existsSync(folder)) return ''
  const file = readdirSync(folder).find((name) => /^(licen[cs]e|copying)/i.test(name))
  return file === undefined ? '' : readFileSync(join(folder, file), 'utf8').trim()
}

/** Packages that some machines leave out come with the package that needs them, under its licence. */
const shipped = Object.entries(lock.packages)
  .filter(([path]) => path.includes('node_modules/'))
  .filter(
    ([, p]) => p.dev !== true && p.devOptional !== true && p.optional !== true && p.link !== true,
  )
  .map(([path, { version = '', license = '' }]) => {
    const manifest = join(root, path, 'package.json')
    const own = existsSync(manifest)
      ? (JSON.parse(readFileSync(manifest, 'utf8')) as { license?: unknown }).license
      : ''
    const name = path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length)
    const licence = license !== '' ? license : typeof own === 'string' ? own : ''
    return { name, version, licence, text: licenceText(path) }
  })
  .sort((a, b) => a.name.localeCompare(b.name, 'en') || a.version.localeCompare(b.version, 'en'))

const unlicensed = shipped.filter((p) => p.licence === '')
if (unlicensed.length > 0) {
  console.error(`No licence is told by ${unlicensed.map((p) => p.name).join(', ')}.`)
  process.exit(1)
}

/** Packages under one text share it. */
const byText = new Map<string, string[]>()
for (const { name, version, licence, text } of shipped) {
  const of = byText.get(text) ?? []
  of.push(`${name} ${version} (${licence})`)
  byText.set(text, of)
}
const rule = '-'.repeat(78)
const notice = [
  'Lathica ships with the packages below. Each keeps its own licence.',
  ...[...byText].map(([text, names]) =>
    [
      rule,
      ...names,
      '',
      text === '' ? 'The package has no text of its own beside that.' : text,
    ].join('\n'),
  ),
].join('\n\n')

const fonts = licenceText('node_modules/@fontsource/ibm-plex-sans')
const files = new Map([
  ['NOTICE', `${notice}\n`],
  ['web/public/assets/OFL.txt', `${fonts}\n`],
])
let differs = false
for (const [path, text] of files) {
  const file = join(root, path)
  if (existsSync(file) && readFileSync(file, 'utf8') === text) continue
  differs = true
  if (process.argv.includes('--check')) {
    console.error(`${path} is not what the packages say: run npm run notice.`)
    continue
  }
  mkdirSync(dirname(file), { recursive: true })
  writeFileSync(file, text)
}
if (differs && process.argv.includes('--check')) process.exit(1)
