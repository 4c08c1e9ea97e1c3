import { readFileSync } from 'node:fs'
import { drawSheet } from '@lathica/core/drawing'
import { writeDrawingSvg } from '@lathica/core/formats'
import type { Part } from '@lathica/core/part'
import { FONT_FILES, writeDrawingPdf } from '@lathica/core/pdf'
import { evaluate } from '@lathica/core/route'
import { createRandom } from '@lathica/core/solver'
import { overlapsOn, readSheet, shaftOn } from '../core/test/support/sheetReader'
import { randomSteps, shaftPart } from '../core/test/support/shafts'
import { atMost, medianTime, type Row } from './row'

const SHAFTS = 200
const MOST_STEPS = 30

function drawn(part: Part) {
  const drawing = drawSheet(evaluate(part))
  if (!drawing) throw new Error('nothing is drawn')
  return drawing
}

/** Random shafts, judged by the reader of sheets: what is covered, what is not read back, what found no room. */
function judgedShafts(): {
  readonly covered: number
  readonly unread: number
  readonly left: number
} {
  const random = createRandom(29)
  let [covered, unread, left] = [0, 0, 0]
  for (let i = 0; i < SHAFTS; i++) {
    const steps = randomSteps(1 + (i % MOST_STEPS), random)
    const drawing = drawn(shaftPart(steps))
    const groups = readSheet(writeDrawingSvg(drawing, 'Spindle'))
    covered += overlapsOn(groups).length
    left += drawing.told.length
    try {
      const read = shaftOn(groups)
      const mass = (all: readonly { diameter: number; length: number }[]): number =>
        all.reduce((sum, s) => sum + s.diameter ** 2 * s.length, 0)
      if (Math.abs(mass(read) / mass(steps) - 1) > 1e-6) unread++
    } catch {
      unread++
    }
  }
  return { covered, unread, left }
}

/** Twenty steps: 41 edges of outline and 40 sizes. */
const steps = randomSteps(20, createRandom(5))

function layingOut(change: boolean): number {
  return medianTime(
    21,
    (i) => {
      const own = steps.map((s, n) =>
        n === 7 ? { ...s, length: s.length + (change ? i / 10 : 0) } : s,
      )
      return evaluate(shaftPart(own, `Spindle ${i}`))
    },
    (state) => {
      const drawing = drawSheet(state)
      if (!drawing || writeDrawingSvg(drawing, 'Spindle').length < 1000)
        throw new Error('nothing is drawn')
    },
    3,
  )
}

function writing(): number {
  const drawing = drawn(shaftPart(steps))
  const fonts = FONT_FILES.map((file) => readFileSync(`node_modules/${file}`))
  const about = { title: 'Spindle', author: '', at: new Date(0) }
  return medianTime(
    7,
    () => undefined,
    () => {
      if (writeDrawingPdf([drawing], fonts, about).bytes.length < 1000) throw new Error('no PDF')
    },
    2,
  )
}

/** The sheet: what is covered on it, what is read back off it, and how long it takes. */
export const sheetRows = (): Row[] => {
  const { covered, unread, left } = judgedShafts()
  return [
    atMost('labels of 200 random shafts that cover something', covered, '', 0),
    atMost('of 200 random shafts, not read back off their sheets', unread, '', 0),
    atMost('of 200 random shafts, sheets with something left out', left, '', 0),
    atMost('a sheet of 40 sizes laid out and drawn', layingOut(false), 'ms', 150),
    atMost('the same after a change of one size', layingOut(true), 'ms', 40),
    atMost('the same as PDF', writing(), 'ms', 500),
  ]
}
