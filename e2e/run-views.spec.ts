/** A run in words, tables and pictures: walkthrough, strokes, states, energy, comparison, pens, the inside of a part. */
import { readFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { bladePress } from '../demo/briefs'
import { goTo, openCopy, run } from './helpers'

const select = (page: Page, id: string) => page.locator(`[data-component="${id}"] .component-reach`).click()
const time = async (page: Page) => Number.parseFloat((await page.getByTestId('time').textContent())!)
async function saved(page: Page, click: () => Promise<void>): Promise<Buffer> {
  const [download] = await Promise.all([page.waitForEvent('download'), click()])
  return readFileSync((await download.path())!)
}

test('a walkthrough is followed sentence by sentence, and written as a file', async ({ page }) => {
  await openCopy(page, 'blade-press', 'Views Walked', 'Run')
  await run(page)
  // by keyboard, as by the button
  await page.locator('body').press('w')
  const states = page.getByTestId('walkthrough-state')
  await expect(states.first()).toContainText('The run begins')
  const second = states.filter({ hasText: '1-1A1 reaches its extended stop' }).first()
  await second.click()
  expect(await time(page)).toBeGreaterThan(2.9)
  await expect(second).toHaveAttribute('aria-current', 'step')
  const oil = page.getByTestId('walkthrough-sentence').filter({ hasText: 'Its oil' })
  await expect(oil).toContainText('1-0P1 > 1-1V1 > 1-2V1 > 1-2A1')
  await oil.click()
  await expect(page.locator('[data-asked]').first()).toBeAttached()
  expect(await page.locator('[data-asked]').count()).toBeGreaterThan(2)
  // what ends a state leads to the instant at which it ends
  await page.getByTestId('walkthrough-sentence').filter({ hasText: 'It lasts until' }).click()
  expect(await time(page)).toBeCloseTo(3.93, 1)
  await page.getByTestId('walkthrough-all').check()
  expect(await page.getByTestId('walkthrough-sentence').count()).toBeGreaterThan(40)
  await page.getByTestId('walkthrough-export').click()
  const text = await saved(page, () => page.getByTestId('walkthrough-md').click())
  expect(text.toString()).toContain('## 2. 0.5 s: 1-1V1 goes to position a')
  const pdf = await saved(page, () => page.getByTestId('walkthrough-pdf').click())
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
})

test('strokes are laid over what the brief intends, with what differs', async ({ page }) => {
  await openCopy(page, 'blade-press', 'Views Stroked', 'Run', bladePress)
  await run(page)
  await page.getByTestId('view-strokes').click()
  const differences = page.getByTestId('stroke-differences')
  await expect(differences).toContainText('1-1A1 loses its force')
  await expect(differences).toContainText('Overlap: 1-1A1 retracts')
  await differences.getByRole('button').filter({ hasText: 'loses its force' }).click()
  expect(await time(page)).toBeCloseTo(6.54, 1)
  const svg = await saved(page, () => page.getByTestId('strokes-svg').click())
  expect(svg.toString()).toContain('1-2A1')
  expect(svg.toString()).toContain('300 mm')
  const csv = await saved(page, () => page.getByTestId('strokes-csv').click())
  expect(csv.toString()).toMatch(/^differs,1-1A1,/m)
  const pdf = await saved(page, () => page.getByTestId('strokes-pdf').click())
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
})

test('the table of states is opened, added to and exported', async ({ page }) => {
  await openCopy(page, 'blade-press', 'Views Tabled', 'Run')
  await run(page)
  await page.getByTestId('view-states').click()
  const rows = page.getByTestId('state-row')
  await expect(rows.filter({ hasText: '1-2V1 opens' })).toContainText('extends at 77 mm/s')
  const before = await rows.count()
  await rows.filter({ hasText: '1-2V1 opens' }).getByRole('button').first().click()
  expect(await time(page)).toBeCloseTo(2.87, 1)
  await page.getByTestId('add-state').click()
  await page.getByTestId('state-add').click()
  await expect(page.getByTestId('state-form')).toContainText('Give the state a name.')
  await page.getByTestId('state-name').fill('pushed back for good')
  await page.getByTestId('state-V2.command').selectOption({ label: 'position b' })
  await page.getByTestId('state-add').click()
  await expect(rows).toHaveCount(before + 1)
  await expect(rows.last()).toContainText('pushed back for good')
  await expect(rows.last()).toContainText('position b')
  const csv = await saved(page, () => page.getByTestId('states-csv').click())
  expect(csv.toString()).toContain('1-0S1 set by')
  expect(csv.toString()).toContain('pushed back for good')
  const xlsx = await saved(page, () => page.getByTestId('states-xlsx').click())
  expect(xlsx.subarray(0, 2).toString()).toBe('PK')
})

test('energy is shown for the run and for a state, with the temperature at which the oil stays', async ({
  page,
}) => {
  await openCopy(page, 'gate-pack', 'Views Warmed', 'Run')
  await run(page)
  await page.getByTestId('view-energy').click()
  const picture = page.getByTestId('energy-picture')
  await expect(picture).toContainText('1-0M1 62.3 kJ')
  await expect(picture).toContainText('kept in masses, heights and stores')
  await page.getByTestId('find-steady').click()
  await expect(page.getByTestId('steady')).toContainText(
    /would stay at 59\.\d °C: it takes up 0\.59\d kW, and gives 0\.59\d kW/,
    {
      timeout: 30_000,
    },
  )
  await page.getByTestId('energy-span').selectOption({ index: 3 })
  await expect(picture).not.toContainText('1-0M1 62.3 kJ')
  const csv = await saved(page, () => page.getByRole('button', { name: 'CSV' }).click())
  expect(csv.toString()).toContain('put in,1-0M1,62.')
})

test('a run is compared with the one before it', async ({ page }) => {
  await openCopy(page, 'blade-press', 'Views Compared', 'Run')
  await run(page)
  await page.getByTestId('view-compare').click()
  await expect(page.getByTestId('compare')).toContainText('There is nothing to compare with yet')
  await page
    .getByRole('navigation', { name: 'Steps' })
    .getByRole('link', { name: /^Sheet/ })
    .click()
  await select(page, 'V1')
  await page.getByLabel('Setting', { exact: true }).fill('120 bar')
  await page.getByLabel('Setting', { exact: true }).press('Enter')
  await page.getByRole('navigation', { name: 'Steps' }).getByRole('link', { name: /^Run/ }).click()
  await page.getByTestId('run').click()
  await page.getByTestId('compare-with').selectOption('previous')
  await expect(page.getByTestId('compare-summary')).toContainText('The order of motions is the same.')
  const peak = page.getByTestId('compare-row').filter({ hasText: '1-0S1: highest' })
  await expect(peak).toContainText('+')
  const csv = await saved(page, () => page.getByTestId('compare-csv').click())
  expect(csv.toString()).toContain('the run before')
})

test('a path is kept as a pen on the sheet and in its file, and lines are told apart', async ({ page }) => {
  await openCopy(page, 'blade-press', 'Views Penned', 'Run')
  await run(page)
  await goTo(page, 1.5)
  await page.locator('body').press('y')
  await select(page, 'A1')
  const picture = await saved(page, () => page.getByTestId('path-picture').click())
  expect(picture.toString()).toContain('1-1A1 at 1.5 s')
  await page.getByTestId('keep-path').click()
  await expect(page.getByTestId('pen-legend').getByRole('textbox')).toHaveValue(/^1-1A1 at 1.5/)
  await page.getByTestId('pen-legend').getByRole('textbox').fill('The clamp goes out')
  await page.getByTestId('pen-legend').getByRole('textbox').press('Enter')
  await expect(page.locator('[data-pen="1"] path').first()).toBeAttached()
  // the run is still that of this sheet
  await expect(page.getByTestId('fixed-by')).toContainText('The load on 1-1A1 sets it.')
  await page.getByTestId('show-roles').click()
  await expect(page.getByTestId('role-legend')).toContainText('supply of 1-0P1')
  await expect(page.getByTestId('role-legend')).toContainText('from the tank')
  await page
    .getByRole('navigation', { name: 'Steps' })
    .getByRole('link', { name: /^Sheet/ })
    .click()
  await page.getByTestId('files').click()
  const svg = await saved(page, () => page.getByTestId('export-svg').click())
  expect(svg.toString()).toContain('The clamp goes out (1-1A1 A')
  await page.getByLabel('Remove pen 1').click()
  await expect(page.locator('[data-pen]')).toHaveCount(0)
})

test('the inside of a part follows the tape, and its card says what goes wrong with it', async ({ page }) => {
  await openCopy(page, 'blade-press', 'Views Inside', 'Run')
  await run(page)
  await page.getByTestId('ask').click()
  await select(page, 'V3')
  const poppet = page.getByTestId('inside').locator('[data-part]').first()
  await goTo(page, 1.5)
  await expect(page.getByTestId('inside')).toContainText('lift 0 %')
  const shut = await poppet.getAttribute('points')
  await goTo(page, 3.5)
  await expect(page.getByTestId('inside')).toContainText('lift 15 %')
  expect(await poppet.getAttribute('points')).not.toBe(shut)
  await page.getByTestId('show-guide').click()
  await expect(page.getByTestId('guide')).toContainText('Usual mistakes')
  await expect(page.getByTestId('guide')).toContainText('only a switch at the stop proves that')
  // a speed is asked about as a pressure is
  await select(page, 'A2')
  await page.getByTestId('knobs-open').click()
  const knobs = page.getByTestId('knobs')
  await expect(knobs).toContainText(' bar', { timeout: 20_000 })
  // what was found for the pressure is gone at once, not when the speed is worked out
  const left = await page.getByTestId('figure').evaluate(async (element) => {
    const select = element as HTMLSelectElement
    select.value = 'its speed'
    select.dispatchEvent(new Event('change'))
    await new Promise(requestAnimationFrame)
    return document.querySelectorAll('[data-testid=knobs]').length
  })
  expect(left).toBe(0)
  await expect(knobs).toContainText('mm/s', { timeout: 20_000 })
})
