import { readFile } from 'node:fs/promises'
import { expect, type Locator, type Page } from '@playwright/test'

/** Works the inspection screen as a designer does. */
export class Inspection {
  readonly section: Locator
  readonly sheet: Locator
  readonly measure: Locator
  readonly mass: Locator
  readonly tolerances: Locator
  readonly chart: Locator
  readonly solid: Locator

  constructor(readonly page: Page) {
    this.section = page.getByRole('region', { name: 'Section' })
    this.sheet = page.getByRole('region', { name: 'Inspection sheet' })
    this.measure = page.getByRole('region', { name: 'Measure' })
    this.mass = page.getByRole('region', { name: 'Mass properties' })
    this.tolerances = page.getByRole('region', { name: 'Tolerances' })
    this.chart = page.getByRole('region', { name: 'Chart' })
    this.solid = page.getByRole('region', { name: 'Solid' })
  }

  /** From any view of the part to this one. */
  async open(): Promise<void> {
    await this.page.getByRole('link', { name: 'Inspect' }).click()
    await expect(this.section).toHaveAttribute('data-view', /\d/)
  }

  async tab(name: 'Checks' | 'Measure' | 'Mass' | 'Tolerances'): Promise<void> {
    await this.page.getByRole('tab', { name }).click()
  }

  /** Clicks a place of a lying part: axial position and radius in mm. */
  async click(x: number, radius: number, shift = false): Promise<void> {
    const text = (await this.section.getAttribute('data-view')) ?? ''
    const [scale = 1, ox = 0, oy = 0] = text.split(' ').map(Number)
    const box = await this.section.boundingBox()
    const at = { x: (box?.x ?? 0) + ox + x * scale, y: (box?.y ?? 0) + oy - radius * scale }
    await this.page.mouse.move(at.x, at.y, { steps: 2 })
    if (shift) await this.page.keyboard.down('Shift')
    await this.page.mouse.click(at.x, at.y)
    if (shift) await this.page.keyboard.up('Shift')
  }

  /** A figure of what is picked. */
  figure(name: string): Locator {
    return this.measure
      .getByRole('row', { name: new RegExp(`^${name} `) })
      .locator('td')
      .first()
  }

  row(words: string | RegExp): Locator {
    return this.sheet.getByRole('listitem').filter({ hasText: words })
  }

  /** The text of a file that a button hands out. */
  async saved(button: Locator): Promise<{ readonly name: string; readonly bytes: Buffer }> {
    const started = this.page.waitForEvent('download')
    await button.click()
    const download = await started
    return { name: download.suggestedFilename(), bytes: await readFile(await download.path()) }
  }
}
