import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'

const PROFILE = [
  [0, 0],
  [0, 9],
  [28, 9],
  [28, 15],
  [70, 15],
  [70, 0],
] as const

test('drawing goes back and forth: undo inside a chain, Esc, Shift, deleting', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Wrong turns')
  await shop.chain(PROFILE.slice(0, 4))
  await expect(shop.figure('freedoms')).toHaveText('3 freedoms left')
  await page.keyboard.press('Control+z')
  await expect(shop.figure('freedoms')).toHaveText('2 freedoms left')
  // The chain goes on from the corner before.
  await shop.click(28, 13)
  await shop.click(60, 13)
  await shop.click(60, 0)
  await expect(shop.card).toContainText('1 region')
  await page.keyboard.press('Escape')
  await shop.click(14, 9)
  await expect(shop.card).toContainText('Line 2')
  await page.keyboard.press('Delete')
  await expect(shop.card).toContainText('is open')
  await page.keyboard.press('Control+z')
  await expect(shop.card).toContainText('1 region')
})

test('suggestions are told at the pointer, and Shift refuses them', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Suggestions')
  await page.keyboard.press('a')
  await shop.moveTo(0.4, 0.3)
  await expect(shop.board.getByText('on the datum point')).toBeVisible()
  await shop.click(0, 0)
  await shop.moveTo(0.4, 12)
  await expect(shop.board.getByText('radial', { exact: true })).toBeVisible()
  await page.keyboard.down('Shift')
  await shop.moveTo(0.5, 12)
  await expect(shop.board.getByText('radial', { exact: true })).toHaveCount(0)
  await shop.click(0.5, 12)
  await page.keyboard.up('Shift')
  await page.keyboard.press('Escape')
  await expect(shop.figure('freedoms')).toHaveText('2 freedoms left')
})

test('a land is dragged in pencil and follows the pointer; in ink it says why not', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Dragging')
  await shop.chain(PROFILE)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await shop.drag([14, 9], [14, 12])
  await shop.click(14, 12)
  await expect(shop.card).toContainText('⌀24, ⌀24')
  await page.keyboard.press('Control+z')
  await shop.click(14, 9)
  await expect(shop.card).toContainText('⌀18, ⌀18')
  await shop.openDemo('spindle')
  await shop.drag([10, 10], [10, 16])
  await expect(page.locator('.ant-message')).toContainText('Nothing about this can move')
  await expect(shop.figure('mass')).toHaveText('825.0 g')
})

test('the view zooms at the pointer, pans, and fits again', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.openDemo('spindle')
  const view = async () =>
    (await shop.board.getAttribute('data-view'))?.split(' ').map(Number) ?? []
  const [scale = 0] = await view()
  const place = await shop.at(62, 22)
  await page.mouse.move(place.x, place.y)
  await page.mouse.wheel(0, -300)
  await expect.poll(async () => (await view())[0]).toBeGreaterThan(1.5 * scale)
  const after = await shop.at(62, 22)
  expect(Math.hypot(after.x - place.x, after.y - place.y)).toBeLessThan(1)
  await page.mouse.down({ button: 'middle' })
  await page.mouse.move(place.x + 60, place.y + 20, { steps: 3 })
  await page.mouse.up({ button: 'middle' })
  const panned = await shop.at(62, 22)
  expect(panned.x - after.x).toBeCloseTo(60, 0)
  await page.keyboard.press(' ')
  await expect.poll(async () => Math.abs(((await view())[0] ?? 0) / scale - 1)).toBeLessThan(1e-3)
})

test('a standing part is drawn with its axis upright @solid', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.openDemo('ink-flask')
  const board = await shop.board.boundingBox()
  const solid = await page.getByRole('region', { name: 'Solid' }).boundingBox()
  expect((solid?.x ?? 0) >= (board?.x ?? 0) + (board?.width ?? 0)).toBe(true)
  await expect(page.getByRole('region', { name: 'End view' })).toContainText('from above')
  await shop.label('⌀48').click()
  await shop.type('50')
  await expect(shop.figure('size')).toHaveText('⌀50 × 78')
})

test('everything is reached by keyboard', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.openDemo('spindle')
  await shop.board.focus()
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight')
  await expect(shop.card).toContainText('Point 2')
  await page.keyboard.press('/')
  await page.keyboard.type('named no')
  await expect(page.getByText('No command has these words.')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toContainText('Steps back one level')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  const label = shop.label('⌀35 k6')
  await label.focus()
  await page.keyboard.press('Enter')
  await shop.type('36')
  await expect(shop.label('⌀36')).toBeVisible()
})

