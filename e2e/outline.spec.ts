import { readFile } from 'node:fs/promises'
import { expect, test } from '@playwright/test'
import { Workshop, press, search } from './support/board'

const NOZZLE = `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60">
  <path d="M10 50 V30 H40 A10 10 0 0 1 50 40 C60 40 70 44 80 44 V50 Z" fill="none" stroke="black"/>
</svg>`

test.describe('an outline as an SVG drawing', () => {
  test('is drawn into the profile, turned, saved and read again', async ({ page }) => {
    const shop = new Workshop(page)
    await shop.newPart('Well nozzle')
    const choose = async (name: string, text: string) => {
      const chooser = page.waitForEvent('filechooser')
      await search(page, 'outline from svg')
      await (await chooser).setFiles({ name, mimeType: 'image/svg+xml', buffer: Buffer.from(text) })
    }
    // What is none says so and leaves the part as it was.
    await choose('words.svg', '<svg><text>hello</text></svg>')
    await expect(page.getByText('There is no line or curve in this drawing.')).toBeVisible()
    expect((await shop.document()).sketches[0]?.entities).toEqual([])

    await choose('nozzle.svg', NOZZLE)
    await expect(page.getByText(/nozzle\.svg was drawn: 6 pieces/)).toBeVisible()
    await press(page, 'Escape')
    await press(page, '4', 'r')
    await expect(shop.figure('size')).toHaveText('⌀40 × 70')

    const download = page.waitForEvent('download')
    await search(page, 'profile as svg')
    const file = await download
    expect(file.suggestedFilename()).toBe('Well nozzle A.svg')
    const text = await readFile(await file.path(), 'utf8')

    // Read into another part it is the same, where it was; undo takes it back.
    await shop.newPart('Second nozzle')
    await choose('again.svg', text)
    await expect(page.getByText(/again\.svg was drawn: 6 pieces.*zero at the datum/)).toBeVisible()
    const { sketches } = await shop.document()
    expect(Math.max(...(sketches[0]?.points ?? []).map((p) => p.x))).toBeCloseTo(70, 3)
    await press(page, 'Control+z')
    await expect.poll(async () => (await shop.document()).sketches[0]?.entities.length).toBe(0)
  })
})
