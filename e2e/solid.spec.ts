import { expect, test, type Page } from '@playwright/test'
import { Workshop, press } from './support/board'
import { Inspection } from './support/inspection'

/** The solid pane's picture as it is now. */
async function pictureNow(page: Page): Promise<string> {
  const pane = page.getByRole('region', { name: 'Solid' }).locator('canvas')
  return (await pane.screenshot()).toString('base64')
}

/** The solid pane's picture, once it has come to rest. */
async function picture(page: Page): Promise<string> {
  const solid = page.getByRole('region', { name: 'Solid' })
  await expect(solid).toHaveAttribute('data-still', 'true')
  return pictureNow(page)
}

/** The share of pixels in which two pictures differ clearly. */
function difference(page: Page, a: string, b: string): Promise<number> {
  return page.evaluate(
    async (both) => {
      const [first, second] = await Promise.all(
        both.map(async (data) => {
          const bytes = Uint8Array.from(atob(data), (c) => c.charCodeAt(0))
          const image = await createImageBitmap(new Blob([bytes], { type: 'image/png' }))
          const brush = new OffscreenCanvas(image.width, image.height).getContext('2d')
          brush?.drawImage(image, 0, 0)
          return brush?.getImageData(0, 0, image.width, image.height).data
        }),
      )
      if (!first || !second || first.length !== second.length) return 1
      let count = 0
      for (let i = 0; i < first.length; i += 4) {
        if (Math.abs((first[i] ?? 0) - (second[i] ?? 0)) > 24) count++
      }
      return count / (first.length / 4)
    },
    [a, b],
  )
}

/** How opaque the upper left pixel of a PNG is, from 0 to 255. */
function cornerOf(page: Page, bytes: Buffer): Promise<number> {
  return page.evaluate(async (data) => {
    const raw = Uint8Array.from(atob(data), (c) => c.charCodeAt(0))
    const image = await createImageBitmap(new Blob([raw], { type: 'image/png' }))
    const brush = new OffscreenCanvas(image.width, image.height).getContext('2d')
    brush?.drawImage(image, 0, 0)
    return brush?.getImageData(0, 0, 1, 1).data[3] ?? -1
  }, bytes.toString('base64'))
}

/** Less of a picture than this is noise of drawing. */
const SAME = 0.0008

test('displays, cuts, views and perspective each change the picture @solid', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.openDemo('bearing-housing')
  const solid = page.getByRole('region', { name: 'Solid' })
  await expect(solid.getByLabel('Display')).toBeVisible()
  await page.mouse.move(5, 5)
  const seen = [await picture(page)]
  const changes = async (what: string, act: () => Promise<unknown>): Promise<void> => {
    await act()
    const now = await picture(page)
    for (const other of seen) {
      expect(await difference(page, now, other), what).toBeGreaterThan(SAME)
    }
    seen.push(now)
  }
  for (const display of ['shaded', 'hidden', 'edges', 'glassy', 'studio', 'edged']) {
    if (display === 'edged') await solid.getByLabel('Display').selectOption(display)
    else await changes(display, () => solid.getByLabel('Display').selectOption(display))
  }
  expect(await difference(page, await picture(page), seen[0] ?? '')).toBeLessThan(SAME)
  await shop.board.focus()
  await changes('cut', () => page.keyboard.press('h'))
  await expect(solid).toHaveAttribute('data-cut', 'half')
  await changes('quarter', () => solid.getByRole('button', { name: 'Quarter cut' }).click())
  await changes('across', () => solid.getByRole('button', { name: 'Cut across the axis' }).click())
  await changes('elsewhere', () => solid.getByLabel('Place of the cut').fill('0.2'))
  await changes('beside', () => solid.getByRole('button', { name: 'Cut beside the axis' }).click())
  await changes('aslant', () => solid.getByRole('button', { name: 'Cut aslant' }).click())
  await changes('leaning', () => solid.getByLabel('Lean of the cut').fill('20'))
  await shop.board.focus()
  // What is cut open is seen to turn about the axis, until it is told to stop.
  await page.keyboard.press('o')
  const first = await pictureNow(page)
  await expect
    .poll(async () => difference(page, first, await pictureNow(page)))
    .toBeGreaterThan(SAME)
  await press(page, 'o', 'h')
  await expect(solid).toHaveAttribute('data-cut', 'none')
  await changes('front', () => page.keyboard.press('Alt+2'))
  await changes('perspective', () => page.keyboard.press('k'))
  await changes('end', () => page.keyboard.press('Alt+6'))
  await solid.locator('canvas').focus()
  await changes('turned', () => press(page, 'ArrowLeft', 'ArrowUp'))
  await changes('nearer', () => page.keyboard.press('+'))
})