test('a drag paints what it changes, and the picture is that of the whole', async ({ page }) => {
  await page.addInitScript(() => {
    const { clip } = CanvasRenderingContext2D.prototype
    Object.assign(window, { patches: 0 })
    CanvasRenderingContext2D.prototype.clip = function (...args: unknown[]) {
      if (args.length === 0) {
        Object.assign(window, { patches: Number(Reflect.get(window, 'patches')) + 1 })
      }
      Reflect.apply(clip, this, args)
    }
  })
  const shop = new Workshop(page)
  await shop.newPart('Loose spindle')
  await press(page, 'g')
  await page.keyboard.type('60, 30; 40, 20; 30, 20; 20, 40')
  await press(page, 'Enter', 'Enter')
  await shop.revolve()
  await press(page, 'Escape', ' ')
  await shop.label('⌀40').click()
  await press(page, 'Escape', 'Delete')
  await expect(shop.figure('freedoms')).toHaveText(/1/)

  /** How many values of the picture differ from what was kept by more than rounding; then keeps it. */
  const off = (): Promise<number> =>
    page.evaluate(() => {
      const canvas = document.querySelector<HTMLCanvasElement>('.board canvas')
      const ctx = canvas?.getContext('2d')
      if (!canvas || !ctx) throw new Error('there is no picture')
      const { data } = ctx.getImageData(0, 0, canvas.width, canvas.height)
      const before = Reflect.get(window, 'kept') as Uint8ClampedArray | undefined
      Object.assign(window, { kept: data })
      return data.filter((v, i) => Math.abs(v - (before?.[i] ?? 0)) > 2).length
    })
  const start = await shop.at(40, 20)
  await page.mouse.move(start.x, start.y)
  await page.mouse.down()
  for (let i = 1; i <= 12; i++) {
    await page.mouse.move(start.x, start.y - 2 * i)
    await page.waitForTimeout(20)
  }
  // What follows the drag comes in the time between its pictures.
  await page.waitForTimeout(500)
  expect(await page.evaluate(() => Number(Reflect.get(window, 'patches')))).toBeGreaterThan(5)
  expect(await off()).toBeGreaterThan(1000)
  const kept = 'kept'
  await page.evaluate((name) => Object.assign(window, { patched: Reflect.get(window, name) }), kept)
  await page.emulateMedia({ colorScheme: 'dark' })
  await page.waitForTimeout(200)
  expect(await off()).toBeGreaterThan(1000)
  await page.emulateMedia({ colorScheme: 'light' })
  await page.waitForTimeout(200)
  await page.evaluate(
    (name) => Object.assign(window, { [name]: Reflect.get(window, 'patched') }),
    kept,
  )
  expect(await off()).toBe(0)
  await page.mouse.up()
})

for (const theme of ['light', 'dark'] as const) {
  test(`no screen breaks the rules of accessibility on ${theme} paper`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: theme })
    const shop = new Workshop(page)
    const check = async (screen: string): Promise<void> => {
      const { violations } = await new AxeBuilder({ page })
        .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
        .analyze()
      const found = violations.flatMap((v) => v.nodes.map((n) => `${screen}: ${v.id} ${n.target}`))
      expect(found).toEqual([])
    }
    await page.goto('/')
    await expect(page.getByRole('link', { name: /^Spindle/ }).first()).toBeVisible()
    await check('shelf')
    await shop.openDemo('spindle')
    await shop.click(10, 10)
    await check('model')
    await page.getByRole('link', { name: 'Inspect' }).click()
    const sheet = page.getByRole('region', { name: 'Inspection sheet' })
    await sheet.getByRole('listitem').first().getByRole('button').click()
    await check('inspection sheet')
    await page.getByRole('tab', { name: 'Measure' }).click()
    await check('measure')
    await page.getByRole('tab', { name: 'Mass' }).click()
    await check('mass')
    await page.getByRole('link', { name: 'Sheet', exact: true }).click()
    await expect(page.getByRole('img', { name: 'Title block' })).toBeVisible()
    await check('sheet')
    await page.getByRole('button', { name: 'Inspection plan' }).click()
    await page.getByRole('row').filter({ hasText: '112 ±0.15' }).click()
    await expect(page.getByRole('img', { name: '5 values, 1 out of their limits' })).toBeVisible()
    await check('inspection plan')
    await page.getByRole('button', { name: 'Revisions' }).click()
    await check('revisions')
    await page.getByRole('link', { name: 'Dispatch' }).click()
    await check('dispatch')
  })
}

test('nothing is asked of any other machine, and no page throws @solid', async ({ page }) => {
  const foreign: string[] = []
  const errors: string[] = []
  page.on('request', (request) => {
    const { protocol, hostname } = new URL(request.url())
    if (protocol.startsWith('http') && hostname !== '127.0.0.1') foreign.push(request.url())
  })
  page.on('pageerror', (error) => errors.push(error.message))
  page.on('console', (message) => {
    if (message.type() === 'error') errors.push(message.text())
  })
  const shop = new Workshop(page)
  await shop.openDemo('line-sheave')
  await page.getByRole('link', { name: 'Dispatch' }).click()
  await expect(page.getByText(/[\d,]+ triangles/)).toBeVisible()
  await page.getByLabel('Chord tolerance').fill('1e-9')
  await expect(page.getByText('A tolerance lies between')).toBeVisible()
  await page.getByRole('link', { name: /tide gauge/ }).click()
  await expect(page.getByRole('link', { name: /^Spindle/ }).first()).toBeVisible()
  expect([foreign, errors]).toEqual([[], []])
})
