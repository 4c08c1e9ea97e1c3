import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'
import {
  FLANGE,
  POCKET,
  cylinder,
  field,
  fill,
  flange,
  grams,
  pocketedFlange,
} from './support/flange'

/** How much more than its hole a head takes: a cone from one diameter to the other, or a step. */
const cone = (outer: number, inner: number, height: number): number =>
  (Math.PI / 12) * height * (outer ** 2 + outer * inner + inner ** 2)
const step = (outer: number, inner: number, height: number): number =>
  cylinder(outer, height) - cylinder(inner, height)

test('holes have heads, threads and places of their own', async ({ page }) => {
  const shop = new Workshop(page)
  const mass = shop.figure('mass')
  await flange(shop, 'Headed flange')
  await press(page, '5', 'w')
  await shop.click(10, 22)
  await fill(shop, 'Pitch circle', '40')
  await fill(shop, 'Number', '6')
  await fill(shop, 'Left out', '2, 3')
  await fill(shop, 'Diameter', '5')
  const drilled = FLANGE - 4 * cylinder(5, 10)
  await expect(mass).toHaveText(grams(drilled))
  await field(shop, 'Head').selectOption('spotface')
  await fill(shop, 'Head diameter', '9')
  await fill(shop, 'Head depth', '1')
  await expect(mass).toHaveText(grams(drilled - 4 * step(9, 5, 1)))
  await field(shop, 'Head').selectOption('countersink')
  const sunk = cone(9, 5, 2) - cylinder(5, 2)
  await expect(mass).toHaveText(grams(drilled - 4 * sunk))
  await field(shop, 'Head').selectOption('none')
  // Blind, with a cone of 118° below a flat depth, and then with a flat.
  await field(shop, 'Goes').selectOption('depth')
  await fill(shop, 'Depth', '6')
  const tip = cylinder(5, 2.5 / Math.tan((59 * Math.PI) / 180)) / 3
  await expect(mass).toHaveText(grams(FLANGE - 4 * (cylinder(5, 6) + tip)))
  await field(shop, 'Tip').selectOption('flat')
  await expect(mass).toHaveText(grams(FLANGE - 4 * cylinder(5, 6)))
  await fill(shop, 'Thread', 'M6')
  await expect(shop.route).toContainText('M6')

  await field(shop, 'Lie').selectOption('places')
  await shop.card.getByRole('button', { name: 'Another place' }).click()
  await fill(shop, 'At angle', '200')
  await expect(shop.route).not.toContainText('4 ×')
  await expect(mass).toHaveText(grams(FLANGE - cylinder(5, 6)))
  await page.keyboard.press('Control+z')
  await expect(shop.card.getByLabel('At angle', { exact: true })).not.toHaveValue('200')
})

test('a half-round seat is milled, and the flange is halved into two bodies', async ({ page }) => {
  const shop = new Workshop(page)
  const mass = shop.figure('mass')
  await flange(shop, 'Seated flange')
  await press(page, '5', 's')
  await shop.click(25, 10)
  await expect(shop.card).toContainText('20 Half-round seat')
  await fill(shop, 'Distance', '15')
  await fill(shop, 'Width', '5')
  await fill(shop, 'Cutter', '16')
  await fill(shop, 'Depth', '4')
  // Slices of the cutter's disc below the hub's surface, which falls off to both sides.
  const [R, n] = [8, 4000]
  let seat = 0
  for (let i = 0; i < n; i++) {
    const t = -2.5 + (5 * (i + 0.5)) / n
    const deep = Math.sqrt(100 - t * t) - 6
    const slice =
      R * R * Math.acos((R - deep) / R) - (R - deep) * Math.sqrt(2 * R * deep - deep ** 2)
    seat += (slice * 5) / n
  }
  await expect(mass).toHaveText(grams(FLANGE - seat))
  await fill(shop, 'Depth', '9')
  await expect(shop.card.getByRole('alert').first()).toContainText('cutter')
  await press(page, 'Escape')
  await shop.card.getByRole('button', { name: 'Done' }).click()

  await press(page, '5')
  await page.getByRole('button', { name: 'Halve' }).click()
  await expect(shop.card).toContainText('30 Halve')
  await fill(shop, 'Keeps side at', '90')
  await expect(mass).not.toHaveText(grams(FLANGE - seat))
  await field(shop, 'Other half').selectOption({ label: 'makes a new body' })
  // Both halves together are the whole again.
  await expect(mass).toHaveText(grams(FLANGE - seat))
  await expect(shop.route).toContainText('body 2')
})

test('a part turn goes evenly to both sides, or by different angles', async ({ page }) => {
  const shop = new Workshop(page)
  const mass = shop.figure('mass')
  await shop.newPart('Guide')
  await shop.rectangle([0, 20], [10, 26], ['10', '6'])
  await press(page, '4', 'r')
  const ring = Math.PI * (26 ** 2 - 20 ** 2) * 10
  await expect(mass).toHaveText(grams(ring))
  await fill(shop, 'Turn', '90')
  await expect(mass).toHaveText(grams(ring / 4))
  await field(shop, 'To').selectOption({ label: 'evenly' })
  await expect(mass).toHaveText(grams(ring / 4))
  await field(shop, 'To').selectOption({ label: 'both sides' })
  await fill(shop, 'Other side', '30')
  await expect(mass).toHaveText(grams(ring / 3))
  await fill(shop, 'Other side', '300')
  await expect(shop.card.getByRole('alert').first()).toContainText('more than a full turn')
})

test('a pocket gets narrower with its draft', async ({ page }) => {
  const shop = new Workshop(page)
  await pocketedFlange(shop, 'Drafted pocket')
  await shop.route.getByRole('button', { name: /20 Extrude/ }).click()
  await fill(shop, 'Draft', '10')
  const slope = Math.tan(Math.PI / 18)
  // ∫(10 − 2z·tan α)(8 − 2z·tan α) dz over its depth of 4.
  const drafted = 80 * 4 - 36 * slope * (4 ** 2 / 2) + 4 * slope ** 2 * (4 ** 3 / 3)
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - drafted))
  await page.keyboard.press('Control+z')
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - POCKET))
})

test('a profile is turned about a centre line of its own, not about the axis', async ({ page }) => {
  const shop = new Workshop(page)
  const mass = shop.figure('mass')
  await shop.newPart('Bent guide')
  await shop.rectangle([0, 20], [10, 26], ['10', '6'])
  await press(page, '1', 'x')
  await shop.click(0, 40)
  await shop.click(10, 40)
  await press(page, 'Escape', 'Escape', '4', 'r')
  const about = (outer: number, inner: number): number => Math.PI * (outer ** 2 - inner ** 2) * 10
  await expect(mass).toHaveText(grams(about(26, 20)))
  const line = field(shop, 'About').locator('option', { hasText: /^line/ })
  await field(shop, 'About').selectOption(await line.getAttribute('value'))
  await expect(mass).toHaveText(grams(about(20, 14)))
  await fill(shop, 'Turn', '90')
  await expect(mass).toHaveText(grams(about(20, 14) / 4))
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(mass).toHaveText(grams(about(26, 20)))
})
