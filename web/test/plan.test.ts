// @vitest-environment jsdom
import { nextTick } from 'vue'
import { expect, test } from 'vitest'
import { usePlanStore } from '../src/store/plan'
import { openScreen } from './support/mount'
import { spindle } from './support/spindle'

test('what was typed wrongly into the plan stays until it is mended, or another part is opened', async () => {
  const { parts } = await openScreen(spindle())
  const plan = usePlanStore()
  plan.add(1)
  const [row] = plan.rows
  const [piece] = plan.plan.pieces
  if (!row || !piece) throw new Error('nothing is asked of it')
  plan.write(row, piece.id, 'about right')
  expect(plan.wrongIn(row.id, piece.id)?.text).toBe('about right')
  plan.write(row, piece.id, String(row.nominal))
  expect(plan.wrongIn(row.id, piece.id)).toBeUndefined()
  plan.write(row, piece.id, 'x')
  parts.close()
  await nextTick()
  expect(plan.wrongIn(row.id, piece.id)).toBeUndefined()
})
