import { expect, test } from '@playwright/test'
import { Workshop, press, search } from './support/board'

async function pickAll(
  shop: Workshop,
  places: readonly (readonly [number, number])[],
): Promise<void> {
  for (const [i, [x, y]] of places.entries()) {
    if (i === 0) await shop.click(x, y)
    else await shop.clickWith('Shift', x, y)
  }
}

test('a vase from nothing: belly, wall beside it with fewer points, floor, rim, glass @solid', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Vase for the gauge house')
  const solid = page.getByRole('region', { name: 'Solid' })
  const said = solid.getByRole('status')
  await shop.chain([
    [0, 0],
    [0, 22],
    [6, 22],
  ])
  await press(page, 'Escape', '1', 'd')
  for (const [x, y] of [
    [6, 22],
    [22, 36],
    [44, 37],
    [66, 24],
    [84, 14],
    [98, 20],
  ] as const) {
    await shop.click(x, y)
  }
  await press(page, 'Enter', 'Escape', 'q')
  await expect(said).toHaveText('Not made yet: open, and shown as a skin.')

  // Points are pushed by keys, and by hand; what is wrong is taken back.
  await shop.click(44, 37)
  const diameter = page.getByLabel('Diameter')
  await expect(diameter).toHaveValue('74')
  await press(page, 'Control+ArrowUp', 'Control+ArrowUp')
  await expect(diameter).toHaveValue('78')
  await press(page, 'Control+Shift+ArrowDown')
  await expect(diameter).toHaveValue('77.8')
  await press(page, 'Control+z', 'Control+z', 'Control+z')
  await expect(diameter).toHaveValue('74')
  await press(page, 'Escape')

  // A wall beside all of it: too thick to go, then as thick as it should be, with fewer points than the belly has.
  await press(page, 'Control+a', '2', 'f')
  await shop.moveTo(44, 33)
  const departs = page.locator('.words')
  await expect(departs).toHaveText(/^departs by [\d.]+ mm at most$/)
  await page.keyboard.type('60')
  await press(page, 'Enter')
  await expect(page.getByRole('alert')).toContainText('bends to that side with a radius of')
  await page.getByLabel('distance').fill('3')
  await press(page, 'Tab')
  const points = page.getByLabel('points', { exact: true })
  const told = page.locator('form.entry').getByRole('status')
  await press(page, 'ArrowDown')
  await expect(points).toHaveValue('5')
  const five = Number((await told.textContent())?.match(/[\d.]+/)?.[0])
  await press(page, 'ArrowUp', 'ArrowUp')
  await expect(points).toHaveValue('7')
  await expect(told).not.toContainText(String(five))
  const seven = Number((await told.textContent())?.match(/[\d.]+/)?.[0])
  expect(seven).toBeLessThan(five)
  await press(page, 'ArrowDown', 'ArrowDown', 'Enter', 'Escape')

  // The rim: of a half circle, and not flat.
  await search(page, 'bridge')
  await shop.click(98, 20)
  await press(page, 'Escape')
  await shop.click(98, 20)
  await shop.click(100.2, 17.8)
  await press(page, 'Tab', 'Tab', 'Tab')
  await expect(page.getByText('A straight line; Tab for another')).toBeVisible()
  await press(page, 'Tab', 'Tab', 'Tab', 'Enter', 'Escape')
  await expect(said).toHaveText(/^Not made yet: it would be [\d.]+ g of steel C45/)
  const before = Number((await said.textContent())?.match(/[\d.]+ g/)?.[0].replace(' g', ''))

  // The floor is made thicker: its points are flattened onto one place. What holds them is said, and let go.
  const [sketch] = (await shop.document()).sketches
  const corner = sketch?.points.find((p) => p.x > 4 && p.x < 12 && Math.abs(p.y - 19) < 0.01)
  const floor = [
    [3, 0],
    [3, 19],
    [corner?.x ?? 0, 19],
  ] as const
  await pickAll(shop, floor)
  await expect(shop.card).toContainText('3 picked')
  const flatten = page.getByRole('group', { name: 'Flatten' })
  await flatten.getByRole('button', { name: 'place' }).click()
  await expect(page.getByText(/cannot stand there: it is held by .*gap1 = 3/)).toBeVisible()
  await press(page, 'Escape')
  await shop.click(3, 8)
  await shop.card.getByRole('button', { name: /^Delete .*gap1/ }).click()
  await press(page, 'Escape')
  await pickAll(shop, floor)
  await flatten.getByRole('button', { name: 'place' }).click()
  await expect(page.getByLabel('From datum')).not.toHaveValue('')
  const flat = Number(await page.getByLabel('From datum').inputValue())
  expect(flat).toBeGreaterThan(3)
  await press(page, 'Escape')
  const weighs = async (): Promise<number> =>
    Number((await said.textContent())?.match(/([\d.]+) g/)?.[1])
  await expect.poll(weighs).not.toBe(before)

  // Turned, of glass, looked at in the studio; all of it comes back.
  await press(page, '4', 'r')
  await shop.card.getByRole('button', { name: 'Done' }).click()
  await page.getByLabel('Material').selectOption({ label: 'soda-lime glass' })
  await page.getByLabel('Display').selectOption('studio')
  const mass = shop.figure('mass')
  await expect(mass).toHaveText(/^[\d.]+ g/)
  const full = await mass.textContent()
  await page.reload()
  await shop.ready()
  await expect(mass).toHaveText(full ?? '')
})

