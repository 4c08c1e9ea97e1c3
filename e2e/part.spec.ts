import { expect, test } from '@playwright/test'
import { Workshop } from './support/board'

const PIN = [
  [0, 0],
  [0, 9],
  [40, 9],
  [40, 0],
] as const

test('named values drive sizes, and one change of a value changes all that read it', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.openDemo('spindle')
  const add = async (name: string, kind: string, formula: string): Promise<void> => {
    await shop.card.getByLabel('name of a new value').fill(name)
    await shop.card.getByLabel('formula of the new value').fill(formula)
    await shop.card.getByLabel('kind of the new value').selectOption(kind)
    await shop.card.getByRole('button', { name: 'Add' }).click()
  }
  await add('flange', 'length', '44')
  await add('ratio', 'number', '3/4')
  await expect(shop.card.getByRole('row', { name: /ratio/ })).toContainText('0.75')
  await shop.label('⌀44').click()
  await shop.type('flange')
  await shop.label('⌀28').click()
  await shop.type('ratio*flange')
  await expect(shop.label('⌀33')).toBeVisible()
  await page.keyboard.press('Escape')
  await shop.card.getByLabel('formula of flange').fill('48')
  await page.keyboard.press('Enter')
  await expect(shop.label('⌀48')).toBeVisible()
  await expect(shop.label('⌀36')).toBeVisible()
  await expect(shop.figure('size')).toHaveText('⌀48 × 171')
  await shop.card.getByLabel('formula of flange').fill('ratio*flange')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('read each other in a circle')
  await expect(shop.figure('size')).toHaveText('⌀48 × 171')
})

test('a part has its name, its material and the weight of it', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.openDemo('spindle')
  await page.getByRole('button', { name: 'Spindle' }).click()
  await page.getByLabel('name of the part').fill('Brass spindle')
  await page.keyboard.press('Enter')
  await expect(page).toHaveTitle('Brass spindle · Lathica')
  await page.locator('#part-material').selectOption({ label: 'brass CuZn39Pb3' })
  const grams = (825.0366837 / 7.85) * 8.47
  await expect(shop.figure('mass')).toHaveText(`${grams.toPrecision(4)} g`)
  await page.keyboard.press('Control+z')
  await expect(shop.figure('mass')).toHaveText('825.0 g')
  await page.keyboard.press('Control+z')
  await expect(page).toHaveTitle('Spindle · Lathica')
})

test('a part is asked for once, with its page and before its scripts', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.openDemo('spindle')
  const asked: string[] = []
  page.on('request', (r) => asked.push(new URL(r.url()).pathname))
  await page.reload()
  await expect(shop.figure('size')).toHaveText('⌀44 × 171')
  const parts = asked.filter((path) => path.startsWith('/api/parts/'))
  expect(parts).toHaveLength(1)
  const at = (what: RegExp): number => asked.findIndex((path) => what.test(path))
  expect(at(/^\/api\/parts\//)).toBeLessThan(at(/ModelView.*\.js$/))
  expect(at(/plex-sans.*400.*\.woff2$/)).toBeLessThan(at(/ModelView.*\.js$/))
})

test('a second profile makes a body of its own, with its own material', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPartFromShelf('Float and rod')
  await shop.chain(PIN)
  await shop.revolve()
  await expect(shop.route).toContainText('10')
  await page.keyboard.press('t')
  // Room beside the first body: zoomed out at its left end.
  await shop.moveTo(0, 0)
  for (let i = 0; i < 3; i++) await page.mouse.wheel(0, 240)
  await page.waitForTimeout(100)
  await shop.chain([
    [60, 0],
    [60, 4],
    [90, 4],
    [90, 0],
  ])
  await expect(shop.card).toContainText('Profile B')
  await shop.revolve()
  await expect(shop.route.locator('.row')).toHaveCount(2)
  await expect(shop.card).toContainText('body 2')
  const before = await shop.figure('mass').textContent()
  await shop.card.getByLabel('Material').selectOption({ label: 'lead' })
  await expect(shop.figure('mass')).not.toHaveText(before ?? '')
  await shop.card.getByRole('button', { name: 'Delete step' }).click()
  await expect(shop.route.locator('.row')).toHaveCount(1)
  await shop.board.getByRole('button', { name: 'profile A' }).click()
  await expect(shop.board.getByRole('button', { name: 'profile A' })).toHaveClass(/current/)
})

test('constraints are put on by key: at once on picks, or by picking afterwards', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Constraints')
  await page.keyboard.press('a')
  await page.keyboard.down('Shift')
  await shop.click(10, 6)
  await shop.click(50, 11)
  await page.keyboard.up('Shift')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await expect(shop.figure('freedoms')).toHaveText('4 freedoms left')
  await shop.click(30, 8.5)
  await page.keyboard.press('3')
  await page.keyboard.press('w')
  await expect(shop.figure('freedoms')).toHaveText('3 freedoms left')
  await expect(shop.card).toContainText('line 1 axial')
  await page.keyboard.press('Escape')
  await page.keyboard.press('f')
  await expect(page.getByText('Pick a curve or the axis, and points')).toBeVisible()
  await shop.click(10, 8.5)
  await shop.click(80, 0)
  await expect(shop.figure('freedoms')).toHaveText('2 freedoms left')
})

