/** Tools at the sheet: keys, menus, splicing, copies, exchange of kinds, files in every format. */
import { spawnSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import DxfParser from 'dxf-parser'
import ExcelJS from 'exceljs'
import { expect, test } from '@playwright/test'
import {
  components,
  lay,
  newMachine,
  openCopy,
  openMachine,
  pipes,
  place,
  placeByKey,
  port,
  portByKey,
  saved,
  step,
} from './helpers'

test('draws with the keyboard alone: parts, pipes, names, and runs it', async ({ page }) => {
  await newMachine(page, 'Keys only')
  const [x, y] = await placeByKey(page, 'pump')
  await placeByKey(page, 'electric motor', [x - 14, y])
  await placeByKey(page, 'reservoir', [x, y + 12])
  await placeByKey(page, 'relief', [x + 14, y - 6])
  await placeByKey(page, 'reservoir', [x + 14, y + 12])
  await expect(components(page)).toHaveCount(5)
  const ids: Record<string, string> = {
    '1-1P1': 'P1',
    '1-1M1': 'M1',
    '1-1Z1': 'Z1',
    '1-1V1': 'V1',
  }
  await page.keyboard.press('Escape')
  await page.keyboard.press('c')
  for (const [from, a, to, b] of [
    ['1-1M1', 'W', '1-1P1', 'W'],
    ['1-1P1', 'S', '1-1Z1', 'T'],
    ['1-1P1', 'P', '1-1V1', 'P'],
    ['1-1V1', 'T', '1-1Z1', 'T'],
  ]) {
    await portByKey(page, ids[from], from, a)
    await page.keyboard.press('Enter')
    // the tank is drawn twice, under one designation
    await portByKey(page, from === '1-1V1' ? 'Z2' : ids[to], to, b)
    await page.keyboard.press('Enter')
  }
  await expect(pipes(page)).toHaveCount(4)
  await expect(page.getByTestId('findings')).toContainText('Checks pass')
})

test('splices a part into a pipe, takes it out, exchanges its kind, and undoes all of it', async ({
  page,
}) => {
  await newMachine(page, 'Spliced')
  await place(page, 'pressure source', 300, 150)
  await place(page, 'reservoir', 300, 450)
  await lay(page, port(page, 'Z1', 'P'), port(page, 'Z2', 'T'))
  await expect(pipes(page)).toHaveCount(1)
  const a = (await port(page, 'Z1', 'P').boundingBox())!
  const b = (await port(page, 'Z2', 'T').boundingBox())!
  const box = (await page.getByTestId('sheet').boundingBox())!
  await place(page, 'orifice', a.x + a.width / 2 - box.x, (a.y + b.y) / 2 - box.y)
  await expect(pipes(page)).toHaveCount(2)
  await expect(components(page)).toHaveCount(3)
  await page.getByTestId('exchange').selectOption('check-valve')
  await expect(page.locator('[data-kind="check-valve"]')).toHaveCount(1)
  await expect(pipes(page)).toHaveCount(2)
  await page.getByTestId('sheet').focus()
  await page.keyboard.press('Delete')
  await expect(components(page)).toHaveCount(2)
  await expect(pipes(page)).toHaveCount(1)
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-kind="check-valve"]')).toHaveCount(1)
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-kind="orifice"]')).toHaveCount(1)
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z')
  await expect(components(page)).toHaveCount(0)
  for (let i = 0; i < 6; i++) await page.keyboard.press('Control+Shift+z')
  await expect(components(page)).toHaveCount(2)
  await expect(pipes(page)).toHaveCount(1)
  await saved(page)
})

test('copies from one machine to another, aligns, and works from the menu at the pointer', async ({
  page,
}) => {
  await openCopy(page, 'relief-rig', 'Copied from')
  const count = await components(page).count()
  await page.getByTestId('sheet').focus()
  await page.keyboard.press('Control+a')
  await page.keyboard.press('Control+c')
  await newMachine(page, 'Copied to')
  await page.getByTestId('sheet').focus()
  await page.keyboard.press('Control+v')
  await expect(components(page)).toHaveCount(count)
  // it is whole; what was accepted there must be looked at again here
  await expect(page.getByTestId('findings')).toContainText('2 warnings')
  await page.getByTestId('align-left').click()
  const left = (id: number) => components(page).nth(id).locator('.component-reach').getAttribute('x')
  expect(await left(0)).toBe(await left(1))
  await page.getByRole('button', { name: 'Undo' }).click()
  await page.getByTestId('sheet').focus()
  await page.keyboard.press('Escape')
  await page.keyboard.press('f')
  await page.locator('[data-kind="pressure-gauge"] .component-reach').first().click({ button: 'right' })
  const menu = page.getByTestId('sheet-menu')
  await expect(menu.getByRole('menuitem').first()).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await menu.getByRole('menuitem', { name: /^Duplicate/ }).click()
  await expect(menu).toHaveCount(0)
  await expect(components(page)).toHaveCount(count + 1)
})

