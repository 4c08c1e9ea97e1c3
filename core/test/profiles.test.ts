import { describe, expect, it } from 'vitest'
import {
  addRevolve,
  addSketch,
  changeSketch,
  createHistory,
  drawChain,
  edit,
  isSketchShown,
  moveSketch,
  nudgePoints,
  perform,
  refuseLocked,
  removeItems,
  removeSketch,
  undo,
  type Command,
} from '@lathica/core/edit'
import { readPartFile, writePartFile } from '@lathica/core/formats'
import { createPart, type Part } from '@lathica/core/part'
import { withDragged } from '@lathica/core/route'
import { must } from './support/parts'

const refusal = (part: Part, command: Command): string => {
  const done = perform(part, command)
  return done.ok ? '' : done.problem.code
}

/** A float in profile A, and profile B whose line begins on a corner of it. */
function twoProfiles(): { readonly part: Part; readonly a: string; readonly b: string } {
  const start = createPart({ name: 'Float' })
  const a = start.sketches[0]?.id ?? ''
  const corner = (x: number, y: number) => ({ at: { x, y } })
  const drawn = must(
    start,
    drawChain(a, [corner(0, 0), corner(0, 30), corner(50, 30), corner(50, 0)], []),
    addSketch(),
  )
  const b = drawn.sketches[1]?.id ?? ''
  const source = drawn.sketches[0]?.points.find((p) => p.x === 50 && p.y === 30)?.id ?? ''
  const linked = must(
    drawn,
    drawChain(
      b,
      [{ at: { x: 50, y: 30 }, link: { profile: a, item: source } }, { at: { x: 70, y: 34 } }],
      [],
    ),
  )
  return { part: linked, a, b }
}

const sketchOf = (part: Part, id: string) => {
  const found = part.sketches.find((s) => s.id === id)
  if (!found) throw new Error('no such profile')
  return found
}

describe('profiles in order', () => {
  it('are renamed, with no name twice and none empty', () => {
    const { part, a } = twoProfiles()
    expect(sketchOf(must(part, changeSketch(a, { name: ' float ' })), a).name).toBe('float')
    expect(refusal(part, changeSketch(a, { name: 'B' }))).toBe('name.taken')
    expect(refusal(part, changeSketch(a, { name: '  ' }))).toBe('name.empty')
    expect(refusal(part, changeSketch(a, { name: 'x'.repeat(41) }))).toBe('name.long')
    expect(must(part, changeSketch(a, { name: 'A' }))).toBe(part)
  })

  it('stand behind the one in hand until a step is made from them, or as told', () => {
    const { part, a } = twoProfiles()
    expect(isSketchShown(part, sketchOf(part, a))).toBe(true)
    const turned = must(part, addRevolve(a))
    expect(isSketchShown(turned, sketchOf(turned, a))).toBe(false)
    const shown = must(turned, changeSketch(a, { shown: true }))
    expect(isSketchShown(shown, sketchOf(shown, a))).toBe(true)
  })

  it('stay behind those whose points they follow', () => {
    const { part, a, b } = twoProfiles()
    expect(refusal(part, moveSketch(b, -1))).toBe('profile.order')
    expect(refusal(part, moveSketch(a, 1))).toBe('profile.order')
    const more = must(part, addSketch())
    const c = more.sketches[2]?.id ?? ''
    expect(must(more, moveSketch(c, -2)).sketches.map((s) => s.id)).toEqual([c, a, b])
    expect(must(more, moveSketch(c, 5)).sketches.map((s) => s.id)).toEqual([a, b, c])
  })

  it('are deleted where no step needs them; what followed them stays in its place', () => {
    const { part, a, b } = twoProfiles()
    const gone = must(part, removeSketch(a))
    expect(gone.sketches.map((s) => s.id)).toEqual([b])
    expect(sketchOf(gone, b).points.map(({ x, y }) => [x, y])).toEqual(
      sketchOf(part, b).points.map(({ x, y }) => [x, y]),
    )
    expect(sketchOf(gone, b).constraints.some((c) => c.kind === 'linked')).toBe(false)
    expect(refusal(gone, removeSketch(b))).toBe('profile.last')
    const turned = must(part, addRevolve(a))
    expect(refusal(turned, removeSketch(a))).toBe('profile.used')
  })

  it('are kept with the part', () => {
    const { part, a } = twoProfiles()
    const told = must(part, changeSketch(a, { shown: false }), changeSketch(a, { locked: true }))
    const read = readPartFile(writePartFile(told))
    expect(read.ok && sketchOf(read.value, a)).toMatchObject({ shown: false, locked: true })
    const bad = writePartFile(told).replace('"locked": true', '"locked": "yes"')
    expect(readPartFile(bad).ok).toBe(false)
  })
})

describe('a locked profile', () => {
  it('is not drawn in, moved, thinned out or deleted, and can be unlocked and taken back', () => {
    const { part, a } = twoProfiles()
    const locked = must(part, changeSketch(a, { locked: true }))
    const [point] = sketchOf(part, a).points.slice(-1)
    const [entity] = sketchOf(part, a).entities
    const id = point?.id ?? ''
    for (const command of [
      drawChain(a, [{ at: { x: 0, y: 50 } }, { at: { x: 9, y: 50 } }], []),
      nudgePoints(a, [id], { x: 1, y: 0 }),
      removeItems(a, [entity?.id ?? '']),
      removeSketch(a),
    ]) {
      expect(refusal(part, command), command.label).toBe('')
      expect(refusal(locked, command), command.label).toBe('profile.locked')
    }
    const free = must(locked, changeSketch(a, { locked: false }))
    expect(refusal(free, nudgePoints(a, [id], { x: 1, y: 0 }))).toBe('')
    const lock = edit(createHistory(part), changeSketch(a, { locked: true }))
    expect(lock.ok && undo(lock.value).part).toBe(part)
  })

  it('refuses what a drag has done to it', () => {
    const { part, a } = twoProfiles()
    const locked = must(part, changeSketch(a, { locked: true }))
    const [point] = sketchOf(part, a).points.slice(-1)
    const dragged = withDragged(locked, a, new Map([[point?.id ?? '', { x: 44, y: 12 }]]))
    expect(refuseLocked(locked, dragged)?.ok).toBe(false)
    expect(refuseLocked(locked, locked)).toBeUndefined()
  })

  it('goes on following the profiles before it', () => {
    const { part, a, b } = twoProfiles()
    const locked = must(part, changeSketch(b, { locked: true }))
    const source = sketchOf(part, a).points.find((p) => p.x === 50 && p.y === 30)
    const moved = must(locked, nudgePoints(a, [source?.id ?? ''], { x: 5, y: 0 }))
    const follower = sketchOf(moved, b).points[0]
    const led = sketchOf(moved, a).points.find((p) => p.id === source?.id)
    expect(led?.x).toBeCloseTo(55, 6)
    expect(follower?.x).toBeCloseTo(55, 6)
  })
})
