import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'
import { FLANGE, cylinder, field, fill, findOn, flange, grams, triangles } from './support/flange'
import { Inspection } from './support/inspection'

test('a flange is drilled from nothing, with wrong values, undo and reload on the way', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const messages: string[] = []
  page.on('pageerror', (error) => messages.push(error.message))
  await flange(shop, 'Drilled flange')
  await press(page, '5', 'w')
  await expect(page.getByText('Click the end face or shoulder')).toBeVisible()
  await press(page, 'Escape')
  await expect(shop.route.getByText('Holes')).toHaveCount(0)
  await press(page, 'w')
  await shop.moveTo(10, 22)
  await expect(shop.board).toContainText('face at 10')
  await shop.click(10, 22)
  await expect(shop.card).toContainText('20 Holes')
  await fill(shop, 'Pitch circle', '40')
  await fill(shop, 'Number', '4')
  await fill(shop, 'Diameter', '6')
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 4 * cylinder(6, 10)))
  await expect(shop.route).toContainText('4 × ⌀6 on ⌀40')
  await expect.poll(() => triangles(page)).toBeGreaterThan(400)

  // Off the flange it is refused in its field, and the last good shape stays.
  await fill(shop, 'Pitch circle', '80')
  await expect(shop.card.getByRole('alert').first()).toContainText('misses the face')
  await press(page, 'Escape')
  await expect(field(shop, 'Pitch circle')).toHaveValue('40')
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 4 * cylinder(6, 10)))

  await field(shop, 'Head').selectOption('counterbore')
  await fill(shop, 'Head diameter', '10')
  await fill(shop, 'Head depth', '4')
  const bored = FLANGE - 4 * (cylinder(10, 4) + cylinder(6, 6))
  await expect(shop.figure('mass')).toHaveText(grams(bored))
  await field(shop, 'Left out').fill('2')
  await press(page, 'Enter')
  const three = FLANGE - 3 * (cylinder(10, 4) + cylinder(6, 6))
  await expect(shop.figure('mass')).toHaveText(grams(three))
  await page.keyboard.press('Control+z')
  await expect(shop.figure('mass')).toHaveText(grams(bored))
  await page.reload()
  await expect(shop.figure('mass')).toHaveText(grams(bored))
  // A bore after the holes is a full turn again, on the solid.
  await shop.ready()
  await press(page, '4', 'g')
  await fill(shop, 'Diameter', '12')
  await expect(shop.figure('mass')).toHaveText(grams(bored - cylinder(12, 40)))
  await shop.card.getByRole('switch', { name: 'Set aside' }).click()
  await expect(shop.figure('mass')).toHaveText(grams(bored))
  expect(messages).toEqual([])
})

test('flats, a cross hole and a keyway are milled, and steps repeat round the axis', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await flange(shop, 'Milled flange')
  await press(page, '5', 'r')
  await expect(shop.card).toContainText('20 Flats')
  await fill(shop, 'Across', '18')
  await fill(shop, 'Length', '12')
  const segment = 100 * Math.acos(0.9) - 9 * Math.sqrt(19)
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 24 * segment))
  await fill(shop, 'Across', '25')
  await expect(shop.card.getByRole('alert').first()).toContainText('outside of the body')
  await press(page, 'Escape')
  await shop.card.getByRole('button', { name: 'Done' }).click()

  await press(page, '5', 'e')
  await shop.click(25, 10)
  await expect(shop.card).toContainText('30 Cross hole')
  await field(shop, 'Goes').selectOption('axis')
  await press(page, '5')
  await page.getByRole('button', { name: 'Round the axis' }).click()
  await expect(shop.card).toContainText('40 Round the axis')
  await expect(shop.route).toContainText('3 ×')
  await expect(shop.route.getByText('…')).toHaveCount(0)
  const row = shop.route.getByRole('listitem').filter({ hasText: 'Round the axis' })
  await expect(row).toContainText('−')
  // The order of steps is kept when what they stand on goes: it is said what is missing.
  await shop.route.getByRole('button', { name: /Cross hole/ }).click()
  await shop.card.getByRole('switch', { name: 'Set aside' }).click()
  await expect(row).toContainText('A step to repeat is gone')
})

