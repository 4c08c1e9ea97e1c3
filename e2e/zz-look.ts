import { chromium } from '@playwright/test'
import { Workshop, press } from './support/board'
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-quic'] })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: 'http://127.0.0.1:4317' })
page.on('pageerror', (e) => console.log('ERR', e.message))
const shop = new Workshop(page)
await page.goto('/')
await page.waitForTimeout(1500)
await page.screenshot({ path: '/tmp/look/shelf.png', fullPage: true })
for (const name of ['end-bearing', 'sampling-can', 'winding-spindle']) {
  await page.goto('/')
  await shop.openDemo(name)
  await page.waitForTimeout(4500)
  await page.screenshot({ path: `/tmp/look/${name}.png` })
}
await page.getByRole('button', { name: 'Half cut' }).click(); await press(page, 'Alt+2')
await page.waitForTimeout(900)
await page.screenshot({ path: `/tmp/look/cut.png` })
await browser.close()
