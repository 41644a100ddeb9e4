import { readFileSync } from 'node:fs'
import { expect, test } from '@playwright/test'
import { components, goTo, number, openCopy, openMachine, reading, run, saved } from './helpers'

test('runs the press: the tape moves rod and spool and colours the oil', async ({ page }) => {
  await openCopy(page, 'shavings-press', 'Press run', 'Run')
  await run(page)
  const rod = page.locator('[data-component="A1"] [data-part="rod"]').first()
  const spool = page.locator('[data-component="V3"] [data-part="spool"]').first()
  const shift = (l: typeof rod) =>
    l.evaluate((e) => Number(/translateX\((.*)px\)/.exec((e as unknown as HTMLElement).style.transform)?.[1]))
  const oil = (pipe: string) =>
    page.locator(`[data-oil-pipes~="${pipe}"]`).evaluate((e) => getComputedStyle(e).stroke)
  const way = (pipe: string) => page.locator(`[data-flow="${pipe}"]`).getAttribute('data-way')

  await goTo(page, 0)
  expect(await shift(rod)).toBeCloseTo(0, 1)
  const cold = await oil('L3')
  await goTo(page, 3)
  const stroke = await number(reading(page, 'A1'))
  expect(stroke).toBeGreaterThan(200)
  expect(await shift(rod)).toBeCloseTo((6 * stroke) / 600, 1)
  expect(await shift(spool)).toBeCloseTo(4, 1)
  expect(await way('L12')).toBe('1')
  expect(await way('L4')).toBe('0')
  await goTo(page, 7)
  expect(await oil('L3')).not.toBe(cold)
  expect(await way('L4')).toBe('1')
  expect(await number(reading(page, 'S1'))).toBeGreaterThan(170)
  await goTo(page, 10)
  expect(await shift(spool)).toBeCloseTo(-4, 1)
  expect(await way('L12')).toBe('-1')

  // what happened is marked, and a mark leads to its instant and its place
  const marks = page.getByTestId('conditions').getByRole('button')
  for (const words of ['open, flow', 'cavitation', 'reaches its extended stop', 'workpiece contact'])
    await expect(marks.and(page.getByRole('button', { name: new RegExp(words) })).first()).toBeVisible()
  await page.getByRole('button', { name: /reaches its extended stop/ }).click()
  await expect(page.locator('[data-component="A1"]')).toHaveClass(/selected/)
  expect(Number.parseFloat((await page.getByTestId('time').textContent())!)).toBeGreaterThan(5)

  // charts are there and can be chosen
  await expect(page.locator('.apexcharts-line-series path').first()).toBeVisible()
  await page.getByRole('button', { name: 'Flow', exact: true }).click()
  await expect(page.getByTestId('tape')).toContainText('Flow, L/min')

  // a component says what it is doing
  await page.getByRole('button', { name: 'Properties' }).click()
  await page.locator('[data-component="V1"]').click()
  await goTo(page, 7)
  await expect(page.getByTestId('doing')).toContainText('Open, passing')
  await goTo(page, 3)
  await expect(page.getByTestId('doing')).toContainText('below its cracking pressure')
})

test('answers a changed setting and a valve turned round; keeps a run and lays it over a new one', async ({
  page,
}) => {
  await openCopy(page, 'shavings-press', 'Kept', 'Run')
  await run(page)
  await goTo(page, 7)
  const before = await number(reading(page, 'S1'))
  await page.getByTestId('keep').click()
  await page.getByLabel('Name of the run').fill('Relief at 200 bar')
  await page.getByRole('button', { name: 'Save this run' }).click()
  await expect(page.getByTestId('kept-runs')).toContainText('(1)')

  await page.getByRole('button', { name: 'Properties' }).click()
  await page.locator('[data-component="V1"]').click()
  const setting = page.getByRole('textbox', { name: 'Setting', exact: true })
  await setting.fill('120 bar')
  await setting.press('Enter')
  await expect(page.getByTestId('tape')).toContainText('The sheet has changed since this run')
  await run(page)
  await goTo(page, 7)
  expect(await number(reading(page, 'S1'))).toBeLessThan(before - 50)

  // laid over: the kept run is drawn dashed beside the new one
  const curves = page.locator('.apexcharts-line-series .apexcharts-series')
  const own = await curves.count()
  await page.getByTestId('kept-runs').click()
  await page.getByRole('button', { name: 'Overlay' }).click()
  await expect(curves).toHaveCount(own * 2)
  await page.keyboard.press('Escape')

  // the check valve turned round shuts the way
  await page.locator('[data-component="V2"]').click()
  await page.getByRole('button', { name: 'Swap ports' }).click()
  await run(page)
  await goTo(page, 7)
  expect(await number(reading(page, 'A1'))).toBeLessThan(1)

  // everything is still there after a reload, and opens with the sheet it came from
  await saved(page)
  await page.reload()
  await page.getByTestId('kept-runs').click()
  await page.getByRole('button', { name: 'Open', exact: true }).click()
  await expect(page.getByTestId('tape')).toContainText('The sheet has changed since this run')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Restore its sheet' }).click()
  await goTo(page, 7)
  expect(await number(reading(page, 'S1'))).toBeCloseTo(before, 1)
  await expect(page.locator('[data-component="V1"] .caption')).toContainText('200 bar')
  await saved(page)
})

