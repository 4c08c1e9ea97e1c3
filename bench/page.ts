import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { chromium, type Browser, type Page } from '@playwright/test'
import type { Vec } from '@lathica/core/geometry'
import type { Part } from '@lathica/core/part'
import { toDocument } from '@lathica/core/formats'
import { CHROMIUM_FLAGS, chromiumPath } from '../e2e/support/chromium'
import { serveDemo } from '../scripts/support/serve'
import { atLeast, atMost, type Row } from './row'
import { looseProfile } from './turned'
import { looseShaft, wideShaft } from './update'

const PORT = 4391
const WEB = 'web/dist'

/** What the built pages weigh and how the modelling screen behaves in a real browser. */
export async function pageRows(): Promise<Row[]> {
  const { origin, stop } = await serveDemo(PORT)
  const browser = await chromium.launch({ executablePath: chromiumPath(), args: CHROMIUM_FLAGS })
  try {
    const shaft = looseShaft()
    const page = `${origin}/part/${await createPart(origin, shaft.part)}`
    const paint = await firstPaint(browser, page)
    const kernel = await firstNeed(
      browser,
      async () => `${origin}/part/${await createPart(origin, shaft.part)}`,
    )
    const drag = await pointerToPaint(browser, page, shaft.at)
    const profile = looseProfile(300)
    const large = `${origin}/part/${await createPart(origin, profile.part)}`
    const orbit = await orbitLarge(
      browser,
      `${origin}/part/${await createPart(origin, wideShaft())}`,
    )
    const largeDrag = await pointerToPaint(browser, large, profile.at)
    return [
      atMost('main script before lazy parts, gzip', mainScriptSize(), 'KB', 500),
      atMost('first paint of the modelling screen, cold', paint, 'ms', 1200),
      atMost('solid kernel ready in the page, from first need', kernel.ready, 'ms', 1000),
      atMost('first solid step weighed, from first need', kernel.weighed, 'ms', 1000),
      atMost('longest task of the page while the kernel gets ready', kernel.longest, 'ms', 50),
      atMost('pointer to paint, 60 lines, middle', share(drag, 0.5), 'ms', 8),
      atMost('pointer to paint, 60 lines, 95 of 100', share(drag, 0.95), 'ms', 1000 / 60),
      atLeast('triangles of the solid that is turned', orbit.triangles, '', 500_000),
      atLeast('share of a drag that turned it, software rendering', orbit.turned, '', 0.999),
      atMost('from the last move to its last picture', orbit.lag, 'ms', 1000),
      atMost('pointer to paint, 300 entities, middle', share(largeDrag, 0.5), 'ms', 1000 / 60),
      atMost('pointer to paint, 300 entities, 95 of 100', share(largeDrag, 0.95), 'ms', 1000 / 60),
    ]
  } finally {
    await browser.close()
    stop()
  }
}

async function createPart(origin: string, part: Part): Promise<string> {
  const [project] = (await (await fetch(`${origin}/api/projects`)).json()) as { id: string }[]
  const made = await fetch(`${origin}/api/projects/${project?.id}/parts`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ document: toDocument(part) }),
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
  return share(times, 0.5)
}

/**
 * The solid kernel from its first need in the page on: how long until a first step is weighed by it,
 * and, with the page of the mill opened alone, until it is loaded and compiled, and the longest task
 * that held up the page meanwhile.
 */
async function firstNeed(
  browser: Browser,
  freshPart: () => Promise<string>,
): Promise<{ readonly ready: number; readonly weighed: number; readonly longest: number }> {
  const opened = async (): Promise<Page> => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const page = await context.newPage()
    await page.goto(await freshPart())
    await page.waitForSelector('[data-view]')
    await page.waitForTimeout(2500)
    return page
  }
  const ready: number[] = []
  const weighed: number[] = []
  const longest: number[] = []
  for (let i = 0; i < 3; i++) {
    const milled = await opened()
    const mass = milled.locator('[data-figure="mass"]')
    const before = await mass.textContent()
    const start = performance.now()
    await milled.keyboard.press('5')
    await milled.keyboard.press('r')
    await milled.waitForFunction((old) => {
      const told = document.querySelector('[data-figure="mass"]')?.textContent ?? ''
      return told !== old && /^\d/.test(told)
    }, before)
    weighed.push(performance.now() - start)
    await milled.context().close()

    const page = await opened()
    await page.evaluate(() => {
      const tasks: number[] = []
      Object.assign(window, { tasks })
      new PerformanceObserver((list) => {
        for (const { duration } of list.getEntries()) tasks.push(duration)
      }).observe({ entryTypes: ['longtask'] })
    })
    await page.keyboard.press('5')
    await page.waitForTimeout(4000)
    ready.push(await whenReady(page))
    const tasks = await page.evaluate(() => (window as unknown as { tasks: number[] }).tasks)
    longest.push(Math.max(0, ...tasks))
    await page.context().close()
  }
  return {
    ready: share(ready, 0.5),
    weighed: share(weighed, 0.5),
    longest: share(longest, 0.5),
  }
}

