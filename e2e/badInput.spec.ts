import { expect, test } from '@playwright/test'
import { Workshop } from './support/board'

const STEPPED = [
  [0, 0],
  [0, 9],
  [28, 9],
  [28, 15],
  [70, 15],
  [70, 0],
] as const

test.describe('a profile that is not sound', () => {
  test('says where it is open, and closes when its end is drawn on', async ({ page }) => {
    const shop = new Workshop(page)
    await shop.newPart('Open profile')
    await shop.chain(STEPPED.slice(0, 5))
    await page.keyboard.press('Escape')
    await expect(shop.card).toContainText('Profile A is open: line 4 ends loose at 70, ⌀30')
    await expect(shop.card).toContainText('Draw on to another end or to the axis.')
    await shop.revolve()
    await expect(shop.route).toContainText('Profile A is open')
    await shop.chain([
      [70, 15],
      [70, 0],
    ])
    await expect(shop.card).not.toContainText('is open')
    await expect(shop.figure('mass')).toContainText('g')
  })

  test('says where it meets itself and where it crosses the axis', async ({ page }) => {
    const shop = new Workshop(page)
    await shop.newPart('Crossing')
    await shop.chain([
      [10, 8],
      [50, 28],
      [50, 8],
      [10, 28],
    ])
    await page.keyboard.press('Escape')
    await expect(shop.card).toContainText('Profile A meets itself: line 1 and line 3')
    await page.keyboard.press('Control+a')
    await page.keyboard.press('Delete')
    await expect(shop.board).toContainText('Draw half of the section')
    await page.keyboard.press('a')
    for (const [x, r] of [
      [20, 10],
      [50, -9],
      [60, 12],
    ] as const) {
      await page.keyboard.down('Shift')
      await shop.click(x, r)
      await page.keyboard.up('Shift')
    }
    await page.keyboard.press('Escape')
    await expect(shop.card).toContainText('crosses the axis')
    await expect(shop.card).toContainText('Move its ends onto the axis or above it.')
  })
})

test.describe('values that cannot be', () => {
  test('are answered at the field, which keeps what was typed', async ({ page }) => {
    const shop = new Workshop(page)
    await shop.openDemo('spindle')
    const answers: readonly (readonly [string, string])[] = [
      ['44 +', 'stops before it is complete'],
      ['flange', 'no value or unit called “flange”'],
      ['30deg', 'This field takes a length'],
      ['10^999', 'too large'],
      ['0', 'greater than zero'],
    ]
    await shop.label('⌀44').click()
    for (const [typed, answer] of answers) {
      await shop.field().fill(typed)
      await page.keyboard.press('Enter')
      await expect(page.getByRole('alert')).toContainText(answer)
      await expect(shop.field()).toHaveValue(typed)
      await expect(shop.figure('mass')).toHaveText('825.0 g')
    }
    await page.keyboard.press('Escape')
    await expect(shop.field()).toHaveCount(0)
    await expect(shop.label('⌀44')).toBeVisible()
  })

  test('a size too many is told who holds it already, and can stay as a reference', async ({
    page,
  }) => {
    const shop = new Workshop(page)
    await shop.openDemo('spindle')
    await page.keyboard.press('s')
    await shop.click(0, 10)
    await shop.click(171, 8)
    await shop.click(90, 32)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('alert')).toContainText('This is held already by')
    await page.getByRole('button', { name: 'Keep as reference' }).click()
    await expect(shop.label('(171)')).toBeVisible()
    await expect(shop.figure('freedoms')).toHaveText('in ink')
    await shop.label('25').click()
    await shop.type('30')
    await expect(shop.label('(176)')).toBeVisible()
  })

  test('sizes that cannot all hold keep the last good shape and name one another', async ({
    page,
  }) => {
    const shop = new Workshop(page)
    await shop.newPart('Slanted')
    await page.keyboard.press('a')
    await page.keyboard.down('Shift')
    await shop.click(20, 6)
    await shop.click(40, 21)
    await page.keyboard.up('Shift')
    await page.keyboard.press('Escape')
    await shop.size([30, 13.5], [22, 16], '30')
    await page.keyboard.press(' ')
    await page.keyboard.press('s')
    // The first size has scaled the whole: both ends are at 1.2 times their places.
    await shop.click(24, 7.2)
    await shop.click(48, 25.2)
    await shop.click(40, 5)
    await shop.type('20')
    await expect(shop.label('20')).toBeVisible()
    await shop.label('30').click()
    await shop.type('10')
    await expect(shop.card.getByRole('alert')).toContainText('These cannot all hold:')
    await expect(shop.card).toContainText('length of line 1, len1 = 10')
    await expect(shop.card).toContainText('axial distance of point 1 and point 2, dist1 = 20')
    await expect(shop.label('30')).toHaveClass(/conflict/)
    await expect(page.getByRole('button', { name: 'sizes disagree' })).toBeVisible()
    await shop.card.getByRole('button', { name: 'ref.' }).first().click()
    await expect(shop.card).not.toContainText('cannot all hold')
    await expect(shop.label('(30)')).toBeVisible()
  })

  test('an angle lies below 180°, and the shape stays while one types', async ({ page }) => {
    const shop = new Workshop(page)
    await shop.openDemo('counterweight')
    await shop.label('52°').click()
    await shop.type('200deg')
    await expect(page.getByRole('alert')).toContainText('between 0° and 180°')
    await page.keyboard.press('Escape')
    await expect(shop.figure('mass')).toHaveText('3.581 kg')
  })
})

