import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'
import { findOn } from './support/flange'

const grams = (volume: number): string => `${(volume * 7.85e-3).toPrecision(4)} g`
const cylinder = (d: number, l: number): number => (Math.PI / 4) * d * d * l
const PIN_VOLUME = cylinder(20, 30) + cylinder(40, 50)

/** A pin with its sizes, turned. */
async function pin(shop: Workshop, name: string): Promise<void> {
  const { page } = shop
  await shop.newPart(name)
  await press(page, 'g')
  await expect(page.getByLabel('diameter, length')).toBeFocused()
  await page.keyboard.type('20, 30; 40, 50')
  await press(page, 'Enter', 'Enter')
  await expect(shop.figure('freedoms')).toHaveText('in ink')
  await shop.revolve()
  await expect(shop.figure('mass')).toHaveText(grams(PIN_VOLUME))
  await press(page, 'Escape', ' ')
}

const field = (shop: Workshop, label: string) => shop.card.getByLabel(label, { exact: true })

test('a groove is placed by clicking a cylinder and moved by its distance from a shoulder', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await pin(shop, 'Grooved pin')
  await press(page, '4', 'f')
  await expect(page.getByText('Click the cylinder, cone or face')).toBeVisible()
  await shop.moveTo(55, 20)
  await expect(shop.board).toContainText('cylinder ⌀40')
  await shop.click(55, 20)
  await expect(shop.card).toContainText('20 Groove')
  // The first field takes the focus: what is typed is seen before it is taken.
  await page.keyboard.type('4')
  await press(page, 'Tab')
  await page.keyboard.type('3')
  const cut = cylinder(40, 4) - cylinder(34, 4)
  await expect(shop.figure('mass')).toHaveText(grams(PIN_VOLUME - cut))
  await press(page, 'Enter')
  await expect(shop.route).toContainText('4, 3 deep, in cylinder ⌀40')
  // From the shoulder, picked on the board.
  await field(shop, 'From').selectOption('a picked face')
  await shop.card.getByRole('button', { name: 'pick', exact: true }).first().click()
  await shop.click(30, 15)
  await field(shop, 'Distance').fill('10')
  await press(page, 'Enter')
  const place = async (): Promise<unknown> => (await shop.document()).route[1]
  await expect.poll(place).toMatchObject({ place: { to: 'near', distance: '10' } })
  // Off the end it is refused, with what was typed left to be mended.
  await field(shop, 'Distance').fill('48')
  await press(page, 'Enter')
  await expect(shop.card.getByRole('alert').first()).toContainText('runs off the end')
  await press(page, 'Escape')
  await expect(field(shop, 'Distance')).toHaveValue('10')
  await field(shop, 'Number').fill('3')
  await press(page, 'Enter')
  await expect(shop.figure('mass')).toHaveText(grams(PIN_VOLUME - 3 * cut))
  // Undo takes one edit after another back, to the pin without a groove.
  await press(page, 'Escape')
  for (let i = 0; i < 6; i++) await press(page, 'Control+z')
  await expect(shop.route.locator('.row')).toHaveCount(1)
})

test('a shell comes after a fillet; swapped in the route the two differ', async ({ page }) => {
  const shop = new Workshop(page)
  await pin(shop, 'Ink pot')
  await press(page, '4', 'a')
  await shop.click(80, 20)
  await expect(shop.card).toContainText('20 Fillet')
  await field(shop, 'Radius').fill('6')
  await press(page, 'Enter')
  await expect(shop.card).toContainText('edge ⌀40 at 80')
  await shop.card.getByRole('button', { name: 'Done' }).click()
  await press(page, '4', 's')
  await shop.click(0, 5)
  await expect(shop.card).toContainText('face at 0')
  await field(shop, 'Thickness').fill('3')
  await press(page, 'Enter')
  await expect(shop.route).toContainText('3 inwards, open at face at 0')
  const filletFirst = await shop.figure('mass').textContent()
  // The shell is moved before the fillet by the keyboard.
  await shop.card.getByRole('heading').click()
  await page.getByRole('region', { name: 'Board' }).focus()
  await press(page, 'Alt+ArrowUp')
  await expect(shop.route.locator('.row').nth(1)).toContainText('Shell')
  await press(page, 'Escape', 'Escape')
  await expect(shop.figure('mass')).not.toHaveText(filletFirst ?? '')
  await press(page, 'Control+z')
  await expect(shop.figure('mass')).toHaveText(filletFirst ?? '')
  await page.reload()
  await shop.ready()
  await expect(shop.route.locator('.row').nth(1)).toContainText('Fillet')
  await expect(shop.figure('mass')).toHaveText(filletFirst ?? '')
})

