import { writeFileSync } from 'node:fs'
import { chromium } from '@playwright/test'
import { toDocument } from '@lathica/core'
import { CHROMIUM_FLAGS, chromiumPath } from '../e2e/support/chromium'
import { serveDemo } from '../scripts/support/serve'
import { looseProfile } from './turned'
import { looseShaft } from './update'
const PORT=4392
const { origin, stop } = await serveDemo(PORT)
const browser = await chromium.launch({ executablePath: chromiumPath(), args: CHROMIUM_FLAGS })
const [project] = (await (await fetch(`${origin}/api/projects`)).json()) as { id: string }[]
const which = process.argv[2] ?? '300'
const prof = which==='60' ? looseShaft() : looseProfile(300)
const made = await fetch(`${origin}/api/projects/${project?.id}/parts`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ document: toDocument(prof.part) }) })
const { id } = await made.json() as any
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.addInitScript(() => {
  const ev: number[] = [], fr: number[] = [], raf: number[] = []
  Object.assign(window, { ev, fr, raf })
  let under = false, begun = 0, event = 0
  const a = new MessageChannel(), b = new MessageChannel()
  a.port1.onmessage = () => { if (event===0) event = performance.now() - begun }
  b.port1.onmessage = () => { under = false; ev.push(event); fr.push(performance.now() - begun) }
  window.addEventListener('pointermove', () => {
    if (under) return
    under = true; begun = performance.now(); event = 0
    a.port2.postMessage(0)
    requestAnimationFrame(() => { if (event===0) event = performance.now()-begun; begun = performance.now(); b.port2.postMessage(0)
      // after other rafs
      queueMicrotask(()=>{})
      requestAnimationFrame(()=>{}) })
  }, { capture: true })
})
const skip = process.env['SKIP'] ?? ''
await page.addInitScript((skip) => {
  const P = CanvasRenderingContext2D.prototype as any
  const { fill, stroke, fillText, fillRect } = P
  if (skip.includes('h')) P.fill = function (...a: any[]) { if (typeof this.fillStyle !== 'string') return; return fill.apply(this, a) }
  if (skip.includes('f')) P.fill = function () {}
  if (skip.includes('s')) P.stroke = function () {}
  if (skip.includes('t')) P.fillText = function () {}
  if (skip.includes('r')) P.fillRect = function () {}
  if (skip.includes('g')) { const gc = HTMLCanvasElement.prototype.getContext as any; HTMLCanvasElement.prototype.getContext = function (k: string, ...a: any[]) { return k.startsWith('webgl') ? null : gc.call(this, k, ...a) } as any }
}, skip)
await page.goto(`${origin}/part/${id}`)
await page.waitForSelector('[data-view]')
await page.waitForTimeout(1500)
const { at } = prof
const [scale = 1, ox = 0, oy = 0] = ((await page.getAttribute('.board', 'data-view')) ?? '').split(' ').map(Number)
const box = await page.locator('.board').boundingBox()
const p = { x: (box?.x ?? 0) + ox + at.x * scale, y: (box?.y ?? 0) + oy - at.y * scale }
await page.mouse.move(p.x, p.y); await page.mouse.down(); await page.mouse.move(p.x, p.y - 8, { steps: 4 })
if (process.env['MUT']) {
  await page.evaluate(() => { const m = new Map<string, number>(); (window as any).m = m; new MutationObserver((l) => { for (const r of l) { const t = r.target as any; const el = t.nodeType === 3 ? t.parentElement : t; const k = r.type + ' ' + (r.attributeName ?? '') + ' ' + el?.tagName + '.' + (el?.className?.baseVal ?? el?.className) + ' < ' + el?.parentElement?.tagName + '.' + (el?.parentElement?.className?.baseVal ?? el?.parentElement?.className); m.set(k, (m.get(k) ?? 0) + 1) } }).observe(document, { subtree: true, childList: true, attributes: true, characterData: true }) })
  for (let i = 0; i < 100; i++) { await page.mouse.move(p.x, p.y - 10 - (i % 20)); await page.waitForTimeout(16) }
  console.log(await page.evaluate(() => [document.querySelectorAll('*').length, ...[...(window as any).m].sort((a: any, b: any) => b[1] - a[1]).slice(0, 40).map((x: any) => x[1] + ' ' + x[0])].join('\n')))
}
const cdp = await page.context().newCDPSession(page)
if (process.argv[3]==='prof') { await cdp.send('Profiler.enable'); await cdp.send('Profiler.setSamplingInterval',{interval:200}); await cdp.send('Profiler.start'); for (let i = 0; i < 200; i++) { await page.mouse.move(p.x, p.y - 10 - (i % 20)); await page.waitForTimeout(16) }
 const {profile}=await cdp.send('Profiler.stop'); writeFileSync('/tmp/p.json',JSON.stringify(profile)) } else if (process.argv[3]) { 
  const chunks: any[] = []
  cdp.on('Tracing.dataCollected', (e: any) => chunks.push(...e.value))
  await cdp.send('Tracing.start', { transferMode: 'ReportEvents', categories: 'devtools.timeline,v8,cc' } as any)
  for (let i = 0; i < 80; i++) { await page.mouse.move(p.x, p.y - 10 - (i % 20)); await page.waitForTimeout(16) }
  const done = new Promise((r) => cdp.once('Tracing.tracingComplete', r))
  await cdp.send('Tracing.end'); await done
  writeFileSync(process.argv[3], JSON.stringify(chunks))
} else {
for (let i = 0; i < 240; i++) { await page.mouse.move(p.x, p.y - 10 - (i % 20)); await page.waitForTimeout(16) }
const r = await page.evaluate(() => ({ ev: (window as any).ev, fr: (window as any).fr }))
const q = (v: number[], s: number) => [...v].sort((x, y) => x - y)[Math.floor(s * v.length)].toFixed(1)
const ev = r.ev.slice(40), fr = r.fr.slice(40), sum = ev.map((x: number, i: number) => x + fr[i])
console.log('n', ev.length, 'event', q(ev, .5), q(ev, .95), 'frame', q(fr, .5), q(fr, .95), 'sum', q(sum, .5), q(sum, .95))
}
await browser.close(); stop()
