import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'
import { FLANGE, cylinder, field, fill, findOn, flange, grams } from './support/flange'
import { Inspection } from './support/inspection'

test('a row that fails says by how much, and passes once its target is met', async ({ page }) => {
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await shop.openDemo('line-sheave')
  const checks = page.locator('[data-figure="checks"]')
  await expect(checks).toHaveText('✕ 5 of 6 checks')
  await checks.click()
  const row = bench.row('what the drive can carry')
  await expect(row).toHaveAttribute('data-verdict', 'fails')
  await expect(row).toContainText('It lies 0.050531 kg over the limit.')
  await row.getByRole('button').first().click()
  const target = row.getByRole('textbox', { name: 'Target' })
  await target.fill('1.2 mm')
  await target.press('Enter')
  await expect(row).toHaveAttribute('data-verdict', 'open')
  await expect(row).toContainText('This field takes a mass; the formula gives a length.')
  await expect(target).toHaveValue('1.2 mm')
  await target.fill('1260 g')
  await target.press('Enter')
  await expect(row).toHaveAttribute('data-verdict', 'passes')
  await expect(checks).toHaveText('✓ 6 of 6 checks')
  await row.getByRole('button', { name: 'Done' }).click()
  await page.keyboard.press('Control+z')
  await expect(row).toHaveAttribute('data-verdict', 'open')
  await page.keyboard.press('Control+z')
  await expect(row).toHaveAttribute('data-verdict', 'fails')
})

test('a target typed before anything is drawn is judged as the part comes about', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await shop.newPart('Counterweight')
  await bench.open()
  await bench.tab('Checks')
  await bench.sheet.getByLabel('Add to the sheet').selectOption('volume')
  const row = bench.row('volume')
  await row.getByRole('combobox', { name: /^Limit/ }).selectOption('least')
  await row.getByRole('textbox', { name: 'Target' }).fill('10')
  await row.getByRole('textbox', { name: 'Target' }).press('Enter')
  await expect(row).toHaveAttribute('data-verdict', 'open')
  await expect(row).toContainText('There is no material yet.')
  await page.getByRole('link', { name: 'Model' }).click()
  await shop.ready()
  await shop.chain([
    [0, 0],
    [0, 20],
    [30, 20],
    [30, 0],
    [0, 0],
  ])
  await press(page, 'Escape', 'Escape')
  await shop.revolve()
  await expect(page.locator('[data-figure="checks"]')).toHaveText('✓ 1 of 1 checks')
  await page.reload()
  await expect(page.locator('[data-figure="checks"]')).toHaveText('✓ 1 of 1 checks')
})

test('faces are measured on the section, kept, and followed when a size changes', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await shop.openDemo('spindle')
  await bench.open()
  await bench.click(90, 17.5)
  await expect(bench.measure).toContainText('cylinder ⌀35')
  await expect(bench.figure('diameter')).toHaveText('35 mm')
  await bench.click(30, 14)
  await expect(bench.figure('radial distance')).toHaveText('3.5 mm')
  await bench.click(58, 18)
  await expect(bench.measure.getByRole('listitem')).toHaveCount(1)
  await bench.click(112, 15)
  await expect(bench.figure('axial distance')).toHaveText('54 mm')
  await bench.measure
    .getByRole('row', { name: /^axial distance/ })
    .getByRole('button', { name: 'keep' })
    .click()
  await page.keyboard.press('Escape')
  await expect(bench.measure.getByRole('listitem')).toHaveCount(0)
  await bench.click(90, 17.5)
  await bench.click(30, 14, true)
  await bench.click(130, 12, true)
  await expect(bench.measure.getByRole('listitem')).toHaveCount(3)
  await expect(bench.figure('area')).toHaveText(/cm²$/)
  await bench.tab('Checks')
  const kept = bench.row('axial distance from face at 58 to face at 112')
  await expect(kept).toContainText('54 mm')

  await page.getByRole('link', { name: 'Model' }).click()
  await shop.ready()
  await shop.label('112 ±0.15').click()
  await shop.type('115')
  await bench.open()
  await expect(bench.row('axial distance')).toContainText('57 mm')
  await page.getByRole('link', { name: 'Model' }).click()
  await shop.ready()
  await shop.route.getByRole('button', { name: /Revolve/ }).click()
  await shop.card.getByRole('switch', { name: 'Set aside' }).click()
  await bench.open()
  await expect(bench.row('what is gone')).toContainText('What was picked is gone.')
})

