import { expect, test } from '@playwright/test'
import { Workshop } from './support/board'
import { field, triangles } from './support/flange'

test('a circle of holes is taken hold of on the end view, and the solid follows @solid', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const messages: string[] = []
  page.on('pageerror', (error) => messages.push(error.message))
  await shop.openDemo('end-bearing-housing')
  const end = page.getByRole('region', { name: 'End view' })
  const grip = end.getByRole('button', { name: /^hole 1, / })
  const mass = shop.figure('mass')
  await expect(grip).toHaveCount(0)
  await shop.route.getByRole('button', { name: /6 × ⌀6\.6/ }).click()
  await expect(end.getByRole('button', { name: /^hole/ })).toHaveCount(6)
  await expect(grip).toHaveAccessibleName(/on ⌀74 at 30°/)
  await expect.poll(() => triangles(page)).toBeGreaterThan(400)
  const whole = (await mass.textContent()) ?? ''

  // Where a circle of so many millimetres is on the page, about the middle of the holes.
  const boxes = await Promise.all(
    [1, 4].map((n) => end.locator(`[data-grip="${n}"]`).boundingBox()),
  )
  const [one, four] = boxes.map((b) => ({
    x: (b?.x ?? 0) + (b?.width ?? 0) / 2,
    y: (b?.y ?? 0) + (b?.height ?? 0) / 2,
  }))
  if (!one || !four) throw new Error('the holes are not there')
  const middle = { x: (one.x + four.x) / 2, y: (one.y + four.y) / 2 }
  const to = async (circle: number, turn = 0): Promise<void> => {
    const [x, y] = [one.x - middle.x, one.y - middle.y].map((d) => (d * circle) / 74) as [
      number,
      number,
    ]
    const [c, s] = [Math.cos(turn), Math.sin(turn)]
    await page.mouse.move(middle.x + x * c - y * s, middle.y + x * s + y * c, { steps: 4 })
  }
  const circle = field(shop, 'Pitch circle')
  const first = field(shop, 'First at')
  await to(74)
  await page.mouse.down()
  await to(70)
  await expect(circle).toHaveValue('70')
  await expect(end).toContainText('on ⌀70 at 30°')
  // Nothing is waited for: what it weighs is known without the kernel.
  await expect(mass).toHaveText(whole)
  await page.keyboard.press('Escape')
  await expect(circle).toHaveValue('74')
  await page.mouse.up()
  await expect(circle).toHaveValue('74')

  // With Shift it stays on its circle, or on its ray.
  await to(74)
  await page.mouse.down()
  await page.keyboard.down('Shift')
  await to(73, -0.5)
  await expect(first).not.toHaveValue('30')
  await expect(circle).toHaveValue('74')
  await page.keyboard.up('Shift')
  // Off the face it cannot go: the last place it can have stays.
  await to(70)
  await to(30)
  await expect(end).toContainText('misses the face')
  await to(70)
  await page.mouse.up()
  await expect(circle).toHaveValue('70')
  await expect(first).toHaveValue('30')
  await expect(end).not.toContainText('misses the face')
  await page.reload()
  await shop.ready()
  await shop.route.getByRole('button', { name: /6 × ⌀6\.6 on ⌀70/ }).click()
  await expect(circle).toHaveValue('70')

  // Keys move it as well; one step each to undo.
  await grip.focus()
  await page.keyboard.press('ArrowUp')
  await expect(circle).toHaveValue('70.5')
  await expect(grip).toBeFocused()
  await page.keyboard.press('ArrowLeft')
  await expect(first).toHaveValue('31')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(circle).toHaveValue('70')
  await expect(first).toHaveValue('30')

  // Into the bore’s wall: then the kernel tells, and mass and picture follow.
  const before = await triangles(page)
  await grip.hover()
  await page.mouse.down()
  await to(60)
  await page.mouse.up()
  await expect(circle).toHaveValue('60')
  await expect(mass).not.toHaveText(whole)
  await expect(mass).toHaveText(/^\d/)
  await expect.poll(() => triangles(page)).not.toBe(before)

  // Flats and keyways are taken hold of in the same way.
  await shop.openDemo('winding-spindle')
  await shop.route.getByRole('button', { name: /flats/i }).first().click()
  const flat = end.getByRole('button', { name: /^flat 1, / })
  const size = field(shop, 'Across')
  await expect(size).toHaveValue('13')
  await flat.focus()
  await page.keyboard.press('ArrowUp')
  await expect(size).toHaveValue('13.5')
  await page.keyboard.press('ArrowLeft')
  await expect(flat).toHaveAccessibleName(/at 1°/)
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(size).toHaveValue('13')
  expect(messages).toEqual([])
})
