import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'

test('a flask with a side in one free curve is drawn, turned, hollowed and read again', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Flask with a drawn side')
  await shop.line([0, 0], [0, 30])
  await press(page, '1', 'w', 'Tab', 'Tab')
  await shop.click(0, 30)
  await shop.click(60, 12)
  // A wrong turn: back to the start, and once more.
  await shop.moveTo(20, 50)
  await press(page, 'Escape')
  await shop.click(0, 30)
  await shop.click(60, 12)
  await shop.moveTo(25, 30.5)
  await expect(page.getByText('axial', { exact: true }).first()).toBeVisible()
  await shop.click(25, 30.5)
  await shop.click(38, 12.2)
  await press(page, 'Escape')
  await shop.chain([
    [60, 12],
    [72, 12],
    [72, 0],
  ])
  await press(page, 'Escape', 'Escape', 'q', '4', 'r')
  await expect(shop.card).toContainText('10 Revolve')
  const mass = shop.figure('mass')
  await expect(mass).toHaveText(/^\d/)
  const full = await mass.textContent()

  // Its handle is a point like any other: it is dragged, and the part follows; undo takes it back.
  await shop.card.getByRole('button', { name: 'Done' }).click()
  await shop.drag([25, 30], [40, 30])
  await expect(mass).not.toHaveText(full ?? '')
  await page.keyboard.press('Control+z')
  await expect(mass).toHaveText(full ?? '')
  await shop.click(31.1, 21)
  await expect(page.getByText('Tightest')).toBeVisible()
  await press(page, 'Escape')

  await page.reload()
  await shop.ready()
  await expect(mass).toHaveText(full ?? '')
})

