import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'

/** A plain pin: corner by corner from the axis round to the axis. */
const PIN = [
  [0, 0],
  [0, 12],
  [50, 12],
  [50, 0],
] as const

test('corners are rounded and bevelled, and one undo takes each back', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Float rod')
  await shop.chain(PIN)
  await shop.size([25, 12], [25, 20], '50')
  await press(page, 'Escape', ' ', '2', 'a')
  await expect(page.getByText('Click a corner to round it.')).toBeVisible()
  await shop.click(50, 12)
  await shop.type('-3')
  await expect(shop.board.getByRole('alert')).toBeVisible()
  await page.keyboard.press('Control+a')
  await shop.type('4')
  await expect(shop.label('R4')).toBeVisible()
  await press(page, 'Escape', 'd')
  await shop.click(0, 12)
  await shop.type('2')
  // The length now runs between where the corners were, and still says 50.
  await expect(shop.label('50')).toBeVisible()
  await expect(shop.card).toContainText('1 region')
  await press(page, 'Escape', 'Escape', 'Control+z')
  await expect(shop.label('R4')).toBeVisible()
  await press(page, 'Control+z')
  await expect(shop.label('R4')).toHaveCount(0)
  await press(page, 'Control+Shift+z')
  await expect(shop.label('R4')).toBeVisible()
})

test('lines are trimmed to what crosses them, drawn out to it, and divided', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Bearing housing')
  const pieces = async (): Promise<number> =>
    (await shop.document()).sketches[0]?.entities.length ?? 0
  await shop.line([5, 15], [60, 15])
  await shop.line([40, 5], [40, 30])
  await press(page, '2', 'w')
  await shop.click(52, 15)
  expect(await pieces()).toBe(2)
  const trimmed = await shop.middleOf(1)
  expect(trimmed.x).toBeCloseTo(22.5, 2)
  // A shorter one is drawn out to the line that crosses its way.
  await press(page, 'Escape', '1')
  await shop.line([5, 25], [24, 25])
  await press(page, '2', 'e')
  await shop.click(22, 25)
  await expect.poll(async () => (await shop.middleOf(3)).x).toBeCloseTo(22.5, 1)
  await press(page, 'Escape', 'r')
  await shop.click(40, 20)
  expect(await pieces()).toBe(4)
  await press(page, 'Control+z')
  await expect.poll(pieces).toBe(3)
})

test('what is copied is pasted into another part with its sizes, and nothing is asked of an empty clipboard', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('First rod')
  await press(page, 'Control+v')
  await expect(page.getByText('Nothing has been copied yet.')).toBeVisible()
  await press(page, 'Control+c')
  await expect(page.getByText('Nothing is picked to copy.')).toBeVisible()
  await shop.chain(PIN)
  await shop.size([25, 12], [25, 20], '60')
  await press(page, ' ', 'Escape', 'Escape', 'q', 'Control+a', 'Control+c')
  await shop.saved()
  await shop.newPart('Second rod')
  await press(page, 'Control+v')
  await expect(shop.label('60')).toBeVisible()
  await expect(shop.card).toContainText('3 picked')
  await press(page, 'Escape')
  await expect(shop.card).toContainText('1 region')
  await press(page, 'Control+z')
  await expect(shop.card).toContainText('empty')
})

test('suggestions are listed after they were taken and dropped one by one; kinds are switched off', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Ink flask')
  await shop.chain([
    [0, 0],
    [0, 12],
  ])
  const taken = page.getByRole('list', { name: 'Constraints just taken' })
  await expect(taken).toContainText('line 1 radial')
  await expect(shop.figure('freedoms')).toHaveText('1 freedom left')
  await taken.getByRole('button', { name: 'Drop: line 1 radial' }).click()
  await expect(shop.figure('freedoms')).toHaveText('2 freedoms left')
  await press(page, 'n')
  const menu = page.getByRole('group', { name: 'Suggestions while drawing' })
  await menu.getByLabel('axial').uncheck()
  await press(page, 'Escape')
  await shop.click(40, 12)
  await shop.saved()
  const kinds = (await shop.document()).sketches[0]?.constraints.map((c) => c.kind)
  expect(kinds).not.toContain('axial')
})