test('edits the schedule, and the run follows it', async ({ page }) => {
  await openCopy(page, 'relief-rig', 'Scheduled', 'Run')
  await page.getByTestId('edit-schedule').click()
  const pane = page.getByRole('complementary', { name: 'Schedule' })
  await pane.getByRole('button', { name: 'New schedule' }).click()
  await pane.getByRole('textbox', { name: 'Name' }).fill('Piloted at once')
  await pane.getByRole('textbox', { name: 'Name' }).press('Tab')
  const first = pane.getByRole('textbox', { name: 'At', exact: true }).first()
  await first.fill('0.2 s')
  await first.press('Enter')
  await run(page)
  await goTo(page, 0.8)
  // the pilot-operated valve takes the flow at 160 bar, under the 180 bar of the other
  expect(await number(reading(page, 'S1'))).toBeLessThan(160)
  await pane.getByRole('combobox', { name: 'Position' }).first().selectOption({ label: 'centre' })
  await run(page)
  await goTo(page, 0.8)
  expect(await number(reading(page, 'S1'))).toBeGreaterThan(160)
  await expect(components(page)).toHaveCount(15)
  await saved(page)
})

for (const [machine, words] of [
  ['Blade press', 'reaches its extended stop'],
  ['Boat lift', 'open, flow 1 to 2'],
  ['Slipway winch', 'open, flow'],
  ['Gate pack', 'the pump is unloaded'],
])
  test(`${machine} runs and tells its story`, async ({ page }) => {
    await openMachine(page, machine, 'Run')
    await run(page)
    await expect(
      page
        .getByTestId('conditions')
        .getByRole('button', { name: new RegExp(words) })
        .first(),
    ).toBeVisible()
    await expect(page.locator('.apexcharts-line-series path').first()).toBeVisible()
    expect(await page.locator('[data-reading]').first().textContent()).toMatch(/\d/)
  })

test('plays, scrubs on the chart, chooses signals, grows its tape', async ({ page }) => {
  await openCopy(page, 'blade-press', 'Player', 'Run')
  await run(page)
  const time = async () => Number.parseFloat((await page.getByTestId('time').textContent())!)
  await page.getByRole('combobox', { name: 'Playback speed' }).selectOption({ label: '4 ×' })
  await page.getByRole('button', { name: 'Play' }).click()
  await expect.poll(time).toBeGreaterThan(1)
  await page.getByRole('button', { name: 'Pause' }).click()
  const held = await time()
  await page.waitForTimeout(200)
  expect(await time()).toBe(held)
  await page.getByRole('button', { name: 'To the start' }).click()
  expect(await time()).toBe(0)

  const chart = (await page.locator('.apexcharts-grid').first().boundingBox())!
  await page.mouse.move(chart.x + chart.width / 2, chart.y + chart.height / 2)
  await page.mouse.down()
  await page.mouse.move(chart.x + chart.width / 2 + 2, chart.y + chart.height / 2)
  await page.mouse.up()
  expect(await time()).toBeGreaterThan(5.5)
  expect(await time()).toBeLessThan(6.6)

  const curves = page.locator('.apexcharts-line-series .apexcharts-series')
  const before = await curves.count()
  await page.getByRole('button', { name: 'Signals' }).click()
  await page.getByRole('checkbox', { name: 'squeeze line' }).uncheck()
  await expect(curves).toHaveCount(before - 1)
  await page.keyboard.press('Escape')

  const tape = page.getByTestId('tape')
  const height = (await tape.boundingBox())!.height
  await page.getByRole('separator', { name: 'Height of the charts' }).focus()
  await page.keyboard.press('ArrowUp')
  await expect.poll(async () => (await tape.boundingBox())!.height).toBeGreaterThan(height)

  await page.getByRole('button', { name: 'Balance' }).click()
  await expect(page.getByText('shaft input')).toBeVisible()
  await expect(page.getByText(/steps, \d+ rejected/)).toBeVisible()
})

