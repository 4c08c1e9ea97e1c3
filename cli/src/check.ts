import {
  checkStatesAt,
  reportOf,
  summaryOf,
  tellFailure,
  tellFigures,
  tellTolerance,
  tellMeasured,
  tellValue,
  type CheckState,
} from '@lathica/core/inspect'
import { writeSheet } from '@lathica/core/formats'
import { spansOf } from '@lathica/core/vary'
import { EXIT, Stop, type Streams } from './exit'
import { isSound } from './read'
import { readSettled } from './settled'

interface Options {
  readonly json?: boolean | undefined
  readonly csv?: boolean | undefined
}

/** Compares a part with its inspection sheet: all rows must pass, and the part itself be sound. */
export async function checkPart(
  path: string,
  { json, csv }: Options,
  streams: Streams,
): Promise<number> {
  if (json === true && csv === true) throw new Stop(EXIT.usage, 'Choose --json or --csv.')
  const { state } = await readSettled(path)
  const states = checkStatesAt(state, spansOf(state.part))
  const { failing, open, passing, targets } = summaryOf(states)
  const sound = isSound(reportOf(state))
  if (csv === true) streams.stdout.write(writeSheet(state))
  else if (json === true) streams.stdout.write(asJson(state.part.name, states, sound))
  else {
    const lines = states.map(asLine)
    const sum = targets === 0 ? 'The sheet has no targets.' : `${passing} of ${targets} rows pass.`
    const steps = sound ? [] : ['The part itself is not sound: see lathica inspect.']
    streams.stdout.write(`${[state.part.name, ...lines, '', sum, ...steps].join('\n')}\n`)
  }
  return failing + open === 0 && sound ? EXIT.well : EXIT.unsound
}

const MARKS = { passes: 'pass', fails: 'FAIL', open: 'OPEN', told: '' } as const

function asLine(state: CheckState): string {
  const { measured, target, unit, verdict, words, problem } = state
  const value = measured ? tellMeasured(measured, unit) : '–'
  const wanted =
    target === undefined ? '' : `${tellValue(target, unit)} ${tellTolerance(state)}`.trim()
  const why = verdict === 'fails' ? tellFailure(state) : (problem?.message ?? '')
  const span = state.span
    ? `   at every limit ${tellFigures(state.span.low, unit)} to ${tellValue(state.span.high, unit)}`
    : ''
  const line = `  ${MARKS[verdict].padEnd(5)} ${words.padEnd(44)} ${value.padStart(16)}   ${wanted}${span}`
  return why === '' ? line.trimEnd() : `${line.trimEnd()}\n        ${why}`
}

/** Values in mm, rad, g and their products, with full digits. */
function asJson(name: string, states: readonly CheckState[], sound: boolean): string {
  const rows = states.map(
    ({ check, words, measured, target, above, below, span, verdict, problem }) => ({
      ...{ name: words, figure: check.figure, unit: check.unit, limit: check.limit },
      value: measured?.value ?? null,
      target: target ?? null,
      ...{ above, below, verdict },
      at_limits: span ?? null,
      problem: problem ? `${problem.message} ${problem.mend}` : '',
    }),
  )
  return `${JSON.stringify({ name, sound, rows }, null, 2)}\n`
}
