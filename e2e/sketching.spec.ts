import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'

test('a line sheave: a quarter of its section with spans about two centre lines, mirrored', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Line sheave')
  await press(page, 'x')
  await shop.click(20, 0)
  await shop.click(20, 44)
  await press(page, 'Escape')
  await shop.chain([
    [20, 8],
    [6, 8],
    [6, 18],
    [16, 18],
    [16, 28],
    [8, 28],
    [8, 40],
    [14, 40],
  ])
  // The groove: an arc from the rim to the middle plane.
  await press(page, 'Tab', 'Tab')
  await shop.click(20, 32)
  await shop.click(14, 34)
  await press(page, 'Escape', 'Escape')

  // Widths across the middle plane, diameters across the axis.
  const span = async (radius: number, value: string): Promise<void> => {
    await press(page, 's')
    await shop.click(radius === 13 ? 6 : radius === 34 ? 8 : 16, radius)
    await shop.click(20, radius === 23 ? 13 : 23)
    await shop.click(34, radius)
    await shop.type(value)
  }
  await span(13, '28')
  await expect(shop.label('28')).toBeVisible()
  await press(page, ' ')
  await span(34, '22')
  await span(23, '6')
  await shop.size([13, 8], [10, -12], '16')
  await shop.size([10, 40], [10, -50], '80')
  for (const text of ['28', '22', '6', '⌀16', '⌀80']) await expect(shop.label(text)).toBeVisible()

  await press(page, 'Escape', 'Escape', 'q')
  const [x, y] = Object.values(await shop.at(6, 13))
  await page.mouse.dblclick(x ?? 0, y ?? 0)
  await expect(shop.card).toContainText('8 picked')
  await press(page, '2', 'g')
  await expect(page.getByText(/Click the line or the axis to mirror about/)).toBeVisible()
  const middle = await shop.middleOf(1)
  await shop.click(middle.x, middle.y)
  await expect(shop.card).toContainText('1 region')
  await shop.revolve()
  await expect(shop.route).toContainText('⌀80 × 28')

  // One width drives both sides: the flanges come nearer and the mass falls with them.
  const before = await shop.figure('mass').textContent()
  await press(page, 'Escape', ' ')
  await shop.label('28').click()
  await shop.type('24')
  await expect(shop.route).toContainText('⌀80 × 24')
  expect(await shop.figure('mass').textContent()).not.toBe(before)
  await press(page, 'Control+z')
  await expect(shop.route).toContainText('⌀80 × 28')
})

test('three equal rope grooves by repeat: changing one changes all', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Cord drum')
  await shop.chain([
    [0, 0],
    [0, 25],
    [6, 25],
  ])
  // The groove is an arc through a place, then a land: one unit of the pattern.
  await press(page, 'Tab', 'Tab')
  await shop.click(16, 25)
  await shop.click(11, 21)
  await press(page, 'Tab')
  await shop.click(22, 25)
  await press(page, 'Escape', 'Escape', 'q')
  await shop.click(11, 21)
  await shop.clickWith('Shift', 19, 25)
  await press(page, '2', 't')
  await shop.type('3')
  await expect(page.getByText(/repeat of \d+ points, 3 in all/)).toBeVisible()
  await press(page, '1')
  await shop.chain([
    [54, 25],
    [60, 25],
    [60, 0],
  ])
  await expect(shop.card).toContainText('1 region')
  await shop.revolve()
  await expect(shop.route).toContainText('⌀50 × 60')
  await press(page, 'Escape', ' ')

  await press(page, '1', 's')
  await shop.click(11, 21)
  await shop.click(11, 15)
  await shop.type('6')
  await expect(shop.label('R6')).toBeVisible()
  const mass = async (): Promise<number> =>
    Number.parseFloat((await shop.figure('mass').textContent()) ?? '')
  const whole = await mass()
  await shop.label('R6').click()
  await shop.type('7.5')
  await expect(shop.label('R7.5')).toBeVisible()
  expect(await mass()).not.toBe(whole)
  // How many there are is changed afterwards, on the card of the repeat.
  await press(page, 'Escape')
  const arc = await shop.middleOf(3)
  await shop.click(arc.x, arc.y)
  await shop.card.getByLabel('In all', { exact: true }).fill('2')
  await shop.card.getByLabel('In all', { exact: true }).press('Enter')
  await expect(shop.card).toContainText('2 in all')
  await press(page, 'Control+z')
  await expect(shop.card).toContainText('3 in all')
})

test('a grip of five teeth by repeat, held by the sizes of one tooth', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Winding grip')
  await shop.tooth()
  await shop.type('5')
  await press(page, '1')
  await shop.chain([
    [44, 20],
    [50, 20],
    [50, 0],
  ])
  await shop.revolve()
  await expect(shop.route).toContainText('⌀54 × 50')
  await press(page, 'Escape', ' ')
  await shop.size([8, 23.5], [8, 29.5], '8')
  await press(page, 'Escape', ' ')
  await shop.size([2, 20], [2, 25], '5')
  await press(page, 'Escape', ' ')
  // All five follow the one length; the land behind them is still in pencil.
  await shop.label('8').click()
  await shop.type('9')
  await press(page, 'Escape')
  await expect(shop.card).toContainText('in pencil')
  await expect(shop.card.getByRole('alert')).toHaveCount(0)
  await expect(shop.route).toContainText(/× 5[0-9]/)
})

test('a stepped spindle typed as pairs, one by one or in a row', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Spindle')
  await press(page, 'g')
  const field = page.getByLabel('diameter, length')
  await expect(field).toBeFocused()
  await page.keyboard.type('20, 24')
  await press(page, 'Enter')
  await expect(field).toHaveValue('20, 24; ')
  await page.keyboard.type('28')
  await press(page, 'Enter')
  await expect(page.getByRole('alert')).toContainText('Step 2, “28”, is not a pair.')
  await page.keyboard.type(', 34; 36, 12; 24, 40')
  await press(page, 'Enter', 'Enter')
  await expect(shop.figure('freedoms')).toHaveText('in ink')
  for (const text of ['⌀20', '⌀28', '⌀36', '⌀24', '24', '34', '12', '40']) {
    await expect(shop.label(text)).toBeVisible()
  }
  await shop.revolve()
  await expect(shop.route).toContainText('⌀36 × 110')
  await press(page, 'Escape')
  // Everything in proportion, from one of the sizes.
  await shop.label('40').click()
  await page.keyboard.type('20')
  await page.getByRole('button', { name: 'Scale all so that this is so' }).click()
  await expect(shop.route).toContainText('⌀18 × 55')
  await press(page, 'Control+z')
  await expect(shop.route).toContainText('⌀36 × 110')
})

test('a size that contradicts is refused with the right culprits named', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Spindle')
  await press(page, 'g')
  await page.keyboard.type('20, 24; 28, 34')
  await press(page, 'Enter', 'Enter')
  // The whole length, when both of its stretches are given.
  await press(page, 'Escape', 's')
  await shop.click(0, 0)
  await shop.click(58, 0)
  await shop.click(29, -26)
  await shop.type('70')
  const alert = shop.board.getByRole('alert')
  await expect(alert).toContainText('len1')
  await expect(alert).toContainText('len2')
  await expect(alert).not.toContainText('dia1')
  await expect(shop.field()).toHaveValue('70')
  await alert.getByRole('button', { name: 'Keep as reference' }).click()
  await expect(shop.label('(58)')).toBeVisible()
  await shop.label('34').click()
  await shop.type('30')
  await expect(shop.label('(54)')).toBeVisible()
})
