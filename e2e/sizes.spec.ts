import { spawnSync } from 'node:child_process'
import { expect, test } from '@playwright/test'
import { bladePress, shavingsPress } from '../demo/briefs'
import { openCopy, run, saved, step } from './helpers'

test('sizes from the brief, with the numbers put in, and hands over to the sheet', async ({ page }) => {
  await openCopy(page, 'shavings-press', 'Sized', 'Sizes', shavingsPress)
  const nav = page.getByTestId('sizes-nav')
  await nav.getByTestId('nav-cylinder-bore@platen').click()
  const card = page.getByTestId('card-cylinder-bore@platen')
  await expect(card.getByTestId('answer')).toHaveText('80 mm')
  await expect(card).toContainText('60 kN / 127.7 bar')
  await expect(nav).toContainText('16 of 16 values')

  // a larger size is chosen: pump and motor follow, and the sheet differs
  await card.getByTestId('candidates-bore').getByRole('button', { name: 'Choose 100 mm' }).click()
  await expect(card.getByTestId('answer')).toHaveText('100 mm')
  await expect(nav.getByTestId('nav-pump-displacement')).toContainText('40 cm³/rev')
  await card.getByTestId('apply-bore-1-1A1').click()
  await expect(card.getByTestId('targets')).toContainText('1-1A1: bore 100 mm')
  await step(page, 'Sheet')
  await expect(page.locator('[data-component="A1"] .caption')).toContainText('⌀ 100 mm')
  await step(page, 'Sizes')
  await nav.getByRole('button', { name: 'Apply all to the sheet' }).click()
  await expect(nav).toContainText('16 of 16 values')
  await nav.getByTestId('nav-line-return').click()
  // lines of the service are among all that is applied
  await expect(page.getByTestId('card-line-return').getByTestId('targets')).toContainText('wide enough')
  await expect(page.getByTestId('apply-lines-return')).toHaveCount(0)
  // undo takes the sizes back with the sheet
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(nav.getByRole('button', { name: 'Apply all to the sheet' })).toBeVisible()
  await page.getByRole('combobox', { name: 'Units' }).selectOption('us')
  await nav.getByTestId('nav-linear-load@platen').click()
  await expect(page.getByTestId('card-linear-load@platen').getByTestId('answer')).toHaveText('13489 lbf')
  await page.getByRole('combobox', { name: 'Units' }).selectOption('metric')
  await saved(page)
})

test('solves for an unknown, says what has no solution, and takes values back', async ({ page }) => {
  await openCopy(page, 'shavings-press', 'Solved', 'Sizes', shavingsPress)
  await page.getByTestId('nav-pump-displacement').click()
  const card = page.getByTestId('card-pump-displacement')
  await card.getByRole('button', { name: 'Displacement: give' }).click()
  await card.getByRole('textbox', { name: 'Displacement, given' }).fill('16 cc')
  await card.getByRole('textbox', { name: 'Displacement, given' }).press('Enter')
  await expect(card.getByTestId('step-displacement')).toContainText('given here, computed 25 cm³/rev')
  await expect(card).toContainText('does not deliver the greatest flow')
  await card.getByRole('button', { name: 'Solve for Shaft speed' }).click()
  await card.getByLabel('Result that is wanted').selectOption('delivered')
  await card.getByRole('textbox', { name: 'Value that is wanted' }).fill('30 L/min')
  await card.getByRole('textbox', { name: 'Value that is wanted' }).press('Enter')
  await card.getByRole('button', { name: 'Solve', exact: true }).click()
  // 30 000 / (16 · 0.92)
  await expect(card.getByTestId('input-speed').getByRole('textbox')).toHaveAttribute(
    'placeholder',
    '2038 rpm',
  )
  await expect(card.getByTestId('input-speed')).toContainText('solved for')
  await card.getByRole('button', { name: 'stop solving' }).click()
  await card.getByRole('button', { name: 'Displacement: take back' }).click()
  await card.getByRole('button', { name: 'Flow delivered: take back' }).click()
  await expect(card.getByTestId('answer')).toHaveText('25 cm³/rev')
  const volumetric = card.getByTestId('input-volumetric').getByRole('textbox')
  await volumetric.fill('300 %')
  await volumetric.press('Enter')
  await expect(card.getByTestId('input-volumetric').getByRole('alert')).toContainText('between')
  await saved(page)
})

test('sets what a run shows beside what was computed, with the reason', async ({ page }) => {
  await openCopy(page, 'shavings-press', 'Compared', 'Sizes', shavingsPress)
  await page.getByTestId('nav-cylinder-result@platen').click()
  await expect(page.getByTestId('card-run')).toContainText('Run the sheet')
  await step(page, 'Run')
  await run(page)
  await step(page, 'Sizes')
  await page.getByTestId('nav-cylinder-result@platen').click()
  const row = page.getByTestId('card-run').getByRole('row', { name: /^Speed, extending/ })
  await expect(row).toContainText('114.4 mm/s')
  await expect(row).toContainText('%')
  await page.getByTestId('nav-relief-setting').click()
  await expect(page.getByTestId('card-run')).toContainText('the value holds for its rated flow')
})