test('a vase: a foot of lines, a belly through places, a mouth, seen turned from the first line on @solid', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Vase for the gauge house')
  const solid = page.getByRole('region', { name: 'Solid' })
  const said = solid.getByRole('status')
  await expect(solid).toContainText('The part appears here')
  await shop.chain([
    [0, 0],
    [0, 16],
    [4, 16],
  ])
  await expect(said).toHaveText('Not made yet: open, and shown as a skin.')
  // Straight, smooth arc, arc through a place, free curve.
  await press(page, 'Tab', 'Tab', 'Tab')
  await shop.click(14, 30)
  await shop.click(34, 34)
  // A wrong turn: the last place is taken back.
  await shop.click(40, 60)
  await press(page, 'Backspace')
  await shop.click(52, 20)
  await shop.click(64, 12)
  await shop.click(76, 18)
  await press(page, 'Tab')
  await shop.click(76, 0)
  await expect(said).toHaveText(/^Not made yet: it would be [\d.]+ kg of steel C45/)
  const weighs = (await said.textContent())?.match(/[\d.]+ kg/)?.[0] ?? ''
  await press(page, 'Escape', 'q')

  // Its card tells it, and turns it over a frame and back.
  await shop.click(24, 34.1)
  await expect(shop.card).toContainText('Curve 3')
  await expect(shop.card).toContainText('Widest')
  const runs = page.getByLabel('Runs')
  await runs.selectOption('over their frame')
  await expect(page.getByText('Widest')).toBeVisible()
  await expect(said).toContainText(weighs)
  await press(page, 'Control+z')
  await expect(runs).toHaveValue('through')
  // Fewer points, and how far the curve departs; a number that is none is refused.
  const count = page.getByLabel('Points', { exact: true })
  await count.fill('3')
  await expect(shop.card.getByRole('status')).toHaveText(/^departs by [\d.]+ mm$/)
  await count.press('Enter')
  await expect(count).toHaveValue('3')
  await expect(said).not.toContainText(weighs)
  await count.fill('1')
  await count.press('Enter')
  await expect(shop.card.getByRole('alert')).toContainText('2 points or more')
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(count).toHaveValue('6')
  await expect(said).toContainText(weighs)
  // Smoothed out, it is shown first, and left as it was by Esc.
  const smooth = page.getByLabel('Smooth out')
  await smooth.fill('25')
  await expect(shop.card.getByRole('status')).toHaveText(/^departs by [\d.]+ mm$/)
  await expect(said).not.toContainText(weighs)
  await smooth.press('Escape')
  await expect(smooth).toHaveValue('')
  await expect(said).toContainText(weighs)
  await smooth.fill('0')
  await smooth.press('Enter')
  await expect(shop.card.getByRole('alert')).toContainText('Waves have a length')
  await smooth.press('Escape')
  await page.getByLabel('Begins').selectOption('smooth')
  await expect(page.getByLabel('Begins')).toHaveValue('smooth')
  await press(page, 'Control+z')
  await page.getByRole('button', { name: 'Add points' }).click()
  await shop.click(24, 34.1)
  await press(page, 'Escape', 'Escape')
  await expect(said).toContainText(weighs)

  // A point of the belly is typed to its place, then pushed out; the solid follows before there is a step.
  await shop.click(34, 34)
  const diameter = page.getByLabel('Diameter')
  await expect(diameter).toHaveValue('68')
  await diameter.fill('7 kg')
  await diameter.press('Enter')
  await expect(shop.card.getByRole('alert')).toBeVisible()
  await diameter.fill('72')
  await diameter.press('Enter')
  await expect(said).not.toContainText(weighs)
  await press(page, 'Escape', 'Escape')
  await shop.drag([34, 36], [34, 41])
  await expect(said).not.toContainText(weighs)

  await press(page, '4', 'r')
  await expect(shop.card).toContainText('10 Revolve')
  await expect(said).toHaveCount(0)
  await shop.card.getByRole('button', { name: 'Done' }).click()
  const mass = shop.figure('mass')
  await expect(mass).toHaveText(/^\d/)
  const full = await mass.textContent()
  // A point that is taken out leaves the curve, which goes on; deleting it does the same.
  await shop.click(52, 20)
  await shop.card.getByRole('button', { name: 'Take out of the curve' }).click()
  await expect(mass).not.toHaveText(full ?? '')
  await press(page, 'Control+z')
  await expect(mass).toHaveText(full ?? '')
  await shop.click(52, 20)
  await press(page, 'Delete')
  await expect(mass).not.toHaveText(full ?? '')
  await press(page, 'Control+z')
  await expect(mass).toHaveText(full ?? '')
  await page.reload()
  await shop.ready()
  await expect(mass).toHaveText(full ?? '')
})

test('a free curve is given a direction at one of its places, turned there, and made one again', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Bowl with a turned lip')
  await press(page, '1', 'd')
  for (const [x, y] of [
    [0, 12],
    [20, 30],
    [45, 22],
    [70, 34],
  ] as const) {
    await shop.click(x, y)
  }
  await press(page, 'Enter', 'Escape', 'q')
  await shop.click(45, 22)
  await shop.card.getByRole('button', { name: 'Give it a direction' }).click()
  const join = shop.card.getByRole('button', { name: 'Join the curves' })
  await expect(join).toBeVisible()

  // Its handles are shown; one is turned about the place, which stays, and the other follows.
  const read = async (): Promise<{ at: string; handles: number[][] }> => {
    const [sketch] = (await shop.document()).sketches
    const of = (id: string): number[] => {
      const p = sketch?.points.find((q) => q.id === id)
      return [p?.x ?? NaN, p?.y ?? NaN]
    }
    const [one, two] = (sketch?.entities ?? []).filter((e) => e.kind === 'spline')
    const place = of(one?.to ?? '').map((v) => v.toFixed(3))
    return { at: place.join(), handles: [of(one?.toHandle ?? ''), of(two?.fromHandle ?? '')] }
  }
  const before = await read()
  expect(before.handles).toHaveLength(2)
  const [x = 0, y = 0] = before.handles[1] ?? []
  await shop.drag([x, y], [x + 1, y + 8])
  const after = await read()
  expect(after.at).toBe(before.at)
  const slope = ([u = 0, v = 0]: number[]): number => (v - 22) / (u - 45)
  expect(slope(after.handles[0] ?? [])).toBeCloseTo(slope(after.handles[1] ?? []), 4)
  expect(slope(after.handles[1] ?? [])).toBeGreaterThan(slope(before.handles[1] ?? []) + 0.4)

  await page.reload()
  await shop.ready()
  await shop.click(45, 22)
  await join.click()
  await expect(shop.card.getByRole('button', { name: 'Take out of the curve' })).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(join).toBeVisible()
})