test('the end is a drawing board too: a pocket and holes by a sketch across the axis', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await flange(shop, 'Gauge cover')
  await press(page, '5', 'c')
  await expect(page.getByText('Click the end face or shoulder to draw on')).toBeVisible()
  await shop.click(10, 22)
  await expect(shop.board).toHaveAttribute('data-plane', 'end')
  // On the board x is to the right and the radius is up: here both lie across the axis.
  await press(page, '1', 'r')
  await shop.click(14, -4)
  await shop.moveTo(24, 4)
  await page.keyboard.type('10')
  await expect(page.getByLabel('level', { exact: true })).toHaveValue('10')
  await press(page, 'Tab')
  await page.keyboard.type('8')
  await press(page, 'Enter', 'Escape')
  await expect(shop.card).toContainText('End sketch B')
  await expect(shop.card).toContainText('1 region')
  await shop.card.getByRole('button', { name: 'Extrude cut' }).click()
  await expect(shop.card).toContainText('20 Extrude cut')
  await fill(shop, 'Length', '3')
  const pocket = 10 * 8 * 3
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - pocket))
  await expect(shop.route).toContainText('end sketch B, 3 deep')
  await field(shop, 'Goes').selectOption('through')
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 10 * 8 * 10))
  await page.keyboard.press('Control+z')
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - pocket))
  await fill(shop, 'Draft', '95')
  await expect(shop.card.getByRole('alert').first()).toContainText('less than 90°')
  await press(page, 'Escape')
  await shop.card.getByRole('button', { name: 'Done' }).click()

  // A second sketch sets points, and the holes stand there.
  const end = page.getByRole('region', { name: 'End view' })
  await end.getByRole('button', { name: 'to the half-section' }).click()
  await expect(shop.board).toHaveAttribute('data-plane', 'half')
  await end.getByRole('button', { name: 'draw here' }).click()
  await shop.click(10, 22)
  await expect(shop.board).toHaveAttribute('data-plane', 'end')
  await press(page, '1', 'f')
  await shop.click(-18, 6)
  await shop.click(-18, -6)
  await press(page, 'Escape')
  await expect(page.getByText('Draw across the axis')).toHaveCount(0)
  await expect(shop.figure('freedoms')).toHaveText('4 freedoms left')
  await press(page, '5', 'w')
  await expect(shop.card).toContainText('30 Holes')
  await expect(field(shop, 'Lie')).toHaveValue('sketch')
  await fill(shop, 'Diameter', '5')
  const drilled = FLANGE - pocket - 2 * cylinder(5, 10)
  await expect(shop.figure('mass')).toHaveText(grams(drilled))
  await page.reload()
  await shop.ready()
  await expect(shop.figure('mass')).toHaveText(grams(drilled))
  // A step without a sketch of its own is seen on the half-section again.
  await shop.route.getByRole('button', { name: /Holes/ }).click()
  await expect(shop.board).toHaveAttribute('data-plane', 'end')
  await shop.route.getByRole('button', { name: /Revolve/ }).click()
  await expect(shop.board).toHaveAttribute('data-plane', 'half')
})

