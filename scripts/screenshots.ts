/** Takes the pictures of `docs/screenshots` from the demo data, at 1280 × 800. */
import { chromium, type Page } from '@playwright/test'
import { CHROMIUM_FLAGS, chromiumPath } from '../e2e/support/chromium'
import { Workshop, press } from '../e2e/support/board'
import { findOn } from '../e2e/support/flange'
import { Inspection } from '../e2e/support/inspection'
import { serveDemo } from './support/serve'

const FOLDER = 'docs/screenshots'
const { origin, stop } = await serveDemo(4392)
const browser = await chromium.launch({ executablePath: chromiumPath(), args: CHROMIUM_FLAGS })

/** Only these, where any are named. */
const only = process.argv.slice(2)

/** Takes one picture on a fresh page, once everything on it has come to rest. */
async function take(
  name: string,
  prepare: (shop: Workshop, page: Page) => Promise<void>,
  colorScheme: 'light' | 'dark' = 'light',
): Promise<void> {
  if (only.length > 0 && !only.includes(name)) return
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    baseURL: origin,
    colorScheme,
  })
  const page = await context.newPage()
  await prepare(new Workshop(page), page)
  await page.waitForTimeout(2500)
  await page.screenshot({ path: `${FOLDER}/${name}.png` })
  await context.close()
  console.log(`${FOLDER}/${name}.png`)
}

