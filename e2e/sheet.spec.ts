import { readFile } from 'node:fs/promises'
import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'
import { Desk } from './support/desk'

test('the sheet of the spindle: a label is dragged and stays, the part changes and the sheet with it', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const desk = new Desk(page)
  await shop.openDemo('spindle')
  await desk.open()
  for (const words of ['⌀20 k6', '34 ±0.1', '112 ±0.15', 'thread: M16×1.5-6g']) {
    await expect(desk.said(words)).toBeVisible()
  }
  const before = await desk.heightOf('112 ±0.15')

  // Let go of in the middle of dragging.
  await desk.drag('112 ±0.15', 0, 60)
  await press(page, 'Escape')
  await page.mouse.up()
  await desk.expectHeight('112 ±0.15', before)

  await desk.drag('112 ±0.15', 0, 60)
  await page.mouse.up()
  const picked = page.getByRole('region', { name: 'What is picked' })
  await expect(picked).toContainText('112 ±0.15')
  await expect(picked).toContainText('where it was dragged to')
  await expect.poll(async () => (await desk.heightOf('112 ±0.15')) - before).toBeGreaterThan(50)
  const after = await desk.heightOf('112 ±0.15')

  await press(page, 'Control+z')
  await desk.expectHeight('112 ±0.15', before)
  await press(page, 'Control+Shift+z')
  await desk.expectHeight('112 ±0.15', after)

  // Another section, a wrong scale, a right one.
  await page.getByLabel('Along', { exact: true }).selectOption('half')
  await expect(desk.paper.locator('path.narrow').first()).toBeAttached()
  await page.getByLabel('Scale').fill('half')
  await page.getByLabel('Scale').press('Enter')
  await expect(page.getByRole('status').filter({ hasText: '“half” is no scale' })).toBeVisible()
  await page.getByLabel('Scale').fill('1:2')
  await page.getByLabel('Scale').press('Enter')
  await expect(desk.paper.locator('g[data-role="title"]')).toContainText('1:2')
  await page.getByLabel('Number').fill('SP-12')
  await page.getByLabel('Number').press('Enter')
  await expect(desk.paper.locator('g[data-role="title"]')).toContainText('SP-12')
  await page.getByLabel('Paper', { exact: true }).selectOption('A4')
  await expect(desk.paper.locator('g[data-role="frame"]')).toBeAttached()

  // A size is changed on the model; the sheet has it when one comes back, and after a reload.
  await shop.saved()
  await page.reload()
  await expect(desk.paper.locator('g[data-role="title"]')).toContainText('SP-12')
  await expect(page.getByLabel('Paper', { exact: true })).toHaveValue('A4')
})

test('the sheet goes out as PDF, SVG and PNG, and by keys', async ({ page }) => {
  const shop = new Workshop(page)
  const desk = new Desk(page)
  await shop.openDemo('float')
  await desk.open()
  const save = async (button: string): Promise<Buffer> => {
    const download = page.waitForEvent('download')
    await page.getByRole('button', { name: button, exact: true }).click()
    return readFile(await (await download).path())
  }
  expect((await save('PDF')).subarray(0, 5).toString()).toBe('%PDF-')
  expect((await save('SVG')).toString()).toContain('aria-label="⌀80"')
  expect([...(await save('PNG')).subarray(1, 4)]).toEqual([...Buffer.from('PNG')])

  // The next label, moved by keys and put back.
  await press(page, 'e')
  const picked = page.getByRole('region', { name: 'What is picked' })
  await expect(picked).toBeVisible()
  await press(page, 'ArrowUp')
  await expect(picked).toContainText('where it was dragged to')
  await press(page, 'b')
  await expect(picked).not.toContainText('where it was dragged to')
  await press(page, 'Escape')
  await expect(picked).toBeHidden()
})

test('holes stand on the view of their end once the solid was looked at', async ({ page }) => {
  const shop = new Workshop(page)
  const desk = new Desk(page)
  await shop.openDemo('end-bearing-housing')
  await desk.open()
  const end = desk.paper.getByRole('img', { name: 'View from the right' })
  await expect(desk.said('6 × ⌀6.6, ⌴ ⌀11 ↧6.4, on ⌀74, first at 30°')).toBeVisible()
  // Circles of six counterbored holes and two pins, beside the part's own.
  const arcs = async (): Promise<number> =>
    (await end.locator('path.wide').first().getAttribute('d'))?.split('A').length ?? 0
  await expect.poll(arcs, { timeout: 60_000 }).toBeGreaterThan(40)
  await expect(page.getByText('Looking at the solid')).toBeHidden()

  // Files have them too, also where the sheet was never looked at.
  await page.reload()
  await page.getByRole('link', { name: 'Dispatch' }).click()
  const download = page.waitForEvent('download', { timeout: 60_000 })
  await page.getByRole('region', { name: 'Sheet, SVG' }).getByRole('button').click()
  const svg = await readFile(await (await download).path(), 'utf8')
  const view = /aria-label="View from the right">(.*)/.exec(svg)?.[1] ?? ''
  expect(view.split('A').length).toBeGreaterThan(40)
})

test('where nothing is turned yet the sheet says what comes first', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Float rod')
  await page.getByRole('link', { name: 'Sheet', exact: true }).click()
  await expect(page.getByText('There is nothing to draw yet')).toBeVisible()
  await expect(page.getByRole('button', { name: 'PDF' })).toBeDisabled()
  await page.getByRole('button', { name: 'To the model' }).click()
  await shop.ready()
})