test('what is missing is proposed until nothing can move', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Counterweight')
  await shop.chain(PIN)
  await press(page, 'Escape', 'q')
  await shop.card.getByRole('button', { name: 'What is missing?' }).click()
  const list = shop.card.getByRole('list', { name: 'What is missing' })
  await expect(list.getByRole('listitem')).toHaveCount(2)
  const first = (await list.getByRole('listitem').first().textContent()) ?? ''
  await list.getByRole('button', { name: 'Skip' }).first().click()
  await expect(list).not.toContainText(first)
  await list.getByRole('button', { name: 'Take' }).first().click()
  await expect(shop.figure('freedoms')).toHaveText('1 freedom left')
  await shop.figure('freedoms').hover()
  await list.getByRole('button', { name: 'Take' }).first().click()
  await expect(shop.figure('freedoms')).toHaveText('in ink')
})

test('a gap is closed, and what crosses the axis cut there, by the mend beside it', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Winding grip')
  await shop.chain([
    [0, 0],
    [0, 12],
    [30, 12],
  ])
  await press(page, 'Escape', 'Escape')
  await page.keyboard.down('Shift')
  await shop.chain([
    [36, 12],
    [50, 12],
  ])
  await page.keyboard.up('Shift')
  await shop.click(50, 0)
  await press(page, 'Escape', 'Escape', 'q')
  await expect(shop.card).toContainText('from the next')
  await shop.card.getByRole('button', { name: 'Close with a line' }).click()
  await expect(shop.card).toContainText('1 region')
  await press(page, 'Control+z')
  await expect(shop.card).toContainText('from the next')

  await shop.newPart('Float')
  await shop.chain([
    [0, -6],
    [0, 12],
    [40, 12],
    [40, -6],
  ])
  await press(page, 'Escape', 'Escape', 'q')
  await shop.card.getByRole('button', { name: 'Cut at the axis' }).click()
  await expect(shop.card).toContainText('1 region')
})

test('sizes are linked by a click, taken once with Alt, dragged, and aligned again', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Spindle')
  await press(page, 'g')
  await page.keyboard.type('20, 24; 28, 34')
  await press(page, 'Enter', 'Enter', 'Escape', ' ')
  await shop.label('34').click()
  await expect(shop.field()).toBeFocused()
  await shop.label('24').click()
  await expect(shop.field()).toHaveValue('len1')
  await press(page, 'Enter')
  await expect(shop.label('24')).toHaveCount(2)
  await shop.label('⌀28').click()
  await page.keyboard.press('Control+a')
  await shop.label('⌀20').click({ modifiers: ['Alt'] })
  await expect(shop.field()).toHaveValue('20')
  await press(page, 'Enter')
  await expect(shop.label('⌀20')).toHaveCount(2)

  const first = shop.label('24').first()
  const before = await first.boundingBox()
  await first.hover()
  await page.mouse.down()
  await page.mouse.move((before?.x ?? 0) + 12, (before?.y ?? 0) - 26, { steps: 4 })
  await page.mouse.up()
  await expect
    .poll(async () => (await shop.document()).sketches[0]?.sizes.filter((s) => s.label).length)
    .toBe(1)
  await press(page, 'Escape', 'Escape', 'y')
  await expect
    .poll(async () => (await shop.document()).sketches[0]?.sizes.filter((s) => s.label).length)
    .toBe(0)
})

test('a size that others read can be deleted, and they keep what they were', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Spindle')
  await press(page, 'g')
  await page.keyboard.type('20, 24; 28, 34')
  await press(page, 'Enter', 'Enter', 'Escape', ' ')
  await shop.label('34').click()
  await page.keyboard.type('len1 + 10')
  await press(page, 'Enter')
  await shop.label('24').click()
  await shop.board.getByRole('button', { name: 'Delete this size' }).click()
  await expect(shop.label('24')).toHaveCount(0)
  await expect(shop.label('34')).toBeVisible()
  await press(page, 'Control+z')
  await expect(shop.label('24')).toBeVisible()
  await expect(shop.card).not.toContainText('len1 is')
})

test('all sizes stand in one table and are changed there', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Spindle')
  await press(page, 'g')
  await page.keyboard.type('20, 24; 28, 34')
  await press(page, 'Enter', 'Enter', 'Escape', ' ')
  await shop.card.getByRole('button', { name: /Sizes/ }).click()
  const field = shop.card.getByLabel('Formula of len1')
  await field.fill('0')
  await field.press('Enter')
  await expect(shop.card.getByRole('alert').first()).toBeVisible()
  await field.fill('1e9')
  await field.press('Enter')
  await expect(shop.card.getByRole('alert').first()).toBeVisible()
  await field.fill('30')
  await field.press('Enter')
  await expect(shop.label('30')).toBeVisible()
})

