import { expect, test, type Page } from '@playwright/test'
import { Workshop, press, search } from './support/board'

test('a bottle is reshaped after its shell and the ridges of its neck are made @solid', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Bottle for spirit')
  await shop.chain([
    [0, 0],
    [0, 30],
    [60, 30],
  ])
  await press(page, 'Escape', '1', 'd')
  for (const [x, y] of [
    [60, 30],
    [76, 27],
    [92, 16],
    [104, 12],
  ] as const) {
    await shop.click(x, y)
  }
  await press(page, 'Enter', 'Escape')
  await shop.chain([
    [104, 12],
    [126, 12],
    [126, 0],
  ])
  await press(page, 'Escape', 'Escape', 'q', '4', 'r')
  await press(page, 'Enter', 'Escape')
  const mass = shop.figure('mass')
  await expect(mass).toHaveText(/kg/)
  await press(page, '4', 's')
  await shop.click(126, 6)
  await page.keyboard.type('2')
  await press(page, 'Enter', 'Enter')
  await expect(mass).toHaveText(/ g$/)
  await search(page, 'ridges')
  await shop.click(115, 12)
  await expect(shop.card).toContainText('30 Ridges')
  await page.getByLabel('Shape').selectOption('vee')
  await page.getByLabel('Height').fill('0.8')
  await press(page, 'Enter', 'Enter')
  await expect(shop.route).toContainText('vee, 0.8 high, on cylinder ⌀24')
  const before = await mass.textContent()

  // The shoulder is pulled out, the neck made longer and wider: wall and ridges follow.
  await shop.click(92, 16)
  const diameter = page.getByLabel('Diameter')
  await expect(diameter).toHaveValue('32')
  await diameter.fill('44')
  await press(page, 'Enter')
  await expect(mass).not.toHaveText(before ?? '')
  await press(page, 'Escape', 'Escape')
  const shoulder = await mass.textContent()
  await shop.click(104, 12)
  await shop.clickWith('Shift', 126, 12)
  await expect(shop.card).toContainText('2 picked')
  await diameter.fill('28')
  await press(page, 'Enter')
  await expect(shop.route).toContainText('on cylinder ⌀28')
  await expect(mass).not.toHaveText(shoulder ?? '')
  await expect(page.getByText('△')).toHaveCount(0)
  const widened = await mass.textContent()
  // Back and forth, and as it was left after a reload.
  await press(page, 'Control+z')
  await expect(mass).toHaveText(shoulder ?? '')
  await press(page, 'Control+Shift+z')
  await expect(mass).toHaveText(widened ?? '')
  await shop.saved()
  await page.reload()
  await shop.ready()
  await expect(mass).toHaveText(widened ?? '')
})

/** Goes down the solid until the words at the pointer tell both, and clicks there. */
async function clickEdgeOf(page: Page, x: number, [one, two]: readonly [RegExp, RegExp]) {
  const box = await page.getByRole('region', { name: 'Solid' }).boundingBox()
  if (!box) throw new Error('the solid has a pane')
  for (let share = 0.2; share < 0.8; share += 0.006) {
    await page.mouse.move(box.x + x * box.width, box.y + share * box.height)
    // Two frames: the pointer is looked up in the first, its words stand in the next.
    await page.evaluate(
      () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))),
    )
    const words = (await page.locator('.words').allInnerTexts()).join()
    if (!/edge/.test(words) || !one.test(words) || !two.test(words)) continue
    await page.mouse.down()
    await page.mouse.up()
    return
  }
  throw new Error('no such edge was found')
}

test('a mug whose handle is swept along a free curve lands in the wall and is rounded there @solid', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Mug for the gauge keeper')
  await shop.chain([
    [0, 0],
    [0, 38],
    [90, 38],
    [90, 0],
    [0, 0],
  ])
  await press(page, 'Escape', 'Escape', 'q', '4', 'r')
  await press(page, 'Enter', 'Escape')
  await press(page, '4', 's')
  await shop.click(90, 20)
  await page.keyboard.type('4')
  await press(page, 'Enter', 'Enter', 'Escape')
  await search(page, 'new profile')
  await shop.moveTo(45, 0)
  await page.mouse.wheel(0, 240)
  await press(page, '1', 'd')
  for (const [x, y] of [
    [74, 38],
    [72, 62],
    [45, 72],
    [22, 60],
    [16, 38],
  ] as const) {
    await shop.click(x, y)
  }
  await press(page, 'Enter', 'Escape', 'Escape')
  await expect(page.getByText('Not made yet: open, and shown as a skin.')).toBeVisible()
  await search(page, 'sweep')
  await expect(shop.card).toContainText('30 Sweep')
  // Too thick for its bends it is refused; a thinner one goes, and lands in the wall.
  await page.keyboard.type('60')
  await press(page, 'Enter')
  await expect(shop.card).toContainText('too tight')
  await page.getByLabel('Diameter').fill('9')
  await press(page, 'Enter', 'Enter')
  const sweep = shop.route.getByRole('button', { name: /Sweep/ })
  await expect(sweep).toContainText(/\+5\d(\.\d+)? g/)
  await press(page, 'Escape', '4', 'a')
  await expect(page.getByText('Click an edge to round it; Esc leaves.')).toBeVisible()
  await clickEdgeOf(page, 0.427, [/cylinder ⌀76/, /rod, from step 30/])
  await expect(shop.card).toContainText('edge of cylinder ⌀76 and rod, from step 30')
  await page.keyboard.type('2')
  await press(page, 'Enter', 'Enter')
  const fillet = shop.route.getByRole('button', { name: /Fillet/ })
  await expect(fillet).toContainText(/\+0\.\d+ g/)
  await expect(fillet).toContainText('R2 on 1 edge')
  // The handle is pulled out: the rounding stays where it lands.
  await shop.route.getByRole('button', { name: /Sweep/ }).click()
  await press(page, 'Escape')
  const longer = await sweep.textContent()
  await shop.click(45, 72)
  await press(page, 'Control+ArrowUp', 'Control+ArrowUp')
  await expect(sweep).not.toHaveText(longer ?? '')
  await expect(fillet).toContainText(/\+0\.\d+ g/)
  await press(page, 'Control+z', 'Control+z')
  await expect(sweep).toHaveText(longer ?? '')
})
