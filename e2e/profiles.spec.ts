import { expect, test } from '@playwright/test'
import { Workshop, press, search } from './support/board'

test.describe('profiles in order', () => {
  test('are named, hidden, locked, put in order and deleted, and come back by undo and reload', async ({
    page,
  }) => {
    const shop = new Workshop(page)
    await shop.newPart('Weight with a recess')
    await press(page, 'a')
    await shop.chain([
      [0, 0],
      [0, 20],
      [40, 20],
      [40, 0],
    ])
    await press(page, 'Escape', 'Escape')
    await search(page, 'new profile')
    await shop.line([60, 5], [80, 12])
    await press(page, 'Escape', 'Escape')
    const list = page.getByRole('list', { name: 'Profiles' })
    const rows = list.getByRole('listitem')
    await expect(rows).toHaveCount(2)
    await expect(rows.first()).toContainText('in no step')

    // A name that is taken is refused; another is kept.
    const name = shop.card.getByLabel('Name', { exact: true })
    await name.fill('A')
    await name.press('Enter')
    await expect(page.getByText('There is a profile called “A”.')).toBeVisible()
    await expect(name).toHaveValue('B')
    await name.fill('recess')
    await name.press('Enter')
    await expect(rows.nth(1)).toContainText('recess')

    // A locked profile takes nothing by hand.
    await page.getByRole('button', { name: 'lock profile recess', exact: true }).click()
    await shop.drag([80, 12], [90, 18])
    await expect(page.getByText('Profile recess is locked.').first()).toBeVisible()
    const before = await shop.document()
    expect(before.sketches[1]?.points.some((p) => Math.abs(p.x - 80) < 1)).toBe(true)
    await shop.card.getByRole('button', { name: 'Unlock' }).click()
    await shop.drag([80, 12], [90, 18])
    await expect
      .poll(async () =>
        (await shop.document()).sketches[1]?.points.some((p) => Math.abs(p.x - 90) < 1),
      )
      .toBe(true)

    // Hidden ones leave the board's tabs, not the list.
    await rows.first().getByRole('button', { name: /^A/ }).click()
    await page.getByRole('button', { name: 'hide profile recess' }).click()
    await expect(shop.board.getByRole('button', { name: 'profile recess' })).toHaveCount(0)
    await shop.saved()
    await page.reload()
    await shop.ready()
    await expect(shop.board.getByRole('button', { name: 'profile recess' })).toHaveCount(0)
    await page.getByRole('button', { name: 'show profile recess' }).click()
    await expect(shop.board.getByRole('button', { name: 'profile recess' })).toBeVisible()

    // Order, and the way out.
    await rows
      .nth(1)
      .getByRole('button', { name: /^recess/ })
      .click()
    await shop.card.getByRole('button', { name: 'Earlier' }).click()
    await expect(rows.first()).toContainText('recess')
    await shop.card.getByRole('button', { name: 'Delete' }).click()
    await expect(list).toHaveCount(0)
    await press(page, 'Control+z')
    await expect(rows).toHaveCount(2)
    await rows.nth(1).getByRole('button', { name: /^A/ }).click()
    await page.keyboard.press('4')
    await page.keyboard.press('r')
    await expect(shop.route.getByText('Revolve')).toBeVisible()
    await rows.nth(1).getByRole('button', { name: /^A/ }).click()
    await shop.card.getByRole('button', { name: 'Delete' }).click()
    await expect(page.getByText('is what step 10 is made from')).toBeVisible()
  })
})