test('lines are made equal and points set in line, on the page of constraints', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Equal lands')
  await shop.chain([
    [0, 0],
    [0, 12],
    [24, 12],
    [24, 8],
    [60, 8],
    [60, 13],
    [90, 13],
    [90, 0],
  ])
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await expect(shop.figure('freedoms')).toHaveText('6 freedoms left')
  await page.keyboard.press('3')
  await shop.click(12, 12)
  await page.keyboard.down('Shift')
  await shop.click(75, 13)
  await page.keyboard.up('Shift')
  await page.keyboard.press('a')
  await expect(shop.figure('freedoms')).toHaveText('5 freedoms left')
  await expect(shop.card).toContainText('line 6 as long as line 2')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+a')
  await page.keyboard.press('Escape')
  await page.keyboard.press('z')
  await expect(page.getByText('Pick two points or more.')).toBeVisible()
  await shop.click(0, 12)
  await shop.click(60, 13)
  await expect(shop.figure('freedoms')).toHaveText('4 freedoms left')
  await page.keyboard.press('Control+z')
  await expect(shop.figure('freedoms')).toHaveText('5 freedoms left')
})

test('lines change their role: a construction line bounds no material', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Roles')
  await shop.chain(PIN)
  await expect(shop.card).toContainText('1 region')
  await page.keyboard.press('Escape')
  await shop.click(20, 9)
  await page.keyboard.press('1')
  await page.keyboard.press('z')
  await expect(shop.card).toContainText('construction')
  await page.keyboard.press('Escape')
  await expect(shop.card).toContainText('no material yet')
  await shop.click(20, 9)
  await page.keyboard.press('c')
  await page.keyboard.press('Escape')
  await expect(shop.card).toContainText('1 region')
})

test('projects are made, renamed, deleted and brought back; parts are duplicated and found', async ({
  page,
}) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'New project' }).click()
  await page.getByLabel('Name of the project').fill('Recorder')
  await page.keyboard.press('Enter')
  const project = page.getByRole('region', { name: 'Recorder' })
  await expect(project).toContainText('No parts yet.')
  await project.getByTitle('Rename the project').click()
  await page.getByRole('textbox', { name: 'name of the project', exact: true }).fill('Pen carriage')
  await page.keyboard.press('Enter')
  const renamed = page.getByRole('region', { name: 'Pen carriage' })
  await renamed.getByTitle('Delete the project').click()
  await expect(renamed).toHaveCount(0)
  await page.getByRole('button', { name: 'Bring it back' }).click()
  await expect(renamed).toBeVisible()

  await page.getByRole('button', { name: 'Duplicate Line sheave' }).first().click()
  const copy = page.getByRole('link', { name: /^Line sheave \(copy\)/ })
  await expect(copy).toContainText('1.251 kg')
  await page.getByLabel('Find a part').fill('sheave copy')
  await expect(page.getByRole('article')).toHaveCount(1)
  await page.getByLabel('Find a part').fill('no such part')
  await expect(page.getByText('No part has these words')).toBeVisible()
})

test('the paper stays dark when the page is opened again', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'Dark paper' }).click()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark')
  await page.reload()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark')
  await page.getByRole('button', { name: 'Light paper' }).click()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'light')
})

test('panes share the screen as one likes, and one of them can fill it', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.openDemo('spindle')
  const height = async (): Promise<number> => (await shop.board.boundingBox())?.height ?? 0
  const before = await height()
  const divider = page.getByRole('separator', { name: 'Board and solid' })
  const box = await divider.boundingBox()
  await page.mouse.move((box?.x ?? 0) + 400, (box?.y ?? 0) + 4)
  await page.mouse.down()
  await page.mouse.move((box?.x ?? 0) + 400, (box?.y ?? 0) + 84, { steps: 4 })
  await page.mouse.up()
  expect(Math.abs((await height()) - before - 80)).toBeLessThan(6)
  await divider.focus()
  await page.keyboard.press('ArrowUp')
  expect(await height()).toBeLessThan(before + 80)
  await shop.moveTo(60, 10)
  await page.keyboard.press('l')
  expect(await height()).toBeGreaterThan(700)
  await page.keyboard.press('l')
  expect(await height()).toBeLessThan(600)
})

test('who asks for less motion gets changes at once', async ({ page }) => {
  const shop = new Workshop(page)
  const duration = (): Promise<string> =>
    page
      .getByRole('button', { name: 'New part' })
      .first()
      .evaluate((button) => getComputedStyle(button).transitionDuration)
  await page.emulateMedia({ reducedMotion: 'no-preference' })
  await page.goto('/')
  expect(Number.parseFloat(await duration())).toBeGreaterThan(0.05)
  await page.emulateMedia({ reducedMotion: 'reduce' })
  expect(Number.parseFloat(await duration())).toBeLessThan(0.001)
  // Windows and lists still open and close.
  await shop.newPart('Still life')
  await page.keyboard.press('/')
  await expect(page.getByRole('dialog')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
})
