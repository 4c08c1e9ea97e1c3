import { readFile } from 'node:fs/promises'
import { expect, type Locator, type Page } from '@playwright/test'
import { type Vec } from '@lathica/core/geometry'
import { locator, middleOf } from '@lathica/core/sketch'
import { createPart, type Part } from '@lathica/core/part'
import { toDocument } from '@lathica/core/formats'

interface Project {
  readonly id: string
}

/** A part file as far as tests change it by hand. */
interface LooseDocument {
  readonly sketches: { readonly points: object[]; readonly entities: object[] }[]
  readonly route: object[]
  readonly drawing?: object
}

/** Keys pressed one after another. */
export async function press(page: Page, ...keys: readonly string[]): Promise<void> {
  for (const key of keys) await page.keyboard.press(key)
}

/** Takes a command from the search by its name. */
export async function search(page: Page, words: string): Promise<void> {
  await page.keyboard.press('/')
  await page.keyboard.type(words)
  await page.keyboard.press('Enter')
}

/** Works the modelling screen as a designer does: by pointer and keys, in mm of the part. */
export class Workshop {
  readonly board: Locator
  readonly route: Locator
  readonly card: Locator

  constructor(readonly page: Page) {
    this.board = page.getByRole('region', { name: 'Board' })
    this.route = page.getByRole('region', { name: 'Route' })
    this.card = page.getByRole('region', { name: 'Step card' })
  }

  /** From the shelf to a new, empty part, by pointer and keys. */
  async newPartFromShelf(name: string): Promise<void> {
    await this.page.goto('/')
    await this.page.getByRole('button', { name: 'New part' }).first().click()
    await this.page.getByLabel('Name', { exact: true }).fill(name)
    await this.page.getByRole('button', { name: 'Create' }).click()
    await this.ready()
  }

  /** Opens a new, empty part that stands on the shelf already. */
  async newPart(name: string): Promise<void> {
    await this.open(toDocument(createPart({ name })))
  }

  /** Opens a fresh copy of a demo part, so that no test meets what another changed. */
  async openDemo(file: string, change?: (part: LooseDocument) => void): Promise<void> {
    const text = await readFile(`demo/${file}.lathica.json`, 'utf8')
    const document = JSON.parse(text) as LooseDocument
    change?.(document)
    await this.open(document)
  }

  private async open(document: object): Promise<void> {
    const projects = (await (await this.page.request.get('/api/projects')).json()) as Project[]
    const data = { document }
    const made = await this.page.request.post(`/api/projects/${projects[0]?.id}/parts`, { data })
    const { id } = (await made.json()) as { id: string }
    await this.page.goto(`/part/${id}`)
    await this.ready()
  }

  async openPart(name: string): Promise<void> {
    await this.page.goto('/')
    await this.page.getByRole('link', { name: new RegExp(`^${name}`) }).click()
    await this.ready()
  }

  /** Waits until the board has its view. */
  async ready(): Promise<void> {
    await expect(this.board).toHaveAttribute('data-view', /\d/)
  }

  /** Where a place of a lying part is on the page: axial position and radius in mm. */
  async at(x: number, radius: number): Promise<{ x: number; y: number }> {
    const text = (await this.board.getAttribute('data-view')) ?? ''
    const [scale = 1, ox = 0, oy = 0] = text.split(' ').map(Number)
    const box = await this.board.boundingBox()
    return { x: (box?.x ?? 0) + ox + x * scale, y: (box?.y ?? 0) + oy - radius * scale }
  }

  async moveTo(x: number, radius: number): Promise<void> {
    const place = await this.at(x, radius)
    await this.page.mouse.move(place.x, place.y, { steps: 3 })
  }

  async click(x: number, radius: number): Promise<void> {
    await this.moveTo(x, radius)
    await this.page.mouse.down()
    await this.page.mouse.up()
  }

