/** Answers in a run: what sets a pressure at a gauge, its path on the sheet, and what would change it. */
import { expect, test, type Page } from '@playwright/test'
import { goTo, openCopy, run } from './helpers'

const select = (page: Page, id: string) => page.locator(`[data-component="${id}"] .component-reach`).click()

for (const [sheet, gauge, at, cause] of [
  ['blade-press-switches', 'S1', 1.5, 'The load on 1-1A1 sets it.'],
  ['relief-rig', 'S1', 1, 'sets it, at its setting of'],
  ['quay-crane', 'S1', 2.8, 'The control of the pump 1-0P1 sets it: margin over the load signal 20 bar.'],
  ['turntable-brake-valve', 'S1', 1.25, 'The inertia of what 1-1A1 moves sets it: its speed is changing.'],
  ['turntable-cross-port', 'S1', 12, '1-0V1 sets it, at its setting of 160 bar less 17.7 bar at this flow.'],
] as const)
  test(`tells what sets the pressure at a gauge: ${sheet}`, async ({ page }) => {
    await openCopy(page, sheet, `Asked ${sheet}`, 'Run')
    await run(page)
    await page.getByTestId('ask').click()
    await expect(page.getByTestId('answers')).toContainText('Select a line, a gauge or a part')
    await goTo(page, at)
    await select(page, gauge)
    await expect(page.getByTestId('fixed-by')).toContainText(cause)
    // the sum is the pressure, and the path is drawn
    await expect(page.getByTestId('stack')).toContainText('together')
    expect(await page.locator('[data-asked]').count()).toBeGreaterThan(1)
  })

test('tells a balance, what would change a pressure, and the value that gives a wanted one', async ({
  page,
}) => {
  await openCopy(page, 'blade-press-switches', 'Knobs', 'Run')
  await run(page)
  await goTo(page, 1.5)
  await page.getByTestId('ask').click()
  // a pilot line says what it opens
  await select(page, 'V4')
  await page.getByTestId('ask-X').click()
  await expect(page.getByTestId('oil-path')).toContainText('It pilots 1-1V2 at X, which opens')
  await select(page, 'V1')
  await expect(page.getByTestId('balance')).toContainText('to go until it opens.')
  // ports of a part by their letters
  await page.getByTestId('ask-T').click()
  await expect(page.getByTestId('fixed-by')).toContainText('tank')
  await page.getByTestId('ask-P').click()
  await page.getByTestId('knobs-open').click()
  const knobs = page.getByTestId('knobs')
  await expect(knobs).toContainText('1-1A1 bore', { timeout: 20_000 })
  await page.getByTestId('knob-A1.loadForce').click()
  await page.getByTestId('wanted').fill('40 bars')
  await page.getByTestId('wanted').press('Enter')
  await expect(page.getByTestId('wanted-answer')).toContainText('Unknown unit')
  await page.getByTestId('wanted').fill('40 bar')
  await page.getByTestId('wanted').press('Enter')
  await expect(page.getByTestId('wanted-answer')).toContainText('1-1A1 constant force of', {
    timeout: 20_000,
  })
  // another instant is answered anew: nothing else takes the oil there
  await goTo(page, 13)
  await expect(page.getByTestId('fixed-by')).toContainText('1-0V1 sets it')
})

test('tells how long a braked load goes on, and what a setting does to it', async ({ page }) => {
  await openCopy(page, 'turntable-cross-port', 'Stopping', 'Run')
  await run(page)
  await goTo(page, 8.1)
  await page.getByTestId('ask').click()
  // a load has no oil, and is asked all the same
  await select(page, 'W1')
  await page.getByTestId('knobs-open').click()
  await page.getByTestId('figure').selectOption('its way until it stands still')
  await expect(page.getByTestId('knobs')).toContainText('1-1V2 setting from B to A', { timeout: 20_000 })
  await expect(page.getByTestId('figure-now')).toContainText('°')
  // the motor on its shaft, with the ways of its oil
  await select(page, 'H1')
  await expect(page.getByTestId('part-ways')).toContainText('through the motor')
  await page.getByTestId('figure').selectOption('the time until it stands still')
  await expect(page.getByTestId('knobs')).toContainText('1-1V2 setting from B to A', { timeout: 20_000 })
  await page.getByTestId('knob-V3.back').click()
  await page.getByTestId('wanted').fill('2 s')
  await page.getByTestId('wanted').press('Enter')
  await expect(page.getByTestId('wanted-answer')).toContainText('1-1V2 setting from B to A of', {
    timeout: 20_000,
  })
})

test('answers while a machine is worked by hand', async ({ page }) => {
  await openCopy(page, 'boat-lift-lever', 'Asked live', 'Run')
  await page.getByTestId('live').click()
  await expect(page.getByTestId('console')).toBeVisible()
  await page.getByTestId('ask').click()
  await select(page, 'P1')
  await page.getByTestId('ask-P').click()
  await expect(page.getByTestId('asked-pressure')).toContainText('bar')
  await expect(page.getByTestId('stack')).toContainText('together')
})

test('a run is read on a wide sheet: letters, scale, conditions, lanes and charts', async ({ page }) => {
  await openCopy(page, 'quay-crane', 'Read', 'Run')
  await run(page)
  // no letter is smaller than 10 px; captions have made room
  const shown = await page.locator('.caption').evaluateAll((all) =>
    all.map((e) => {
      const { a } = (e as SVGGraphicsElement).getScreenCTM()!
      return Number.parseFloat(getComputedStyle(e).fontSize) * a
    }),
  )
  expect(shown.length).toBeGreaterThan(10)
  for (const height of shown) expect(height).toBeGreaterThan(9.9)
  // round ticks in either system of units
  const ticks = () => page.getByTestId('pressure-tick').allTextContents()
  expect(await ticks()).toContain('100')
  await page.getByLabel('Units').selectOption('us')
  for (const tick of await ticks()) expect(Number(tick) % 100).toBe(0)
  // what lasts is named without a click
  await expect(page.getByTestId('conditions')).toContainText('open')
  // lanes fold, and charts can have the whole window
  await page.getByTestId('fold-lanes').click()
  await expect(page.getByText('1-1V1 lever', { exact: true })).toHaveCount(0)
  await page.getByTestId('enlarge-tape').click()
  const { height } = (await page.getByTestId('tape').boundingBox())!
  expect(height).toBeGreaterThan(650)
  await page.getByTestId('enlarge-tape').click()
  await expect(page.getByTestId('sheet')).toBeVisible()
})