test('a line without length in a part file is named, with what mends it', async ({ page }) => {
  const shop = new Workshop(page)
  await shop.openDemo('spindle', (part) => {
    const [sketch] = part.sketches
    sketch?.points.push({ id: 'z1', x: 5, y: 40 }, { id: 'z2', x: 5, y: 40 })
    sketch?.entities.push({ id: 'z3', kind: 'line', from: 'z1', to: 'z2', role: 'outline' })
  })
  await expect(shop.card).toContainText('line 14 of profile A has no length.')
  await expect(shop.card).toContainText('Delete it, or move its ends apart.')
  await expect(shop.figure('mass')).toHaveText('825.0 g')
})

test('a step of an unknown kind is kept, told in the route, and the rest goes on', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.openDemo('spindle', (part) => {
    part.route.push({ id: 'k1', kind: 'knurl', number: 20, pitch: 0.8 })
  })
  await expect(shop.route).toContainText('does not know the step “knurl”')
  await expect(shop.figure('mass')).toHaveText('825.0 g')
})

test('part files that cannot be read are refused with a sentence, and others are taken', async ({
  page,
}) => {
  await page.goto('/')
  const good = {
    name: 'float.lathica.json',
    mimeType: 'application/json',
    buffer: Buffer.from(
      JSON.stringify({
        format: 'lathica-part',
        version: 1,
        name: 'Dropped float',
        lie: 'standing',
        units: { length: 'mm', angle: 'deg', mass: 'kg' },
        nextId: 3,
        values: [],
        materials: [{ id: 'copper', name: 'copper Cu-ETP', density: 0.00894, colour: '#b8734f' }],
        bodies: [{ id: 'body1', name: 'body 1', material: 'copper' }],
        sketches: [
          {
            id: 'sketch2',
            name: 'A',
            nextId: 1,
            points: [],
            entities: [],
            constraints: [],
            sizes: [],
          },
        ],
        route: [],
      }),
    ),
  }
  const cut = { ...good, name: 'cut.json', buffer: good.buffer.subarray(0, 200) }
  const input = page.getByLabel('part files, STEP, STL or 3MF files to import')
  await input.setInputFiles([cut])
  await expect(page.locator('.ant-message')).toContainText('cut.json: This file stops before')
  const told = page.locator('.ant-message')
  const changed = (name: string, from: string, to: string) => ({
    ...good,
    name,
    buffer: Buffer.from(good.buffer.toString().replace(from, to)),
  })
  await input.setInputFiles([changed('newer.json', '"version":1', '"version":99')])
  await expect(told).toContainText('newer.json: This file was made by a newer version')
  await input.setInputFiles([changed('hostile.json', '"lie"', '"__proto__":{"a":1},"lie"')])
  await expect(told).toContainText('hostile.json: The file holds the key “__proto__”')
  await input.setInputFiles([{ ...good, name: 'huge.json', buffer: Buffer.alloc(9_000_000, 32) }])
  await expect(told).toContainText('huge.json: This file is too large for a part.')
  await input.setInputFiles([good])
  await expect(page.getByRole('link', { name: /^Dropped float/ })).toBeVisible()
  await page.getByRole('button', { name: 'Delete Dropped float' }).click()
  await expect(page.getByRole('link', { name: /^Dropped float/ })).toHaveCount(0)
  await page.getByRole('button', { name: 'Bring it back' }).click()
  await expect(page.getByRole('link', { name: /^Dropped float/ })).toBeVisible()
})

test('a part that is not there says so and leads back to the shelf', async ({ page }) => {
  await page.goto('/part/no-such-part')
  await expect(page.getByText('There is no such part.')).toBeVisible()
  await page.getByRole('button', { name: 'To the shelf' }).click()
  await expect(page.getByRole('heading', { name: 'Skerry Point tide gauge' })).toBeVisible()
})

test('a new part asks for its name before it is made', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'New part' }).first().click()
  await page.getByRole('button', { name: 'Create' }).click()
  await expect(page.getByText('A part needs a name')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByText('A part needs a name')).toHaveCount(0)
})

test('a form that cannot be fetched is told, and comes once it can be', async ({ page }) => {
  await page.route('**/NewPartDialog-*.js', (route) => route.abort())
  await page.goto('/')
  await page.getByRole('button', { name: 'New part' }).first().click()
  await expect(page.getByText('What this takes could not be fetched.')).toBeVisible()
  await page.unroute('**/NewPartDialog-*.js')
  await page.getByRole('button', { name: 'New part' }).first().click()
  await expect(page.getByLabel('Name', { exact: true })).toBeVisible()
})
