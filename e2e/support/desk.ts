import { expect, type Locator, type Page } from '@playwright/test'

/** Works the sheet as a designer does. */
export class Desk {
  readonly paper: Locator

  constructor(readonly page: Page) {
    this.paper = page.locator('.sheet-view svg .content')
  }

  async open(): Promise<void> {
    await this.page.getByRole('link', { name: 'Sheet', exact: true }).click()
    await expect(this.paper.locator('g[data-role="title"]')).toBeAttached()
  }

  /** What the sheet says of a size, of all that begin so. */
  said(words: string): Locator {
    return this.paper.getByRole('img', { name: words, exact: true })
  }

  async drag(words: string, dx: number, dy: number): Promise<void> {
    const box = await this.said(words).locator('text').first().boundingBox()
    if (!box) throw new Error(`“${words}” is not on the sheet`)
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
    await this.page.mouse.move(x, y)
    await this.page.mouse.down()
    await this.page.mouse.move(x + dx / 2, y + dy / 2, { steps: 3 })
    await this.page.mouse.move(x + dx, y + dy, { steps: 3 })
  }

  async heightOf(words: string): Promise<number> {
    return (await this.said(words).locator('text').first().boundingBox())?.y ?? NaN
  }

  /** Waits until a size stands so high, within half a pixel. */
  async expectHeight(words: string, height: number): Promise<void> {
    await expect.poll(async () => Math.abs((await this.heightOf(words)) - height)).toBeLessThan(0.5)
  }
}
