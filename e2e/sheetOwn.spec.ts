import { execFile } from 'node:child_process'
import { readFile } from 'node:fs/promises'
import { promisify } from 'node:util'
import { expect, test, type Page } from '@playwright/test'
import { Workshop, press } from './support/board'
import { Desk } from './support/desk'

const run = promisify(execFile)

/** Clicks one of the edges that can be chosen on the sheet, the n-th from the left. */
async function chooseEdge(page: Page, n: number): Promise<void> {
  const boxes = await page.locator('.places circle').evaluateAll((all) =>
    all.map((e) => {
      const { x, y, width, height } = e.getBoundingClientRect()
      return { x: x + width / 2, y: y + height / 2 }
    }),
  )
  const place = boxes.sort((a, b) => a.x - b.x || a.y - b.y)[n]
  if (!place) throw new Error('there is no such edge')
  await page.mouse.move(place.x, place.y)
  await page.mouse.down()
  await page.mouse.up()
}

test('a slender rod from nothing is broken, drawn larger at its shoulder, and printed', async ({
  page,
}, info) => {
  const shop = new Workshop(page)
  const desk = new Desk(page)
  await page.goto('/')
  await shop.newPartFromShelf('Trial rod')
  await shop.chain([
    [0, 0],
    [0, 9],
    [20, 9],
    [20, 15],
    [120, 15],
    [120, 0],
  ])
  // The first size scales the whole. Lengths go outside a land, diameters towards the axis.
  await shop.size([70, 15], [70, 25], '300')
  await expect(shop.label('300')).toBeVisible()
  await press(page, 'Escape', ' ')
  await shop.size([200, 45], [200, 10], '16')
  await press(page, ' ')
  await shop.size([30, 27], [30, 10], '12')
  await press(page, ' ')
  await shop.size([30, 6], [30, 30], '20')
  await expect(shop.figure('freedoms')).toHaveText('in ink')
  await shop.revolve()
  await desk.open()
  const waves = desk.paper.locator('g[aria-label="View along the axis"] path.narrow')
  await expect(waves).toHaveCount(1)
  const paperOf = (): Promise<string | null> => page.locator('rect.sheet').getAttribute('width')
  const broken = await paperOf()
  await page.getByLabel('Long plain').selectOption('whole')
  await expect(waves).toHaveCount(0)
  expect(Number(await paperOf())).toBeGreaterThan(Number(broken))
  await press(page, 'Control+z')
  await expect(waves).toHaveCount(1)

  // A place is drawn larger: given up, then done, changed with a wrong value, and taken off.
  await press(page, 'd')
  await expect(page.getByText('Click the edge that is drawn larger')).toBeVisible()
  await press(page, 'Escape')
  await expect(page.locator('.places')).toHaveCount(0)
  await press(page, 'd')
  await chooseEdge(page, 2)
  const details = desk.paper.locator('g[data-role="view"][aria-label^="Detail"]')
  await expect(details).toHaveCount(1)
  const radius = page.getByLabel('Circle, R mm')
  const first = await radius.inputValue()
  await radius.fill('none')
  await radius.press('Enter')
  await expect(radius).toHaveValue(first)
  await radius.fill('2,5')
  await radius.press('Enter')
  await page.getByRole('region', { name: 'What is picked' }).getByLabel('Scale').fill('10:1')
  await page.keyboard.press('Enter')
  await expect(details).toHaveAttribute('aria-label', /10:1$/)
  await page.getByRole('button', { name: 'Draw a place larger' }).click()
  await chooseEdge(page, 2)
  await expect(page.getByText('This place is drawn larger already')).toBeVisible()
  await press(page, 'Escape')

  // Lengths run from the edge that is clicked.
  await press(page, 'z')
  await chooseEdge(page, 2)
  await expect(page.getByLabel('Run from')).toHaveValue('edge')
  await page.reload()
  await expect(details).toHaveCount(1)
  await expect(page.getByLabel('Run from')).toHaveValue('edge')

  // The browser’s own print has the sheet alone, in its size.
  const printed = info.outputPath('printed.pdf')
  await page.pdf({ path: printed, preferCSSPageSize: true })
  const told = (await run('pdfinfo', [printed])).stdout
  expect(told).toMatch(/Pages:\s+1\b/)
  const [, wide, high] = /Page size:\s+([\d.]+) x ([\d.]+) pts/.exec(told) ?? []
  const size = [Number(wide), Number(high)].map((pt) => Math.round((pt / 72) * 25.4))
  expect(size).toEqual([210, 297])
  const words = (await run('pdftotext', [printed, '-'])).stdout
  expect(words).toContain('Trial rod')
  expect(words).not.toContain('Inspection plan')
  await expect(page.locator('.printed-sheet')).toBeEmpty()
})