/** When the kernel's thread had loaded and compiled it, in ms from the thread's beginning. */
async function whenReady(page: Page): Promise<number> {
  for (let tries = 0; tries < 100; tries++) {
    for (const worker of page.workers()) {
      const marks = await worker.evaluate(() =>
        performance.getEntriesByName('solid kernel ready').map((m) => m.startTime),
      )
      if (marks[0] !== undefined) return marks[0]
    }
    await page.waitForTimeout(200)
  }
  throw new Error('the kernel did not get ready')
}

/**
 * Turns a large solid by a drag: which share of the drag came through as a turn, and how long after
 * the last move the picture stood still.
 */
async function orbitLarge(
  browser: Browser,
  address: string,
): Promise<{ readonly triangles: number; readonly turned: number; readonly lag: number }> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.goto(address)
  const solid = page.locator('.solid')
  await page.waitForSelector('.solid[data-eye]')
  await page.waitForTimeout(3000)
  const azimuth = async (): Promise<number> =>
    Number(((await solid.getAttribute('data-eye')) ?? '').split(' ')[0])
  const box = await solid.boundingBox()
  const [x, y] = [(box?.x ?? 0) + 120, (box?.y ?? 0) + (box?.height ?? 0) - 40]
  const before = await azimuth()
  await page.mouse.move(x, y)
  await page.mouse.down()
  for (let i = 1; i <= 40; i++) {
    await page.mouse.move(x + 5 * i, y)
    await page.waitForTimeout(8)
  }
  await page.mouse.up()
  const ended = Date.now()
  let [last, since] = [await azimuth(), Date.now()]
  while (Date.now() - since < 700) {
    await page.waitForTimeout(20)
    const now = await azimuth()
    if (Math.abs(now - last) > 1e-3) since = Date.now()
    last = now
  }
  const triangles = Number(await solid.getAttribute('data-triangles'))
  await page.close()
  const expected = (2 * Math.PI * 200) / (box?.height ?? 1)
  return { triangles, turned: Math.abs(last - before) / expected, lag: since - ended }
}

const MOVES = 240
const WARM_MOVES = 40

/**
 * How long the page is busy from a pointer move to the end of the frame that paints it, in ms, while
 * a land is dragged: the event with all it sets off, and the frame with all that holds it up. Only
 * the wait in between, for the screen's next frame, is left out.
 */
async function pointerToPaint(browser: Browser, address: string, at: Vec): Promise<number[]> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.addInitScript(() => {
    const times: number[] = []
    Object.assign(window, { times })
    let under = false
    let begun = 0
    /** What the event took; 0 until that is known. */
    let event = 0
    // A task posted in an event runs behind it; one posted in a frame runs once that is painted.
    const afterEvent = new MessageChannel()
    const afterFrame = new MessageChannel()
    afterEvent.port1.onmessage = () => {
      if (event === 0) event = performance.now() - begun
    }
    afterFrame.port1.onmessage = () => {
      under = false
      times.push(event + performance.now() - begun)
    }
    const begin = (): void => {
      if (under) return
      under = true
      begun = performance.now()
      event = 0
      afterEvent.port2.postMessage(0)
      requestAnimationFrame(() => {
        // Where the frame came at once, before any task, all that passed is the event's own time.
        if (event === 0) event = performance.now() - begun
        begun = performance.now()
        afterFrame.port2.postMessage(0)
      })
    }
    window.addEventListener('pointermove', begin, { capture: true })
  })
  await page.goto(address)
  await page.waitForSelector('[data-view]')
  await page.waitForTimeout(1500)
  const { x, y } = await grabLand(page, at)
  for (let i = 0; i < MOVES; i++) {
    await page.mouse.move(x, y - 10 - (i % 20))
    await page.waitForTimeout(16)
  }
  const hint = await page.evaluate(() => document.querySelector('.bottom')?.textContent ?? '')
  if (!hint.includes('Let go to leave it here')) throw new Error('nothing is being dragged')
  const times = await page.evaluate(() => (window as unknown as { times: number[] }).times)
  await page.close()
  return times.slice(WARM_MOVES)
}

/** Presses the button on the land that is free to move, and begins to drag it. */
async function grabLand(page: Page, at: Vec): Promise<{ x: number; y: number }> {
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

/** The value below which a share of all lie. */
function share(values: readonly number[], of: number): number {
  const rank = Math.min(values.length - 1, Math.floor(of * values.length))
  return [...values].sort((a, b) => a - b)[rank] ?? 0
}