test('the shape of an outline is checked, and what is found is mended', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Lamp foot')
  await shop.chain([
    [0, 0],
    [0, 30],
    [6, 30],
  ])
  await press(page, 'Escape', '1', 'd', 'Tab')
  for (const [x, y] of [
    [6, 30],
    [20, 34],
    [40, 20],
    [70, 10],
    [90, 22],
  ] as const) {
    await shop.click(x, y)
  }
  await press(page, 'Enter', 'Escape', 'a')
  await shop.click(90, 22)
  await shop.click(90, 0)
  await press(page, 'Escape', 'Escape', 'q', 'u')
  const check = page.getByRole('region', { name: 'Shape check' })
  await expect(check).toContainText('Inflections')
  await expect(check).toContainText('a corner of')
  await check.getByRole('button', { name: 'Go on smoothly' }).first().click()
  await expect(check).toContainText('a jump of curvature')
  await check.getByRole('button', { name: 'Smooth in curvature' }).first().click()
  await expect(check).not.toContainText('a jump of curvature')
  await expect(check).not.toContainText('a corner of')
  await press(page, 'Control+z')
  await expect(check).toContainText('a jump of curvature')
  await press(page, 'Control+Shift+z', 'u')
  await expect(check).toContainText('Thinnest')
  await press(page, 'u')
  await expect(check).toContainText('Undercuts')
  // Drawn from its least place all along, the neck is held back; a parting that is none is refused.
  const parting = page.getByLabel('Parting at')
  await parting.fill('here')
  await parting.press('Enter')
  await expect(check.getByRole('alert')).toBeVisible()
  await parting.fill('0')
  await parting.press('Enter')
  await expect(check.getByRole('alert')).toHaveCount(0)
  await expect(check.getByText(/mm of outline/).first()).toBeVisible()
  await press(page, 'Escape')
  await page.getByRole('combobox', { name: 'Shape check' }).selectOption('off')
  await expect(check).toHaveCount(0)
})