try {
  await take('shelf', async (_shop, page) => {
    await page.goto('/')
    // What takes the solid kernel is weighed a moment later.
    await page.getByRole('link', { name: /^Guide segment.* g/ }).waitFor({ timeout: 120_000 })
  })
  await take('hand-over', async (_shop, page) => {
    await page.goto('/')
    await page.getByRole('button', { name: 'Hand over' }).first().click()
    const dialog = page.getByRole('dialog')
    await dialog.getByRole('button', { name: 'Hand over' }).click()
    await dialog.getByText('was handed over').waitFor({ timeout: 60_000 })
  })
  await take('model-spindle', async (shop) => {
    await shop.openPart('Spindle')
    await shop.label('⌀35 k6').hover()
  })
  await take('model-lamp', async (shop, page) => {
    await shop.openPart('Gauge lamp')
    // The curvature of its foot as a comb, and its points on the solid.
    await press(page, 'u', 'Alt+p')
  })
  await take('unsaved-work', async (shop, page) => {
    // Another tab is closed with work that the server never saw.
    const left = new Workshop(await page.context().newPage())
    await left.openPart('Spindle')
    await left.page.route('**/api/**', (route) => route.abort())
    await left.label('⌀35 k6').click()
    await left.type('36')
    await left.page.locator('[data-save="unreachable"]').waitFor()
    await left.page.close()
    await shop.openPart('Spindle')
    await page.getByRole('button', { name: 'Compare' }).click()
  })
  await take('model-dark', (shop) => shop.openPart('Spindle'), 'dark')
  const toInspect = async (page: Page): Promise<Inspection> => {
    const bench = new Inspection(page)
    await bench.open()
    return bench
  }
  await take('inspect-sheave', async (shop, page) => {
    await shop.openPart('Line sheave')
    const bench = await toInspect(page)
    await bench.row('least web').getByRole('button').first().click()
  })
  for (const [name, part] of [
    ['sheet-spindle', 'Spindle'],
    ['sheet-housing', 'End bearing housing'],
    ['sheet-float', 'Float'],
  ] as const) {
    await take(name, async (shop, page) => {
      await shop.openPart(part)
      await page.getByRole('link', { name: 'Sheet', exact: true }).click()
      await page.locator('.sheet-view g[data-role="title"]').waitFor()
      const looked = page.getByText(/not in the views yet|not drawn yet/)
      await looked.waitFor({ state: 'hidden', timeout: 60_000 })
    })
  }
  await take('sheet-plan', async (shop, page) => {
    await shop.openPart('Spindle')
    await page.getByRole('link', { name: 'Sheet', exact: true }).click()
    await page.locator('.sheet-view g[data-role="title"]').waitFor()
    await press(page, 'g', 'v')
    await page.getByRole('row').filter({ hasText: '112 ±0.15' }).click()
  })
  await take('inspect-housing', async (shop, page) => {
    await shop.openPart('End bearing housing')
    const bench = await toInspect(page)
    for (const n of [1, 2]) {
      const rim = `and wall of the hole, from step 60, no. ${n}`
      const { x, y } = await findOn(bench.solid, rim)
      await page.mouse.click(x, y)
    }
    await bench.figure('distance of axes').getByText(/mm/).waitFor()
    await page.mouse.move(400, 700)
  })
  await take('studio', async (shop, page) => {
    await shop.openPart('Line sheave')
    await page.getByLabel('Display').selectOption('studio')
    await page.mouse.move(600, 700)
    await shop.board.focus()
    await press(page, 'l', 'k')
    await page.mouse.move(1100, 420)
  })
  await take('inspect-tolerances', async (shop, page) => {
    await shop.openPart('Spindle')
    const bench = new Inspection(page)
    await bench.open()
    await bench.tab('Tolerances')
    const { tolerances } = bench
    await tolerances.getByLabel('What varies').selectOption({ label: 'sheet: length of the seat' })
    await tolerances.getByLabel('Wanted from').fill('45.7')
    await tolerances.getByLabel('to', { exact: true }).fill('46.3')
    await tolerances.getByRole('button', { name: 'Try 10,000 parts' }).click()
    await tolerances.getByText('standard deviation').waitFor({ timeout: 60_000 })
  })
  await take('dispatch', async (shop, page) => {
    await shop.openPart('Spindle')
    await page.getByRole('link', { name: 'Dispatch' }).click()
  })
  await take('drawing', async (shop, page) => {
    await shop.newPart('Oil jar')
    await shop.chain([
      [0, 0],
      [0, 16],
      [4, 16],
    ])
    await press(page, 'Tab', 'Tab', 'Tab')
    await shop.click(14, 30)
    await shop.click(34, 34)
    await shop.click(54, 19)
    await shop.click(64, 12)
    await shop.moveTo(78, 19)
  })
  await take('mill-bearing', async (shop, page) => {
    await shop.openPart('End bearing housing')
    await shop.route.getByRole('button', { name: /Holes/ }).first().click()
    await page.keyboard.press('5')
    await page.waitForTimeout(3000)
    // One of the holes is taken hold of, and the others go with it.
    await page.getByRole('button', { name: /^hole 2, / }).hover()
    await page.mouse.down()
    await page.mouse.move(793, 242, { steps: 4 })
    await page.waitForTimeout(2000)
  })
  await take('end-sketch', async (shop, page) => {
    await shop.openPart('Gauge cover')
    await shop.route
      .getByRole('button', { name: /Extrude/ })
      .last()
      .click()
    await page.keyboard.press('5')
    await page.waitForTimeout(3000)
  })
  await take('file-report', async (shop, page) => {
    await shop.openPart('End bearing housing')
    await page.getByRole('link', { name: 'Dispatch' }).click()
    const file = page.getByRole('region', { name: 'STEP, ISO 10303' })
    const saved = await new Inspection(page).saved(file.getByRole('button', { name: 'Download' }))
    await page.goto('/')
    const input = page.getByLabel('part files, STEP, STL or 3MF files to import').first()
    const name = 'Housing from outside.step'
    await input.setInputFiles([{ name, mimeType: 'model/step', buffer: saved.bytes }])
    const report = page.getByRole('region', { name: 'What came of the file' })
    await report.getByRole('button', { name: /^6 holes/ }).click({ timeout: 120_000 })
    // The solid kernel builds the steps once more for the picture.
    await page.waitForTimeout(6000)
  })
} finally {
  await browser.close()
  stop()
}