test('a step is changed from cut to add and back, and follows its profile', async ({ page }) => {
  const shop = new Workshop(page)
  await pin(shop, 'Notched pin')
  await press(page, '4', 't', '1', 'r')
  await page.keyboard.down('Shift')
  await shop.click(50, 15)
  await shop.click(60, 25)
  await page.keyboard.up('Shift')
  await press(page, 'Escape', 'q', '4', 'e')
  await expect(shop.route.locator('.row').nth(1)).toContainText('Revolve cut')
  await expect(shop.route.locator('.row').nth(1)).toContainText('−')
  const cut = await shop.figure('mass').textContent()
  await field(shop, 'Effect').selectOption('adds')
  await expect(shop.route.locator('.row').nth(1)).toContainText('+')
  await field(shop, 'Effect').selectOption('cuts')
  await expect(shop.figure('mass')).toHaveText(cut ?? '')
  await field(shop, 'Effect').selectOption('keeps what is common')
  await expect(shop.route.locator('.row').nth(1)).toContainText('common part')
  await field(shop, 'Body').selectOption('a new body')
  await expect(shop.route).toContainText('body 2')
})

test('a radius too large says what fits; a lost edge is picked again', async ({ page }) => {
  const shop = new Workshop(page)
  await pin(shop, 'Rounded pin')
  await press(page, '4', 'a')
  await shop.click(30, 10)
  await expect(shop.card).toContainText('inside edge ⌀20 at 30')
  await field(shop, 'Radius').fill('12')
  await press(page, 'Enter')
  await expect(shop.card.getByRole('alert').first()).toContainText('The largest that fits is 10 mm')
  await press(page, 'Escape')
  await field(shop, 'Radius').fill('0')
  await press(page, 'Enter')
  await expect(shop.card.getByRole('alert').first()).toContainText('greater than zero')
  await press(page, 'Escape')
  // The step that the edge stands on goes; what lost it keeps its place and says so.
  await shop.route.locator('.row').first().click()
  await shop.card.getByRole('button', { name: 'Delete step' }).click()
  await expect(shop.route).toContainText('has no material at this step')
  await press(page, 'Control+z')
  await expect(shop.route).not.toContainText('has no material')
})

test('the route is run as far as the bar says, and new steps go in there', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.openDemo('bearing-housing')
  const bar = page.getByRole('slider', { name: 'Route is run to' })
  await bar.focus()
  const whole = await shop.figure('mass').textContent()
  for (let i = 0; i < 5; i++) await press(page, 'ArrowUp')
  await expect(bar).toHaveAttribute('aria-valuetext', 'step 10')
  await expect(shop.figure('mass')).toHaveText('616.4 g')
  await shop.board.focus()
  await press(page, '4', 'g')
  await expect(shop.card).toContainText('15 Bore')
  await press(page, 'Control+z')
  await shop.route.getByRole('button', { name: 'run all' }).click()
  await expect(shop.figure('mass')).toHaveText(whole ?? '')
  // A row is dragged above another one.
  await shop.route
    .locator('.row')
    .nth(4)
    .dragTo(shop.route.locator('.row').nth(2), {
      targetPosition: { x: 60, y: 4 },
    })
  await expect(shop.route.locator('.row').nth(2)).toContainText('Fillet')
  await expect(shop.figure('mass')).toHaveText(whole ?? '')
})