test('finds a component and a command, and shows all keys', async ({ page }) => {
  await openCopy(page, 'relief-rig', 'Found')
  await page.keyboard.press('Control+k')
  await page.getByTestId('search-word').fill('pump')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-component].selected')).toHaveAttribute('data-kind', /pump/)
  await page.keyboard.press('Control+k')
  await page.getByTestId('search-word').fill('port letters')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-annotation^="port:"]').first()).toBeVisible()
  await page.keyboard.press('Control+k')
  await page.getByTestId('search-word').fill('nothing like it')
  await expect(page.getByTestId('search')).toContainText('No match')
  await page.keyboard.press('Escape')
  await page.getByTestId('sheet').focus()
  await page.keyboard.press('t')
  const list = page.getByTestId('contents')
  await expect(list.getByRole('row', { name: /1-0P1.*S – .*T.*W – / })).toBeVisible()
  await list.getByRole('button', { name: '1-0P1' }).click()
  await expect(page.locator('[data-component].selected')).toHaveAttribute('data-kind', /pump/)
  await page.getByTestId('sheet').focus()
  await page.keyboard.press('?')
  await expect(page.getByTestId('key-sheet')).toContainText('Duplicate')
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('key-sheet')).toHaveCount(0)
})

test('writes every format, and other programs read them', async ({ page }) => {
  await openCopy(page, 'relief-rig', 'In every format')
  const count = await components(page).count()
  await page.getByTestId('page-number').fill('YD-0042')
  await page.getByTestId('page-number').press('Enter')
  await page.getByTestId('paper').selectOption('A4')
  async function written(format: string) {
    await page.getByTestId('files').click()
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByTestId(`export-${format}`).click(),
    ])
    return readFileSync(await download.path())
  }
  const svg = await written('svg')
  const picture = await page.context().newPage()
  await picture.setContent(`<img src="data:image/svg+xml;base64,${svg.toString('base64')}">`)
  const size = await picture.evaluate(async () => {
    const image = document.querySelector('img')!
    await image.decode()
    return image.naturalWidth
  })
  expect(size).toBeGreaterThan(300)
  await picture.close()
  const dxf = new DxfParser().parseSync((await written('dxf')).toString())!
  expect(dxf.entities.filter((e) => e.type === 'INSERT')).toHaveLength(count)
  const pdf = test.info().outputPath('sheet.pdf')
  writeFileSync(pdf, await written('pdf'))
  const text = spawnSync('pdftotext', [pdf, '-'], { encoding: 'utf8' }).stdout
  expect(text).toContain('YD-0042')
  expect(text).toContain('1-0P1')
  expect(spawnSync('pdfinfo', [pdf], { encoding: 'utf8' }).stdout).toMatch(/841\.89 x 595\.2/)
  const report = test.info().outputPath('report.pdf')
  writeFileSync(report, await written('report'))
  expect(spawnSync('pdftotext', [report, '-'], { encoding: 'utf8' }).stdout).toContain('1-0P1')
  expect((await written('png')).subarray(1, 4).toString()).toBe('PNG')
  const book = new ExcelJS.Workbook()
  await book.xlsx.load(new Uint8Array(await written('partsXlsx')).buffer)
  expect(book.worksheets[0].getCell('C1').value).toBe('Part')
  expect((await written('partsCsv')).toString()).toContain('Pressure gauge')
  await page.getByTestId('files').click()
  await page.getByTestId('csv-style').selectOption('semicolon-comma')
  await page.keyboard.press('Escape')
  expect((await written('partsCsv')).toString()).toMatch(/Position;Quantity;Part/)
  expect((await written('netlistCsv')).toString()).toContain('1-')

  await newMachine(page, 'From a drawing')
  const file = (buffer: Buffer) => ({ name: 'x.svg', mimeType: 'image/svg+xml', buffer })
  await page
    .getByTestId('import')
    .setInputFiles(file(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>')))
  await expect(page.getByRole('alert')).toContainText('Nothing was changed')
  await page.getByTestId('import').setInputFiles(file(svg))
  await expect(components(page)).toHaveCount(count)
  await step(page, 'Run')
  await expect(page.getByTestId('run')).toBeEnabled()
})

test('says so where the checks cannot be made', async ({ page }) => {
  await page.route(/check\.worker/, (route) => route.abort())
  await openMachine(page, 'Relief rig')
  const findings = page.getByTestId('findings')
  await expect(findings).toContainText('Checks failed')
  await findings.click()
  await expect(page.getByRole('alert')).toContainText('The checks could not be made')
  // the sheet is there all the same
  await expect(components(page).first()).toBeVisible()
})
