import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'
import {
  FLANGE,
  POCKET,
  cylinder,
  field,
  fill,
  findOn,
  grams,
  pocketedFlange,
} from './support/flange'

/** A flange with a pocket in its face, and the mirror card open after it. */
async function pocketed(shop: Workshop, name: string): Promise<void> {
  const { page } = shop
  await pocketedFlange(shop, name)
  await press(page, '4', 'z')
  await expect(shop.card).toContainText('30 Mirror')
}

test('a pocket is mirrored by itself, and its floor is drawn on @solid', async ({ page }) => {
  const shop = new Workshop(page)
  const solid = page.getByRole('region', { name: 'Solid' })
  await pocketed(shop, 'Flange with pockets')
  await field(shop, 'Plane').selectOption({ label: 'through the axis' })
  await field(shop, '20 extrude').selectOption({ label: 'mirrored' })
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 2 * POCKET))
  await field(shop, '20 extrude').selectOption({ label: 'stays' })
  await expect(shop.card.getByRole('alert').first()).toContainText('falls into the body itself')
  await page.keyboard.press('Control+z')
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 2 * POCKET))
  await shop.card.getByRole('button', { name: 'Done' }).click()

  // The floor of the pocket is a face like any other: it is clicked on the solid.
  await press(page, '5', 'c')
  const floor = await findOn(solid, 'plane face, from step 20')
  await page.mouse.click(floor.x, floor.y)
  await expect(shop.board.getByRole('img', { name: 'seen from the right' })).toBeVisible()
  await press(page, '1', 'e')
  await shop.click(-21, 8)
  await shop.moveTo(-19, 8)
  await page.keyboard.type('4')
  await press(page, 'Enter', 'Escape', '5', 'd')
  await expect(shop.card).toContainText('40 Extrude')
  await expect(shop.card).toContainText('plane face, from step 20')
  await fill(shop, 'Length', '3')
  const post = cylinder(4, 3)
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 2 * POCKET + post))
  // As far as the face of the flange, which is clicked on the half-section.
  await field(shop, 'Goes').selectOption({ label: 'up to a face' })
  await expect(shop.card.getByRole('alert').first()).toContainText('missing')
  await shop.card.getByRole('button', { name: 'pick', exact: true }).click()
  await shop.click(10, 22)
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 2 * POCKET + cylinder(4, 4)))
})

test('a pocket is mirrored to the other face of the flange', async ({ page }) => {
  const shop = new Workshop(page)
  await pocketed(shop, 'Flange with pockets on both faces')
  await fill(shop, 'Plane at', '5')
  await field(shop, '20 extrude').selectOption({ label: 'mirrored' })
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 2 * POCKET))
  // Nearer to the first, both run into one another.
  await fill(shop, 'Plane at', '7')
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 10 * 8 * 6))
  // Off the part nothing is left to take away; what was before comes back.
  await fill(shop, 'Plane at', '90')
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - POCKET))
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 2 * POCKET))
  await page.reload()
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 2 * POCKET))
})

test('part turns go up to a face that is clicked, and so do walls @solid', async ({ page }) => {
  const shop = new Workshop(page)
  const solid = page.getByRole('region', { name: 'Solid' })
  await shop.newPart('Line guide')
  await shop.rectangle([0, 20], [10, 26], ['10', '6'])
  await press(page, '4', 'r')
  const ring = Math.PI * (26 ** 2 - 20 ** 2) * 10
  await expect(shop.figure('mass')).toHaveText(grams(ring))
  await fill(shop, 'Turn', '120')
  await expect(shop.figure('mass')).toHaveText(grams(ring / 3))
  await fill(shop, 'At angle', '90')
  await shop.card.getByRole('button', { name: 'Done' }).click()

  // A thinner ring closes what is open, from one end of the first to the other.
  await press(page, '4', 't', 'Escape')
  await shop.rectangle([12, 20], [22, 24], ['8', '4'])
  await press(page, '4', 'r')
  await expect(shop.card).toContainText('20 Revolve')
  await fill(shop, 'Turn', '20')
  const thin = Math.PI * (24 ** 2 - 20 ** 2) * 8
  await expect(shop.figure('mass')).toHaveText(grams(ring / 3 + (thin * 20) / 360))
  await fill(shop, 'At angle', '10')
  await shop.card.getByRole('button', { name: 'pick', exact: true }).click()
  const end = await findOn(solid, 'plane face, from step 10')
  await page.mouse.click(end.x, end.y)
  await expect(shop.card).toContainText('plane face, from step 10')
  // From 10° on to one end or the other of what goes from 90° to 210°.
  const turns = [80, 200].map((by) => grams(ring / 3 + (thin * by) / 360))
  await expect
    .poll(async () => turns.includes((await shop.figure('mass').textContent()) ?? ''))
    .toBe(true)
  await page.reload()
  await expect
    .poll(async () => turns.includes((await shop.figure('mass').textContent()) ?? ''))
    .toBe(true)

  // A wall of an open chain, turned by a part as well.
  await shop.ready()
  await press(page, '4', 't', 'Escape')
  await press(page, '1', 'a')
  await shop.click(40, 10)
  await shop.click(60, 10)
  await press(page, 'Escape', 'Escape', '4', 'w')
  await expect(shop.card).toContainText('30 Wall')
  await field(shop, 'Body').selectOption({ label: 'a new body' })
  await fill(shop, 'Thickness', '2')
  await fill(shop, 'Turn', '90')
  await expect(shop.route).toContainText('2 thick')
  await expect(shop.card.getByRole('alert')).toHaveCount(0)
})

test('a shell follows flats where it is asked to', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Hexagon cap')
  await shop.rectangle([0, 0], [30, 10], ['30', '10'])
  await press(page, '4', 'r')
  await fill(shop, 'Sides', '6')
  const hexagon = (across: number): number => (Math.sqrt(3) / 2) * across ** 2
  await expect(shop.figure('mass')).toHaveText(grams(hexagon(20) * 30))
  await shop.card.getByRole('button', { name: 'Done' }).click()
  await press(page, '4', 's')
  await expect(shop.card).toContainText('20 Shell')
  await fill(shop, 'Thickness', '2')
  await field(shop, 'Follows').selectOption({ label: 'flats and holes too' })
  await expect(shop.figure('mass')).toHaveText(grams(hexagon(20) * 30 - hexagon(16) * 26))
  await fill(shop, 'Thickness', '12')
  await expect(shop.card.getByRole('alert').first()).toBeVisible()
  await press(page, 'Escape')
  await expect(field(shop, 'Thickness')).toHaveValue('2')
  await expect(shop.figure('mass')).toHaveText(grams(hexagon(20) * 30 - hexagon(16) * 26))
})
