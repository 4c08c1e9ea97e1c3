import { expect, test, type Page } from '@playwright/test'
import { Workshop } from './support/board'

const saveState = (page: Page) => page.locator('[data-save]')

/** Draws a small closed profile and turns it. */
async function makePin(shop: Workshop, name: string): Promise<void> {
  await shop.newPart(name)
  await shop.chain([
    [0, 0],
    [0, 9],
    [40, 9],
    [40, 0],
  ])
  await shop.size([20, 9], [20, 4], '16')
  await shop.page.keyboard.press(' ')
  await shop.revolve()
  await shop.saved()
}

test('work goes on while the server is away, and is saved when it is back', async ({ page }) => {
  const shop = new Workshop(page)
  await makePin(shop, 'Server away')
  await page.route('**/api/**', (route) => route.abort())
  await shop.label('⌀16').click()
  await shop.type('18')
  await expect(saveState(page)).toHaveText('not saved yet')
  await expect(shop.label('⌀18')).toBeVisible()
  await page.unroute('**/api/**')
  await expect(saveState(page)).toHaveAttribute('data-save', 'saved')
  await page.reload()
  await shop.ready()
  await expect(shop.label('⌀18')).toBeVisible()
})

test('what could not be saved before the page was closed is there at the next visit', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await makePin(shop, 'Closed too early')
  await page.route('**/api/**', (route) => route.abort())
  await shop.label('⌀16').click()
  await shop.type('19')
  await expect(saveState(page)).toHaveText('not saved yet')
  await page.unroute('**/api/**')
  await page.reload()
  await shop.ready()
  await expect(shop.label('⌀19')).toBeVisible()
  await shop.saved()
  await page.keyboard.press('Control+z')
  await expect(shop.label('⌀16')).toBeVisible()
})

test('a page that is closed at once after an edit loses nothing and quarrels with nobody', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await makePin(shop, 'Closed at once')
  await shop.label('⌀16').click()
  await shop.type('21')
  await page.reload()
  await shop.ready()
  await expect(shop.label('⌀21')).toBeVisible()
  await shop.saved()
})

test('two tabs follow each other while neither has work of its own', async ({ page, context }) => {
  const shop = new Workshop(page)
  await makePin(shop, 'Two tabs')
  const other = new Workshop(await context.newPage())
  await other.page.goto(page.url())
  await other.ready()
  await expect(other.label('⌀16')).toBeVisible()
  await shop.label('⌀16').click()
  await shop.type('17')
  await expect(other.label('⌀17')).toBeVisible()
  await other.saved()
})

test('two tabs that both changed the part never overwrite each other', async ({
  page,
  context,
}) => {
  const shop = new Workshop(page)
  await makePin(shop, 'At odds')
  const other = new Workshop(await context.newPage())
  await other.page.goto(page.url())
  await other.ready()
  await other.page.route('**/api/**', (route) => route.abort())
  await other.label('⌀16').click()
  await other.type('12')
  await expect(saveState(other.page)).toHaveText('not saved yet')
  await page.bringToFront()
  await shop.label('⌀16').click()
  await shop.type('22')
  await shop.saved()
  await other.page.bringToFront()
  await other.page.unroute('**/api/**')
  const banner = other.page.getByRole('alert').filter({ hasText: 'changed in another tab' })
  await expect(banner).toBeVisible()
  await expect(other.label('⌀12')).toBeVisible()

  await banner.getByRole('button', { name: 'Keep mine as its own part' }).click()
  await other.ready()
  await expect(other.page.getByRole('button', { name: 'At odds (my copy)' })).toBeVisible()
  await expect(other.label('⌀12')).toBeVisible()
  await other.openPart('At odds ⌀22')
  await expect(other.label('⌀22')).toBeVisible()
})

test('a part that is damaged in the database is shown as one, and costs no other', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await page.goto('/')
  const whole = page.getByRole('link', { name: 'Cord drum' }).first()
  await expect(whole).toBeVisible()
  const id = /part\/([^/]+)/.exec((await whole.getAttribute('href')) ?? '')?.[1] ?? ''
  await page.route('**/api/projects', async (route) => {
    const answer = await route.fetch()
    const projects = (await answer.json()) as {
      parts: { id: string; damaged: boolean; summary: unknown }[]
    }[]
    for (const part of projects.flatMap((p) => p.parts)) {
      if (part.id === id) Object.assign(part, { damaged: true, summary: null })
    }
    await route.fulfill({ response: answer, json: projects })
  })
  const damaged = {
    code: 'part.damaged',
    message: 'What is stored of “Cord drum” is damaged and cannot be read.',
    mend: 'Download it as it is from the shelf; all other parts are as they were.',
  }
  await page.route(`**/api/parts/${id}`, (route) => route.fulfill({ status: 422, json: damaged }))
  await page.reload()
  const card = page.getByRole('article', { name: 'Cord drum, damaged' })
  await expect(card).toContainText('Damaged in the database.')
  await expect(card.getByRole('link')).toHaveCount(1)
  const download = page.waitForEvent('download')
  await card.getByRole('link', { name: 'Download what is stored of Cord drum' }).click()
  expect((await download).suggestedFilename()).toBe('Cord drum.lathica.json')
  if (process.env['LATHICA_SHOT']) await page.screenshot({ path: process.env['LATHICA_SHOT'] })
  await page.goto(`/part/${id}`)
  await expect(page.getByText(damaged.message)).toBeVisible()
  await expect(page.getByRole('link', { name: 'Download what is stored' })).toBeVisible()
  await shop.openDemo('spindle')
})

