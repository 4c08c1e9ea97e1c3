import { expect, test } from '@playwright/test'
import { Inspection } from './support/inspection'
import { Workshop, press } from './support/board'

test('a shaft is drawn with tolerances, and what a distance varies by is read, missed and met', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Idler shaft')
  await press(page, 'g')
  await page.keyboard.type('20 k6, 24 ±0.1; 30, 40 ±0.05; 20 k6, 26')
  await press(page, 'Enter', 'Enter', ' ')
  await expect(shop.label('24 ±0.1')).toBeVisible()
  await expect(shop.label('⌀20 k6')).toHaveCount(2)
  await shop.revolve()
  await expect(shop.card).toContainText('10 Revolve')
  await shop.card.getByRole('button', { name: 'Done' }).click()

  // Wrong turns: a letter that there is none of, a size beyond the standard, limits the wrong way round.
  await shop.label('⌀30').click()
  const field = shop.field()
  for (const [text, said] of [
    ['30 q6', 'ISO 286 has no deviation “q”.'],
    ['5000 H7', 'it ends at 3150 mm'],
    ['30 -0.1 +0.1', 'Type the greater one first'],
    ['30 ±0', 'This tolerance leaves nothing.'],
  ] as const) {
    await field.fill(text)
    await press(page, 'Enter')
    await expect(shop.board.getByRole('alert')).toContainText(said)
  }
  await field.fill('30 g6')
  await expect(shop.board).toContainText('from 29.98 to 29.993')
  await press(page, 'Enter')
  await expect(shop.label('⌀30 g6')).toBeVisible()
  await press(page, 'Alt+t')
  await expect(shop.label('⌀30 −0.007/−0.02')).toBeVisible()
  await press(page, 'Alt+t')
  await expect(shop.label('⌀20 k6 (+0.015/+0.002)')).toHaveCount(2)
  await press(page, 'Alt+t')

  const inspect = new Inspection(page)
  await inspect.open()
  await inspect.tab('Tolerances')
  const { tolerances } = inspect
  await expect(tolerances.getByRole('table', { name: 'Values with tolerances' })).toContainText(
    '±0.05',
  )
  await tolerances.getByLabel('All others').selectOption({ label: 'ISO 2768-m, medium' })
  await expect(tolerances).toContainText('±0.2')

  // From one end to the other: three lengths, the last by the general tolerance.
  await inspect.click(0, 5)
  await inspect.click(90, 5)
  const worst = tolerances.locator('[data-span="worst"]')
  await expect(worst).toContainText('89.65 mm')
  await expect(worst).toContainText('90.35 mm')
  await expect(tolerances.getByRole('table', { name: 'What it varies by' })).toContainText('57 %')
  await expect(tolerances).toContainText('Rates from the equations of the profile.')

  // The part at the limits that make it shortest, blown up, and as drawn again.
  const size = shop.figure('size')
  await expect(size).toHaveText('⌀30 × 90')
  await tolerances.getByLabel('Shown', { exact: true }).selectOption('low')
  await expect(size).toHaveText(/× 86.5$/)
  await tolerances.getByLabel('how far off it is shown').selectOption('1')
  await expect(size).toHaveText(/× 89.65$/)
  await tolerances.getByLabel('Shown', { exact: true }).selectOption('drawn')
  await expect(size).toHaveText('⌀30 × 90')
  // At the most material, and at a mix of limits: each value at the one that is chosen for it.
  const mass = shop.figure('mass')
  const drawn = parseFloat((await mass.textContent()) ?? '')
  await tolerances.getByLabel('Shown', { exact: true }).selectOption('mostMaterial')
  await expect.poll(async () => parseFloat((await mass.textContent()) ?? '')).toBeGreaterThan(drawn)
  await tolerances.getByLabel('Shown', { exact: true }).selectOption('mix')
  await expect(size).toHaveText('⌀30 × 90')
  await tolerances.getByLabel(/^length of line 4/).selectOption('greatest')
  await expect(size).toHaveText(/× 90\.05$/)
  await tolerances.getByLabel('Shown', { exact: true }).selectOption('drawn')
  await expect(size).toHaveText('⌀30 × 90')
  await tolerances.getByLabel('Wanted from').fill('89.7')
  await tolerances.getByLabel('to', { exact: true }).fill('90.3')
  const advice = tolerances.getByRole('status').filter({ hasText: 'Tighten' })
  await expect(advice).toContainText('from ±0.2 to ±0.15')
  await advice.getByRole('button', { name: 'Tighten' }).click()
  await expect(tolerances.getByText('Holds in the worst case.')).toBeVisible()
  await expect(worst).toContainText('90.3 mm')
  await press(page, 'Control+z')
  await expect(worst).toContainText('90.35 mm')
  await press(page, 'Control+Shift+z')
  await expect(worst).toContainText('90.3 mm')

  await tolerances.getByRole('button', { name: 'Try 10,000 parts' }).click()
  await expect(tolerances.getByText('None of 10,000 lies outside')).toBeVisible()
  await expect(tolerances.getByRole('img', { name: /^Histogram. Mean 90/ })).toBeVisible()

  // A tolerance is typed in the list too; what is none is told, and the old one stays.
  const own = tolerances.getByLabel(/^tolerance of length of line 4/)
  await own.fill('±wide')
  await own.press('Enter')
  await expect(tolerances.getByRole('alert')).toContainText('is no tolerance here')
  await own.fill('h9')
  await own.press('Enter')
  await expect(tolerances.getByRole('row', { name: /length of line 4/ }).last()).toContainText(
    '0/−0.062',
  )
  await page.reload()
  await inspect.tab('Tolerances')
  await expect(tolerances.getByLabel(/^tolerance of length of line 4/)).toHaveValue('h9')
  await expect(tolerances.getByLabel('All others')).toHaveValue('m')
})

test('the fit of a roller in its ring is chosen by its use, and its play at the limits is read', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.openDemo('guide-roller')
  const inspect = new Inspection(page)
  await inspect.open()
  await inspect.tab('Tolerances')
  const { tolerances } = inspect
  await expect(tolerances).toContainText('None yet: type one behind any value')
  // A face and a land have no fit; a land of the roller and the bore of the ring do.
  await inspect.click(12, 12)
  await inspect.click(12, 12.2)
  const fit = tolerances.getByRole('region', { name: 'Fit' })
  await expect(fit).toContainText('The nominal diameters differ by 0.4 mm.')
  await fit.getByLabel('fits by use').selectOption('H9/d9')
  await expect(fit).toContainText('Plain bearings that run fast or get warm.')
  await fit.getByRole('button', { name: 'Take it' }).click()
  const play = fit.locator('[data-play]')
  await expect(play).toContainText('0.465 to 0.569 mm')
  await expect(fit).toContainText('Play at every limit: a clearance fit.')
  await fit.getByLabel('fits by use').selectOption('H7/s6')
  await fit.getByRole('button', { name: 'Take it' }).click()
  await expect(play).toContainText('0.352 to 0.386 mm')
  await press(page, 'Control+z')
  await expect(play).toContainText('0.465 to 0.569 mm')
  // The same play as a row of the sheet that is to hold at every limit.
  await inspect.tab('Checks')
  const row = inspect.row('radial play')
  await row.getByRole('button').first().click()
  await row.getByLabel('At every limit').check()
  await expect(row).toContainText(/at every limit 0\.23[23] to 0\.28[45] mm/)
  await expect(row).toContainText('over the target at its limits; 0.05 mm is allowed.')
})