test('a chain becomes a wall, and a second body is shown, hidden, named and locked', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Float tube')
  await shop.line([0, 20], [50, 20])
  await press(page, 'q', '4', 'w')
  await expect(shop.card).toContainText('Wall')
  await field(shop, 'Thickness').fill('2')
  await press(page, 'Enter')
  const { solid } = { solid: await shop.figure('size').textContent() }
  expect(solid).toContain('⌀44')
  await field(shop, 'Lies').selectOption('inside')
  await expect(shop.figure('size')).toContainText('⌀40')
  await shop.route.getByRole('button', { name: 'Body: body 1' }).click()
  await field(shop, 'Name').fill('tube')
  await press(page, 'Enter')
  await expect(shop.route).toContainText('tube')
  await shop.card.getByRole('switch', { name: 'Locked' }).click()
  await shop.route.locator('.row').first().click()
  await shop.card.getByRole('button', { name: 'Delete step' }).click()
  await expect(page.getByText('tube is locked.')).toBeVisible()
  await expect(shop.route.locator('.row')).toHaveCount(1)
})

test('edges are picked on the solid as well, and light up on the board @solid', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await pin(shop, 'Solid pick')
  await press(page, '4', 'f')
  const solid = page.getByRole('region', { name: 'Solid' })
  const box = await solid.boundingBox()
  if (!box) throw new Error('no solid pane')
  // The part lies across the pane, its thick end to the right of the middle.
  await page.mouse.click(box.x + box.width * 0.56, box.y + box.height * 0.5)
  await expect(shop.card).toContainText('Groove')
  await expect(shop.route).toContainText(/in (cylinder|face)/)
})

test('of two regions one is turned, chosen by a click; the body is mirrored about its face', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Rings')
  await page.keyboard.down('Shift')
  for (const [from, to] of [
    [20, 30],
    [40, 60],
  ] as const) {
    await press(page, '1', 'r')
    await shop.click(from, 10)
    await shop.click(to, 20)
    await press(page, 'Escape')
  }
  await page.keyboard.up('Shift')
  await press(page, 'q')
  await shop.revolve()
  await expect(shop.card).toContainText('2 of 2')
  const both = await shop.figure('mass').textContent()
  await shop.card.getByRole('button', { name: 'pick', exact: true }).click()
  await shop.moveTo(50, 15)
  await expect(shop.board).toContainText('region 2')
  await shop.click(50, 15)
  await expect(shop.card).toContainText('1 of 2')
  await expect(shop.figure('mass')).not.toHaveText(both ?? '')
  await press(page, 'Enter')
  await shop.card.getByRole('button', { name: 'Done' }).click()
  const one = Number.parseFloat((await shop.figure('mass').textContent()) ?? '')
  await press(page, '4', 'z')
  await expect(shop.card).toContainText('Mirror')
  await shop.card.getByRole('button', { name: 'pick', exact: true }).click()
  await shop.click(30, 15)
  await expect(shop.card).toContainText('face at 30')
  await expect(shop.figure('mass')).toHaveText(new RegExp(`^${(2 * one).toPrecision(3)}`))
  await press(page, '4', 'x')
  await expect(shop.card).toContainText('Repeat')
  await shop.card.getByLabel('Pitch', { exact: true }).fill('0')
  await press(page, 'Enter')
  await expect(shop.card.getByRole('alert').first()).toContainText('The pitch is nought.')
})

test('a line parts a profile; what is turned is clicked on the board, then on the solid @solid', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await pin(shop, 'Parted pin')
  await shop.line([55, 20], [55, 0])
  // The line only divides: nothing is lost by it.
  await expect(shop.figure('mass')).toHaveText(grams(PIN_VOLUME))
  await expect(shop.card).toContainText('1 region, parted by lines into 2')
  await shop.route.getByText('Revolve').first().click()
  await expect(shop.card).toContainText('2 of 2')
  await shop.card.getByRole('button', { name: 'pick', exact: true }).click()
  await shop.moveTo(70, 10)
  await expect(shop.board).toContainText('region 2')
  await shop.click(70, 10)
  await expect(shop.card).toContainText('1 of 2')
  const left = cylinder(20, 30) + cylinder(40, 25)
  await expect(shop.figure('mass')).toHaveText(grams(left))
  // The profile stands upright in the solid and is seen through it: there it is taken in again.
  const { x, y } = await findOn(page.getByRole('region', { name: 'Solid' }), 'region 2')
  await page.mouse.click(x, y)
  await expect(shop.card).toContainText('2 of 2')
  await expect(shop.figure('mass')).toHaveText(grams(PIN_VOLUME))
  await press(page, 'Enter', 'Control+z')
  await expect(shop.figure('mass')).toHaveText(grams(left))
  await shop.saved()
  await page.reload()
  await expect(shop.figure('mass')).toHaveText(grams(left))
})

