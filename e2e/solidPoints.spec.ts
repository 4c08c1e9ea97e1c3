import { expect, test, type Page } from '@playwright/test'
import { Workshop, press, search } from './support/board'

/** Where a point of the profile is seen on the solid. */
async function dotAt(page: Page, id: string): Promise<{ x: number; y: number }> {
  const box = await page.locator(`[data-point="${id}"]`).boundingBox()
  return { x: (box?.x ?? 0) + (box?.width ?? 0) / 2, y: (box?.y ?? 0) + (box?.height ?? 0) / 2 }
}

test.describe('what is not made yet', () => {
  test('points of a curve are pulled on the solid, which follows; Esc puts them back @solid', async ({
    page,
  }) => {
    const shop = new Workshop(page)
    await shop.newPart('Vase')
    await press(page, 'd')
    for (const [x, r] of [
      [0, 20],
      [30, 36],
      [70, 28],
      [100, 14],
    ] as const) {
      await shop.click(x, r)
    }
    await press(page, 'Enter', 'Escape', 'Escape')
    await expect(page.getByText('Not made yet: open, and shown as a skin.')).toBeVisible()
    await page.getByRole('button', { name: 'Points of the profile' }).click()
    // Seen from the front the half-section lies as on the board.
    await press(page, 'Alt+2')
    const point = async () => {
      const [sketch] = (await shop.document()).sketches
      const curve = sketch?.entities.find((e) => e.kind === 'spline')
      const id = curve?.kind === 'spline' ? (curve.by[0] ?? '') : ''
      const p = sketch?.points.find((q) => q.id === id)
      return { id, x: p?.x ?? 0, y: p?.y ?? 0 }
    }
    const before = await point()
    await expect(page.locator('[data-point]')).toHaveCount(4)
    // The view comes to rest before anything is pulled.
    let last = { x: 0, y: 0 }
    await expect(async () => {
      const now = await dotAt(page, before.id)
      const moved = Math.hypot(now.x - last.x, now.y - last.y)
      last = now
      expect(moved).toBeLessThan(0.01)
    }).toPass()
    await page.mouse.move(last.x, last.y)
    await page.mouse.down()
    await page.mouse.move(last.x + 4, last.y - 30, { steps: 4 })
    const shown = await dotAt(page, before.id)
    expect(Math.abs(shown.y - (last.y - 30))).toBeLessThan(3)
    await press(page, 'Escape')
    await page.mouse.up()
    expect(await point()).toEqual(before)

    await page.mouse.move(last.x, last.y)
    await page.mouse.down()
    await page.mouse.move(last.x, last.y - 30, { steps: 4 })
    await page.mouse.up()
    await expect.poll(async () => (await point()).y).toBeGreaterThan(before.y + 3)
    expect(Math.abs((await point()).x - before.x)).toBeLessThan(1)
    await press(page, 'Control+z')
    await expect.poll(point).toEqual(before)
  })

  test('a profile in the part shows what a cut would take @solid', async ({ page }) => {
    const shop = new Workshop(page)
    await shop.openDemo('spindle')
    await search(page, 'new profile')
    await press(page, '1', 'r')
    await shop.click(50, 12)
    await shop.click(70, 26)
    await press(page, 'Escape', 'Escape')
    const words = page.getByText(/a cut would take [\d.]+ g/)
    await expect(words).toBeVisible()
    const told = Number(/take ([\d.]+) g/.exec((await words.textContent()) ?? '')?.[1])
    await shop.card.getByRole('button', { name: 'Revolve cut' }).click()
    const row = shop.route.getByRole('button', { name: /Revolve cut/ })
    await expect(row).toContainText(/−[\d.]+ g/)
    const made = Number(/−([\d.]+) g/.exec((await row.textContent()) ?? '')?.[1])
    expect(Math.abs(made - told) / told).toBeLessThan(0.01)
    await expect(words).toHaveCount(0)
  })
})
