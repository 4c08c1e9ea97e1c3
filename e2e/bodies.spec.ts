import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'
import { FLANGE, cylinder, field, fill, flange, grams, triangles } from './support/flange'
import { Inspection } from './support/inspection'

test('a body is copied, moved and joined, and comes back by undo', async ({ page }) => {
  const shop = new Workshop(page)
  await flange(shop, 'Coupled flange')
  await press(page, '5', 'r')
  await fill(shop, 'Across', '18')
  await fill(shop, 'Length', '12')
  await shop.card.getByRole('button', { name: 'Done' }).click()
  const flatted = FLANGE - 24 * (100 * Math.acos(0.9) - 9 * Math.sqrt(19))
  await expect(shop.figure('mass')).toHaveText(grams(flatted))

  await shop.route.getByRole('button', { name: 'Body: body 1' }).click()
  await shop.card.getByRole('button', { name: 'Move or copy' }).click()
  await expect(shop.card).toContainText('30 Move body')
  await fill(shop, 'Along by', '0')
  await expect(shop.card.getByRole('alert').first()).toContainText('moves nothing')
  await fill(shop, 'Along by', '40')
  await field(shop, 'Moves').selectOption({ label: 'makes a new body' })
  await expect(shop.card).toContainText('30 Copy body')
  await expect(shop.figure('mass')).toHaveText(grams(2 * flatted))
  await fill(shop, 'Turned by', '45')
  await shop.card.getByRole('button', { name: 'Done' }).click()

  await shop.route.getByRole('button', { name: 'body 1', exact: true }).click()
  await shop.card.getByRole('button', { name: 'Join' }).click()
  await expect(shop.card).toContainText('40 Join bodies')
  await expect(shop.route).toContainText('body 1 and body 2')
  await expect(shop.figure('mass')).toHaveText(grams(2 * flatted))
  await page.keyboard.press('Control+z')
  await expect(shop.route.getByText('Join bodies')).toHaveCount(0)
  await page.keyboard.press('Control+Shift+z')
  await expect(shop.route.getByText('Join bodies')).toHaveCount(1)
  await page.reload()
  await expect(shop.figure('mass')).toHaveText(grams(2 * flatted))
})

/** A demo part as it is handed over to other programs; the shelf stands there afterwards. */
async function stepOf(shop: Workshop, demo: string): Promise<Buffer> {
  const { page } = shop
  await shop.openDemo(demo)
  await page.getByRole('link', { name: 'Dispatch' }).click()
  const file = page.getByRole('region', { name: 'STEP, ISO 10303' })
  const saved = await new Inspection(page).saved(file.getByRole('button', { name: 'Download' }))
  await page.goto('/')
  return saved.bytes
}

test('a STEP file is brought in: its half-section and its steps can be edited', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const buffer = await stepOf(shop, 'winding-wheel')
  const input = page.getByLabel('part files, STEP, STL or 3MF files to import').first()
  await input.setInputFiles([
    { name: 'bad.step', mimeType: 'model/step', buffer: Buffer.from('nonsense') },
    { name: 'Wheel from outside.step', mimeType: 'model/step', buffer },
  ])
  await expect(page.getByText('bad.step: This is no exchange file of solids')).toBeVisible()
  await expect(page.getByText('is an editable profile now')).toBeVisible({ timeout: 30_000 })
  await shop.openPart('Wheel from outside')
  // Its holes and slots are steps, and the report says that they make what came.
  const report = page.getByRole('region', { name: 'What came of the file' })
  await expect(report).toContainText('rebuilt')
  await expect(report).toContainText('Volume and area agree with what came to a millionth')
  await expect(shop.figure('freedoms')).toHaveText('in ink')
  await report.getByRole('button', { name: '6 holes' }).click()
  await expect(shop.card).toContainText('Holes')
  await shop.card.getByLabel('Number').fill('4')
  await page.keyboard.press('Enter')
  await expect(shop.route).toContainText('4 × ⌀12')
  await shop.card.getByRole('button', { name: 'Done' }).click()
  await shop.label('⌀80').click()
  await shop.type('84')
  await expect(shop.route).toContainText('⌀84 × 24')
  await page.reload()
  await expect(report).toContainText('12 keyways')
  await report.getByRole('button', { name: 'Put the report away' }).click()
  await expect(report).toHaveCount(0)
})

