import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'
import { FLANGE, fill, flange, grams, triangles } from './support/flange'

/** The flange with the end of its hub of ⌀20 a square over 12 mm. Flats that meet take the kernel. */
const squared = (across: number): number => FLANGE - 12 * (100 * Math.PI - across * across)

/** Four flats, the last number of which is typed last. */
async function square(shop: Workshop, across: string): Promise<void> {
  await fill(shop, 'Number', '4')
  await fill(shop, 'Length', '12')
  await fill(shop, 'Across', across)
}

test('a solid kernel that hangs is given up, and a fresh one goes on @solid', async ({ page }) => {
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
  await press(page, '5', 'r')
  await square(shop, '14')
  await expect(shop.figure('mass')).toHaveText(grams(squared(14)))
  await expect.poll(() => triangles(page)).not.toBe(plain)

  for (const worker of page.workers()) {
    void worker
      .evaluate(() => {
        for (;;);
      })
      .catch(() => undefined)
  }
  await haste(true)
  await fill(shop, 'Across', '13')
  await expect(shop.route).toContainText('The solid kernel gave no answer: it took too long')
  await haste(false)
  await expect(shop.route).toContainText('Change a size by a little')
  // The page goes on, and the last good shape is there.
  expect(await triangles(page)).toBeGreaterThan(400)
  await shop.route.getByRole('button', { name: /10 Revolve/ }).click()
  await expect(shop.card).toContainText('10 Revolve')
  await shop.route.getByRole('button', { name: /20 Flats/ }).click()
  await fill(shop, 'Across', '12')
  await expect(shop.figure('mass')).toHaveText(grams(squared(12)))
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(shop.figure('mass')).toHaveText(grams(squared(14)))
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
  await press(page, '5', 'r')
  await square(shop, '14')
  await expect(shop.route).toContainText('The solid kernel gave no answer')
  expect(refused).toBeGreaterThan(0)
  await page.unroute('**/*.wasm')
  await fill(shop, 'Across', '13')
  await expect(shop.figure('mass')).toHaveText(grams(squared(13)))
})

test('a solid that takes too long is left by Esc, and what follows does not wait for it @solid', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await flange(shop, 'Flange that was given up')
  const plain = await triangles(page)
  await press(page, '5', 'r')
  await square(shop, '14')
  await expect(shop.figure('mass')).toHaveText(grams(squared(14)))
  const pane = page.getByRole('region', { name: 'Solid' })
  await expect.poll(() => triangles(page)).not.toBe(plain)
  const hang = (): void => {
    for (const worker of page.workers()) {
      void worker
        .evaluate(() => {
          for (;;);
        })
        .catch(() => undefined)
    }
  }
  hang()
  await fill(shop, 'Across', '13')
  await expect(pane).toContainText('building the solid …')
  await expect(pane.getByRole('button', { name: 'Stop' })).toBeVisible()
  // The first closes the card; pressed at once after that it would still mean what was open.
  await page.keyboard.press('Escape')
  await expect(shop.card).not.toContainText('20 Flats')
  await pane.hover()
  await expect(async () => {
    await page.keyboard.press('Escape')
    await expect(pane).toContainText('Stopped: the picture is the one before.', { timeout: 500 })
  }).toPass()
  await expect(shop.route).not.toContainText('gave no answer')
  await pane.getByRole('button', { name: 'Build it' }).click()
  await expect(pane).not.toContainText('Stopped')
  await expect(shop.figure('mass')).toHaveText(grams(squared(13)))

  // An edit leaves what is being built by itself.
  await shop.route.getByRole('button', { name: /20 Flats/ }).click()
  hang()
  await fill(shop, 'Across', '12')
  await expect(pane).toContainText('building the solid …')
  await fill(shop, 'Across', '11')
  await expect(shop.figure('mass')).toHaveText(grams(squared(11)))
  await expect(pane).not.toContainText('building')
  await expect(pane).not.toContainText('Stopped')
})
