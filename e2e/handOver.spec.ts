import { readFile } from 'node:fs/promises'
import { expect, test } from '@playwright/test'
import { strFromU8, unzipSync } from 'fflate'
import { Workshop } from './support/board'

test('parts of a project are handed over in one archive, with progress; the work can be cancelled', async ({
  page,
}) => {
  await page.goto('/')
  const project = page.getByRole('region', { name: 'Skerry Point tide gauge' })
  await project.getByRole('button', { name: 'Hand over' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('As', { exact: true }).selectOption('stl')
  await dialog.getByLabel('within').fill('50')
  await expect(dialog.getByRole('alert')).toContainText('between 0.001 and 10 mm')
  await expect(dialog.getByRole('button', { name: 'Hand over' })).toBeDisabled()
  await dialog.getByLabel('within').fill('0.02')

  // All sixteen take a while: there is time to think again.
  await dialog.getByRole('button', { name: 'Hand over' }).click()
  await expect(dialog.getByRole('progressbar')).toBeVisible()
  await expect(dialog).toContainText('Writing')
  await dialog.getByRole('button', { name: 'Cancel the work' }).click()
  await expect(dialog).toContainText('Cancelled; nothing was handed over.')

  await dialog.getByLabel(/all \d+ parts/).click()
  await expect(dialog.getByLabel(/all \d+ parts/)).toBeChecked({ checked: false })
  await expect(dialog.getByRole('alert')).toContainText('Tick a part at least.')
  for (const name of ['Spindle', 'Guide segment']) {
    await dialog.getByLabel(name, { exact: true }).first().check()
  }
  await dialog.getByLabel('As', { exact: true }).selectOption('step')
  const download = page.waitForEvent('download')
  await dialog.getByRole('button', { name: 'Hand over' }).click()
  const saved = await download
  expect(saved.suggestedFilename()).toBe('Skerry Point tide gauge.zip')
  const entries = unzipSync(new Uint8Array(await readFile(await saved.path())))
  expect(Object.keys(entries).sort()).toEqual(['Guide segment.step', 'Spindle.step'])
  for (const bytes of Object.values(entries)) {
    expect(strFromU8(bytes)).toContain('END-ISO-10303-21;')
  }
  await expect(dialog).toContainText('was handed over')
  await dialog.getByRole('button', { name: 'Close', exact: true }).last().click()
  await expect(dialog).toBeHidden()
})

test('a part whose triangles touch themselves says where, before it is handed over', async ({
  page,
}) => {
  const shop = new Workshop(page)
  // Holes that come just as far out as the slots go in.
  await shop.openDemo('winding-wheel', ({ route }) => {
    const holes = route.find((s) => (s as { kind?: string }).kind === 'holes')
    Object.assign(holes ?? {}, { circle: '54' })
  })
  await page.getByRole('link', { name: 'Dispatch' }).click()
  const words = page.getByText(/touches itself without a wall between, at ⌀66, .* and 3 more/)
  await expect(words).toBeVisible({ timeout: 60_000 })
  const folder = process.env['LATHICA_SHOTS']
  if (folder !== undefined) await page.screenshot({ path: `${folder}/touches.png` })
})
