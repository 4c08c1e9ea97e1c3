import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { STOCK_MATERIALS, createPart, type Part } from '@lathica/core/part'
import { perform, renamePart, setMaterial, setValue, type Command } from '@lathica/core/edit'
import { readPartFile, toDocument } from '@lathica/core/formats'
import { describe, expect, it } from 'vitest'
import { differencesOf, type Difference } from '../src/drafts/differences'

/** The demo project's spindle, with its whole route. */
function spindle(): Part {
  const file = fileURLToPath(new URL('../../demo/spindle.lathica.json', import.meta.url))
  const read = readPartFile(readFileSync(file, 'utf8'))
  if (!read.ok) throw new Error(read.problem.message)
  return read.value
}

function after(part: Part, ...commands: readonly Command[]): Part {
  return commands.reduce((state, command) => {
    const done = perform(state, command)
    if (!done.ok) throw new Error(done.problem.message)
    return done.value
  }, part)
}
const rowOf = (rows: readonly Difference[], what: RegExp): Difference | undefined =>
  rows.find((row) => what.test(row.what))

describe('differences of two states of a part', () => {
  const part = spindle()

  it('are none of a part and itself, as it is and as it was read', () => {
    expect(differencesOf(part, part)).toEqual([])
    expect(differencesOf(part, JSON.parse(JSON.stringify(toDocument(part))) as Part)).toEqual([])
  })

  it('tell names, values and materials', () => {
    const copper = STOCK_MATERIALS.find((m) => m.name.startsWith('copper'))
    if (!copper) throw new Error('there is no copper in stock')
    const changed = after(
      part,
      renamePart('Spindle, longer'),
      setValue({ name: 'wall', formula: '2.5', measure: 'length' }),
      setMaterial(part.bodies[0]?.id ?? '', copper),
    )
    const rows = differencesOf(part, changed)
    expect(rowOf(rows, /^name$/)).toMatchObject({ before: 'Spindle', after: 'Spindle, longer' })
    expect(rowOf(rows, /^value wall$/)).toMatchObject({ before: '', after: '2.5' })
    expect(rowOf(rows, /^material of/)?.after).toBe(copper.name)
    expect(rows).toHaveLength(3)
  })

  it('tell sizes, what was drawn, places, and steps by field, order and being there', () => {
    const [sketch] = part.sketches
    const [size] = sketch?.sizes ?? []
    const [first, second, ...rest] = part.route
    if (!sketch || !size || !first || !second) throw new Error('the spindle has no steps')
    const changed: Part = {
      ...part,
      sketches: part.sketches.map((s) =>
        s.id === sketch.id
          ? {
              ...s,
              sizes: s.sizes.map((x) => (x.id === size.id ? { ...x, formula: '99.5' } : x)),
              constraints: s.constraints.slice(1),
              points: s.points.map((p, i) => (i === 0 ? { ...p, x: p.x + 3 } : p)),
            }
          : s,
      ),
      route: [second, { ...first, aside: true }, ...rest.slice(0, -1)],
    }
    const rows = differencesOf(part, changed)
    expect(rowOf(rows, /^size /)).toMatchObject({ before: size.formula, after: '99.5' })
    expect(rowOf(rows, /^constraints /)).toMatchObject({ before: '1 that the other has not' })
    expect(rowOf(rows, /^places /)?.after).toBe('1 point moved, by up to 3 mm')
    expect(rowOf(rows, /set aside/)).toMatchObject({ before: 'no', after: 'yes' })
    expect(rowOf(rows, /^order of the route/)?.after.startsWith(String(second.number))).toBe(true)
    expect(rows.some((row) => row.before === 'there' && row.after === '')).toBe(true)
    // Looked at the other way round, it is the same with the sides changed.
    const back = differencesOf(changed, part)
    expect(rowOf(back, /^size /)).toMatchObject({ before: '99.5', after: size.formula })
    expect(back).toHaveLength(rows.length)
  })

  it('tell of an empty part that all came', () => {
    const rows = differencesOf(createPart({ name: 'Spindle' }), part)
    expect(rows.filter((row) => row.after === 'there')).toHaveLength(part.route.length)
  })
})
