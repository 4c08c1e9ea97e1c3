import { readFile } from 'node:fs/promises'
import { expect, test, type Locator, type Page } from '@playwright/test'
import { PLAIN_DRAWING, PLAIN_SHEET, type Part } from '@lathica/core/part'
import { Workshop, press, search } from './support/board'
import { Desk } from './support/desk'

/** What a download holds that a button begins. */
async function saved(page: Page, button: string): Promise<Buffer> {
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: button, exact: true }).click()
  return readFile(await (await download).path())
}

test('keyways and flats are cut across, with letters, their sizes on the cuts', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const desk = new Desk(page)
  await shop.openDemo('winding-spindle')
  await desk.open()
  const keyway = desk.paper.getByRole('img', { name: 'Section A–A' })
  await expect(keyway.first()).toBeVisible()
  await expect(desk.paper.getByRole('img', { name: 'Section B–B' }).first()).toBeVisible()
  // The cut itself comes from the solid: its outline is no full circle.
  const view = desk.paper.locator('g[data-role="view"][aria-label="Section A–A"] path.wide')
  await expect(page.getByText('Looking at the solid')).toBeHidden({ timeout: 60_000 })
  await expect
    .poll(async () => (await view.getAttribute('d'))?.split('L').length ?? 0)
    .toBeGreaterThan(3)
  for (const words of ['36', '5', '8', '4', '13']) await expect(desk.said(words)).toBeVisible()

  // Without cuts all of it is told in words.
  await page.getByLabel('Across', { exact: true }).selectOption('none')
  await expect(keyway).toHaveCount(0)
  await expect(desk.said('keyway 8 wide, 4 deep, 36 long, 5 from its edge')).toBeVisible()
  await press(page, 'Control+z')
  await expect(keyway.first()).toBeVisible()
})

test('a size is drawn between two edges, taken off, and missed where it was needed', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const desk = new Desk(page)
  await shop.openDemo('winding-wheel')
  await desk.open()
  const place = page.locator('.places circle')
  await press(page, 's')
  await expect(page.getByText('Click the edge that the size begins at')).toBeVisible()
  const count = await place.count()
  expect(count).toBeGreaterThan(4)
  const at = async (i: number): Promise<{ x: number; y: number }> => {
    const box = await place.nth(i).boundingBox()
    if (!box) throw new Error('the place is gone')
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 }
  }
  const click = async ({ x, y }: { x: number; y: number }): Promise<void> => {
    await page.mouse.move(x, y)
    await page.mouse.down()
    await page.mouse.up()
  }
  // Begun and let go of; then the same edge twice: its diameter.
  await click(await at(0))
  await expect(page.getByText('Click the other edge')).toBeVisible()
  await press(page, 'Escape')
  await expect(page.getByText('Click the edge that the size begins at')).toBeVisible()
  await click(await at(0))
  await click(await at(0))
  const picked = page.getByRole('region', { name: 'What is picked' })
  await expect(picked).toContainText(/\(⌀\d/)
  // Once more is refused.
  await click(await at(0))
  await click(await at(0))
  await expect(page.getByText('This size is drawn already')).toBeVisible()
  await press(page, 'Escape', 'Escape')
  await press(page, 'Control+z')
  await expect(desk.paper.getByRole('img', { name: /^\(⌀/ })).toHaveCount(0)

  // A size that is taken off is told, and so is the face that nothing reaches any more.
  const label = desk.paper.locator('g[data-role="size"]').first()
  const said = (await label.getAttribute('aria-label')) ?? ''
  await label.locator('text').first().click()
  await press(page, 'Delete')
  await expect(desk.said(said)).toHaveCount(0)
  await expect(page.getByText('1 label was taken off this sheet.')).toBeVisible()
  await expect(page.getByText(/^No size tells/)).toBeVisible()
  await page.getByRole('button', { name: 'Put them on again' }).click()
  await expect(desk.said(said).first()).toBeVisible()
  await expect(page.getByText(/^No size tells/)).toBeHidden()
})