test('renames and deletes kept runs', async ({ page }) => {
  await openCopy(page, 'relief-rig', 'Keeper', 'Run')
  await run(page)
  await page.getByTestId('keep').click()
  await page.getByRole('button', { name: 'Save this run' }).click()
  await page.getByTestId('kept-runs').click()
  const name = page.getByTestId('kept-run').getByRole('textbox')
  await name.fill('First trial')
  // the page is reloaded while a slow network still transfers the name, which reaches the server all the same
  const network = await page.context().newCDPSession(page)
  const unlimited = { offline: false, latency: 0, downloadThroughput: -1, uploadThroughput: -1 }
  await network.send('Network.emulateNetworkConditions', { ...unlimited, uploadThroughput: 30 })
  await name.press('Tab')
  await page.reload()
  await network.send('Network.emulateNetworkConditions', unlimited)
  const machine = page.url().match(/machines\/([^/?]+)/)![1]
  const names = async () => {
    const detail = await (await page.request.get(`/api/machines/${machine}`)).json()
    return detail.runs.map((run: { name: string }) => run.name)
  }
  await expect.poll(names).toEqual(['First trial'])
  await page.reload()
  await page.getByTestId('kept-runs').click()
  await expect(page.getByTestId('kept-run').getByRole('textbox')).toHaveValue('First trial')
  await page.getByRole('button', { name: 'Delete First trial' }).click()
  await expect(page.getByTestId('kept-runs')).toHaveCount(0)
})

/** A machine of its own with a sheet of the demo that was changed before. */
async function openChanged(
  page: import('@playwright/test').Page,
  file: string,
  name: string,
  change: (sheet: { schedules: Record<string, unknown>[] }) => object,
) {
  const sheet = change(JSON.parse(readFileSync(`demo/sheets/${file}.json`, 'utf8')))
  const { id } = await (await page.request.post('/api/machines', { data: { name } })).json()
  const detail = await (await page.request.get(`/api/machines/${id}`)).json()
  await page.request.put(`/api/sheets/${detail.sheet.id}`, { data: { revision: 1, sheet } })
  await openMachine(page, name, 'Run')
}

test('a run that is ended keeps what it has found, and the next one starts afresh', async ({ page }) => {
  // a pilot check that hunts as long as it is let down: minutes of work
  await openChanged(page, 'boat-lift-pilot-check', 'Ended run', (sheet) => ({
    ...sheet,
    schedules: sheet.schedules
      .filter((s) => s.id === 'dead')
      .map((s) => ({ ...s, duration: '6000 s', every: '100 ms', tolerance: 1e-7 })),
  }))
  await page.getByTestId('run').click()
  const stop = page.getByTestId('stop')
  await expect(stop).toBeVisible()
  await page.waitForTimeout(1500)
  await stop.click()
  await expect(page.getByTestId('run')).toBeVisible()
  await expect(page.getByText(/The run stopped at .*: ended by hand/)).toBeVisible()
  // the tape shows what was found until then
  await expect(page.getByTestId('time-slider')).toBeVisible()
  const end = Number(await page.getByTestId('time-slider').getAttribute('max'))
  expect(end).toBeGreaterThan(0)
  expect(end).toBeLessThan(6000)
})

test('a line that would burst is reported, and by choice ends the run', async ({ page }) => {
  await openChanged(page, 'blade-press', 'Bursts', (sheet) => {
    const text = JSON.stringify(sheet).replaceAll('"160 bar"', '"690 bar"')
    const changed = JSON.parse(text)
    // a cylinder for little pressure behind a relief that is set too high
    changed.components = changed.components.map((c: { id: string; parameters: object }) =>
      c.id === 'A1' ? { ...c, parameters: { ...c.parameters, ratedPressure: '20 bar' } } : c,
    )
    return changed
  })
  await run(page)
  await expect(
    page
      .getByTestId('conditions')
      .getByRole('button', { name: /would burst/ })
      .first(),
  ).toBeVisible()
  await page.getByTestId('edit-schedule').click()
  const pane = page.getByRole('complementary', { name: 'Schedule' })
  await pane.getByLabel(/At burst pressure/).selectOption('stop')
  await saved(page)
  await run(page)
  await expect(page.getByText(/would burst, beyond 80 bar, four times its lowest rating/)).toBeVisible()
})