test('a pin is bored in two diameters, grooved three times, and cut to length', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const take = async (label: string, text: string): Promise<void> => {
    await field(shop, label).fill(text)
    await press(page, 'Enter')
  }
  await pin(shop, 'Bored pin')
  await press(page, '4', 'g')
  await expect(shop.card).toContainText('20 Bore')
  await take('Diameter', '8')
  await take('Depth', '')
  await expect(shop.figure('mass')).toHaveText(grams(PIN_VOLUME - cylinder(8, 80)))
  await shop.card.getByRole('button', { name: 'Another diameter' }).click()
  const bored = PIN_VOLUME - cylinder(8, 79) - cylinder(16, 1)
  await expect(shop.figure('mass')).toHaveText(grams(bored))
  await shop.card.getByRole('button', { name: 'Done' }).click()
  await press(page, '4', 'f')
  await shop.click(50, 20)
  await take('Width', '4')
  await take('Depth', '3')
  const ring = cylinder(40, 4) - cylinder(34, 4)
  await expect(shop.figure('mass')).toHaveText(grams(bored - ring))
  await shop.card.getByRole('button', { name: 'Done' }).click()
  await press(page, '4', 'x')
  await expect(shop.card).toContainText('40 Repeat')
  await field(shop, '30 groove').selectOption('repeated')
  await take('Number', '3')
  await take('Pitch', '-6')
  await expect(shop.figure('mass')).toHaveText(grams(bored - 3 * ring))
  await shop.card.getByRole('button', { name: 'Done' }).click()
  await press(page, '4', 'c')
  await expect(shop.card).toContainText('50 Overall length')
  await field(shop, 'End').selectOption('right')
  await take('Length', '70')
  const cut = cylinder(40, 10) - cylinder(8, 10)
  await expect(shop.figure('mass')).toHaveText(grams(bored - 3 * ring - cut))
  // The same step again finds nothing to do, and says so.
  await shop.card.getByRole('button', { name: 'Duplicate' }).click()
  await shop.route.getByRole('button', { name: /^60 Overall length/ }).click()
  await expect(shop.card).toContainText('60 Overall length')
  await expect(shop.card).toContainText('It has this length already.')
  await expect(shop.figure('mass')).toHaveText(grams(bored - 3 * ring - cut))
})

test('a profile is drawn on a corner that a chamfer left, and follows it', async ({ page }) => {
  const shop = new Workshop(page)
  await pin(shop, 'Followed pin')
  await press(page, '4', 'd')
  await shop.click(80, 20)
  await field(shop, 'Leg').fill('5')
  await press(page, 'Enter')
  await shop.card.getByRole('button', { name: 'Done' }).click()
  await press(page, '4', 't')
  await shop.moveTo(75, 20)
  await expect(shop.board).toContainText('corner of the section')
  await shop.click(75, 20)
  await shop.click(84, 12)
  await press(page, 'Escape', 'Escape', 'q')
  const corner = async (): Promise<number> => {
    const sketch = (await shop.document()).sketches[1]
    const link = sketch?.constraints.find((c) => c.kind === 'linked')
    return sketch?.points.find((p) => link?.kind === 'linked' && p.id === link.point)?.x ?? 0
  }
  expect(await corner()).toBeCloseTo(75, 6)
  await shop.route.getByRole('button', { name: /Chamfer/ }).click()
  await field(shop, 'Leg').fill('8')
  await press(page, 'Enter')
  await expect.poll(corner).toBeCloseTo(72, 6)
})