test('the section is picked by keyboard, and the axis by a click beside everything', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await shop.openDemo('spindle')
  await bench.open()
  await page.keyboard.press('i')
  await shop.ready()
  await page.keyboard.press('i')
  await expect(bench.section).toHaveAttribute('data-view', /\d/)
  await bench.section.focus()
  await press(page, 'ArrowRight', 'ArrowRight', 'Enter', 'ArrowRight', 'ArrowRight', 'Enter')
  await expect(bench.measure.getByRole('listitem')).toHaveCount(2)
  await page.keyboard.press('Escape')
  await bench.click(90, 0)
  await bench.click(90, 17.5)
  await expect(bench.measure).toContainText('axis')
  await expect(bench.figure('distance')).toHaveText('17.5 mm')
})

test('a nested body tells its play, and rows of two bodies are kept', async ({ page }) => {
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await shop.openDemo('guide-roller')
  await bench.open()
  await bench.tab('Measure')
  await expect(bench.figure('radial play')).toHaveText('0.2 mm')
  await expect(bench.figure('axial play')).toHaveText('0.3 mm')
  await expect(bench.figure('travel to the left')).toHaveText('0.15 mm')
  await bench.measure.getByLabel('Moving body').selectOption('ring')
  await expect(bench.measure).toContainText('Choose two different bodies.')
  await bench.measure.getByLabel('Still body').selectOption('roller')
  await expect(bench.figure('radial play')).toHaveText('0.2 mm')

  // Two flats leave something of the round: the play is that of the solids. Four that meet leave nothing of it.
  const flats = { kind: 'flats', number: 40, aside: false, body: 'body6', count: '2', phase: '' }
  const where = { measure: 'across', size: '20', end: 'left', distance: '10', length: '8' }
  await shop.openDemo('guide-roller', (part) => {
    part.route.push({ ...flats, ...where, id: 'step90' })
  })
  await bench.open()
  await bench.tab('Measure')
  await expect(bench.figure('radial play')).toHaveText('0.2 mm')
  await bench.tab('Checks')
  await expect(bench.row('radial play of roller in ring')).toContainText('0.2 mm')
  await expect(bench.row('radial play of roller in ring')).not.toContainText('of full turns')
  await page.getByRole('link', { name: 'Model' }).click()
  await shop.route.getByRole('button', { name: /40 Flats/ }).click()
  await fill(shop, 'Across', '16')
  await fill(shop, 'Number', '4')
  await bench.open()
  await bench.tab('Checks')
  await expect(bench.row('radial play of roller in ring')).toContainText('of full turns')
})

