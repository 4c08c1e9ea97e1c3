import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'
import { FLANGE, cylinder, fill, flange, grams, triangles } from './support/flange'

test('a solid kernel that hangs is given up, and a fresh one goes on', async ({ page }) => {
  const messages: string[] = []
  page.on('pageerror', (error) => messages.push(error.message))
  // What is waited for a minute is waited for two seconds while there is no patience.
  await page.addInitScript(() => {
    const wait = window.setTimeout.bind(window)
    const inHaste = (): boolean => Reflect.get(window, 'inHaste') === true
    const hurried = (work: () => void, ms?: number): number =>
      wait(work, ms === 60_000 && inHaste() ? 2000 : ms)
    Object.assign(window, { setTimeout: hurried })
  })
  const haste = (is: boolean): Promise<void> =>
    page.evaluate((inHaste) => void Object.assign(window, { inHaste }), is)
  const shop = new Workshop(page)
  await flange(shop, 'Flange on a slow day')
  const plain = await triangles(page)
  await press(page, '5', 'w')
  await shop.click(10, 22)
  await fill(shop, 'Pitch circle', '40')
  await fill(shop, 'Number', '4')
  await fill(shop, 'Diameter', '6')
  const drilled = FLANGE - 4 * cylinder(6, 10)
  await expect(shop.figure('mass')).toHaveText(grams(drilled))
  // It is weighed without the kernel; once its picture is there, the kernel is, too.
  await expect.poll(() => triangles(page)).not.toBe(plain)

  for (const worker of page.workers()) {
    void worker
      .evaluate(() => {
        for (;;);
      })
      .catch(() => undefined)
  }
  await haste(true)
  await fill(shop, 'Diameter', '7')
  await expect(shop.route).toContainText('The solid kernel gave no answer: it took too long')
  await haste(false)
  await expect(shop.route).toContainText('Change a size by a little')
  // The page goes on, and the last good shape is there.
  expect(await triangles(page)).toBeGreaterThan(400)
  await shop.route.getByRole('button', { name: /10 Revolve/ }).click()
  await expect(shop.card).toContainText('10 Revolve')
  await shop.route.getByRole('button', { name: /20 Holes/ }).click()
  await fill(shop, 'Diameter', '8')
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 4 * cylinder(8, 10)))
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(shop.figure('mass')).toHaveText(grams(drilled))
  expect(messages).toEqual([])
})

test('a solid kernel that cannot be loaded says so, and is loaded with the next change', async ({
  page,
}) => {
  const shop = new Workshop(page)
  let refused = 0
  await page.route('**/*.wasm', (route) => {
    refused += 1
    return route.abort()
  })
  await flange(shop, 'Flange without a kernel')
  await press(page, '5', 'w')
  await shop.click(10, 22)
  await expect(shop.route).toContainText('The solid kernel gave no answer')
  expect(refused).toBeGreaterThan(0)
  await page.unroute('**/*.wasm')
  await fill(shop, 'Pitch circle', '40')
  await fill(shop, 'Number', '4')
  await fill(shop, 'Diameter', '6')
  const drilled = FLANGE - 4 * cylinder(6, 10)
  await expect(shop.figure('mass')).toHaveText(grams(drilled))
})
