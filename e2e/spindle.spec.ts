import { execFile } from 'node:child_process'
import { readFile, stat } from 'node:fs/promises'
import { promisify } from 'node:util'
import { expect, test } from '@playwright/test'
import { Workshop } from './support/board'

const run = promisify(execFile)

/** Steel C45, in g/mm³. */
const DENSITY = 7.85e-3
const cylinder = (diameter: number, length: number): number =>
  (Math.PI / 4) * diameter ** 2 * length * DENSITY
const shown = (grams: number): string => `${grams.toPrecision(4)} g`

test('a stepped spindle is made from nothing, weighed, changed, kept and handed over', async ({
  page,
}, info) => {
  const shop = new Workshop(page)
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Skerry Point tide gauge' })).toBeVisible()
  await expect(page.getByRole('link', { name: /^Spindle/ }).first()).toContainText('⌀44 × 171 mm')

  await shop.newPartFromShelf('Trial spindle')
  await expect(shop.board).toContainText('Draw half of the section above the axis.')

  // A rough chain along the axis: nothing exact about it.
  await shop.chain([
    [0, 0],
    [0, 9],
    [28, 9],
    [28, 15],
    [70, 15],
    [70, 11],
    [120, 11],
    [120, 0],
  ])
  await expect(shop.figure('freedoms')).toHaveText('6 freedoms left')
  await expect(shop.card).toContainText('in pencil')

  // Lengths go outside a land, diameters towards the axis. The first one scales the whole.
  await shop.size([14, 9], [14, 25], '24')
  await expect(shop.label('24')).toBeVisible()
  await expect(shop.figure('freedoms')).toHaveText('5 freedoms left')
  await page.keyboard.press('Escape')
  await page.keyboard.press(' ')
  await shop.size([40, 12.9], [40, 24], '36')
  await page.keyboard.press(' ')
  await shop.size([80, 9.4], [80, 24], '45')
  await page.keyboard.press(' ')
  await shop.size([12, 7.7], [12, 3], '20')
  await page.keyboard.press(' ')
  await shop.size([40, 12.9], [40, 5], '30')
  await page.keyboard.press(' ')
  await shop.size([80, 9.4], [80, 3], '24 mm')
  await expect(shop.figure('freedoms')).toHaveText('in ink')
  await expect(shop.card).toContainText('in ink: nothing can move')

  await shop.revolve()
  await expect(shop.route).toContainText('Revolve')
  const before = cylinder(20, 24) + cylinder(30, 36) + cylinder(24, 45)
  await expect(shop.figure('mass')).toHaveText(shown(before))
  await expect(shop.figure('size')).toHaveText('⌀30 × 105')
  await expect(page.getByRole('img', { name: 'the part in space' })).toBeVisible()

  // One diameter changes, and everything follows.
  await shop.label('⌀30').click()
  await shop.type('34')
  const after = cylinder(20, 24) + cylinder(34, 36) + cylinder(24, 45)
  await expect(shop.figure('mass')).toHaveText(shown(after))
  await expect(shop.figure('size')).toHaveText('⌀34 × 105')
  await expect(shop.route).toContainText(`+${shown(after)}`)
  await page.keyboard.press('Control+z')
  await expect(shop.figure('mass')).toHaveText(shown(before))
  await page.keyboard.press('Control+Shift+Z')
  await expect(shop.figure('mass')).toHaveText(shown(after))

  // Reloading finds it as it was.
  await shop.saved()
  await page.reload()
  await shop.ready()
  await expect(shop.figure('mass')).toHaveText(shown(after))
  await expect(shop.figure('freedoms')).toHaveText('in ink')
  await expect(shop.label('⌀34')).toBeVisible()

  // Handed over as STL and as a part file.
  await page.getByRole('link', { name: 'Dispatch' }).click()
  const take = async (name: string): Promise<string> => {
    const started = page.waitForEvent('download')
    await page.getByRole('region', { name }).getByRole('button', { name: 'Download' }).click()
    const download = await started
    const path = info.outputPath(download.suggestedFilename())
    await download.saveAs(path)
    return path
  }
  const stl = await take('STL')
  const header = await readFile(stl)
  expect((await stat(stl)).size).toBe(84 + 50 * header.readUInt32LE(80))
  expect(volumeOf(header)).toBeGreaterThan((after / DENSITY) * 0.998)
  expect(volumeOf(header)).toBeLessThan(after / DENSITY)

  const exact = await readFile(await take('STEP'), 'utf8')
  expect(exact.match(/CYLINDRICAL_SURFACE/g)?.length).toBeGreaterThanOrEqual(3)
  expect((await readFile(await take('3MF'))).subarray(0, 2).toString()).toBe('PK')
  expect((await readFile(await take('glTF'))).subarray(0, 4).toString()).toBe('glTF')

  const file = await take('Part file')
  const { stdout } = await run('node', ['cli/bin/lathica.mjs', 'inspect', file, '--json'])
  const report = JSON.parse(stdout) as {
    bodies: { mass_g: number; material: string }[]
    sketches: { freedoms: number }[]
  }
  expect(report.bodies).toHaveLength(1)
  expect(Math.abs((report.bodies[0]?.mass_g ?? 0) / after - 1)).toBeLessThan(1e-12)
  expect(report.bodies[0]?.material).toBe('steel C45')
  expect(report.sketches[0]?.freedoms).toBe(0)
})

/** The volume that the triangles of a binary STL enclose, in mm³. */
function volumeOf(stl: Buffer): number {
  let six = 0
  for (let t = 0; t < stl.readUInt32LE(80); t++) {
    const n = Array.from({ length: 9 }, (_, k) => stl.readFloatLE(84 + 50 * t + 12 + 4 * k))
    const [ax = 0, ay = 0, az = 0, bx = 0, by = 0, bz = 0, cx = 0, cy = 0, cz = 0] = n
    six += ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)
  }
  return six / 6
}