  /** Clicks with a key held down. */
  async clickWith(key: 'Shift' | 'Alt' | 'Control', x: number, radius: number): Promise<void> {
    await this.page.keyboard.down(key)
    await this.click(x, radius)
    await this.page.keyboard.up(key)
  }

  async drag(from: readonly [number, number], to: readonly [number, number]): Promise<void> {
    await this.moveTo(...from)
    await this.page.mouse.down()
    await this.moveTo(...to)
    await this.page.mouse.up()
  }

  /** Draws a chain of lines by clicks, with the chain tool. */
  async chain(places: readonly (readonly [number, number])[]): Promise<void> {
    await press(this.page, '1', 'a')
    for (const [x, radius] of places) await this.click(x, radius)
  }

  /** Draws one line and lays the chain tool down. */
  async line(from: readonly [number, number], to: readonly [number, number]): Promise<void> {
    await this.chain([from, to])
    await press(this.page, 'Escape', 'Escape')
  }

  /** A shoulder, a land and the first tooth of a grip, with the tooth picked to be repeated. */
  async tooth(): Promise<void> {
    await this.chain([
      [0, 0],
      [0, 20],
      [4, 20],
    ])
    await this.clickWith('Shift', 12, 27)
    await this.click(12, 20)
    await press(this.page, 'Escape', 'Escape', 'q')
    await this.click(8, 23.5)
    await this.clickWith('Shift', 12, 23.5)
    await press(this.page, '2', 't')
  }

  /**
   * Sizes what lies at a place: picks it, puts the label somewhere, types the value.
   * @param label where the label goes, by which length and diameter are told apart
   */
  async size(
    on: readonly [number, number],
    label: readonly [number, number],
    value: string,
  ): Promise<void> {
    await press(this.page, '1', 's')
    await this.click(...on)
    await this.click(...label)
    await this.type(value)
  }

  /** A rectangle from a corner towards another, its two sides typed. */
  async rectangle(
    from: readonly [number, number],
    towards: readonly [number, number],
    sides: readonly [string, string],
  ): Promise<void> {
    await press(this.page, '1', 'r')
    await this.click(...from)
    await this.moveTo(...towards)
    await this.page.keyboard.type(sides[0])
    await press(this.page, 'Tab')
    await this.page.keyboard.type(sides[1])
    await press(this.page, 'Enter', 'Escape')
  }

  /** Types into the value field that is open and takes it. */
  async type(value: string): Promise<void> {
    await expect(this.board.locator('form input:focus')).toHaveCount(1)
    await this.page.keyboard.type(value)
    await this.page.keyboard.press('Enter')
  }

  /** Revolves what is picked into a body, from the turn page of the pad. */
  async revolve(): Promise<void> {
    await this.page.keyboard.press('4')
    await this.page.keyboard.press('r')
  }

  field(): Locator {
    return this.board.locator('form input')
  }

  /** The label of a size, by what it shows. */
  label(text: string): Locator {
    return this.board.getByText(text, { exact: true })
  }

  /** The part as the server has it. */
  async document(): Promise<Part> {
    await this.saved()
    const id = new URL(this.page.url()).pathname.split('/').at(-1)
    const answer = await this.page.request.get(`/api/parts/${id}`)
    return ((await answer.json()) as { document: Part }).document
  }

  /** The middle of the nth piece that was drawn, from 1, where it stands now. */
  async middleOf(n: number): Promise<Vec> {
    const [sketch] = (await this.document()).sketches
    const entity = sketch?.entities[n - 1]
    if (!sketch || !entity) throw new Error(`nothing ${n} is drawn`)
    return middleOf(entity, locator(sketch))
  }

  figure(name: 'freedoms' | 'size' | 'mass'): Locator {
    return this.page.locator(`[data-figure="${name}"]`)
  }

  async saved(): Promise<void> {
    await expect(this.page.locator('[data-save]')).toHaveAttribute('data-save', 'saved')
  }
}
