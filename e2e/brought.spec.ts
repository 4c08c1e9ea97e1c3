import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'
import { FLANGE, cylinder, field, fill, flange, grams } from './support/flange'
import { Inspection } from './support/inspection'

/** Bodies from files weigh as the first material does: steel, in g/mm³. */
const DENSITY = 7.85e-3

test('a file that is dropped on the solid is a body, and is drilled like any other @solid', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await shop.openDemo('line-sheave')
  await page.getByRole('link', { name: 'Dispatch' }).click()
  const file = page.getByRole('region', { name: 'STEP, ISO 10303' })
  const { bytes } = await bench.saved(file.getByRole('button', { name: 'Download' }))
  await page.goto('/')
  await flange(shop, 'Flange beside a sheave')

  const files = await page.evaluateHandle((text) => {
    const transfer = new DataTransfer()
    transfer.items.add(new File([text], 'sheave.step'))
    return transfer
  }, bytes.toString('utf8'))
  const solid = page.getByRole('region', { name: 'Solid' })
  await solid.dispatchEvent('dragover', { dataTransfer: files })
  await solid.dispatchEvent('drop', { dataTransfer: files })
  await expect(shop.route).toContainText('From a file')
  const mass = shop.figure('mass')
  await expect(mass).not.toHaveText(grams(FLANGE))
  await expect(mass).toHaveText(/^\d/)
  const inGrams = async (): Promise<number> => {
    const [figure, unit] = ((await mass.textContent()) ?? '').split(' ')
    return Number(figure) * (unit === 'kg' ? 1000 : 1)
  }
  const whole = await inGrams()
  expect(whole).toBeGreaterThan(FLANGE * 7.85e-3)

  // A shoulder of the sheave stands out beyond the flange: holes go through it.
  await press(page, 'Escape', ' ', '5', 'w')
  await shop.moveTo(6, 40)
  await expect(shop.board).toContainText('face at 6')
  await shop.click(6, 40)
  await expect(shop.card).toContainText('30 Holes')
  await fill(shop, 'Pitch circle', '80')
  await fill(shop, 'Number', '3')
  await fill(shop, 'Diameter', '6')
  await field(shop, 'Goes').selectOption({ label: 'through all' })
  // The figure is told to a gram.
  const drilled = whole - 3 * cylinder(6, 14) * DENSITY
  await expect.poll(async () => Math.abs((await inGrams()) - drilled)).toBeLessThan(1.01)
})

test('a rod is as an end sketch shows: a rectangle is as good as a bar', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.openDemo('sampling-can')
  const mass = shop.figure('mass')
  await expect(mass).toHaveText(/^\d/)
  const asRound = await mass.textContent()
  await shop.route.getByRole('button', { name: /Sweep/ }).click()
  await field(shop, 'Form').selectOption({ label: 'bar' })
  await fill(shop, 'Width', '6')
  await fill(shop, 'Height', '4')
  await expect(mass).not.toHaveText(asRound ?? '')
  await expect(mass).toHaveText(/^\d/)
  const asBar = await mass.textContent()
  await field(shop, 'Form').selectOption({ label: 'as an end sketch shows' })
  await expect(shop.card.getByRole('alert').first()).toContainText(/sketch/)
  await shop.card.getByRole('button', { name: 'Done' }).click()
  // The part stands: a place is told by its radius and its height.
  await press(page, '5', 'c')
  await shop.moveTo(20, -0.9)
  await expect(shop.board).toContainText('face at')
  await shop.click(20, -0.9)
  await expect(shop.board).toHaveAttribute('data-plane', /end/)
  await shop.rectangle([-3, -2], [3, 2], ['6', '4'])
  await press(page, 'Escape', 'Escape')
  await shop.route.getByRole('button', { name: /Sweep/ }).click()
  await field(shop, 'Outline').selectOption({ index: 0 })
  await expect(mass).toHaveText(asBar ?? '')
})