test('an end sketch builds on what is seen there, and follows it', async ({ page }) => {
  const shop = new Workshop(page)
  await flange(shop, 'Flange with a boss')
  await press(page, '5', 'w')
  await shop.click(10, 22)
  await fill(shop, 'Pitch circle', '40')
  await fill(shop, 'Number', '4')
  await fill(shop, 'Diameter', '6')
  await shop.card.getByRole('button', { name: 'Done' }).click()

  // The face looks to the right; a circle goes about the middle of the upper hole.
  await press(page, '5', 'c')
  await shop.click(10, 22)
  await expect(shop.board.getByRole('img', { name: 'seen from the right' })).toBeVisible()
  await press(page, '1', 'e')
  await shop.moveTo(0.3, 20.4)
  await expect(shop.board).toContainText('middle of a hole')
  await page.mouse.down()
  await page.mouse.up()
  await shop.moveTo(7, 20)
  await page.keyboard.type('16')
  await press(page, 'Enter', 'Escape')
  await expect(shop.figure('freedoms')).toHaveText('in ink')
  await press(page, '5', 'd')
  await expect(shop.card).toContainText('30 Extrude')
  await fill(shop, 'Length', '5')
  const boss = FLANGE - 4 * cylinder(6, 10) + cylinder(16, 5)
  await expect(shop.figure('mass')).toHaveText(grams(boss))
  await shop.card.getByRole('button', { name: 'Done' }).click()

  const middle = async (): Promise<number> => {
    const { sketches } = await shop.document()
    return Math.max(...(sketches[1]?.points.map((p) => p.y) ?? []))
  }
  expect(await middle()).toBeCloseTo(20, 6)
  await shop.route.getByRole('button', { name: /Holes/ }).click()
  await fill(shop, 'Pitch circle', '44')
  await shop.saved()
  expect(await middle()).toBeCloseTo(22, 6)
  await page.keyboard.press('Control+z')
  await shop.saved()
  expect(await middle()).toBeCloseTo(20, 6)

  // A line from the rim of the hub keeps to it.
  await shop.route.getByRole('button', { name: /Extrude/ }).click()
  await press(page, 'Escape')
  await press(page, '1', 'a')
  await shop.moveTo(7.2, -7.2)
  await expect(shop.board).toContainText('on an edge of the part')
})

test('an edge of the solid is picked by itself and rounded', async ({ page }) => {
  const shop = new Workshop(page)
  const solid = page.getByRole('region', { name: 'Solid' })
  await shop.openDemo('winding-spindle')
  await expect.poll(() => triangles(page)).toBeGreaterThan(400)
  const before = await shop.figure('mass').textContent()
  await press(page, '4', 'a')
  const { x, y } = await findOn(solid, 'edge of')
  await page.mouse.click(x, y)
  await expect(shop.card).toContainText('60 Fillet')
  await expect(shop.card).toContainText('edge of')
  await expect(shop.route).toContainText('on 1 edge')
  await expect(shop.figure('mass')).not.toHaveText(before ?? '')
  await fill(shop, 'Radius', '50')
  await expect(shop.route).toContainText('does not fit these edges')
  await fill(shop, 'Radius', '0.5')
  await expect(shop.route.getByText('does not fit')).toHaveCount(0)
  // A second click lets it go again; then nothing is left to round.
  await page.mouse.move(x + 1, y)
  await page.mouse.click(x, y)
  await expect(shop.card.getByRole('alert').first()).toContainText('No edge is picked')
  await page.keyboard.press('Control+z')
  await expect(shop.card).toContainText('edge of')
})

test('a solid is inspected and handed over: off-axis mass, files, and faces by their steps', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await shop.openDemo('winding-spindle')
  await expect(shop.figure('mass')).toHaveText('508.5 g')
  const solid = page.getByRole('region', { name: 'Solid' })
  await page.keyboard.press('Alt+2')
  await page.waitForTimeout(900)
  const box = await solid.boundingBox()
  const middle = {
    x: (box?.x ?? 0) + (box?.width ?? 0) / 2,
    y: (box?.y ?? 0) + (box?.height ?? 0) / 2,
  }
  await page.mouse.move(middle.x, middle.y)
  await expect(solid).toContainText('cylinder ⌀30')
  await bench.open()
  await bench.tab('Mass')
  await expect(bench.mass).toContainText('centre of mass, off the axis')
  await page.getByRole('link', { name: 'Dispatch' }).click()
  for (const [name, start] of [
    ['STEP, ISO 10303', 'ISO-10303-21;'],
    ['STL, binary', 'binary Winding spindle'],
  ] as const) {
    const file = page.getByRole('region', { name })
    const saved = await bench.saved(file.getByRole('button', { name: 'Download' }))
    expect(saved.bytes.subarray(0, start.length).toString('latin1')).toBe(start)
    expect(saved.bytes.length).toBeGreaterThan(20_000)
  }
})
