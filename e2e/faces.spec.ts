import { expect, test, type Locator, type Page } from '@playwright/test'
import { Workshop, press } from './support/board'
import {
  FLANGE,
  POCKET,
  cylinder,
  field,
  fill,
  findOn,
  flange,
  grams,
  pocketedFlange,
} from './support/flange'
import { Inspection } from './support/inspection'

const solidPane = (page: Page): Locator => page.getByRole('region', { name: 'Solid' })

/** Turns the solid so, and waits until it stands still. */
async function lookAt(page: Page, view: string): Promise<void> {
  await page.getByRole('group', { name: 'Views' }).getByRole('button', { name: view }).click()
  await expect(solidPane(page)).toHaveAttribute('data-still', 'true')
}

/** Clicks what is told so on the solid. */
async function clickOn(page: Page, words: string): Promise<void> {
  const { x, y } = await findOn(solidPane(page), words)
  await page.mouse.click(x, y)
}

test('the floor of a pocket is drilled where it is clicked @solid', async ({ page }) => {
  test.slow()
  const shop = new Workshop(page)
  await pocketedFlange(shop, 'Flange with a pocket')

  await press(page, 'Escape', '5', 'w')
  await lookAt(page, 'right end')
  await clickOn(page, 'plane face, from step 20')
  await expect(shop.card).toContainText('30 Holes')
  await expect(shop.card).toContainText('plane face, from step 20')
  await expect(shop.route).toContainText('in plane face, from step 20')
  // The pocket is seen from the right: its middle is 8 over the axis and 21 to the left.
  await fill(shop, 'On', String(2 * Math.hypot(21, 8)))
  const angle = Number(await field(shop, 'At angle').inputValue())
  expect(Math.abs(angle - (Math.atan2(21, 8) * 180) / Math.PI)).toBeLessThan(20)
  await fill(shop, 'At angle', String((Math.atan2(21, 8) * 180) / Math.PI))
  await fill(shop, 'Diameter', '3')
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - POCKET - cylinder(3, 6)))
  // With a depth it ends in a cone of 118°, which begins there.
  await field(shop, 'Goes').selectOption({ label: 'to a depth' })
  await fill(shop, 'Depth', '2')
  await field(shop, 'Tip').selectOption({ label: 'flat' })
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - POCKET - cylinder(3, 2)))
  await page.reload()
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - POCKET - cylinder(3, 2)))
  await page.keyboard.press('Control+z')
  await shop.ready()

  // Without the pocket the face is gone: the holes say so, and come back with it.
  await shop.route.getByRole('button', { name: /20 Extrude cut/ }).click()
  await shop.card.getByRole('switch', { name: 'Set aside' }).click()
  await expect(shop.route).toContainText('The face of these holes is no longer there')
  await page.keyboard.press('Control+z')
  await expect(shop.route).toContainText('in plane face, from step 20')
})

test('an end sketch is tied to a pocket of a body that was turned, and follows it', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await pocketedFlange(shop, 'Turned flange')
  await shop.route.getByRole('button', { name: 'Body: body 1' }).click()
  await shop.card.getByRole('button', { name: 'Move or copy' }).click()
  await expect(shop.card).toContainText('30 Move body')
  await fill(shop, 'Turned by', '30')
  await fill(shop, 'Along by', '0')
  await shop.card.getByRole('button', { name: 'Done' }).click()
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - POCKET))

  await shop.board.getByRole('button', { name: 'profile A' }).click()
  await press(page, 'Escape', '5', 'c')
  await shop.click(10, 22)
  await expect(shop.board.getByRole('img', { name: 'seen from the right' })).toBeVisible()
  await press(page, '1', 'f')
  const corner = (degrees: number): [number, number] => {
    const t = (degrees * Math.PI) / 180
    return [-16 * Math.cos(t) - 4 * Math.sin(t), -16 * Math.sin(t) + 4 * Math.cos(t)]
  }
  // A little beside it, so that it is the corner that takes the point.
  const [x, y] = corner(30)
  await shop.moveTo(x + 0.4, y + 0.3)
  await expect(shop.board).toContainText('corner of the part')
  await shop.click(x + 0.4, y + 0.3)
  await press(page, 'Escape')
  await expect(shop.figure('freedoms')).toHaveText('in ink')
  const pointAt = async (): Promise<readonly number[]> => {
    await shop.saved()
    const { sketches } = await shop.document()
    const point = sketches.at(-1)?.points.at(-1)
    return [point?.x ?? 0, point?.y ?? 0]
  }
  const isAt = async (degrees: number): Promise<boolean> => {
    const [px = 0, py = 0] = await pointAt()
    const [cx, cy] = corner(degrees)
    // The pocket itself stands where the pointer drew it.
    return Math.hypot(px - cx, py - cy) < 0.02
  }
  await expect.poll(() => isAt(30)).toBe(true)
  await shop.route.getByRole('button', { name: /30 Move body/ }).click()
  await fill(shop, 'Turned by', '75')
  await expect.poll(() => isAt(75)).toBe(true)
  await page.keyboard.press('Control+z')
  await expect.poll(() => isAt(30)).toBe(true)
})