test('a dome from the axis has no tip, and ends by a double click', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.newPart('Cap for the float')
  await press(page, '1', 'd', 'Tab')
  await expect(page.getByText('Tab draws it through its places.')).toBeVisible()
  await press(page, 'Tab')
  await expect(page.getByText('Draw half of the section')).toBeVisible()
  await shop.click(0, 0)
  await shop.click(3, 14)
  await expect(page.getByText('Draw half of the section')).toHaveCount(0)
  await shop.click(16, 24)
  await shop.click(40, 24)
  await shop.click(40, 24)
  await shop.chain([
    [40, 24],
    [40, 0],
  ])
  await press(page, 'Escape', 'Escape', 'q')
  await shop.click(16, 24)
  await press(page, 'Escape')
  await shop.click(28, 25)
  await expect(page.getByLabel('Begins')).toHaveValue('square')
  await expect(page.getByLabel('Ends')).toHaveValue('free')
})

test('what lies exactly beside a curve follows it, has one distance, and comes back with the part', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Lamp glass')
  await press(page, 'd')
  for (const [x, r] of [
    [0, 20],
    [20, 34],
    [60, 40],
    [100, 18],
    [120, 26],
  ] as const) {
    await shop.click(x, r)
  }
  await press(page, 'Enter', 'Escape', 'Escape', 'Control+a', '2', 'f')
  await shop.moveTo(60, 34)
  await expect(page.locator('.words')).toHaveText('exactly beside it, and follows')
  // More than the curve bends is refused with the greatest that goes.
  await page.keyboard.type('60')
  await press(page, 'Enter')
  await expect(page.getByRole('alert')).toContainText('bends to that side with a radius of')
  await page.getByLabel('distance').fill('4')
  await press(page, 'Enter', 'Escape')
  const beside = async () => {
    const [sketch] = (await shop.document()).sketches
    const entity = sketch?.entities.find((e) => e.kind === 'parallel')
    const end = sketch?.points.find((p) => entity && 'from' in entity && p.id === entity.from)
    return { kinds: sketch?.entities.map((e) => e.kind), y: end?.y ?? 0 }
  }
  const before = await beside()
  expect(before.kinds).toEqual(['spline', 'parallel'])
  await shop.click(60, 36)
  await expect(shop.card).toContainText('4 mm beside curve 1')
  await press(page, 'Escape')
  // An end of the curve is pushed: what is beside it goes along.
  await shop.click(0, 20)
  await press(page, 'Control+ArrowUp')
  await expect.poll(async () => (await beside()).y).toBeGreaterThan(before.y + 0.5)
  await press(page, 'Control+z')
  await expect.poll(async () => (await beside()).y).toBeCloseTo(before.y, 9)
  await press(page, 'Escape')
  await shop.label('4').click()
  await shop.type('6')
  await page.reload()
  await shop.ready()
  await shop.click(60, 34)
  await expect(shop.card).toContainText('6 mm beside curve 1')
  // Without its curve it is nothing.
  await press(page, 'Escape')
  await shop.click(60, 40)
  await press(page, 'Escape')
  await shop.click(40, 40.2)
  await press(page, 'Delete')
  await expect.poll(async () => (await beside()).kinds).toEqual([])
})
