// @vitest-environment jsdom
import { linesOf } from '@lathica/core/sketch'
import { evaluate } from '@lathica/core/route'
import { addReference } from '@lathica/core/edit'
import { overallOf } from '@lathica/core/inspect'
import { enableAutoUnmount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import SizeField from '../src/board/SizeField.vue'
import ValueTable from '../src/route/ValueTable.vue'
import { openScreen, type Screen } from './support/mount'
import { spindle } from './support/spindle'

enableAutoUnmount(afterEach)
let screen: Screen
beforeEach(async () => {
  screen = await openScreen(spindle())
})

const sizeOf = (formula: string, kind: string) => {
  const size = screen.board.sketch.sizes.find((s) => s.formula === formula && s.kind === kind)
  if (!size) throw new Error(`there is no ${kind} of ${formula}`)
  return size
}

async function openField(id: string) {
  screen.board.openField({ kind: 'size', id })
  const field = screen.mount(SizeField, { drawings: [], width: 800, height: 400 })
  await nextTick()
  await nextTick()
  return field
}

const diameter = () => overallOf(evaluate(screen.parts.part ?? spindle()))?.diameter

describe('the value field on the drawing', () => {
  it('opens with what was typed, all of it picked, and takes a new value with Enter', async () => {
    const field = await openField(sizeOf('44', 'diameter').id)
    const input = field.find('input')
    expect(input.element.value).toBe('44')
    expect(input.element.selectionEnd).toBe(2)
    await input.setValue('2 in')
    await field.find('form').trigger('submit')
    expect(screen.board.field).toBeUndefined()
    expect(diameter()).toBeCloseTo(50.8, 9)
    expect(screen.parts.undoLabel).toBe('change size')
  })

  it.each([
    ['44 +', 'stops before it is complete'],
    ['4,500', 'could be 4.500 or 4500'],
    ['2dia1', 'no sign between'],
    ['flange/2', 'no value or unit called “flange”'],
    ['30deg', 'takes a length'],
    ['1/0', 'too large or divides by zero'],
    ['-3', 'greater than zero'],
    ['9e9', 'too large'],
    ['dia3', 'in a circle'],
    ['', 'There is no value here'],
    ['<b>4</b>', 'has no meaning in a formula'],
  ])('answers “%s” with a sentence, keeps it, and changes nothing', async (typed, sentence) => {
    const size = sizeOf('44', 'diameter')
    const field = await openField(size.id)
    const before = screen.parts.part
    await field.find('input').setValue(typed)
    await field.find('form').trigger('submit')
    expect(field.find('[role="alert"]').text()).toContain(sentence)
    expect(field.find('input').element.value).toBe(typed)
    expect(field.find('input').attributes('aria-invalid')).toBe('true')
    expect(screen.board.field).toEqual({ kind: 'size', id: size.id })
    expect(screen.parts.part).toBe(before)
  })

  it('marks the place in the text that is wrong', async () => {
    const field = await openField(sizeOf('44', 'diameter').id)
    await field.find('input').setValue('20 + flange')
    await field.find('form').trigger('submit')
    const { selectionStart, selectionEnd } = field.find('input').element
    expect([selectionStart, selectionEnd]).toEqual([5, 11])
  })

  it('leaves the size as it was with Esc', async () => {
    const field = await openField(sizeOf('44', 'diameter').id)
    const before = screen.parts.part
    await field.find('input').setValue('60')
    await field.find('input').trigger('keydown', { key: 'Escape' })
    expect(screen.board.field).toBeUndefined()
    expect(screen.parts.part).toBe(before)
  })

  it('offers to keep a size too many as a reference', async () => {
    const land = linesOf(screen.board.sketch)[1]
    const offer = { kind: 'axialDistance' as const, a: land?.from ?? '', b: land?.to ?? '' }
    screen.board.openField({ kind: 'new', offer })
    const field = screen.mount(SizeField, { drawings: [], width: 800, height: 400 })
    await nextTick()
    expect(field.find('input').element.value).toBe('24')
    await field.find('form').trigger('submit')
    expect(field.find('[role="alert"]').text()).toContain('held already by')
    await field.find('.mend').trigger('click')
    expect(screen.board.field).toBeUndefined()
    expect(screen.board.sketch.sizes.at(-1)).toMatchObject({ ...offer, reference: true })
  })

  it('goes to the next size with Tab when the value holds', async () => {
    const [first, second] = screen.board.sketch.sizes
    const drawings = [first, second].map((s) => ({ id: s?.id, label: { x: 50, y: 50 }, width: 30 }))
    screen.board.openField({ kind: 'size', id: first?.id ?? '' })
    const field = screen.mount(SizeField, { drawings, width: 800, height: 400 })
    await nextTick()
    await field.find('input').setValue('46')
    await field.find('input').trigger('keydown', { key: 'Tab' })
    await nextTick()
    expect(screen.board.field).toEqual({ kind: 'size', id: second?.id })
    expect(screen.board.sketch.sizes[0]?.formula).toBe('46')
  })

  it('deletes the size it stands for', async () => {
    const size = sizeOf('44', 'diameter')
    const field = await openField(size.id)
    await field.find('[aria-label="Delete this size"]').trigger('click')
    expect(screen.board.sketch.sizes.some((s) => s.id === size.id)).toBe(false)
    expect(screen.board.freedoms).toBe(1)
  })

  it('shows what a reference measures, and lets it drive only where that is possible', async () => {
    const land = linesOf(screen.board.sketch)[3]
    screen.parts.run(
      addReference(screen.board.sketch.id, { kind: 'diameter', point: land?.to ?? '' }),
    )
    const reference = screen.board.sketch.sizes.at(-1)
    const field = await openField(reference?.id ?? '')
    expect(field.find('input').element.value).toBe('28')
    await field.find('input').setValue('29')
    await field.find('form').trigger('submit')
    expect(field.find('[role="alert"]').text()).toContain('This cannot hold together with')
  })
})

describe('the table of named values', () => {
  const fill = async (table: ReturnType<Screen['mount']>, name: string, formula: string) => {
    await table.find('[aria-label="name of a new value"]').setValue(name)
    await table.find('[aria-label="formula of the new value"]').setValue(formula)
    await table.find('form').trigger('submit')
  }

  it('adds values that fields can read, and everything follows them', async () => {
    const table = screen.mount(ValueTable)
    await fill(table, 'flange', '44')
    expect(table.find('tbody tr').text()).toContain('44 mm')
    const field = await openField(sizeOf('44', 'diameter').id)
    await field.find('input').setValue('flange + 4')
    await field.find('form').trigger('submit')
    expect(diameter()).toBeCloseTo(48, 9)
    const input = table.find('[aria-label="formula of flange"]')
    await input.setValue('50')
    await input.trigger('change')
    expect(diameter()).toBeCloseTo(54, 9)
  })

  it.each([
    ['2bore', '3', 'cannot be a name'],
    ['mm', '3', 'is a unit or a function'],
    ['dia1', '3', 'a value called “dia1” already'],
    ['bore', '3 +', 'stops before it is complete'],
    ['bore', 'bore', 'in a circle'],
  ])('refuses %s = %s and says why, keeping what was typed', async (name, formula, sentence) => {
    const table = screen.mount(ValueTable)
    await fill(table, name, formula)
    expect(table.find('[role="alert"]').text()).toContain(sentence)
    const input = table.find<HTMLInputElement>('[aria-label="name of a new value"]')
    expect(input.element.value).toBe(name)
    expect(screen.parts.part?.values).toEqual([])
  })

  it('deletes a value; sizes that read it say so and the shape stays', async () => {
    const table = screen.mount(ValueTable)
    await fill(table, 'flange', '44')
    const size = sizeOf('44', 'diameter')
    const field = await openField(size.id)
    await field.find('input').setValue('flange')
    await field.find('form').trigger('submit')
    await table.find('[aria-label="Delete flange"]').trigger('click')
    expect(screen.parts.part?.values).toEqual([])
    expect(screen.board.sketchState?.sizeProblems.get(size.id)?.message).toContain('flange')
    expect(diameter()).toBeCloseTo(44, 9)
  })
})
