import { readFileSync } from 'node:fs'
import { DISPLAY_CHORD_TOLERANCE } from '@lathica/core/tolerances'
import { startDrag } from '@lathica/core/solver'
import { edgesOf, solidProperties, type Section } from '@lathica/core/section'
import { valuesOf, type NewCheck, type Part } from '@lathica/core/part'
import { evaluate, withDragged } from '@lathica/core/route'
import { addChecks, changeSize, perform, type Command } from '@lathica/core/edit'
import { hitsOnTurned, latheMesh, type LatheMesh } from '@lathica/core/mesh'
import { checkStates, lengthwise, stationsAlong } from '@lathica/core/inspect'
import { readPartFile } from '@lathica/core/formats'
import { atLeast, atMost, medianTime, type Row } from './row'
import { looseProfile } from './turned'
import { longShaft, wideShaft } from './update'

/** Looking and checking: picks, sheets, charts, and a solid that follows a drag. */
export function inspectRows(): Row[] {
  const shaft = evaluate(longShaft()).bodies[0]?.section
  if (!shaft) throw new Error('the bench part is turned')
  const wide = evaluate(wideShaft()).bodies[0]?.section ?? shaft
  return [...dragRows(), ...pickRows(wide), ...sheetRows(), ...chartRows(shaft)]
}

/** Section and mesh of a profile of 300 entities while one of its sizes is dragged. */
function dragRows(): Row[] {
  const { part, point } = looseProfile(300)
  const [sketch] = part.sketches
  if (!sketch) throw new Error('the bench part has a profile')
  const session = startDrag(sketch, valuesOf(part).sizesOf(sketch.id).values, [point])
  let mesh: LatheMesh | undefined
  const time = medianTime(
    100,
    (i) => withDragged(part, sketch.id, session.move({ x: 0, y: 0.002 * i })),
    (moved) => {
      const section = evaluate(moved).bodies[0]?.section
      if (section) mesh = latheMesh(section, DISPLAY_CHORD_TOLERANCE, mesh)
    },
  )
  return [atMost('section and mesh after a move of a drag, 300 entities', time, 'ms', 6)]
}

/** A pick on a solid that is shown with half a million triangles. */
function pickRows(section: Section): Row[] {
  const mesh = latheMesh(section, DISPLAY_CHORD_TOLERANCE)
  const triangles = mesh.indices.length / 3
  const time = medianTime(
    200,
    (i) => ({ x: 300 * Math.sin(i), y: 9000, z: 5 + 47 * i }),
    (from) =>
      void hitsOnTurned(section, from, { x: 0.01, y: -1, z: 0.02 }, DISPLAY_CHORD_TOLERANCE),
  )
  return [
    atLeast('triangles of the solid picked from', triangles, '', 500_000),
    atMost('pick under the pointer on it', time, 'ms', 2),
  ]
}

/** Fifty rows of every kind, against a part whose size has just changed. */
function sheetRows(): Row[] {
  const read = readPartFile(readFileSync('demo/spindle.lathica.json', 'utf8'))
  if (!read.ok) throw new Error(read.problem.message)
  const part = run(read.value, addChecks(fiftyRows(read.value)))
  const size = part.sketches[0]?.sizes.find((s) => s.formula === '112')
  const time = medianTime(
    60,
    (i) => {
      const next = run(part, changeSize('sketch2', size?.id ?? '', String(112 + 0.01 * i)))
      // The sheet alone: the route has run when it is asked.
      evaluate(next)
      return next
    },
    (next) => {
      if (checkStates(evaluate(next)).length < 50) throw new Error('rows are missing')
    },
  )
  return [atMost('inspection sheet of 50 rows', time, 'ms', 5)]
}

function fiftyRows(part: Part): NewCheck[] {
  const own = part.checks.map(({ id: _, ...row }) => row)
  return Array.from({ length: 50 - part.checks.length }, (_, i) => ({
    ...(own[i % own.length] ?? { figure: { kind: 'mass', body: '' } as const }),
    name: `row ${i}`,
  }))
}

/** Two thousand stations, and how far cumulative volume and stations lie from closed forms. */
function chartRows(section: Section): Row[] {
  const time = medianTime(
    60,
    // Another section each time, so that nothing is remembered.
    () => ({ regions: section.regions.map((r) => ({ ...r })) }),
    (fresh) => {
      lengthwise(fresh)
      if (stationsAlong(fresh, 2000).length < 2000) throw new Error('stations are missing')
    },
  )
  const whole = solidProperties(section)?.volume ?? 0
  const summed = stationsAlong(section, 2000).at(-1)?.volume ?? 0
  return [
    atMost(`chart of 2,000 stations, ${edgesOf(section).length} edges`, time, 'ms', 5),
    atMost('its last volume against the integral', Math.abs(summed / whole - 1), '', 1e-9),
  ]
}

function run(part: Part, ...commands: readonly Command[]): Part {
  return commands.reduce((here, command) => {
    const result = perform(here, command)
    if (!result.ok) throw new Error(result.problem.message)
    return result.value
  }, part)
}
