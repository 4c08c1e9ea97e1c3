/**
 * Starts what the README promises, on a machine that has nothing yet but Node and npm:
 * `demo`, `test`, `dev`, `bench`, `fuzz`, `soak` and `screenshots`. It runs before anything is installed, so it uses Node alone.
 */
import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { availableParallelism, tmpdir } from 'node:os'
import { delimiter, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = fileURLToPath(new URL('..', import.meta.url))
const stampFile = join(root, 'node_modules', '.lathica-stamp')

/** Programs that run now: where one fails, those beside it are ended. */
const running = new Set()

/** Runs a program to its end, passing signals on. Returns its exit code. */
function run(program, args, options = {}) {
  return new Promise((resolve) => {
    const child = spawn(program, args, { cwd: root, stdio: 'inherit', ...options })
    running.add(child)
    child.on('exit', () => running.delete(child))
    const forward = (signal) => child.kill(signal)
    process.on('SIGINT', forward)
    process.on('SIGTERM', forward)
    child.on('error', (error) => {
      console.error(`${program} did not start: ${error.message}`)
      resolve(127)
    })
    child.on('exit', (code, signal) => {
      process.off('SIGINT', forward)
      process.off('SIGTERM', forward)
      resolve(code ?? (signal ? 1 : 0))
    })
  })
}

async function must(what, program, args, options) {
  const code = await run(program, args, options)
  if (code === 0) return
  console.error(`\n${what} failed.`)
  for (const other of running) other.kill()
  process.exit(code)
}

/** A script inside node_modules, run with this very Node. */
function tool(name, args, options) {
  return [process.execPath, [join(root, 'node_modules', ...name.split('/')), ...args], options]
}

/** A digest of everything an installation follows from. */
function installStamp() {
  const hash = createHash('sha256')
  const manifests = ['', 'core', 'kernel', 'server', 'web', 'cli'].map((p) =>
    join(root, p, 'package.json'),
  )
  for (const file of [join(root, 'package-lock.json'), ...manifests]) {
    hash.update(readFileSync(file))
  }
  return hash.update(`${process.version} ${process.platform} ${process.arch}`).digest('hex')
}

async function ensureInstalled() {
  const stamp = installStamp()
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === stamp) return
  console.log('Installing packages …')
  const npm = process.env['npm_execpath']
  const args = ['ci', '--include=dev', '--no-audit', '--no-fund', '--loglevel=error']
  if (npm) await must('The installation', process.execPath, [npm, ...args])
  else await must('The installation', 'npm', args)
  writeFileSync(stampFile, stamp)
}

/** The first of some programs that is installed, looked for in the order named. */
function onPath(names) {
  const folders = (process.env['PATH'] ?? '').split(delimiter).filter(Boolean)
  return names.flatMap((n) => folders.map((f) => join(f, n))).find((file) => existsSync(file))
}

/** The browser without a window of its own, which takes half the work of the whole one. */
const SHELL = 'chromium-headless-shell'
const CHROMIUM_NAMES = ['chromium', 'chromium-browser', 'google-chrome', 'google-chrome-stable']

/** The browser for the tests: named by LATHICA_CHROMIUM, on the path, or from Debian's packages. */
async function ensureChromium() {
  const named = process.env['LATHICA_CHROMIUM']
  if (named) {
    if (existsSync(named)) return named
    console.error(`LATHICA_CHROMIUM names ${named}, which is not there.`)
    process.exit(1)
  }
  const there = () => onPath([SHELL, ...CHROMIUM_NAMES])
  if (!onPath([SHELL])) await installed('Chromium', SHELL)
  if (!there()) await installed('Chromium', 'chromium')
  const found = there()
  if (found) return found
  console.error(
    'The browser tests need Chromium. Install it (Debian: apt-get install chromium), or set ' +
      'LATHICA_CHROMIUM to the path of one.',
  )
  process.exit(1)
}

/** Installs packages of Debian, where there are such. */
async function installed(what, ...packages) {
  if (!onPath(['apt-get'])) return
  console.log(`Installing ${what} from Debian’s packages …`)
  const prefix = process.getuid?.() === 0 ? [] : ['sudo', '-n']
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  const apt = (...args) => {
    const [program, ...rest] = [...prefix, 'apt-get', '-q', ...args]
    return run(program, rest, { env })
  }
  await apt('update')
  await apt('install', '-y', '--no-install-recommends', ...packages)
}

const PDF_TOOLS = ['qpdf', 'pdftotext', 'pdftoppm', 'pdfinfo']

/** What tests read PDFs with, which is none of ours. */
async function ensurePdfTools() {
  const missing = () => PDF_TOOLS.filter((name) => !onPath([name]))
  if (missing().length > 0) await installed('readers of PDF', 'qpdf', 'poppler-utils')
  if (missing().length === 0) return
  console.error(
    `The tests of sheets need ${missing().join(', ')} (Debian: apt-get install qpdf poppler-utils).`,
  )
  process.exit(1)
}

async function build() {
  console.log('Building the interface …')
  await must('The build', ...tool('vite/bin/vite.js', ['build', 'web', '--logLevel', 'warn']))
}

function serve(extra) {
  return tool('tsx/dist/cli.mjs', ['server/src/main.ts', ...extra])
}

async function demo() {
  await build()
  process.exit(await run(...serve(['--web', 'web/dist', '--demo', 'demo'])))
}

async function dev() {
  const server = run(...serve(['--demo', 'demo']))
  const page = run(...tool('vite/bin/vite.js', ['web']))
  process.exit(await Promise.race([server, page]))
}

