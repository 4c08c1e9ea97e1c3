import { describe, expect, it } from 'vitest'
import { createPart, type Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import { drawDraft, steppedShaft } from '@lathica/core/edit'
import { changedPatch, type Scene } from '../src/board/paint'
import { toScreen } from '../src/board/view'

/** Three lands of ⌀40 × 20, ⌀60 × 20 and ⌀20 × 30, as they are painted. */
function shaft(): Part {
  const part = createPart({ name: 'Spindle' })
  const lands = [
    [40, 20],
    [60, 20],
    [20, 30],
  ].map(([d = 0, l = 0]) => ({
    diameter: { formula: String(d), value: d },
    length: { formula: String(l), value: l },
  }))
  const drawn = drawDraft(
    'draw',
    part.sketches[0]?.id ?? '',
    steppedShaft({ at: { x: 0, y: 0 }, on: ['origin'] }, lands),
  )
  const made = drawn.run(part)
  if (!made.ok) throw new Error(made.problem.message)
  return made.value
}

const VIEW = { lie: 'lying', scale: 6, origin: { x: 100, y: 300 } } as const
const COLOURS = {} as Scene['colours']

function sceneOf(part: Part, more: Partial<Scene> = {}): Scene {
  const [sketch] = part.sketches
  const state = evaluate(part)
  const sketchState = sketch && state.sketches.get(sketch.id)
  return {
    ...{ view: VIEW, width: 700, unit: 1, height: 560, colours: COLOURS, end: undefined },
    ...{ sections: sketchState ? [sketchState.profile.section] : [], drawnSteps: new Set() },
    ...{
      receding: false,
      sketch,
      sketchState,
      behind: [],
      sizes: [],
      picks: new Set(),
      hover: undefined,
    },
    ...{ troubled: new Set(), overlay: undefined, marked: [], hoverRef: undefined, areas: [] },
    ...{
      marks: [],
      notes: [],
      threads: [],
      general: [],
      zones: [],
      knurls: [],
      tool: undefined,
      grid: undefined,
    },
    ...more,
  }
}

/** The part with the points of the land of one radius drawn out to another. */
function widened(part: Part, from: number, to: number): Part {
  const points = (list: Part['sketches'][number]['points']) =>
    list.map((p) => (Math.abs(p.y - from) < 1e-6 ? { ...p, y: to } : p))
  return { ...part, sketches: part.sketches.map((s) => ({ ...s, points: points(s.points) })) }
}

describe('what of the board a drag has changed', () => {
  const part = shaft()

  it('is nothing where nothing has', () => {
    expect(changedPatch(sceneOf(part), sceneOf(part))).toBeUndefined()
  })

  it('holds all that moved, before and after, and its image', () => {
    const after = widened(part, 10, 13)
    const patch = changedPatch(sceneOf(part), sceneOf(after))
    if (patch === 'all' || patch === undefined) throw new Error(`it is ${patch}`)
    const [left, top, right, bottom] = patch
    for (const [x, y] of [
      [40, 13],
      [70, 13],
      [70, 10],
      [70, -13],
    ] as const) {
      const at = toScreen(VIEW, { x, y })
      expect(at.x).toBeGreaterThan(left)
      expect(at.x).toBeLessThan(right)
      expect(at.y).toBeGreaterThan(top)
      expect(at.y).toBeLessThan(bottom)
    }
    // The first land stays out of it.
    expect(left).toBeGreaterThan(toScreen(VIEW, { x: 20, y: 0 }).x)
  })

  it('holds sizes that moved, came or went', () => {
    const size = (id: string, x: number, y: number) => ({
      ...{ id, text: '20', reference: false, label: { x, y }, width: 30 },
      ...{
        lines: [
          [
            { x, y },
            { x: x + 40, y },
          ],
        ] as const,
        witnesses: [],
        arrows: [],
      },
    })
    const before = sceneOf(part, { sizes: [size('a', 50, 60), size('b', 300, 60)] })
    const moved = sceneOf(part, { sizes: [size('a', 50, 60), size('b', 300, 80)] })
    expect(changedPatch(before, moved)).toEqual([288, 48, 352, 92])
    const gone = sceneOf(part, { sizes: [size('b', 300, 60)] })
    expect(changedPatch(before, gone)).toEqual([38, 48, 102, 72])
    expect(changedPatch(gone, before)).toEqual([38, 48, 102, 72])
  })

  it('is all of it where more than places has changed, or most of it moved', () => {
    const plain = sceneOf(part)
    const mark = { x: 1, y: 1 }
    for (const other of [
      { hover: 'l1' },
      { picks: new Set(['l1']) },
      { view: { ...VIEW } },
      { width: 701 },
      { receding: true },
      { troubled: new Set(['l1']) },
      { overlay: { mark } },
      { marks: [{ at: mark, words: '', out: mark }] },
      { colours: {} as Scene['colours'] },
      { sections: [] },
      { sketch: undefined },
      { behind: [part.sketches[0]].flatMap((s) => s ?? []) },
    ] as Partial<Scene>[]) {
      expect(changedPatch(plain, sceneOf(part, other))).toBe('all')
      expect(changedPatch(sceneOf(part, other), plain)).toBe('all')
    }
    // Words at the pointer are no part of the picture.
    expect(changedPatch(plain, sceneOf(part, { overlay: { words: ['axial'] } }))).toBeUndefined()
    const far = {
      ...part,
      sketches: part.sketches.map((s) => ({
        ...s,
        points: s.points.map((p) => ({ ...p, x: p.x + 1 })),
      })),
    }
    const small = { width: 540, height: 500 }
    expect(changedPatch(sceneOf(part, small), sceneOf(far, small))).toBe('all')
  })
})
