import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'

test('a flask with a side in one free curve is drawn, turned, hollowed and read again', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Flask with a drawn side')
  await shop.line([0, 0], [0, 30])
  await press(page, '1', 'w', 'Tab', 'Tab')
  await shop.click(0, 30)
  await shop.click(60, 12)
  // A wrong turn: back to the start, and once more.
  await shop.moveTo(20, 50)
  await press(page, 'Escape')
  await shop.click(0, 30)
  await shop.click(60, 12)
  await shop.moveTo(25, 30.5)
  await expect(page.getByText('axial', { exact: true }).first()).toBeVisible()
  await shop.click(25, 30.5)
  await shop.click(38, 12.2)
  await press(page, 'Escape')
  await shop.chain([
    [60, 12],
    [72, 12],
    [72, 0],
  ])
  await press(page, 'Escape', 'Escape', 'q', '4', 'r')
  await expect(shop.card).toContainText('10 Revolve')
  const mass = shop.figure('mass')
  await expect(mass).toHaveText(/^\d/)
  const full = await mass.textContent()

  // Its handle is a point like any other: it is dragged, and the part follows; undo takes it back.
  await shop.card.getByRole('button', { name: 'Done' }).click()
  await shop.drag([25, 30], [40, 30])
  await expect(mass).not.toHaveText(full ?? '')
  await page.keyboard.press('Control+z')
  await expect(mass).toHaveText(full ?? '')
  await shop.click(31.1, 21)
  await expect(page.getByText('Tightest')).toBeVisible()
  await press(page, 'Escape')

  await page.reload()
  await shop.ready()
  await expect(mass).toHaveText(full ?? '')
})