/** Bundled, so that the figures are those of the code as it is shipped. */
async function bench() {
  const chromium = await ensureChromium()
  await build()
  const bundle = ['build', '--ssr', 'bench/run.ts', '--outDir', 'bench/dist', '--logLevel', 'warn']
  await must('The build of the bench', ...tool('vite/bin/vite.js', bundle))
  const env = { ...process.env, LATHICA_CHROMIUM: chromium }
  // The collector at hand tells what is held from what is only not swept up yet.
  const args = ['--expose-gc', 'bench/dist/run.js', ...process.argv.slice(3)]
  process.exit(await run(process.execPath, args, { env }))
}

async function screenshots() {
  const chromium = await ensureChromium()
  await build()
  const env = { ...process.env, LATHICA_CHROMIUM: chromium }
  process.exit(await run(...tool('tsx/dist/cli.mjs', ['scripts/screenshots.ts'], { env })))
}

/** Adds up what a report counts. */
function counts(file, read) {
  try {
    return read(JSON.parse(readFileSync(file, 'utf8')))
  } catch {
    return { passed: 0, failed: 1, skipped: 0 }
  }
}

async function test() {
  const chromium = await ensureChromium()
  await ensurePdfTools()
  const reports = mkdtempSync(join(tmpdir(), 'lathica-test-'))
  const unit = join(reports, 'unit.json')
  const browser = join(reports, 'browser.json')
  const env = { ...process.env, LATHICA_CHROMIUM: chromium, LATHICA_BROWSER_REPORT: browser }
  // Two lines of work, for two cores: each is about as long as the other.
  const pages = async () => {
    await build()
    return run(...tool('@playwright/test/cli.js', ['test'], { env }))
  }
  const computing = async () => {
    for (const [what, name, args] of CHECKS) {
      console.log(`${what} …`)
      await must(what, ...tool(name, args))
    }
    console.log('Trials at random, beside the walks …')
    await must('A trial', ...tool('tsx/dist/cli.mjs', WATCH))
    await must('A trial of the server', ...tool('tsx/dist/cli.mjs', SOAK))
    const cores = String(Math.max(1, availableParallelism() - 1))
    const args = ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`]
    const aside = { env: { ...process.env, LATHICA_WORKERS: cores } }
    return run(...tool('vitest/vitest.mjs', args, aside))
  }
  const [browserCode, unitCode] = await Promise.all([pages(), computing()])
  const first = counts(unit, (r) => ({
    passed: r.numPassedTests,
    failed: r.numFailedTests,
    skipped: r.numPendingTests,
  }))
  const second = counts(browser, ({ stats }) => ({
    passed: stats.expected + stats.flaky,
    failed: stats.unexpected,
    skipped: stats.skipped,
  }))
  rmSync(reports, { recursive: true, force: true })
  const sum = (key) => first[key] + second[key]
  const skipped = sum('skipped') > 0 ? `, ${sum('skipped')} skipped` : ''
  console.log(`\n${sum('passed')} passed, ${sum('failed')} failed${skipped}`)
  process.exit(unitCode || browserCode || (sum('failed') > 0 ? 1 : 0))
}

/** Trials at random against oracles, for so many minutes: `npm run fuzz -- 30`. */
async function fuzz() {
  const [minutes = '10', ...rest] = process.argv.slice(3)
  process.exit(
    await run(...tool('tsx/dist/cli.mjs', ['fuzz/run.ts', '--minutes', minutes, ...rest])),
  )
}

/** Trials of the server and of pages, for so many minutes: `npm run soak -- 30`. */
async function soak() {
  const [minutes = '10', ...rest] = process.argv.slice(3)
  process.exit(
    await run(...tool('tsx/dist/cli.mjs', ['soak/run.ts', '--minutes', minutes, ...rest])),
  )
}

/** A short watch with cases that are the same every time; the first finding ends it. */
const WATCH = ['fuzz/run.ts', '--minutes', '2', '--seed', '1', '--count', '600', '--first']

/** A short trial of the server: what is lost or hangs ends it; times are not judged beside other work. */
const SOAK = [
  ...['soak/run.ts', '--minutes', '1', '--losses'],
  ...['--only', 'kills while saving,hostile files,solids that come in'],
]

const DEPEND = [
  '--config',
  '.dependency-cruiser.cjs',
  'core/src',
  'kernel/src',
  'server/src',
  'web/src',
  'cli/src',
]

/** What is judged without running it. */
const CHECKS = [
  ['Formatting', 'prettier/bin/prettier.cjs', ['--check', '--log-level', 'warn', '.']],
  ['The type check', 'typescript/bin/tsc', ['-p', 'tsconfig.json']],
  ['The type check of the interface', 'vue-tsc/bin/vue-tsc.js', ['-p', 'web/tsconfig.json']],
  ['Lint', 'eslint/bin/eslint.js', ['--max-warnings', '0', '.']],
  ['The dependence check', 'dependency-cruiser/bin/dependency-cruise.mjs', DEPEND],
  ['The check for unused code', 'knip/bin/knip.js', []],
  ['The check of NOTICE', 'tsx/dist/cli.mjs', ['scripts/notice.ts', '--check']],
  ['The check of the list of problems', 'tsx/dist/cli.mjs', ['scripts/errors.ts', '--check']],
]

const commands = { demo, test, dev, bench, screenshots, fuzz, soak }
const command = commands[process.argv[2] ?? '']
if (!command) {
  console.error(`Use one of: ${Object.keys(commands).join(', ')}.`)
  process.exit(2)
}
await ensureInstalled()
await command()