test('a half-section is drawn out up to a flat that is clicked @solid', async ({ page }) => {
  const shop = new Workshop(page)
  await flange(shop, 'Hub with a nose')
  await press(page, '5', 'r')
  await fill(shop, 'Number', '1')
  await field(shop, 'Told').selectOption({ label: 'by depth' })
  await fill(shop, 'Depth', '3')
  await fill(shop, 'At angle', '90')
  await fill(shop, 'Length', '12')
  const segment = 100 * Math.acos(0.7) - 7 * Math.sqrt(51)
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 12 * segment))
  await shop.card.getByRole('button', { name: 'Done' }).click()

  // What stands out before the hub, from the half-section to the level of the flat.
  await press(page, '4', 't', 'Escape')
  await shop.rectangle([38, 2], [46, 6], ['8', '4'])
  await press(page, '5', 'd')
  await expect(shop.card).toContainText('30 Extrude')
  await field(shop, 'Goes').selectOption({ label: 'up to a face' })
  await expect(shop.card.getByRole('alert').first()).toContainText('missing')
  await shop.card.getByRole('button', { name: 'pick', exact: true }).click()
  await clickOn(page, 'flat, from step 20')
  await expect(shop.card).toContainText('flat, from step 20')
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 12 * segment + 6 * 4 * 7))
  // The flat goes deeper, and what goes up to it with it.
  await shop.route.getByRole('button', { name: /20 Flats/ }).click()
  await fill(shop, 'Depth', '5')
  await shop.card.getByRole('button', { name: 'Done' }).click()
  const deeper = 100 * Math.acos(0.5) - 5 * Math.sqrt(75)
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 12 * deeper + 6 * 4 * 5))
  // A face square to the axis is no end for it.
  await shop.route.getByRole('button', { name: /30 Extrude/ }).click()
  await shop.card.getByRole('button', { name: 'pick another' }).click()
  await shop.click(10, 22)
  await expect(shop.card.getByRole('alert').first()).toContainText('lies level')
  await press(page, 'Escape')
  await shop.route.getByRole('button', { name: /30 Extrude/ }).click()
  await expect(shop.card).toContainText('flat, from step 20')
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - 12 * deeper + 6 * 4 * 5))
})

test('a body that came in a file is drilled in a face of its own @solid', async ({ page }) => {
  test.slow()
  const shop = new Workshop(page)
  const bench = new Inspection(page)
  await shop.openDemo('guide-segment')
  await page.getByRole('link', { name: 'Dispatch' }).click()
  const file = page.getByRole('region', { name: 'STEP, ISO 10303' })
  const { bytes } = await bench.saved(file.getByRole('button', { name: 'Download' }))
  await page.goto('/')
  await shop.newPart('Drilled guide')
  const files = await page.evaluateHandle((text) => {
    const transfer = new DataTransfer()
    transfer.items.add(new File([text], 'guide.step'))
    return transfer
  }, bytes.toString('utf8'))
  await solidPane(page).dispatchEvent('dragover', { dataTransfer: files })
  await solidPane(page).dispatchEvent('drop', { dataTransfer: files })
  await expect(shop.route).toContainText('From a file')
  const mass = shop.figure('mass')
  const inGrams = async (): Promise<number> => Number.parseFloat((await mass.textContent()) ?? '')
  await expect(mass).toHaveText(/^\d.* g$/)
  const whole = await inGrams()
  // It is told as a ring on the half-section, clear of the axis, and no hint lies over it.
  await expect(shop.board.getByText('Draw half of the section')).toHaveCount(0)
  await shop.moveTo(9, 50)
  await expect(shop.board).toContainText('bore ⌀100')

  // A face that is not square to the axis is refused, and one can go on clicking.
  await press(page, '5', 'w')
  await lookAt(page, 'from the front')
  await clickOn(page, 'face')
  await expect(page.getByText('does not lie square to the axis')).toBeVisible()
  await lookAt(page, 'right end')
  await clickOn(page, 'face')
  await expect(shop.card).toContainText('20 Holes')
  await expect(shop.card).toContainText(/face \d+, from step 10/)
  await fill(shop, 'On', '116')
  await fill(shop, 'At angle', '0')
  await fill(shop, 'Diameter', '8')
  await field(shop, 'Goes').selectOption({ label: 'to a depth' })
  await fill(shop, 'Depth', '3')
  await field(shop, 'Tip').selectOption({ label: 'flat' })
  // The figure is told to a tenth of a gram.
  const isDrilled = async (): Promise<boolean> =>
    Math.abs(whole - cylinder(8, 3) * 7.85e-3 - (await inGrams())) < 0.11
  await expect.poll(isDrilled).toBe(true)
})