test('what no step makes stands as it came, and what was rebuilt can be shown beside it', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const buffer = await stepOf(shop, 'gauge-cover')
  const input = page.getByLabel('part files, STEP, STL or 3MF files to import').first()
  await input.setInputFiles([{ name: 'Cover.step', mimeType: 'model/step', buffer }])
  // A single one is opened with its report.
  const report = page.getByRole('region', { name: 'What came of the file' })
  await expect(report).toContainText('stands as it came', { timeout: 60_000 })
  await expect(report).toContainText(/the farthest point lies [\d.]+ mm off/)
  await report.getByRole('button', { name: /^Show .* beside it$/ }).click()
  await expect(report.getByRole('button', { name: /^Hide .* beside it$/ })).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(report.getByRole('button', { name: /^Show .* beside it$/ })).toBeVisible()
})

/** A cube of 20 as the text form of a mesh file. */
function cube(): Buffer {
  const at = (i: number): string => `vertex ${20 * (i & 1)} ${10 * (i & 2)} ${5 * (i & 4)}`
  const sides = ['0 2 3', '0 3 1', '4 5 7', '4 7 6', '0 1 5', '0 5 4']
  const more = ['2 6 7', '2 7 3', '0 4 6', '0 6 2', '1 3 7', '1 7 5']
  const facets = [...sides, ...more].map(
    (t) =>
      `facet normal 0 0 0 outer loop ${t
        .split(' ')
        .map((i) => at(Number(i)))
        .join(' ')} endloop endfacet`,
  )
  return Buffer.from(`solid Clamp block\n${facets.join('\n')}\nendsolid\n`)
}

test('meshes are brought in to go by, solids as bodies; both come back by undo @solid', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const bytes = await stepOf(shop, 'winding-wheel')
  await flange(shop, 'Clamped flange')
  const before = await triangles(page)

  const choose = async (name: string, buffer: Buffer): Promise<void> => {
    const chooser = page.waitForEvent('filechooser')
    await shop.route.getByRole('button', { name: 'bring in a file' }).click()
    await (await chooser).setFiles([{ name, mimeType: 'application/octet-stream', buffer }])
  }
  await choose('bad.stl', Buffer.from('nonsense'))
  await expect(page.getByText('bad.stl: This is neither an STL file')).toBeVisible()
  await choose('clamp.stl', cube())
  await expect(shop.route).toContainText('Mesh to go by')
  await expect.poll(() => triangles(page)).toBe(before + 12)
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE))
  await shop.route.getByRole('button', { name: /Mesh to go by/ }).click()
  await fill(shop, 'Along by', '-20')
  await fill(shop, 'Scale', '0')
  await expect(shop.card.getByRole('alert').first()).toContainText('greater than zero')
  await press(page, 'Escape')
  await field(shop, 'Along the axis').selectOption('x')
  await shop.card.getByRole('button', { name: 'Done' }).click()
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(shop.route.getByText('Mesh to go by')).toHaveCount(0)
  await page.keyboard.press('Control+Shift+z')
  await expect(shop.route.getByText('Mesh to go by')).toHaveCount(1)
  await page.reload()
  await expect.poll(() => triangles(page)).toBe(before + 12)

  await choose('wheel.step', bytes)
  await expect(shop.route).toContainText('From a file')
  await expect.poll(() => triangles(page)).toBeGreaterThan(before + 500)
  await expect(shop.figure('mass')).not.toHaveText(grams(FLANGE))
})

test('one body cuts another, or what both have is kept', async ({ page }) => {
  const shop = new Workshop(page)
  await flange(shop, 'Cut flange')
  // A pin across the shoulder as a body of its own: a second profile, turned by itself.
  await press(page, '4', 't')
  await shop.rectangle([5, 0], [20, 15], ['20', '15'])
  await press(page, '4', 'r')
  await field(shop, 'Body').selectOption({ label: 'a new body' })
  await shop.card.getByRole('button', { name: 'Done' }).click()
  await shop.route.getByRole('button', { name: 'body 1', exact: true }).click()
  await shop.card.getByRole('button', { name: 'Join' }).click()
  await expect(shop.card).toContainText('30 Join bodies')
  await field(shop, 'Effect').selectOption({ label: 'the first is cut' })
  await expect(shop.card).toContainText('30 Cut by a body')
  // What the pin of ⌀30 from 5 to 25 has of the flange, and of its hub.
  const common = cylinder(30, 5) + cylinder(20, 15)
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - common))
  await field(shop, 'Effect').selectOption({ label: 'what is common stays' })
  await expect(shop.figure('mass')).toHaveText(grams(common))
  await field(shop, 'The second').selectOption({ label: 'stays as well' })
  await expect(shop.figure('mass')).toHaveText(grams(common + cylinder(30, 20)))
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(shop.route.getByText('Join bodies')).toHaveCount(0)
})
