import { readFile, readdir } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import { join } from 'node:path'
import { beforeAll, describe, expect, it } from 'vitest'
import type { Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import { reportOf } from '@lathica/core/inspect'
import { readPartFile } from '@lathica/core/formats'
import { loadKernel, settlePlans, type Kernel } from '@lathica/kernel'
import { demoParts } from '../../scripts/demo/parts'

const FOLDER = fileURLToPath(new URL('../../demo', import.meta.url))

function read(text: string): Part {
  const result = readPartFile(text)
  if (!result.ok) throw new Error(result.problem.message)
  return result.value
}

let kernel: Kernel
beforeAll(async () => {
  kernel = await loadKernel()
})

describe('the demo parts', () => {
  it('on disk are what the commands make', async () => {
    const files = (await readdir(FOLDER)).filter((f) => f.endsWith('.json')).sort()
    const made = demoParts()
    expect(files).toEqual([...made.keys()].sort())
    for (const [name, text] of made) expect(await readFile(join(FOLDER, name), 'utf8')).toBe(text)
  })

  it.each([...demoParts()])('%s stands in ink, encloses material and has a mass', (_, text) => {
    const part = read(text)
    const report = reportOf(settlePlans(part, (plan) => kernel.weigh(plan)))
    expect(report.bodies).toHaveLength(part.bodies.length)
    for (const s of report.sketches) {
      expect([s.freedoms, s.conflicts, s.faults]).toEqual([0, [], []])
    }
    expect(report.steps.filter((s) => s.status !== 'done')).toEqual([])
    for (const body of report.bodies) expect(body.mass_g).toBeGreaterThan(0)
  })

  it('follow their named values', () => {
    const flask = read(demoParts().get('ink-flask.lathica.json') ?? '')
    const mass = (part: Part): number => evaluate(part).bodies[0]?.mass ?? 0
    const thicker = read(
      JSON.stringify({
        ...flask,
        values: flask.values.map((v) => (v.name === 'wall' ? { ...v, formula: '4' } : v)),
      }),
    )
    expect(mass(thicker)).toBeGreaterThan(1.3 * mass(flask))
  })
})
