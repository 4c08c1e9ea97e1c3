/**
 * Lists every problem that Lathica tells, by its code, in `docs/errors.md`: read from the source, so that the list is what
 * is said. `errors.ts --check` ends with code 1 where the list is not up to date.
 */
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import ts from 'typescript'

const OUT = 'docs/errors.md'
const ROOTS = ['core', 'kernel', 'server', 'web', 'cli']
const CODE = /^[a-z][A-Za-z0-9]*\.[A-Za-z0-9]+$/

interface Told {
  readonly code: string
  readonly message: string
  readonly mend: string
  readonly file: string
}

/** An expression as it reads: what is put in stands as an ellipsis, of two ways both. */
function wordsOf(node: ts.Expression | undefined): string {
  if (!node) return ''
  if (ts.isStringLiteralLike(node)) return node.text
  if (ts.isTemplateExpression(node)) {
    return node.head.text + node.templateSpans.map((s) => `…${s.literal.text}`).join('')
  }
  if (ts.isConditionalExpression(node)) {
    return [node.whenTrue, node.whenFalse].map(wordsOf).join(' / ')
  }
  if (ts.isBinaryExpression(node)) return wordsOf(node.left) + wordsOf(node.right)
  return '…'
}

/** The arguments of a call that stand for code, message and mend; undefined for another call. */
function spokenIn(node: ts.Node): readonly (ts.Expression | undefined)[] | undefined {
  if (ts.isCallExpression(node) && node.expression.getText() === 'fail') return node.arguments
  if (ts.isNewExpression(node)) {
    const name = node.expression.getText()
    if (name === 'HttpProblem') return node.arguments?.slice(1)
    if (name === 'KernelFault') return node.arguments
  }
  if (!ts.isObjectLiteralExpression(node)) return undefined
  const value = (key: string): ts.Expression | undefined =>
    node.properties.find(
      (p): p is ts.PropertyAssignment => ts.isPropertyAssignment(p) && p.name.getText() === key,
    )?.initializer
  return value('code') && value('message') ? ['code', 'message', 'mend'].map(value) : undefined
}

function toldIn(file: string): Told[] {
  const text = readFileSync(file, 'utf8')
  const script = file.endsWith('.vue')
    ? (/<script[^>]*>([\s\S]*?)<\/script>/.exec(text)?.[1] ?? '')
    : text
  const source = ts.createSourceFile(file, script, ts.ScriptTarget.Latest, true)
  const found: Told[] = []
  const visit = (node: ts.Node): void => {
    const [code, message, mend] = (spokenIn(node) ?? []).map(wordsOf)
    if (code !== undefined && CODE.test(code)) {
      found.push({ code, message: message ?? '', mend: mend ?? '', file })
    }
    ts.forEachChild(node, visit)
  }
  visit(source)
  return found
}

const cell = (text: string): string => text.replace(/\|/g, '\\|').replace(/\s+/g, ' ').trim()

const files = ROOTS.flatMap((root) =>
  readdirSync(join(root, 'src'), { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.(ts|vue)$/.test(name))
    .map((name) => join(root, 'src', name)),
).sort()
const all = files.flatMap(toldIn)
const sorted = [...new Map(all.map((t) => [`${t.code} ${t.message} ${t.mend}`, t])).values()].sort(
  (a, b) => a.code.localeCompare(b.code, 'en') || a.message.localeCompare(b.message, 'en'),
)
const areas = new Map<string, Told[]>()
for (const t of sorted) {
  const area = t.code.slice(0, t.code.indexOf('.'))
  areas.set(area, [...(areas.get(area) ?? []), t])
}
const lines = [
  '# Problems and their codes',
  '',
  'Everything Lathica refuses is a value with a code, a sentence and a mend. This list is made from the source by',
  '`npm run errors`; `…` stands for what is put in. Codes do not change: scripts may go by them.',
  ...[...areas].flatMap(([area, told]) => [
    '',
    `## ${area}`,
    '',
    '| code | what is said | what mends it | said in |',
    '| --- | --- | --- | --- |',
    ...told.map((t) => `| \`${t.code}\` | ${cell(t.message)} | ${cell(t.mend)} | \`${t.file}\` |`),
  ]),
  '',
]
const text = lines.join('\n')
if (!process.argv.includes('--check')) {
  writeFileSync(OUT, text)
  console.log(
    `${OUT}: ${sorted.length} problems of ${new Set(sorted.map((t) => t.code)).size} codes`,
  )
} else if (!existsSync(OUT) || readFileSync(OUT, 'utf8') !== text) {
  console.error(`${OUT} is not up to date: run npm run errors.`)
  process.exit(1)
}