test('a body has a sheet of its own, and all sheets are one PDF', async ({ page }) => {
  const shop = new Workshop(page)
  const desk = new Desk(page)
  await shop.openDemo('float')
  await desk.open()
  const title = desk.paper.locator('g[data-role="title"]')
  await expect(title).toContainText('1 / 1')
  const before = await desk.paper.locator('g[data-role="size"]').count()
  await page.getByRole('button', { name: 'Add a sheet' }).click()
  await expect(title).toContainText('2 / 2')
  await expect(page.getByText(/sizes stand on a sheet before this one/)).toBeVisible()
  await page.getByLabel('Name', { exact: true }).fill('rod')
  await page.getByLabel('Name', { exact: true }).press('Enter')
  const bodies = page.getByLabel('Bodies', { exact: true })
  await bodies.selectOption({ index: 2 })
  await expect(page.getByText(/sizes stand on a sheet before this one/)).toBeHidden()
  await expect(title).toContainText('rod')
  const own = await desk.paper.locator('g[data-role="size"]').count()
  await page.getByRole('button', { name: 'Sheet 1', exact: true }).click()
  await expect(title).toContainText('1 / 2')
  // Its sizes stand on its own sheet only; the two numbers of bodies and cutting lines are no sizes.
  const rest = await desk.paper.locator('g[data-role="size"]').count()
  expect(rest).toBeLessThan(before)
  expect(rest + own).toBeGreaterThanOrEqual(before)
  const pdf = await saved(page, 'PDF')
  expect(pdf.toString('latin1').match(/\/Type \/Page\b/g)).toHaveLength(2)

  await shop.saved()
  await page.reload()
  await expect(page.getByRole('button', { name: 'Sheet 2, rod' })).toBeVisible()
  await press(page, 'r')
  await expect(title).toContainText('2 / 2')
  await page.getByRole('button', { name: 'Take this sheet off' }).click()
  await expect(title).toContainText('1 / 1')
  await press(page, 'Control+z')
  await expect(title).toContainText('2 / 2')
})

test('a sheet whose body is gone says so, and can be left and mended', async ({ page }) => {
  const shop = new Workshop(page)
  const desk = new Desk(page)
  const sheets = [PLAIN_SHEET, { ...PLAIN_SHEET, id: 'sheet90', body: 'body90' }]
  await shop.openDemo('float', (part) =>
    Object.assign(part, { drawing: { ...PLAIN_DRAWING, sheets } }),
  )
  await desk.open()
  await page.getByRole('button', { name: 'Sheet 2' }).click()
  await expect(page.getByText('The body of this sheet is gone')).toBeVisible()
  await page.getByRole('button', { name: 'Sheet 1' }).click()
  const title = desk.paper.locator('g[data-role="title"]')
  await expect(title).toContainText('1 / 2')
  await page.getByRole('button', { name: 'Sheet 2' }).click()
  await page.getByLabel('Bodies', { exact: true }).selectOption({ label: 'all of them' })
  await expect(title).toContainText('2 / 2')
})

