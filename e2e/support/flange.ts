import { expect, type Locator, type Page } from '@playwright/test'
import { press, type Workshop } from './board'

/** Masses of steel as the bottom line tells them. */
export const grams = (volume: number): string => `${(volume * 7.85e-3).toPrecision(4)} g`
export const cylinder = (d: number, l: number): number => (Math.PI / 4) * d * d * l
/** A flange of ⌀60 × 10 with a hub of ⌀20 × 30. */
export const FLANGE = cylinder(60, 10) + cylinder(20, 30)

export async function flange(shop: Workshop, name: string): Promise<void> {
  const { page } = shop
  await shop.newPart(name)
  await press(page, 'g')
  await expect(page.getByLabel('diameter, length')).toBeFocused()
  await page.keyboard.type('60, 10; 20, 30')
  await press(page, 'Enter', 'Enter')
  await expect(shop.figure('freedoms')).toHaveText('in ink')
  await shop.revolve()
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE))
  await press(page, 'Escape', ' ')
}

/** What the pocket takes away, in mm³: 10 × 8, 4 deep. */
export const POCKET = 10 * 8 * 4

/** The flange with a pocket in its face as step 20, whose card is closed again. */
export async function pocketedFlange(shop: Workshop, name: string): Promise<void> {
  const { page } = shop
  await flange(shop, name)
  await press(page, '5', 'c')
  await shop.click(10, 22)
  await shop.rectangle([-26, 4], [-16, 12], ['10', '8'])
  await press(page, '5', 'f')
  await fill(shop, 'Length', '4')
  await expect(shop.figure('mass')).toHaveText(grams(FLANGE - POCKET))
  await shop.card.getByRole('button', { name: 'Done' }).click()
}

export const field = (shop: Workshop, label: string): Locator =>
  shop.card.getByLabel(label, { exact: true })
export const fill = async (shop: Workshop, label: string, text: string): Promise<void> => {
  await field(shop, label).fill(text)
  await press(shop.page, 'Enter')
}
export const triangles = async (page: Page): Promise<number> =>
  Number(await page.getByRole('region', { name: 'Solid' }).getAttribute('data-triangles'))

/** Where on the solid pane something is told under the pointer. */
export async function findOn(pane: Locator, words: string): Promise<{ x: number; y: number }> {
  const box = await pane.boundingBox()
  if (!box) throw new Error('there is no pane')
  const seen = new Set<string>()
  // Coarsely first, since what is sought is rarely small, and from the middle outwards.
  for (const step of [24, 12, 6]) {
    for (const { x, y } of placesAround(box, step)) {
      if (seen.has(`${x} ${y}`)) continue
      seen.add(`${x} ${y}`)
      await pane.page().mouse.move(x, y)
      // The shoulder of a flat says the flat's words too.
      const said = (await pane.textContent())?.replaceAll(`of the ${words}`, '')
      if (said?.includes(words) === true) return { x, y }
    }
  }
  throw new Error(`nowhere it says ${words}`)
}

/** Places of a pane, so far apart, those nearest to its middle first. */
function placesAround(
  box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number },
  step: number,
): { x: number; y: number }[] {
  const [mx, my] = [box.x + box.width / 2, box.y + box.height / 2]
  const [across, down] = [box.width / 2 - 20, box.height / 2 - 20]
  const places: { x: number; y: number }[] = []
  for (let i = -Math.floor(across / step); i <= across / step; i++) {
    for (let k = -Math.floor(down / step); k <= down / step; k++) {
      places.push({ x: mx + i * step, y: my + k * step })
    }
  }
  const off = (p: { x: number; y: number }): number => Math.hypot(p.x - mx, p.y - my)
  return places.sort((a, b) => off(a) - off(b))
}