test('points on the axis are picked, and bodies in their material @solid', async ({ page }) => {
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  // Without its centre holes it ends in points on the axis.
  await shop.openDemo('spindle', (part) => {
    part.route.splice(4)
  })
  await bench.open()
  await bench.click(0, 0)
  await expect(bench.measure).toContainText('point on the axis at 0')
  await bench.click(171, 0)
  await expect(bench.figure('axial distance')).toHaveText('171 mm')
  // From the end, the axis stands in the middle of the solid pane.
  await bench.section.focus()
  await page.keyboard.press('Escape')
  await expect(bench.measure.getByRole('listitem')).toHaveCount(0)
  await bench.solid.getByRole('button', { name: 'right end', exact: true }).click()
  const pane = await bench.solid.boundingBox()
  await expect(async () => {
    const [x, y] = [
      (pane?.x ?? 0) + (pane?.width ?? 0) / 2,
      (pane?.y ?? 0) + (pane?.height ?? 0) / 2,
    ]
    await page.mouse.move(x + 3, y)
    await page.mouse.move(x, y)
    await expect(bench.solid).toContainText('point on the axis at 171', { timeout: 500 })
    await page.mouse.click(x, y)
    await expect(bench.measure.getByRole('listitem')).toHaveText(/point on the axis at 171/)
  }).toPass()

  await page.goto('/')
  await shop.openDemo('guide-roller')
  await bench.open()
  await bench.click(12, 6)
  await expect(bench.measure.getByRole('listitem')).toHaveText(/roller/)
  await expect(bench.figure('mass')).toHaveText(/g$/)
  await bench.section.focus()
  await page.keyboard.press('Escape')
  // The first two stops of the arrow keys are the bodies.
  await press(page, 'ArrowRight', 'Enter', 'ArrowRight', 'Enter')
  await expect(bench.measure.getByRole('listitem')).toHaveCount(2)
  await expect(bench.figure('radial play')).toHaveText('0.2 mm')
  await expect(bench.measure.getByLabel('Moving body')).toHaveCount(0)
  await bench.measure
    .getByRole('row', { name: /^radial play/ })
    .getByRole('button', { name: 'keep' })
    .click()
  await page.keyboard.press('Escape')
  const box = await bench.solid.boundingBox()
  const middle = {
    x: (box?.x ?? 0) + (box?.width ?? 0) / 2,
    y: (box?.y ?? 0) + (box?.height ?? 0) / 2,
  }
  await page.mouse.dblclick(middle.x, middle.y)
  await expect(bench.figure('volume')).toHaveText(/cm³$/)
  await bench.tab('Checks')
  await expect(bench.row('radial play of ring in roller')).toContainText('0.2 mm')
})

test('a vessel is filled to a height or with a volume, on chart and section', async ({ page }) => {
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await shop.openDemo('float')
  await bench.open()
  await bench.chart.getByLabel('Chart of').selectOption('capacity')
  await bench.chart.getByLabel('Fill height').fill('30')
  // A cap of height 30 in a ball of radius 39 holds π·30²·(39 − 10).
  const cap = (Math.PI * 900 * (39 - 10)) / 1000
  await expect(bench.chart.getByLabel('Volume')).toHaveValue(Number(cap.toPrecision(5)).toString())
  await bench.chart.getByLabel('Fill height').fill('3 kg')
  await expect(bench.chart.getByRole('alert')).toContainText('takes a length')
  await bench.chart.getByLabel('Volume').fill('100 ml')
  await bench.chart.getByLabel('Volume').press('Enter')
  await expect(bench.chart.getByLabel('Fill height')).toHaveValue(/^33\.899/)
  await bench.chart.getByLabel('Volume').fill('3 litre')
  await bench.chart.getByLabel('Volume').press('Enter')
  await expect(bench.chart.getByRole('alert')).toContainText('It holds no more than 409.09')
  const { bytes } = await bench.saved(bench.chart.getByRole('button', { name: 'CSV' }))
  expect(bytes.toString().split('\r\n')[0]).toBe('height [mm],capacity [cm³]')
})

test('a can with a hole in its side tells what it holds, and where it runs out', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await shop.openDemo('sampling-can')
  await bench.open()
  await bench.chart.getByLabel('Chart of').selectOption('capacity')
  const cm3 = (height: number): string =>
    `${Number(((Math.PI * 900 * height) / 1000).toPrecision(5))} cm³`
  await expect(bench.chart).toContainText(`to the brim: ${cm3(70)} at 70 mm`)
  await page.getByRole('link', { name: 'Model', exact: true }).click()
  await shop.ready()
  await press(page, '5', 'e')
  await shop.click(30, 40)
  await expect(shop.card).toContainText('30 Cross hole')
  await field(shop, 'Goes').selectOption('wall')
  await fill(shop, 'Diameter', '8')
  await fill(shop, 'Distance', '20')
  await page.keyboard.press('Escape')
  await bench.open()
  await bench.chart.getByLabel('Chart of').selectOption('capacity')
  await expect(bench.chart).toContainText(/runs out through step 30: [\d.]+ cm³ at [\d.]+ mm/)
  const told = (await bench.chart.textContent())?.match(/30: ([\d.]+) cm³ at ([\d.]+) mm/) ?? []
  // All of it stands under the lower edge of the hole, in a bore of ⌀60.
  expect(`${told[1]} cm³`).toBe(cm3(Number(told[2])))
  expect([20 - 4, 70 - 20 - 4]).toContain(Number(told[2]))
  await bench.chart.getByLabel('Fill height').fill('60')
  await expect(bench.chart.getByRole('alert')).toContainText('It runs out before that.')
  await bench.tab('Checks')
  await bench.sheet.getByLabel('Add to the sheet').selectOption('capacity')
  await expect(bench.row('capacity to where it runs out')).toBeVisible()
})