test('a released drawing is kept as it was, and what is changed later is marked', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const desk = new Desk(page)
  await shop.openDemo('spindle')
  await desk.open()
  await press(page, 't')
  await expect(page.getByText('Nothing was released yet.')).toBeVisible()
  // Where it cannot be kept, it is not released.
  await page.route('**/releases', (route) =>
    route.request().method() === 'POST' ? route.abort() : route.continue(),
  )
  await page.getByRole('button', { name: 'Release A', exact: true }).click()
  await expect(page.getByText('The server does not answer.').first()).toBeVisible()
  await page.unroute('**/releases')
  await expect(desk.paper.getByRole('img', { name: 'Revisions' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Release A', exact: true }).click()
  await expect(page.getByText('Revision A is released.')).toBeVisible({ timeout: 30_000 })
  const table = desk.paper.getByRole('img', { name: 'Revisions' })
  await expect(table).toContainText('first release')
  const changed = page.getByRole('region', { name: 'Changed since' })
  await expect(changed).toContainText('Nothing.')

  // A size is changed on the model: the sheet follows, and marks it.
  await page.getByRole('link', { name: 'Model', exact: true }).click()
  await shop.ready()
  await shop.label('⌀44').dblclick()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('46')
  await page.keyboard.press('Enter')
  await expect(shop.label('⌀46')).toBeVisible()
  await desk.open()
  await expect(desk.said('⌀46')).toContainText('B')
  await expect(changed).toContainText('⌀44 is ⌀46 now')

  // Words first: a later revision says what was changed.
  await page.getByRole('button', { name: 'Release B', exact: true }).click()
  await expect(page.getByRole('alert')).toContainText('Say in a few words')
  await page.getByLabel('Change', { exact: true }).fill('collar wider')
  await page.getByLabel('By', { exact: true }).fill('drawing office')
  await page.getByRole('button', { name: 'Release B', exact: true }).click()
  await expect(page.getByText('Revision B is released.')).toBeVisible({ timeout: 30_000 })
  await expect(table).toContainText('collar wider')
  await expect(desk.said('⌀46')).toContainText('B')

  // A is as it was.
  await page
    .getByRole('listitem')
    .filter({ hasText: 'first release' })
    .getByRole('button', { name: 'Show' })
    .click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('img', { name: 'Sheet 1 of revision A' })).toBeVisible()
  const download = page.waitForEvent('download')
  await dialog.getByRole('button', { name: 'Part file' }).click()
  const kept = await readFile(await (await download).path(), 'utf8')
  expect(kept).toContain('"formula": "44"')
  const pdf = await page.request.get(
    (await dialog.getByRole('link', { name: 'PDF' }).getAttribute('href')) ?? '',
  )
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-')
  await press(page, 'Escape')

  // The row can be undone; what was released stays kept.
  await shop.saved()
  await page.reload()
  await expect(table).toContainText('collar wider')
})

test('the plan is filled with the values of five pieces, one of which fails', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  const shop = new Workshop(page)
  const desk = new Desk(page)
  // What was measured of the trial pieces is left out.
  await shop.openDemo('spindle', ({ drawing }) => Reflect.deleteProperty(drawing ?? {}, 'plan'))
  await desk.open()
  await search(page, 'Inspection plan')
  const table = page.getByRole('table', { name: 'Inspection plan' })
  const row = table.getByRole('row').filter({ hasText: '112 ±0.15' })
  await expect(row).toContainText('111.85 … 112.15 mm')
  await expect(row).toContainText('caliper')
  await expect(table.getByRole('row').filter({ hasText: '⌀20 k6' })).toContainText('micrometer')

  // The numbers stand on the sheet, where the plan says.
  await page.getByLabel('Numbers shown').click()
  const number = await row.getByRole('cell').first().innerText()
  await expect(desk.said('112 ±0.15')).toContainText(number)

  // A first piece, with a wrong value that stays to be mended.
  await page.getByRole('button', { name: 'Add a piece' }).click()
  const cell = (piece: string) => row.getByLabel(new RegExp(`, piece ${piece}$`))
  await cell('1').fill('about 112')
  await cell('1').press('Enter')
  await expect(cell('1')).toHaveAttribute('aria-invalid', 'true')
  await expect(cell('1')).toHaveValue('about 112')
  await cell('1').fill('112,02')
  await cell('1').press('Enter')
  await expect(cell('1')).toHaveAttribute('aria-invalid', 'false')
  await expect(cell('1')).toHaveValue('112.02')

  // Five pieces at once from a spreadsheet; the fourth is too long.
  await cell('1').focus()
  await page.evaluate(() => navigator.clipboard.writeText('112.02\t112\t111.9\t112.31\t112.1\n'))
  await press(page, 'Control+v')
  await expect(page.getByRole('status').filter({ hasText: 'pieces:' })).toContainText('5 pieces')
  await expect(row.getByText('✕')).toHaveCount(1)
  await expect(table.getByRole('columnheader').filter({ hasText: 'bad' })).toHaveCount(1)
  await expect(page.getByRole('img', { name: '5 values, 1 out of their limits' })).toBeVisible()
  const hand = page.getByRole('region', { name: 'Row in hand' })
  await expect(hand).toContainText('112.066 mm')
  await page.getByLabel('Measured with').fill('length gauge')
  await page.getByLabel('Measured with').press('Enter')
  await expect(row).toContainText('length gauge')

  // A block that cannot be read changes nothing.
  await cell('1').focus()
  await page.evaluate(() => navigator.clipboard.writeText('1\t2\tthree\n'))
  await press(page, 'Control+v')
  await expect(page.getByText('In line 1, column 3 of the block')).toBeVisible()
  await expect(cell('2')).toHaveValue('112')
  await press(page, 'Escape')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(row).toContainText('caliper')

  // All of it is kept, and goes out.
  await shop.saved()
  await page.reload()
  await expect(desk.said('112 ±0.15')).toBeVisible()
  await press(page, 'g')
  await expect(cell('4')).toHaveValue('112.31')
  const csv = (await saved(page, 'CSV')).toString()
  expect(csv).toContain('112 ±0.15,112,111.85,112.15,mm,caliper')
  expect(csv).toContain('112.02,112,111.9,112.31,112.1,1')
  expect((await saved(page, 'Report PDF')).subarray(0, 5).toString()).toBe('%PDF-')
})

