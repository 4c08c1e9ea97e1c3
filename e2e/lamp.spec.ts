import { expect, test } from '@playwright/test'
import { Workshop, press, search } from './support/board'

test('a lamp of three bodies: a foot of brass, a shade of paper, and the wire frame between @solid', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Lamp for the gauge house')
  const solid = page.getByRole('region', { name: 'Solid' })
  const bodies = shop.route.getByRole('list', { name: 'Bodies' }).getByRole('listitem')
  const profiles = shop.route.getByRole('list', { name: 'Profiles' }).getByRole('listitem')

  // The foot: a plate of lines, a side in one free curve, closed on the axis; brass.
  await shop.chain([
    [0, 0],
    [0, 48],
    [5, 48],
  ])
  await press(page, 'Escape', '1', 'd')
  for (const [x, r] of [
    [5, 48],
    [16, 35],
    [34, 15],
    [66, 8],
    [104, 12],
  ] as const) {
    await shop.click(x, r)
  }
  await press(page, 'Enter', 'Escape')
  await shop.chain([
    [104, 12],
    [104, 0],
  ])
  await press(page, 'Escape', 'Escape', 'q')
  await expect(solid.getByRole('status')).toContainText('it would be')
  await press(page, '4', 'r')
  await page.locator('#body-material').selectOption({ label: 'brass CuZn39Pb3' })
  await press(page, 'Escape', 'Escape')
  const foot = await shop.figure('mass').textContent()

  // The shade: an open curve above it, thin, in a body of its own.
  await search(page, 'new profile')
  await shop.moveTo(60, 0)
  await page.mouse.wheel(0, 300)
  await press(page, '1', 'd')
  for (const [x, r] of [
    [92, 84],
    [112, 75],
    [146, 52],
    [184, 38],
    [200, 37],
  ] as const) {
    await shop.click(x, r)
  }
  await press(page, 'Enter', 'Escape', 'Escape')
  await search(page, 'wall')
  await expect(shop.card).toContainText('20 Wall')
  await page.keyboard.type('0.8')
  await press(page, 'Enter')
  await shop.card.getByLabel('Body').selectOption({ label: 'a new body' })
  await press(page, 'Escape', 'Escape')
  await expect(bodies).toHaveCount(2)

  // The frame: a band within the shade, and a strut to the foot, thrice round.
  await search(page, 'new profile')
  await press(page, '1', 'r')
  await shop.click(182, 30)
  await shop.click(194, 34)
  await press(page, 'Escape', 'Escape')
  await press(page, '4', 'r')
  await press(page, 'Escape', 'Escape')
  await expect(bodies).toHaveCount(3)
  await search(page, 'new profile')
  await shop.line([112, 6], [188, 32])
  await press(page, 'Escape', 'Escape')
  await search(page, 'sweep')
  await expect(shop.card).toContainText('40 Sweep')
  await page.keyboard.type('3')
  await press(page, 'Enter')
  await shop.card.getByLabel('Body').selectOption({ label: 'body 3' })
  await press(page, 'Escape', 'Escape')
  await shop.route.getByRole('button', { name: /^40 Sweep/ }).click()
  await press(page, '5', 'z')
  await expect(shop.card).toContainText('50 Round the axis')
  await shop.card.getByLabel('Number').fill('3')
  await press(page, 'Enter', 'Escape', 'Escape')
  await expect(shop.route.getByRole('button', { name: /^50 Round the axis/ })).toContainText(/\+/)
  await expect(page.getByText('△')).toHaveCount(0)
  await expect(profiles).toHaveCount(4)

  // What is pushed in the shade's curve moves the shade alone; all of it comes back.
  await profiles.nth(1).getByRole('button').first().click()
  const mass = shop.figure('mass')
  const before = await mass.textContent()
  expect(before).not.toBe(foot)
  await shop.click(146, 52)
  await press(page, 'Control+ArrowUp', 'Control+ArrowUp')
  await expect(shop.route.getByRole('button', { name: /^20 Wall/ })).toContainText('0.8')
  await press(page, 'Control+z', 'Control+z')
  await expect(mass).toHaveText(before ?? '')
  await shop.saved()
  await page.reload()
  await shop.ready()
  await expect(bodies).toHaveCount(3)
  await expect(mass).toHaveText(before ?? '')
})