test('a second profile is built on the corners and edges of the first, and follows them', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Float and rod')
  await shop.chain(PIN)
  await shop.size([25, 12], [25, 20], '50')
  await press(page, 'Escape', ' ')
  await shop.revolve()
  await press(page, 't')
  await expect(shop.card).toContainText('Profile B')
  await shop.moveTo(25, 0)
  await page.mouse.wheel(0, 500)
  await press(page, '1', 'a')
  await shop.moveTo(50, 12)
  await expect(page.getByText('corner of profile A')).toBeVisible()
  await shop.click(50, 12)
  await shop.click(50, 20)
  await shop.click(40, 20)
  await shop.moveTo(40, 12)
  await expect(page.getByText('radial · on an edge of profile A')).toBeVisible()
  await shop.click(40, 12)
  await press(page, 'Escape', 'Escape')
  const corner = async (): Promise<number> => {
    const sketch = (await shop.document()).sketches[1]
    return sketch?.points[0]?.x ?? NaN
  }
  expect(await corner()).toBeCloseTo(50, 6)
  // Back in the first profile, its length changes; the second one stays on its corner.
  await shop.board.getByRole('button', { name: 'profile A' }).click()
  await shop.label('50').click()
  await shop.type('62')
  await expect.poll(corner).toBeCloseTo(62, 6)
  await press(page, 'Escape', 'q', 'Control+a', 'Delete')
  await shop.board.getByRole('button', { name: 'profile B' }).click()
  await expect(shop.card.getByRole('alert').first()).toContainText('gone')
  await shop.card.getByRole('button', { name: 'Let go of it' }).click()
  await expect(shop.card).not.toContainText('gone')
})

test('what is picked is offset, rotated, scaled and flipped, by typed figures', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Lever')
  await shop.line([10, 20], [40, 20])
  await shop.click(25, 20)
  await press(page, '2', 'v')
  await shop.click(10, 20)
  await page.keyboard.type('0')
  await press(page, 'Enter')
  await expect(shop.board.getByRole('alert')).toContainText('greater than zero')
  await page.keyboard.press('Control+a')
  await shop.type('0.5')
  await expect.poll(async () => (await shop.middleOf(1)).x).toBeCloseTo(17.5, 2)
  await press(page, 'Control+z')
  await expect.poll(async () => (await shop.middleOf(1)).x).toBeCloseTo(25, 2)
  await press(page, 'Escape', 'q')
  await shop.click(25, 20)
  await press(page, 'f')
  await shop.moveTo(25, 26)
  await page.keyboard.type('5')
  await press(page, 'Enter')
  await expect.poll(async () => (await shop.middleOf(2)).y).toBeCloseTo(25, 2)
  await press(page, 'Control+z')
  // Turned up square to the axis about its left end, which lets its direction go.
  await press(page, 'Escape', 'q')
  await shop.click(25, 20)
  await press(page, 'c')
  await shop.click(10, 20)
  await page.keyboard.type('30')
  await press(page, 'Enter')
  await expect
    .poll(async () => (await shop.middleOf(1)).x)
    .toBeCloseTo(10 + 15 * Math.cos(Math.PI / 6), 2)
  await press(page, 'Escape', 'Escape', 'q')
  const middle = await shop.middleOf(1)
  await shop.click(middle.x, middle.y)
  await press(page, 'g', 'Tab')
  await shop.click(60, 0)
  await expect.poll(async () => (await shop.middleOf(1)).y).toBeCloseTo(-middle.y, 2)
})

test('places are rounded to the grid once it is switched on', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Plate')
  await press(page, 'n')
  const menu = page.getByRole('group', { name: 'Suggestions while drawing' })
  await menu.getByLabel('grid', { exact: true }).check()
  await press(page, 'Escape', 'f')
  await shop.click(12.3, 17.6)
  const [point] = (await shop.document()).sketches[0]?.points ?? []
  expect(point).toMatchObject({ x: 12, y: 18 })
})

test('what can still move is shown moving over the freedoms left, and stands still after', async ({
  page,
}) => {
  await page.emulateMedia({ reducedMotion: 'no-preference' })
  const shop = new Workshop(page)
  await shop.newPart('Float')
  await shop.chain(PIN)
  await press(page, 'Escape', 'Escape', 'q')
  const before = (await shop.document()).sketches
  const picture = (): Promise<Buffer> => shop.board.screenshot()
  await shop.figure('freedoms').hover()
  const seen = new Set<string>()
  for (let i = 0; i < 6; i++) seen.add((await picture()).toString('base64'))
  expect(seen.size).toBeGreaterThan(1)
  await page.mouse.move(400, 300)
  expect((await shop.document()).sketches).toEqual(before)
})