test('a chart stands in line with the section, and its cursor tells and lights the place', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await shop.openDemo('spindle')
  await bench.open()
  const area = bench.chart.getByRole('group')
  const text = (await bench.section.getAttribute('data-view')) ?? ''
  const [scale = 1, ox = 0] = text.split(' ').map(Number)
  const box = await bench.section.boundingBox()
  const below = await area.boundingBox()
  await page.mouse.move((box?.x ?? 0) + ox + 90 * scale, (below?.y ?? 0) + 40, { steps: 2 })
  await expect(bench.chart).toContainText(/at 90(\.\d+)? mm: outer ⌀ 35 mm/)
  await bench.chart.getByLabel('Chart of').selectOption('mass')
  await area.focus()
  await press(page, 'ArrowRight', 'Shift+ArrowRight', 'Shift+ArrowRight', 'Shift+ArrowRight')
  await press(page, 'Shift+ArrowRight', 'Shift+ArrowRight', 'Shift+ArrowRight')
  await expect(bench.chart).toContainText('at 171 mm: mass 0.82504 kg')
  const table = await bench.saved(bench.chart.getByRole('button', { name: 'CSV' }))
  expect(table.name).toBe('Spindle cumulative mass.csv')
  const rows = table.bytes.toString().trim().split('\r\n')
  expect(rows.length).toBeGreaterThan(1900)
  expect(rows.at(-1)).toContain('171.00000')
  const picture = await bench.saved(bench.chart.getByRole('button', { name: 'PNG' }))
  expect(picture.bytes.subarray(1, 4).toString()).toBe('PNG')
})

test('a sheet goes out as CSV and comes in again, and a broken one is refused', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await shop.openDemo('spindle')
  await bench.open()
  const sheet = await bench.saved(page.getByRole('button', { name: 'Save the sheet as CSV' }))
  expect(sheet.name).toBe('Spindle inspection.csv')
  const chooser = page.getByLabel('CSV file of a sheet')
  await chooser.setInputFiles({ name: 's.csv', mimeType: 'text/csv', buffer: sheet.bytes })
  await expect(bench.sheet.getByRole('listitem')).toHaveCount(12)
  const broken = Buffer.from('figure,unit\nmass,kg\nmass,mm\n')
  await chooser.setInputFiles({ name: 'b.csv', mimeType: 'text/csv', buffer: broken })
  await expect(page.getByText('Row 3: “mm” is no unit of mass.')).toBeVisible()
  await expect(bench.sheet.getByRole('listitem')).toHaveCount(12)
})