test('a title block of one’s own is made, kept for all parts, and wrong ones are refused', async ({
  page,
}) => {
  const shop = new Workshop(page)
  const desk = new Desk(page)
  await shop.openDemo('winding-wheel')
  await desk.open()
  const dialog = page.getByRole('dialog', { name: 'Title block' })
  const title = desk.paper.locator('g[data-role="title"]')
  await page.getByRole('button', { name: 'Edit …' }).click()

  // A cell that covers another one cannot be used; a length that is none is put back.
  await dialog.getByRole('button', { name: 'cell drawn by' }).click()
  await dialog.getByLabel('Columns', { exact: true }).fill('2')
  await dialog.getByLabel('Columns', { exact: true }).press('Tab')
  await expect(dialog.getByRole('alert')).toContainText('covers another cell')
  await expect(dialog.getByRole('button', { name: 'Use for this part' })).toBeDisabled()
  await dialog.getByLabel('Columns', { exact: true }).fill('1')
  await dialog.getByLabel('Columns', { exact: true }).press('Tab')
  await expect(dialog.getByRole('alert')).toBeHidden()
  await dialog.getByRole('button', { name: 'cell approved by' }).click()
  await dialog.getByRole('button', { name: 'Take the cell off' }).click()
  await expect(dialog.getByText('Every title block has these, too')).toContainText('approved by')
  await dialog.getByRole('textbox', { name: 'row 1' }).fill('high')
  await dialog.getByRole('textbox', { name: 'row 1' }).press('Tab')
  await expect(dialog.getByRole('textbox', { name: 'row 1' })).toHaveValue('16')

  // Marks: no picture, one that would do something, of which the outline is kept alone.
  const mark = (svg: string) => ({
    ...{ name: 'mark.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg) },
  })
  const file = dialog.locator('input[type="file"]')
  await file.setInputFiles(mark('not a picture'))
  await expect(dialog.getByRole('alert')).toContainText('This is no SVG drawing')
  const asked: string[] = []
  page.on('request', (r) => asked.push(r.url()))
  await file.setInputFiles(
    mark(
      '<svg onload="document.title=1"><script>document.title=2</script><image href="/stolen.png"/><path d="M0 8Q4 0 8 8T16 8V12H0Z"/></svg>',
    ),
  )
  await expect(dialog.getByText('Left out: 1 × script, 1 × image')).toBeVisible()
  await dialog.getByRole('button', { name: 'Add a row' }).click()
  await dialog.getByRole('button', { name: 'put a cell in row 5, column 1' }).click()
  await dialog.getByLabel('Shows').selectOption('mark')
  await dialog.getByLabel('Label', { exact: true }).fill('')
  await dialog.getByRole('button', { name: 'Keep for all parts, and use' }).click()
  await expect(dialog.getByRole('alert')).toContainText('needs a name')
  await dialog.getByLabel('Name', { exact: true }).fill('Boat shed')
  await dialog.getByRole('button', { name: 'Keep for all parts, and use' }).click()
  await expect(dialog).toBeHidden()
  await expect(title.locator('path[fill="currentColor"]')).toHaveCount(1)
  expect(asked.filter((url) => url.includes('stolen'))).toEqual([])
  expect(await page.title()).not.toMatch(/^[12]$/)
  await press(page, 'Control+z')
  await expect(title.locator('path[fill="currentColor"]')).toHaveCount(0)

  // Another part takes it, keeps it through a reload, and has it when it is no longer kept for all.
  await shop.openDemo('winding-grip')
  await desk.open()
  await page.getByLabel('Block', { exact: true }).selectOption({ label: 'Boat shed' })
  await expect(title.locator('path[fill="currentColor"]')).toHaveCount(1)
  await expect(page.getByText(/^saved/)).toBeVisible()
  await page.reload()
  await expect(title.locator('path[fill="currentColor"]')).toHaveCount(1)
  await page.getByRole('button', { name: 'Edit …' }).click()
  await dialog.getByRole('button', { name: 'delete Boat shed' }).click()
  await dialog.getByRole('button', { name: 'Leave it' }).click()
  await expect(page.getByLabel('Block', { exact: true }).locator('option')).toHaveText([
    'plain',
    /of this part/,
  ])
  const download = page.waitForEvent('download')
  await press(page, 'f')
  const pdf = await readFile(await (await download).path())
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
  await page.getByLabel('Block', { exact: true }).selectOption({ label: 'plain' })
  await expect(title.locator('path[fill="currentColor"]')).toHaveCount(0)
})

test('the whole sheet of a keyed spindle: half section, cut of the keyway, two details, notes, printed', async ({
  page,
}, info) => {
  const shop = new Workshop(page)
  const desk = new Desk(page)
  await shop.openDemo('spindle', (part) => {
    const keyway = {
      ...{ kind: 'slot', body: 'body1', form: 'keyway', on: 'step3/l22', from: '', distance: '6' },
      ...{ width: '10', depth: '5', length: '32', ends: 'round', cutter: '', count: '1' },
      ...{ phase: '', id: 'step30', number: 70, aside: false },
    }
    ;(part['route'] as object[]).push(keyway)
    Object.assign(part, { nextId: 31 })
  })
  await desk.open()
  await page.getByLabel('Along', { exact: true }).selectOption('half')
  await press(page, 'd')
  await chooseEdge(page, 12)
  await expect(page.getByText('Looking at the solid')).toBeHidden()
  const viewsOf = () =>
    desk.paper
      .locator('g[data-role="view"]')
      .evaluateAll((all) => all.map((g) => g.getAttribute('aria-label') ?? ''))
  await expect
    .poll(async () => (await viewsOf()).filter((v) => v.startsWith('Detail')).length)
    .toBe(2)
  expect((await viewsOf()).filter((v) => v.startsWith('Section'))).toHaveLength(1)
  // The half section is hatched above the axis; the keyway is a step in it.
  const along = desk.paper.locator('g[aria-label="View along the axis"] path.narrow')
  await expect.poll(() => along.count()).toBeGreaterThan(1)
  for (const words of ['10', '32', '⌀35 k6', 'treatment: hardened 56 HRC, 0.8 deep']) {
    await expect(desk.said(words).first()).toBeVisible()
  }
  await desk.drag('24', 0, 40)
  await page.mouse.up()
  await expect(page.getByRole('region', { name: 'What is picked' })).toContainText('dragged to')

  // Sizes of one's own, of faces: a radius by a click, an angle by two.
  const clickFace = async (what: string, n: number): Promise<void> => {
    const box = await page.locator(`.places rect[data-what="${what}"]`).nth(n).boundingBox()
    if (!box) throw new Error('the face is gone')
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
    await page.mouse.down()
    await page.mouse.up()
  }
  const picked = page.getByRole('region', { name: 'What is picked' })
  await press(page, 's')
  await clickFace('arc', 0)
  await expect(picked).toContainText(/\(R\d/)
  await clickFace('line', 0)
  await expect(page.getByText('Click the other face')).toBeVisible()
  await press(page, 'Escape', 'Escape', 'Control+z')

  const printed = info.outputPath('spindle.pdf')
  await page.pdf({ path: printed, preferCSSPageSize: true })
  await run('qpdf', ['--check', printed])
  const words = (await run('pdftotext', ['-layout', printed, '-'])).stdout
  for (const said of ['34 ±0.1', 'M16×1.5-6g', 'hardened 56 HRC, 0.8 deep', 'SP-101', 'C–C']) {
    expect(words).toContain(said)
  }

  // Where the browser refuses, that is said, with what to do.
  await page.evaluate(() => {
    window.print = () => {
      throw new Error('refused')
    }
  })
  await page.getByRole('button', { name: 'Print', exact: true }).click()
  await expect(page.getByText('This browser does not print here.')).toBeVisible()
})