test('what the pointer is on is told with its size and step, on solid and board alike @solid', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.openDemo('spindle')
  const solid = page.getByRole('region', { name: 'Solid' })
  await expect(solid.getByLabel('Display')).toBeVisible()
  await page.keyboard.press('Alt+2')
  const box = await solid.boundingBox()
  const middle = {
    x: (box?.x ?? 0) + (box?.width ?? 0) / 2,
    y: (box?.y ?? 0) + (box?.height ?? 0) / 2,
  }
  // The pointer rests while the part still turns: it is told what came to lie under it.
  await page.mouse.move(middle.x, middle.y, { steps: 3 })
  await expect(solid).toContainText('cylinder ⌀35 × 44.5, from step 10')
  // The wheel brings what is under the pointer nearer; a press that moves turns the part.
  await page.mouse.wheel(0, -400)
  await page.mouse.down()
  await page.mouse.move(middle.x + 60, middle.y, { steps: 4 })
  await page.mouse.up()
  await shop.openDemo('bearing-housing')
  await shop.moveTo(26, 17.5)
  await expect(shop.board).toContainText('bore ⌀35 × 15.4, from step 20')
})

test('a picture is saved at the size asked for @solid', async ({ page }) => {
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await shop.openDemo('spindle')
  await page.getByRole('button', { name: 'Save a picture' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Width').fill('9')
  await expect(dialog.getByRole('alert')).toContainText('from 16 to 4096')
  await dialog.getByLabel('Width').fill('640')
  await dialog.getByLabel('Height').fill('360')
  const { name, bytes } = await bench.saved(dialog.getByRole('button', { name: 'Save PNG' }))
  expect(name).toBe('Spindle.png')
  expect([bytes.readUInt32BE(16), bytes.readUInt32BE(20)]).toEqual([640, 360])
  await expect(dialog).toHaveCount(0)
  expect(await cornerOf(page, bytes)).toBe(255)
  await page.getByRole('button', { name: 'Save a picture' }).click()
  await dialog.getByRole('switch', { name: 'Background' }).click()
  const bare = await bench.saved(dialog.getByRole('button', { name: 'Save PNG' }))
  expect(await cornerOf(page, bare.bytes)).toBe(0)
})

test('bodies are hidden, seen through and shown alone @solid', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.openDemo('guide-roller')
  await expect(page.getByRole('region', { name: 'Solid' }).getByLabel('Display')).toBeVisible()
  const whole = await picture(page)
  await shop.route.getByRole('button', { name: 'see through ring' }).click()
  const through = await picture(page)
  await shop.route.getByRole('button', { name: 'show roller alone' }).click()
  const alone = await picture(page)
  for (const [a, b] of [
    [whole, through],
    [through, alone],
    [whole, alone],
  ] as const) {
    expect(await difference(page, a, b)).toBeGreaterThan(SAME)
  }
  await shop.route.getByRole('button', { name: 'show roller alone' }).click()
  await shop.route.getByRole('button', { name: 'see through ring' }).click()
  expect(await difference(page, await picture(page), whole)).toBeLessThan(SAME)
})

test('the route is run step by step and plays by itself, saying what each step did @solid', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.openDemo('bearing-housing')
  const status = shop.route.getByRole('status')
  await page.keyboard.press(',')
  await expect(status).toContainText('50 Fillet: R3 on 1 edge. It adds')
  await press(page, ',', ',', ',')
  await expect(status).toContainText('20 Bore: ⌀35 × 20, ⌀24 through. It takes 184.1 g away.')
  await expect(page.getByRole('region', { name: 'Solid' })).toContainText('⌀35 × 20')
  await page.keyboard.press('.')
  await expect(status).toContainText('30 Groove')
  await shop.route.getByRole('button', { name: 'Play the route' }).click()
  await expect(status).toContainText('40 Groove')
  await expect(status).toContainText('60 Chamfer')
  await expect(shop.route.getByRole('button', { name: 'Play the route' })).toBeVisible()
  await shop.route.getByRole('button', { name: /^20 Bore/ }).click()
  await expect(shop.card).toContainText('30 Groove')
  await shop.card.getByRole('button', { name: '60 Chamfer' }).click()
  await expect(shop.card.getByRole('heading')).toContainText('60 Chamfer')
})