test('a picture is laid behind the board, on the axis and to its true size, and comes back', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Vase after a photograph')
  const choose = async (name: string, mimeType: string, buffer: Buffer): Promise<void> => {
    const chooser = page.waitForEvent('filechooser')
    await search(page, 'picture behind')
    await (await chooser).setFiles({ name, mimeType, buffer })
  }
  // What is no picture, or only says so, is refused.
  await choose('notes.txt', 'text/plain', Buffer.from('a vase'))
  await expect(page.getByText('notes.txt: this is no picture.')).toBeVisible()
  await choose('broken.png', 'image/png', Buffer.from('a vase'))
  await expect(page.getByText('broken.png: this picture cannot be read.')).toBeVisible()
  const photograph = await page.evaluate(() => {
    const canvas = document.createElement('canvas')
    Object.assign(canvas, { width: 600, height: 400 })
    const ctx = canvas.getContext('2d')
    if (ctx) {
      ctx.fillStyle = '#357'
      ctx.fillRect(0, 0, 600, 400)
    }
    return canvas.toDataURL('image/png').split(',')[1] ?? ''
  })
  await choose('vase.png', 'image/png', Buffer.from(photograph, 'base64'))
  await expect(page.getByText('Click a place on the axis of what is pictured')).toBeVisible()
  // Its axis is a slanted line in the picture; the part's own becomes that.
  await shop.click(10, -4)
  await shop.click(110, 6)
  await expect(page.getByText('whose distance from another you know')).toBeVisible()
  const before = (await shop.document()).picture
  expect(Math.atan2(before?.across.y ?? 0, before?.across.x ?? 1)).toBeCloseTo(
    -Math.atan2(10, 100),
    2,
  )
  await shop.click(10, 0)
  await shop.click(60, 0)
  const distance = page.getByLabel('distance')
  await distance.fill('0')
  await press(page, 'Enter')
  await expect(page.getByRole('alert')).toContainText('greater than zero')
  await distance.fill('150')
  await press(page, 'Enter')
  const card = page.getByRole('region', { name: 'Picture to draw after' })
  await expect(card).toBeVisible()
  const after = (await shop.document()).picture
  expect((after?.across.x ?? 0) / (before?.across.x ?? 1)).toBeCloseTo(3, 1)
  // It is hidden by a key, and all of it is undone.
  await press(page, 'Alt+b')
  await expect(card.getByRole('switch')).not.toBeChecked()
  await press(page, 'Control+z', 'Control+z')
  expect((await shop.document()).picture?.across.x).toBeCloseTo(before?.across.x ?? 0, 9)
  await page.reload()
  await shop.ready()
  await expect(card).toBeVisible()
  await card.getByRole('button', { name: 'Remove' }).click()
  await expect(card).toHaveCount(0)
})

test('a ridged pot: waves along a free curve, fading, hollowed after; everything follows', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Ridged pot')
  await shop.chain([
    [0, 0],
    [0, 25],
  ])
  await press(page, 'Tab', 'Tab', 'Tab')
  for (const [x, y] of [
    [22, 40],
    [50, 38],
    [80, 26],
  ] as const) {
    await shop.click(x, y)
  }
  await press(page, 'Tab')
  await shop.click(80, 0)
  await press(page, 'Escape', 'q', '4', 'r')
  const mass = shop.figure('mass')
  await expect(mass).toHaveText(/kg$/)
  const plain = await mass.textContent()
  await press(page, 'Escape', 'Escape')
  await search(page, 'corrugation')
  await shop.click(40, 40.3)
  await expect(shop.card).toContainText('20 Ridges')
  await expect(mass).not.toHaveText(plain ?? '')
  // Round ones as high as that are refused with what goes; waves take it.
  const height = page.getByLabel('Height')
  await page.getByLabel('Shape').selectOption('round')
  await height.fill('9')
  await press(page, 'Enter')
  await expect(shop.card).toContainText('more than half circles')
  await page.getByLabel('Shape').selectOption('wave')
  await height.fill('2')
  await press(page, 'Enter')
  await page.getByLabel('Number').fill('20')
  await press(page, 'Enter')
  await page.getByLabel('Fade over').fill('20')
  // Enter takes it, and once more closes the card.
  await press(page, 'Enter', 'Enter')
  await expect(shop.card).not.toContainText('20 Ridges')
  await expect(shop.route).toContainText('20 × wave, 2 high')
  const ridged = await mass.textContent()
  // A digit after the faces of a shell are picked is its thickness.
  await press(page, '4', 's')
  await shop.click(80, 12)
  await page.keyboard.type('3')
  await expect(page.getByLabel('Thickness', { exact: true })).toHaveValue('3')
  await press(page, 'Enter', 'Enter')
  await expect(shop.route).toContainText('3 inwards')
  await expect(mass).not.toHaveText(ridged ?? '')
  const hollow = await mass.textContent()
  // The belly is pushed: ridges and wall follow.
  await shop.click(22, 40)
  await press(page, 'Control+ArrowUp')
  await expect(mass).not.toHaveText(hollow ?? '')
  await expect(page.getByText('fails')).toHaveCount(0)
  await press(page, 'Control+z')
  await expect(mass).toHaveText(hollow ?? '')
  await page.reload()
  await shop.ready()
  await expect(mass).toHaveText(hollow ?? '')
})