test('shows all pressures of a machine on a ruler, opens further cards, and calculates without a machine', async ({
  page,
}) => {
  await openCopy(page, 'blade-press', 'Ruled', 'Sizes', bladePress)
  await page.getByTestId('open-ruler').click()
  const ruler = page.getByTestId('settings-ruler')
  await expect(ruler).toContainText('Sequence valve: setting')
  await ruler.getByRole('button', { name: /Sequence valve: setting/ }).click()
  await expect(page.getByTestId('card-sequence-setting')).toBeVisible()
  await page.getByLabel('Open another card').selectOption('water-hammer')
  await expect(page.getByTestId('card-water-hammer')).toContainText('Joukowsky')
  await page.getByRole('button', { name: 'Take this card away' }).click()
  await expect(page.getByTestId('nav-water-hammer')).toHaveCount(0)
  await page.getByRole('button', { name: 'Calculator' }).click()
  await page.getByTestId('nav-cylinder-bore').click()
  const free = page.getByTestId('card-cylinder-bore')
  const force = free.getByTestId('input-force').getByRole('textbox')
  await force.fill('110 kN')
  await force.press('Enter')
  await expect(free.getByTestId('answer')).toHaveText('125 mm')
  await free.getByRole('button', { name: 'What if' }).click()
  const whatIf = free.getByTestId('what-if')
  await expect(whatIf.getByTestId('sweep').getByRole('cell').first()).toContainText('mm')
  await whatIf.getByLabel('Result').selectOption('pressure')
  await whatIf.getByRole('textbox', { name: '± Force that resists, out' }).fill('10 %')
  await whatIf.getByRole('textbox', { name: '± Force that resists, out' }).press('Enter')
  await expect(whatIf.getByTestId('spread')).toContainText('Force that resists, out: 100 % of it')
  await page.getByTestId('nav-pump-displacement').click()
  await expect(page.getByTestId('assessment')).toContainText('External gear pump')
  await saved(page)
})

test('hands the calculation over as a page and as a workbook', async ({ page }) => {
  await openCopy(page, 'shavings-press', 'Reported', 'Sizes', shavingsPress)
  await page.getByTestId('open-calculation').click()
  const report = page.getByTestId('calculation')
  await expect(report).toContainText('60 kN / 127.7 bar')
  await expect(report).toContainText('Chosen because: Thin rod')
  await expect(report).toContainText('1-1A1, bore 80 mm: agrees')
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByTestId('calculation-xlsx').click(),
  ])
  expect(file.suggestedFilename()).toMatch(/-calculation\.xlsx$/)
})

test('renames a machine', async ({ page }) => {
  await openCopy(page, 'relief-rig', 'Nameless', 'Brief')
  const name = page.getByRole('textbox', { name: 'Machine', exact: true })
  await name.fill('Named rig')
  await name.press('Tab')
  await expect(page.getByTestId('machine-name')).toHaveText('Named rig')
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'Named rig' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Nameless' })).toHaveCount(0)
})

test('shows every symbol of the catalogue, each with its ports', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Symbols' }).click()
  await expect(page.getByRole('heading', { name: 'Symbols' })).toBeVisible()
  expect(await page.getByRole('img').count()).toBeGreaterThanOrEqual(30)
  await expect(page.getByRole('img', { name: 'Sequence valve' })).toContainText('Y')
})

test('takes sizes from a series of one’s own, which holds until it is taken away', async ({ page }) => {
  await openCopy(page, 'shavings-press', 'Own series', 'Sizes', shavingsPress)
  await page.getByTestId('open-series').click()
  const view = page.getByTestId('series')
  await expect(view.getByTestId('series-bores')).toContainText('ISO 3320')
  const table = (text: string) => ({ name: 'series.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  const file = view.getByTestId('series-file')
  await file.setInputFiles(table('series,sizes of,size\nStore,bores,3 bar\n'))
  await expect(view.getByTestId('series-message')).toContainText(
    'Nothing was added. Row 2: Unknown unit "bar"',
  )
  await file.setInputFiles(
    table('series;sizes of;use;source;size [mm]\nStore;bores;instead;stock list;70\n;;;;85\n;;;;110\n'),
  )
  await expect(view).toContainText('Store')
  await expect(view.getByTestId('series-bores')).toContainText('70 mm to 110 mm')
  await page.getByTestId('nav-cylinder-bore@platen').click()
  const card = page.getByTestId('card-cylinder-bore@platen')
  await expect(card.getByTestId('answer')).toHaveText('85 mm')
  await expect(card.getByTestId('candidates-bore')).toContainText('sizes of stock list')
  // beside the standard the next size is that of the standard again
  await page.getByTestId('open-series').click()
  await view.getByRole('combobox', { name: 'Store: use' }).selectOption('added')
  await expect(page.getByTestId('nav-cylinder-bore@platen')).toContainText('80 mm')
  const saving = page.waitForEvent('download')
  await view.getByRole('button', { name: 'Own series, CSV' }).click()
  expect((await saving).suggestedFilename()).toMatch(/-series\.csv$/)
  // it is kept with the workspace
  await page.reload()
  await page.getByTestId('open-series').click()
  await view.getByRole('button', { name: 'Take Store away' }).click()
  await expect(view).not.toContainText('Store')
})

test('writes the calculation as PDF', async ({ page }) => {
  await openCopy(page, 'shavings-press', 'Written', 'Sizes', shavingsPress)
  await page.getByTestId('open-calculation').click()
  const saving = page.waitForEvent('download')
  await page.getByTestId('calculation-pdf').click()
  const path = await (await saving).path()
  const text = spawnSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' }).stdout
  expect(text).toContain('Calculation: Written')
  expect(text).toContain('46.97 cm²')
})
