import { expect, test } from '@playwright/test'
import { Workshop, press } from './support/board'

test('a spindle is lettered, threaded and told how true and how smooth it runs', async ({
  page,
}) => {
  const shop = new Workshop(page)
  await shop.newPart('Recorder spindle')
  await press(page, 'g')
  await page.keyboard.type('17, 20; 20 k6, 24; 30, 10; 25 k6, 30')
  await press(page, 'Enter', 'Enter', ' ')
  await shop.revolve()
  await shop.card.getByRole('button', { name: 'Done' }).click()
  await press(page, 'Escape', '6')
  const notes = page.getByRole('list', { name: 'Notes' })
  const { card } = shop
  const said = card.getByRole('alert')

  // A thread that the land does not fit is told, and one click makes the land fit; undo takes it back.
  await press(page, 'w')
  await shop.click(10, 8.5)
  const callout = card.getByLabel('Callout')
  await expect(callout).toBeFocused()
  await callout.fill('M1000')
  await callout.press('Enter')
  await expect(said).toContainText('ISO 261 has no M1000. The nearest is M125')
  await callout.fill('M16x1.5-6H')
  await callout.press('Enter')
  await expect(said).toContainText('This class is of an inside thread.')
  await callout.fill('M16x1.5 - 6g')
  await callout.press('Enter')
  await expect(said).toContainText('This land is ⌀17, and M16×1.5-6g wants ⌀16.')
  await said.getByRole('button', { name: 'Make it fit' }).click()
  await expect(said).toHaveCount(0)
  await expect(shop.label('⌀16')).toBeVisible()
  await press(page, 'Control+z')
  await expect(said).toContainText('This land is ⌀17')
  await press(page, 'Control+Shift+z')
  await expect(card).toContainText('⌀15.026 mm')
  await card.getByLabel('Length').fill('14')
  await card.getByLabel('Length').press('Enter')
  await expect(notes).toContainText('M16×1.5-6g cylinder ⌀16')

  // Two datums; the same letter twice is told.
  await press(page, 'Escape', 'e')
  await shop.click(32, 10)
  await expect(card.getByLabel('Letter')).toHaveValue('A')
  await press(page, 'Escape', 'e')
  await shop.click(70, 12.5)
  await card.getByLabel('Letter').selectOption('A')
  await expect(said).toContainText('There are two datums A. Take another letter, such as B.')
  await card.getByLabel('Letter').selectOption('B')
  await expect(said).toHaveCount(0)

  // Run-out of the collar to both of them.
  await card.getByRole('button', { name: 'Done' }).click()
  await press(page, 'r')
  await shop.click(44, 12.5)
  await expect(card.getByLabel('Of')).toHaveValue('circularRunOut')
  const datums = card.getByLabel('Datums')
  await expect(datums).toHaveValue('A-B')
  await datums.fill('')
  await datums.press('Enter')
  await expect(said).toContainText('is measured from a datum')
  await datums.fill('A-C')
  await datums.press('Enter')
  await expect(said).toContainText('There is no datum C.')
  await datums.fill('A-B')
  await datums.press('Enter')
  await expect(notes).toContainText('circular run-out | 0.02 | A-B face at 44')
  // What is in hand is told on the solid too.
  const solid = page.getByRole('region', { name: 'Solid' })
  await expect(solid).toContainText('circular run-out | 0.02 | A-B')

  // The second seat is hardened, and how deep.
  await card.getByRole('button', { name: 'Done' }).click()
  await press(page, 's')
  await shop.click(70, 12.5)
  await card.getByLabel('Treated').fill('hardened 58 HRC')
  await card.getByLabel('Treated').press('Enter')
  await card.getByLabel('Depth').fill('0')
  await card.getByLabel('Depth').press('Enter')
  await expect(said).toContainText('This is no depth.')
  await card.getByLabel('Depth').fill('0.8')
  await card.getByLabel('Depth').press('Enter')
  await expect(notes).toContainText('hardened 58 HRC, 0.8 deep cylinder ⌀25')

  // Surface for all, and an exception.
  await card.getByRole('button', { name: 'Done' }).click()
  await press(page, 't')
  await shop.click(30, 10)
  await expect(card.getByLabel('At most, in µm')).toHaveValue('0.8')
  await card.getByRole('button', { name: 'Done' }).click()
  await page.getByRole('button', { name: '+ surface of all others' }).click()
  await expect(notes).toContainText('Ra 3.2 all other faces')

  // Kinds are hidden on the board and shown again; all of it is kept.
  await page.getByRole('button', { name: 'datum', exact: true }).click()
  await expect(page.getByRole('button', { name: 'datum', exact: true })).toHaveAttribute(
    'aria-pressed',
    'false',
  )
  await shop.saved()
  await page.reload()
  await shop.ready()
  await expect(notes.getByRole('listitem')).toHaveCount(7)

  // The step that made the faces is set aside: notes say that their faces are gone, and come back with it.
  await shop.route.getByRole('button', { name: /10 Revolve/ }).click()
  await press(page, 'Delete')
  await expect(notes.getByLabel('wrong')).toHaveCount(6)
  await press(page, 'Control+z')
  await expect(notes.getByLabel('wrong')).toHaveCount(0)
  await notes.getByRole('button', { name: /^Ra 0.8/ }).click()
  await card.getByRole('button', { name: 'Delete note' }).click()
  await expect(notes.getByRole('listitem')).toHaveCount(6)
})