test('sizes of what is no full turn stand on board and solid while the route is run @solid', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const solid = page.getByRole('region', { name: 'Solid' })
  await shop.openDemo('setting-knob')
  await expect.poll(() => solid.getAttribute('data-triangles')).not.toBe('0')
  await expect(solid).not.toContainText('M5')
  const before = await shop.board.screenshot()
  await page.keyboard.press(',')
  await page.keyboard.press('.')
  await expect(solid).toContainText('M5')
  expect((await shop.board.screenshot()).equals(before)).toBe(false)
  // Its circle is seen on the solid where it stands round the axis.
  await shop.openDemo('winding-spindle')
  for (const [step, words] of [
    ['Flats', /flats?, [\d.]+ across/],
    ['Keyway', /keyway [\d.]+ × [\d.]+, [\d.]+ deep/],
  ] as const) {
    await shop.route.getByRole('button', { name: new RegExp(step) }).click()
    await expect(solid).toContainText(words)
    await shop.card.getByRole('button', { name: 'Done' }).click()
  }
})

test('without 3D pictures the rest goes on working, and says so @solid', async ({ page }) => {
  await page.addInitScript(() => {
    const original = HTMLCanvasElement.prototype.getContext
    const blind = function (this: HTMLCanvasElement, kind: string, ...rest: unknown[]) {
      if (kind.startsWith('webgl')) return null
      return Reflect.apply(original, this, [kind, ...rest]) as RenderingContext | null
    }
    HTMLCanvasElement.prototype.getContext = blind as typeof original
  })
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await shop.openDemo('spindle')
  await expect(page.getByText('This browser shows no 3D pictures.')).toBeVisible()
  await shop.label('⌀35 k6').click()
  await shop.type('36')
  await expect(shop.label('⌀36')).toBeVisible()
  await bench.open()
  await bench.click(90, 18)
  await expect(bench.figure('diameter')).toHaveText('36 mm')
})

test('lost graphics say so and come back @solid', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.openDemo('spindle')
  const solid = page.getByRole('region', { name: 'Solid' })
  await expect(solid.getByLabel('Display')).toBeVisible()
  await page.mouse.move(5, 5)
  const before = await picture(page)
  await solid.locator('canvas').evaluate((canvas: HTMLCanvasElement) => {
    const extension = canvas.getContext('webgl2')?.getExtension('WEBGL_lose_context')
    Object.assign(window, { back: () => extension?.restoreContext() })
    extension?.loseContext()
  })
  await expect(solid).toContainText('The graphics were lost for a moment.')
  await page.evaluate(() => (window as unknown as { back: () => void }).back())
  await expect(solid).not.toContainText('The graphics were lost')
  expect(await difference(page, await picture(page), before)).toBeLessThan(SAME)
})