test('mass properties are told in other units and copied, and a material of one’s own weighs in', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await shop.openDemo('spindle')
  await bench.open()
  await bench.tab('Mass')
  const mass = bench.mass
    .getByRole('row', { name: /^mass / })
    .locator('td')
    .first()
  await expect(mass).toHaveText('0.82504')
  await bench.mass.getByLabel('Unit of mass').selectOption('lb')
  await expect(mass).toHaveText('1.8189')
  await bench.mass.getByLabel('Unit of mass').selectOption('')
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write'])
  await bench.mass.getByRole('button', { name: 'Copy as text' }).click()
  await expect(page.getByText('Copied.')).toBeVisible()
  const copied = await page.evaluate(() => navigator.clipboard.readText())
  expect(copied).toContain('Spindle, all bodies')
  expect(copied).toContain('mass: 0.82504 kg')
  const material = bench.mass.locator('#mass-material')
  await material.selectOption({ label: 'own materials …' })
  const dialog = page.getByRole('dialog')
  const name = `heavy bronze ${Date.now()}`
  await dialog.getByLabel('Name').fill(name)
  await dialog.getByLabel(/Density/).fill('9000')
  await dialog.getByRole('button', { name: 'Add' }).click()
  await expect(dialog.getByRole('alert')).toContainText('No material has a density of 9000 g/cm³.')
  await dialog.getByLabel(/Density/).fill('9000 kg/m^3')
  await dialog.getByRole('button', { name: 'Add' }).click()
  await expect(dialog.getByRole('listitem').filter({ hasText: name })).toBeVisible()
  await dialog.getByRole('button', { name: 'Close' }).click()
  await expect(dialog).toHaveCount(0)
  await expect(mass).toHaveText(String(Number((0.8250367 * (9 / 7.85)).toPrecision(5))))
  const table = await bench.saved(bench.mass.getByRole('button', { name: 'Save as CSV' }))
  expect(table.bytes.toString()).toContain('body 1,mass,0.94')
})

test('holes are measured on the solid, and the least wall of what is drilled, and both follow @solid', async ({
  page,
}) => {
  const messages: string[] = []
  page.on('pageerror', (error) => messages.push(error.message))
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await flange(shop, 'Drilled cap')
  await press(page, '5', 'w')
  await shop.click(10, 22)
  await fill(shop, 'Pitch circle', '44')
  await fill(shop, 'Number', '4')
  await fill(shop, 'Diameter', '8')
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 4 * cylinder(8, 10)))

  await bench.open()
  const rim = (n: number): string =>
    `edge of face at 10 and wall of the hole, from step 20, no. ${n}`
  const first = await findOn(bench.solid, rim(1))
  await page.mouse.click(first.x, first.y)
  await expect(bench.measure.getByRole('listitem')).toContainText(rim(1))
  await expect(bench.figure('diameter')).toHaveText('8 mm')
  await expect(bench.figure('length')).toHaveText(`${(8 * Math.PI).toFixed(3)} mm`)
  const second = await findOn(bench.solid, rim(2))
  await page.mouse.click(second.x, second.y)
  const chord = 44 * Math.SQRT1_2
  await expect(bench.figure('distance of axes')).toHaveText(`${chord.toFixed(3)} mm`)
  await expect(bench.figure('distance')).toHaveText(`${(chord - 8).toFixed(3)} mm`)
  await expect(bench.solid).toContainText(`${(chord - 8).toFixed(3)} mm`)
  const axes = bench.measure.getByRole('row', { name: /^distance of axes / })
  await axes.getByRole('button', { name: 'keep' }).click()

  // A whole body tells its least wall: from a hole to the rim.
  await press(page, 'Escape')
  await page.mouse.dblclick(first.x, first.y)
  await expect(bench.figure('least wall thickness')).toHaveText('4 mm')
  await bench.measure
    .getByRole('row', { name: /^least wall thickness / })
    .getByRole('button', { name: 'keep' })
    .click()

  // The face that was drilled has lost what the holes took.
  await press(page, 'Escape')
  await bench.click(10, 24)
  const left = Math.PI * (900 - 100) - 4 * Math.PI * 16
  await expect(bench.figure('area')).toHaveText(`${Number((left / 100).toPrecision(5))} cm²`)

  await bench.tab('Checks')
  await expect(bench.row('distance of axes')).toContainText(`${chord.toFixed(3)} mm`)
  await expect(bench.row('least wall thickness')).toContainText('4 mm')
  await page.getByRole('link', { name: 'Model' }).click()
  await shop.route.getByRole('button', { name: /20 Holes/ }).click()
  await fill(shop, 'Pitch circle', '48')
  await bench.open()
  await expect(bench.row('distance of axes')).toContainText(`${(48 * Math.SQRT1_2).toFixed(3)} mm`)
  await expect(bench.row('least wall thickness')).toContainText('2 mm')
  await page.reload()
  await expect(bench.row('least wall thickness')).toContainText('2 mm')
  expect(messages).toEqual([])
})
