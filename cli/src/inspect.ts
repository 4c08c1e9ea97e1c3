import { limitSizes } from '@lathica/core/formula'
import { NOTE_KINDS, noteStates, noteWhere } from '@lathica/core/notes'
import { callsOf, type PartState } from '@lathica/core/route'
import { significant } from '@lathica/core/units'
import { tolerancedIn } from '@lathica/core/vary'
import { reportOf, type PartReport } from '@lathica/core/inspect'
import { generalWords } from '@lathica/core/standards'
import { EXIT, type Streams } from './exit'
import { isSound } from './read'
import { readSettled } from './settled'

/** Tells what a part comes to, as text or as JSON with full digits. */
export async function inspectPart(path: string, json: boolean, streams: Streams): Promise<number> {
  const { state } = await readSettled(path)
  const report = reportOf(state)
  streams.stdout.write(
    json ? `${JSON.stringify(withSaid(report, state), null, 2)}\n` : asText(report, state),
  )
  return isSound(report) ? EXIT.well : EXIT.unsound
}

/** The report with every note, and every value that has a tolerance, in mm and radians with full digits. */
const withSaid = (report: PartReport, state: PartState): object => ({
  ...report,
  notes: noteStates(state).map(({ note, words, problem }) => ({
    ...note,
    words,
    problem: problem ? `${problem.message} ${problem.mend}` : '',
  })),
  calls: callsOf(state).map(({ body, words }) => ({ body, words })),
  general_tolerances: generalWords(state.part) ?? null,
  tolerances: tolerancedIn(state.part).map(({ words, nominal, upper, lower, written, own }) => ({
    ...{ of: words, nominal, upper, lower, written, own },
  })),
})

const figure = (value: number): string => significant(value, 6)

function asText(report: PartReport, state: PartState): string {
  const { part } = state
  const lines = [report.name]
  for (const body of report.bodies) {
    const { from, to, diameter } = body.bounds_mm
    lines.push(
      '',
      `${body.name}, ${body.material}`,
      row('mass', figure(body.mass_g), 'g'),
      row('volume', figure(body.volume_mm3), 'mm³'),
      row('area', figure(body.area_mm2), 'mm²'),
      row('centre of mass', figure(body.centroid_mm), 'mm along the axis'),
      row('inertia about the axis', figure(body.inertia_g_mm2.axis), 'g·mm²'),
      row('inertia across it', figure(body.inertia_g_mm2.across), 'g·mm² about the centre'),
      row('size', `⌀${figure(diameter)} × ${figure(to - from)}`, 'mm'),
    )
  }
  if (report.bodies.length === 0) lines.push('', 'No body yet.')
  lines.push('')
  for (const sketch of report.sketches) {
    const loose = sketch.freedoms === 1 ? '1 freedom' : `${sketch.freedoms} freedoms`
    const regions = sketch.regions === 1 ? '1 region' : `${sketch.regions} regions`
    lines.push(`profile ${sketch.name}: ${loose} left, ${regions}`)
    lines.push(...sketch.conflicts.map((c) => `  conflict: ${c}`))
    lines.push(...sketch.faults.map((f) => `  ${f}`))
  }
  for (const step of report.steps) {
    const message = step.message === '' ? '' : `: ${step.message}`
    lines.push(`step ${step.number} ${step.kind}: ${step.status}${message}`)
  }
  for (const said of noteStates(state)) {
    const wrong = said.problem ? `: ${said.problem.message}` : ''
    const { name } = NOTE_KINDS[said.note.kind]
    lines.push(`${name} ${said.words}, ${noteWhere(said, part)}${wrong}`)
  }
  lines.push(...callsOf(state).map(({ words }) => words))
  for (const t of tolerancedIn(part).filter((found) => found.own)) {
    const [least, most] = limitSizes(t.nominal, t, t.measure, part.units)
    lines.push(`tolerance ${t.words}: ${t.written}, from ${least} to ${most}`)
  }
  const general = generalWords(part)
  if (general !== undefined) lines.push(`general tolerances: ${general}`)
  for (const value of report.values) {
    if (value.problem !== '') lines.push(`value ${value.name}: ${value.problem}`)
  }
  return `${lines.join('\n')}\n`
}

function row(what: string, value: string, unit: string): string {
  return `  ${what.padEnd(24)}${value.padStart(14)} ${unit}`
}
