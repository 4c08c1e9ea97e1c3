import { readFileSync, readdirSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { askedOf, drawSheet, type Drawing } from '../src/drawing'
import { readPartFile, writeDrawingSvg } from '../src/formats'
import { PLAIN_DRAWING, PLAIN_SHEET, type Part } from '../src/part'
import { evaluate } from '../src/route'
import { createRandom } from '../src/solver'
import { overlapsOn, readSheet, shaftOn } from './support/sheetReader'
import { randomSteps, shaftPart } from './support/shafts'

const DEMO = new URL('../../demo/', import.meta.url)
const demoNames = readdirSync(DEMO).map((file) => file.replace('.lathica.json', ''))

function demo(name: string): Part {
  const read = readPartFile(readFileSync(new URL(`${name}.lathica.json`, DEMO), 'utf8'))
  if (!read.ok) throw new Error(read.problem.message)
  return 'part' in read.value ? (read.value as { part: Part }).part : (read.value as Part)
}

function sheetOf(part: Part) {
  const drawing = drawSheet(evaluate(part))
  if (!drawing) throw new Error('nothing is drawn')
  const { told, labels } = drawing
  return { groups: readSheet(writeDrawingSvg(drawing, part.name)), told, labels }
}

/** Every value that is asked, sorted; what is shown in other ways where there are sections across counts once. */
function valuesAsked(part: Part): string[] {
  const { asked, beside } = askedOf(evaluate(part))
  return [...new Set([...asked, ...beside].flatMap((a) => a.shows))].sort()
}

describe('sheets laid out by themselves', () => {
  it.each(demoNames)('cover nothing, and show every size once: %s', (name) => {
    const part = demo(name)
    const { groups, told, labels } = sheetOf(part)
    // The solid kernel is not asked here: what is no full turn is drawn as one, and that is told.
    const isLifted = evaluate(part).bodies.some((b) => b.plan && !b.reference)
    expect(told).toEqual(isLifted ? [expect.stringContaining('not in the views yet')] : [])
    expect(overlapsOn(groups)).toEqual([])
    const shown = groups.filter((g) => g.role === 'size').map((g) => g.id)
    expect(shown.flatMap((id) => labels.get(id)?.shows ?? []).sort()).toEqual(valuesAsked(part))
  })

  it('show what is small larger, with its sizes, unless that is not wanted', () => {
    const part = demo('spindle')
    const detailed = drawSheet(evaluate(part))
    const views = detailed?.groups.filter((g) => g.role === 'view').map((g) => g.said)
    expect(views).toEqual(['View along the axis', 'Detail Z, 5:1'])
    const sheet = { ...PLAIN_SHEET, details: 'none' } as const
    const plain = drawSheet(evaluate({ ...part, drawing: { ...PLAIN_DRAWING, sheets: [sheet] } }))
    expect(plain?.groups.filter((g) => g.role === 'view')).toHaveLength(1)
    // The width of the undercut is drawn five times as large in the detail.
    const widthOf = (drawing: typeof plain): number => {
      const groups = readSheet(writeDrawingSvg(drawing as Drawing, part.name))
      const heads = groups.find((g) => g.id === 'step/step4/sizes/width')?.heads ?? []
      const xs = heads.map((h) => h.x)
      return Math.max(...xs) - Math.min(...xs)
    }
    expect(widthOf(plain)).toBeCloseTo(4.5, 6)
    expect(widthOf(detailed)).toBeCloseTo(22.5, 6)
  })

  it('tell references in parentheses', () => {
    const part = demo('spindle')
    const [profile, ...others] = part.sketches
    if (!profile) throw new Error('the profile is gone')
    const sizes = profile.sizes.map((s) => (s.name === 'len1' ? { ...s, reference: true } : s))
    const { groups } = sheetOf({ ...part, sketches: [{ ...profile, sizes }, ...others] })
    const texts = groups.flatMap((g) => g.texts.map((t) => t.words))
    expect(texts).toContain('(24)')
    expect(texts).not.toContain('24')
  })

  it('are judged: a label that is dragged onto another is counted', () => {
    const part = demo('spindle')
    const state = evaluate(part)
    const labels = drawSheet(state)?.labels
    const [a, b] = ['size/sketch2/s44', 'size/sketch2/s46'].map((id) => labels?.get(id))
    if (!a || !b) throw new Error('the labels are gone')
    const by = { x: b.at.x - a.at.x, y: b.at.y - a.at.y }
    // Both are kept where they are put: others would give way.
    const moved = [
      { id: 'size/sketch2/s44', x: a.by.x + by.x, y: a.by.y + by.y },
      { id: 'size/sketch2/s46', ...b.by },
    ]
    const { groups } = sheetOf({
      ...part,
      drawing: { ...PLAIN_DRAWING, sheets: [{ ...PLAIN_SHEET, moved }] },
    })
    expect(overlapsOn(groups)).toContain('“24” and “34 ±0.1”')
  })

  it('are read back as the shaft that was drawn, from the picture alone', () => {
    const random = createRandom(17)
    for (let i = 0; i < 12; i++) {
      const steps = randomSteps(2 + 2 * i, random)
      const { groups, told } = sheetOf(shaftPart(steps))
      expect(told).toEqual([])
      expect(overlapsOn(groups)).toEqual([])
      const mass = (all: readonly { diameter: number; length: number }[]): number =>
        all.reduce((sum, s) => sum + s.diameter ** 2 * s.length, 0)
      expect(mass(shaftOn(groups)) / mass(steps)).toBeCloseTo(1, 9)
    }
  })
})
