import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { chromium, type Browser, type Page } from '@playwright/test'
import { toDocument } from '@lathica/core'
import { CHROMIUM_FLAGS, chromiumPath } from '../e2e/support/chromium'
import { serveDemo } from '../scripts/support/serve'
import { atMost, type Row } from './row'
import { looseShaft } from './update'

const PORT = 4391
const WEB = 'web/dist'

/** What the built pages weigh and how the modelling screen behaves in a real browser. */
export async function pageRows(): Promise<Row[]> {
  const { origin, stop } = await serveDemo(PORT)
  const browser = await chromium.launch({ executablePath: chromiumPath(), args: CHROMIUM_FLAGS })
  try {
    const partId = await createPart(origin)
    const paint = await firstPaint(browser, `${origin}/part/${partId}`)
    const drag = await dragScript(browser, `${origin}/part/${partId}`)
    return [
      atMost('main script before lazy parts, gzip', mainScriptSize(), 'KB', 500),
      atMost('first paint of the modelling screen, cold', paint, 'ms', 1500),
      atMost('drag on the board, script per pointer move, 60 lines', drag, 'ms', 8),
    ]
  } finally {
    await browser.close()
    stop()
  }
}

async function createPart(origin: string): Promise<string> {
  const [project] = (await (await fetch(`${origin}/api/projects`)).json()) as { id: string }[]
  const made = await fetch(`${origin}/api/projects/${project?.id}/parts`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ document: toDocument(looseShaft().part) }),
  })
  return ((await made.json()) as { id: string }).id
}

/** The page's entry and everything it imports outright, in KB as served. */
function mainScriptSize(): number {
  const html = readFileSync(`${WEB}/index.html`, 'utf8')
  const scripts = html.matchAll(/(?:src|href)="(\/assets\/[^"]+\.js)"/g)
  const bytes = [...scripts].map((m) => gzipSync(readFileSync(`${WEB}${m[1]}`)).length)
  return bytes.reduce((sum, b) => sum + b, 0) / 1024
}

/** From the navigation to the first frame with the board's drawing, in a browser without a cache. */
async function firstPaint(browser: Browser, address: string): Promise<number> {
  const times: number[] = []
  for (let i = 0; i < 5; i++) {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const page = await context.newPage()
    await page.addInitScript(() => {
      const watch = new MutationObserver(() => {
        if (!document.querySelector('[data-view]')) return
        watch.disconnect()
        requestAnimationFrame(() => {
          Object.assign(window, { boardPainted: performance.now() })
        })
      })
      watch.observe(document, { subtree: true, childList: true, attributes: true })
    })
    await page.goto(address)
    const painted = await page.waitForFunction(
      () => (window as unknown as { boardPainted?: number }).boardPainted,
    )
    times.push((await painted.jsonValue()) ?? Infinity)
    await context.close()
  }
  return middle(times)
}

/** Script time of one pointer move while a land is dragged: the event, what it sets off, the frame. */
async function dragScript(browser: Browser, address: string): Promise<number> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.addInitScript(() => {
    const ask = window.requestAnimationFrame.bind(window)
    const spent = { ms: 0 }
    Object.assign(window, { spent })
    window.requestAnimationFrame = (callback) =>
      ask((time) => {
        const start = performance.now()
        callback(time)
        spent.ms += performance.now() - start
      })
  })
  await page.goto(address)
  await page.waitForSelector('[data-view]')
  await page.waitForTimeout(1500)
  const start = await grabLand(page)
  const times = await page.evaluate(async ({ x, y }) => {
    const { spent } = window as unknown as { spent: { ms: number } }
    const board = document.querySelector('.board')
    const frame = () => new Promise((done) => setTimeout(done, 60))
    const found: number[] = []
    for (let i = 0; i < 90; i++) {
      spent.ms = 0
      const begun = performance.now()
      const to = { clientX: x, clientY: y - 10 - (i % 20), bubbles: true }
      board?.dispatchEvent(new PointerEvent('pointermove', to))
      // What the event sets off runs in microtasks; these come behind it.
      for (let k = 0; k < 5; k++) await Promise.resolve()
      const direct = performance.now() - begun
      await frame()
      if (i >= 20) found.push(direct + spent.ms)
    }
    return found
  }, start)
  await page.close()
  return middle(times)
}

/** Presses the button on the land that is free to move, and begins to drag it. */
async function grabLand(page: Page): Promise<{ x: number; y: number }> {
  const { at } = looseShaft()
  const [scale = 1, ox = 0, oy = 0] = ((await page.getAttribute('.board', 'data-view')) ?? '')
    .split(' ')
    .map(Number)
  const box = await page.locator('.board').boundingBox()
  const place = { x: (box?.x ?? 0) + ox + at.x * scale, y: (box?.y ?? 0) + oy - at.y * scale }
  await page.mouse.move(place.x, place.y)
  await page.mouse.down()
  await page.mouse.move(place.x, place.y - 8, { steps: 4 })
  return place
}

function middle(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0
}