const shot = async (page: Page, name: string): Promise<void> => {
  const folder = process.env['LATHICA_SHOTS']
  if (folder) await page.screenshot({ path: `${folder}/${name}.png` })
}

/** A tab that was closed with work on a part that the server never saw. */
async function leftBehind(shop: Workshop, name: string): Promise<string> {
  await makePin(shop, name)
  const address = shop.page.url()
  await shop.page.route('**/api/**', (route) => route.abort())
  await shop.label('⌀16').click()
  await shop.type('20.5')
  await expect(saveState(shop.page)).toHaveText('not saved yet')
  await shop.page.close()
  return address
}

test('work that a closed tab could not save is offered: compared, dropped, brought back, taken up', async ({
  page,
  context,
}) => {
  const address = await leftBehind(new Workshop(await context.newPage()), 'Left behind')
  const shop = new Workshop(page)
  await page.goto(address)
  await shop.ready()
  await expect(shop.label('⌀16')).toBeVisible()
  const offer = page.getByRole('status').filter({ hasText: 'on this part was not saved' })
  await expect(offer).toContainText(/Work of \d\d:\d\d/)
  await shot(page, 'offer')
  await offer.getByRole('button', { name: 'Compare' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('row').filter({ hasText: 'in profile' }).first()).toContainText(
    '1620.5',
  )
  await expect(dialog).toContainText('⌀20.5 × ')
  await shot(page, 'compare')
  await dialog.getByRole('button', { name: 'Back' }).click()
  await offer.getByRole('button', { name: 'Drop it' }).click()
  await expect(offer).toHaveCount(0)
  await page.getByRole('button', { name: 'Bring it back' }).click()
  await expect(offer).toBeVisible()
  await offer.getByRole('button', { name: 'Take it up' }).click()
  await expect(shop.label('⌀20.5')).toBeVisible()
  await shop.saved()
  await page.keyboard.press('Control+z')
  await expect(shop.label('⌀16')).toBeVisible()
  await shop.saved()
  await page.reload()
  await shop.ready()
  await expect(offer).toHaveCount(0)
})

test('work on a part that was deleted meanwhile stands on the shelf, and becomes a part', async ({
  page,
  context,
}) => {
  const address = await leftBehind(new Workshop(await context.newPage()), 'Deleted meanwhile')
  await page.request.delete(address.replace('/part/', '/api/parts/'))
  await page.goto('/')
  const line = page.getByRole('status').filter({ hasText: 'Deleted meanwhile' })
  await expect(line).toContainText('the part itself was deleted')
  await shot(page, 'shelf')
  await line.getByRole('button', { name: 'Keep as a part of its own' }).click()
  await expect(page.getByRole('link', { name: /^Deleted meanwhile \(work of/ })).toBeVisible()
  await expect(line).toHaveCount(0)
})

test('a part that is deleted while one works on it is put back by one click', async ({
  page,
  context,
}) => {
  const shop = new Workshop(page)
  await makePin(shop, 'Deleted at work')
  const other = await context.newPage()
  await other.goto('/')
  const remove = other.getByRole('button', { name: 'Delete Deleted at work', exact: true })
  await remove.first().click()
  const banner = page.getByRole('alert').filter({ hasText: 'was deleted in another tab' })
  await expect(banner).toBeVisible()
  await shop.label('⌀16').click()
  await shop.type('17.5')
  await expect(saveState(page)).toHaveText('not saved: deleted elsewhere')
  await shot(page, 'gone')
  await banner.getByRole('button', { name: 'Put it back on the shelf' }).click()
  await shop.saved()
  await expect(banner).toHaveCount(0)
  await page.reload()
  await shop.ready()
  await expect(shop.label('⌀17.5')).toBeVisible()
})

test('a browser that keeps nothing says so, and asks before unsaved work is left', async ({
  page,
}) => {
  await page.addInitScript(() => {
    Object.defineProperty(window, 'indexedDB', {
      value: {
        open: () => {
          throw new DOMException('not here', 'SecurityError')
        },
      },
    })
  })
  const shop = new Workshop(page)
  await makePin(shop, 'Nothing kept')
  await page.route('**/api/**', (route) => route.abort())
  await shop.label('⌀16').click()
  await shop.type('18')
  await expect(saveState(page)).toHaveText('not saved, and not kept')
  await page.getByTitle('To the shelf').click()
  const question = page.getByRole('dialog').filter({ hasText: 'Leave unsaved work behind?' })
  await shot(page, 'leave')
  await question.getByRole('button', { name: 'Stay' }).click()
  await expect(shop.label('⌀18')).toBeVisible()
  // The browser itself asks where the tab is closed.
  const asked = page.waitForEvent('dialog')
  await page.close({ runBeforeUnload: true })
  const dialog = await asked
  expect(dialog.type()).toBe('beforeunload')
  await dialog.dismiss()
  await expect(shop.label('⌀18')).toBeVisible()
  await page.unroute('**/api/**')
  await shop.saved()
})