test('sizes are drawn between holes on the view from an end, and measured another way', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const desk = new Desk(page)
  await shop.openDemo('end-bearing-housing')
  await desk.open()
  await expect(desk.paper.getByRole('img', { name: /6 × ⌀/ })).toBeVisible()
  await press(page, 's')
  const points = page.locator('.places circle[data-what="point"]')
  const rings = page.locator('.places rect[data-what="ring"]')
  // The axis and the middles of eight holes.
  await expect(points).toHaveCount(9)
  const click = async (place: Locator, key?: 'Shift'): Promise<void> => {
    const box = await place.boundingBox()
    if (!box) throw new Error('the place is gone')
    if (key) await page.keyboard.down(key)
    await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2)
    if (key) await page.keyboard.up(key)
  }
  const picked = page.getByRole('region', { name: 'What is picked' })
  const said = (words: string): Locator => desk.paper.getByRole('img', { name: words, exact: true })
  // Begun at the axis by mistake, and let go of.
  await click(points.nth(0))
  await expect(page.getByText('Click the other point')).toBeVisible()
  await press(page, 'Escape')
  await click(points.nth(0))
  await click(points.nth(1))
  await expect(picked).toContainText('(37)')
  await expect(said('(37)')).toBeVisible()
  await click(points.nth(1))
  await click(points.nth(2))
  const measured = picked.getByLabel('Measured')
  await measured.selectOption('angle about the axis')
  await expect(said('(60°)')).toBeVisible()
  await measured.selectOption('upright')
  await expect(said('(60°)')).toHaveCount(0)
  await press(page, 'Control+z')
  await expect(said('(60°)')).toBeVisible()
  // A circle has its diameter at once.
  await click(rings.last())
  await expect(picked).toContainText(/\(⌀\d/)
  await press(page, 'Escape', 'Escape')
  await page.reload()
  await expect(said('(37)')).toBeVisible()
  await expect(said('(60°)')).toBeVisible()
  // Without that end they are told, and come back with it.
  await page.getByLabel('Ends').selectOption('none')
  await expect(page.getByText('3 sizes were drawn on the view from an end')).toBeVisible()
  await press(page, 'Control+z')
  await expect(said('(37)')).toBeVisible()
})

test('a size is drawn from one body to another, and kept', async ({ page }) => {
  const shop = new Workshop(page)
  const desk = new Desk(page)
  await shop.openDemo('guide-roller')
  const { bodies } = await shop.document()
  expect(bodies).toHaveLength(2)
  const id = new URL(page.url()).pathname.split('/').at(-1) ?? ''
  await desk.open()
  await press(page, 's')
  const corners = page.locator('.places circle[data-what="corner"]')
  await expect(corners.first()).toBeVisible()
  // Places stand body after body.
  for (const place of [corners.first(), corners.last()]) {
    const box = await place.boundingBox()
    if (!box) throw new Error('the place is gone')
    await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2)
  }
  const picked = page.getByRole('region', { name: 'What is picked' })
  await expect(picked).toContainText(/\(\d/)
  const said = (await picked.locator('.written').textContent()) ?? ''
  await expect(page.locator('[data-save]')).toHaveAttribute('data-save', 'saved')
  const stored = (await (await page.request.get(`/api/parts/${id}`)).json()) as {
    document: Part
  }
  const [size] = stored.document.drawing?.sheets[0]?.drawn ?? []
  expect([size?.body, size?.other]).toEqual(bodies.map((b) => b.id))
  await page.reload()
  await expect(desk.said(said)).toBeVisible()
})
