import { expect, test } from '@playwright/test'
import {
  clickPipe,
  components,
  goTo,
  lay,
  newMachine,
  number,
  onPipe,
  openCopy,
  openMachine,
  pipes,
  place,
  port,
  reading,
  run,
  saved,
  step,
} from './helpers'

test('draws a circuit from nothing, runs it, reads a pressure, and finds it again', async ({ page }) => {
  await newMachine(page, 'Trial unit')
  await expect(page.getByText('An empty sheet')).toBeVisible()
  await place(page, 'tank', 300, 600)
  await place(page, 'pump', 300, 450)
  await place(page, 'motor', 120, 450)
  await place(page, 'relief', 480, 450)
  await place(page, 'reservoir', 480, 600)
  await expect(components(page)).toHaveCount(5)
  // what is not connected yet is marked quietly, and is no error while drawing
  await expect(page.getByTestId('findings')).toContainText('open port')
  await expect(page.getByTestId('findings')).not.toContainText('error')
  await expect(page.locator('[data-open-port="P1:P"]')).toBeVisible()
  await expect(page.locator('.marked-error')).toHaveCount(0)
  // and is one when a run is asked for
  await step(page, 'Run')
  await expect(page.getByTestId('run')).toBeDisabled()
  await expect(page.locator('[data-component="P1"]')).toHaveClass(/marked-error/)
  await step(page, 'Sheet')
  await lay(page, port(page, 'P1', 'S'), port(page, 'Z1', 'T'))
  await lay(page, port(page, 'M1', 'W'), port(page, 'P1', 'W'))
  await lay(page, port(page, 'P1', 'P'), port(page, 'V1', 'P'))
  await lay(page, port(page, 'V1', 'T'), port(page, 'Z2', 'T'))
  await expect(pipes(page)).toHaveCount(4)
  await expect(page.getByTestId('findings')).toContainText('Checks pass')

  // a gauge whose pipe ends on another pipe makes a junction with its dot
  await place(page, 'gauge', 380, 200)
  const line = page.locator('[data-pipe="L3"] .pipe-line')
  const points = (await line.getAttribute('points'))!.split(' ').map((p) => p.split(',').map(Number))
  expect(points.length).toBeGreaterThanOrEqual(2)
  for (let i = 1; i < points.length; i++)
    expect(points[i][0] === points[i - 1][0] || points[i][1] === points[i - 1][1]).toBe(true)
  await lay(page, port(page, 'S1', 'P'), await onPipe(page, 'L3'))
  await expect(page.locator('.junction')).toHaveCount(1)
  await expect(pipes(page)).toHaveCount(6)
  await saved(page)

  await step(page, 'Run')
  await run(page)
  await goTo(page, 3)
  expect(await number(reading(page, 'S1'))).toBeCloseTo(146, 0)

  await page.reload()
  await expect(components(page)).toHaveCount(6)
  await expect(page.locator('.junction')).toHaveCount(1)
  await run(page)
  await goTo(page, 3)
  expect(await number(reading(page, 'S1'))).toBeCloseTo(146, 0)
})

test('a second pipe starts at a port where the first one has just ended', async ({ page }) => {
  await newMachine(page, 'Twice from one port')
  await place(page, 'check', 300, 400)
  await place(page, 'single-acting', 300, 200)
  await place(page, 'gauge', 420, 300)
  await lay(page, port(page, 'V1', 'B'), port(page, 'A1', 'A'))
  await expect(page.locator('.pipe-end')).toHaveCount(2)
  await lay(page, port(page, 'A1', 'A'), port(page, 'S1', 'P'))
  await expect(pipes(page)).toHaveCount(2)
  await expect(page.locator('[data-pipe="L1"]')).toHaveAttribute('aria-label', /from V1\.B to A1\.A/)
  await expect(page.locator('[data-pipe="L2"]')).toHaveAttribute('aria-label', /from A1\.A to S1\.P/)
  // where the two part there is a dot
  await expect(page.locator('.branch')).toHaveCount(1)
  // a gauge that is put on the first has it led round
  const line = page.locator('[data-pipe="L1"] .pipe-line')
  const straight = await line.getAttribute('points')
  const box = (await page.getByTestId('sheet').boundingBox())!
  const on = await onPipe(page, 'L1')
  await place(page, 'gauge', on.x - box.x, on.y - box.y)
  await expect(components(page)).toHaveCount(4)
  await expect(pipes(page)).toHaveCount(2)
  await expect(line).not.toHaveAttribute('points', straight!)
  // the second, as a hose, hangs through
  await page.locator('[data-pipe="L2"]').focus()
  await page.keyboard.press('Enter')
  await page.getByLabel('Line type').selectOption('hose')
  await expect(page.locator('[data-pipe="L2"] .pipe-line')).toHaveAttribute('d', /A/)
})

test('moves, turns, mirrors, deletes, and takes it all back', async ({ page }) => {
  await openCopy(page, 'relief-rig', 'Moving')
  await expect(components(page)).toHaveCount(15)
  const relief = page.locator('[data-component="V1"]')
  const state = async () => [
    await relief.locator('.symbol').getAttribute('transform'),
    await page.locator('[data-pipe="L4"] .pipe-line').getAttribute('points'),
  ]
  const first = await state()
  const box = (await relief.locator('.component-reach').boundingBox())!
  const at = { x: box.x + box.width / 2, y: box.y + box.height / 2 }
  await page.mouse.move(at.x, at.y)
  await page.mouse.down()
  await page.mouse.move(at.x + 20, at.y + 10)
  await page.mouse.move(at.x + 40, at.y + 20)
  // it is seen where it is moved to, with its pipes, and not where it was
  const moving = page.getByTestId('moving')
  const there = (await moving.locator('.component-reach').boundingBox())!
  expect(there.x - box.x).toBeGreaterThan(25)
  await expect(moving.locator('[data-pipe="L4"] .pipe-line')).toHaveCount(1)
  await expect(page.locator('.dragged .symbol')).toBeHidden()
  await page.mouse.up()
  await expect(moving.locator('.component')).toHaveCount(0)
  await expect(relief.locator('.symbol')).toBeVisible()
  const moved = await state()
  expect(moved[0]).not.toBe(first[0])
  expect(moved[1]).not.toBe(first[1])
  // the keyboard is still at the sheet
  await page.keyboard.press('Control+z')
  expect(await state()).toEqual(first)
  await page.keyboard.press('Control+y')
  expect(await state()).toEqual(moved)
  const sheet = page.getByTestId('sheet')
  await sheet.press('r')
  await expect(relief.locator('.symbol')).toHaveAttribute('transform', / rotate\(90\)$/)
  await sheet.press('m')
  await expect(relief.locator('.symbol')).toHaveAttribute('transform', /scale\(-1 1\)/)
  await sheet.press('ArrowRight')
  await sheet.press('Delete')
  await expect(components(page)).toHaveCount(14)
  // the line it stood on has healed: two pipes have become one
  await expect(page.locator('.junction')).toHaveCount(1)
  for (let i = 0; i < 5; i++) await sheet.press('Control+z')
  expect(await state()).toEqual(first)
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
  for (let i = 0; i < 5; i++) await page.getByRole('button', { name: 'Redo' }).click()
  await expect(components(page)).toHaveCount(14)
  for (let i = 0; i < 5; i++) await page.getByRole('button', { name: 'Undo' }).click()
  await expect(components(page)).toHaveCount(15)
  await saved(page)
})

test('zooms, pans and fits', async ({ page }) => {
  await openMachine(page, 'Relief rig')
  const layer = page.locator('.layer').first()
  const style = () => layer.evaluate((e) => (e as HTMLElement).style.transform)
  const first = await style()
  const box = (await page.getByTestId('sheet').boundingBox())!
  await page.mouse.move(box.x + 30, box.y + 500)
  await page.mouse.wheel(0, -200)
  await expect.poll(style).not.toBe(first)
  const zoomed = await style()
  // pulled, the drawing follows the pointer at once, and is where it was left when let go
  const valve = page.locator('[data-component="V3"]')
  const place = async () => {
    const { x, y } = (await valve.boundingBox())!
    return [Math.round(x), Math.round(y)]
  }
  const [x, y] = await place()
  await page.mouse.down()
  await page.mouse.move(box.x + 60, box.y + 520)
  await page.mouse.move(box.x + 90, box.y + 540)
  expect(await place()).toEqual([x + 60, y + 40])
  await page.mouse.up()
  expect(await place()).toEqual([x + 60, y + 40])
  expect(await style()).not.toBe(zoomed)
  await valve.click()
  await expect(valve).toHaveClass(/selected/)
  await page.getByRole('button', { name: 'Fit to window' }).click()
  await expect.poll(style).toBe(first)
})

test('edits values with units, in either unit system, and says what is wrong at the field', async ({
  page,
}) => {
  await openCopy(page, 'relief-rig', 'Values')
  await page.locator('[data-component="V3"]').click()
  const setting = page.getByRole('textbox', { name: 'Setting', exact: true })
  await expect(setting).toHaveValue('160 bar')
  await setting.fill('2000 psi')
  await setting.press('Enter')
  await expect(setting).toHaveValue('137.9 bar')
  await expect(page.locator('[data-component="V3"] .caption')).toContainText('137.9 bar')
  await page.getByRole('combobox', { name: 'Units' }).selectOption('us')
  await expect(setting).toHaveValue('2000 psi')
  await expect(page.locator('[data-component="P1"] .caption')).toContainText('0.9764 in³/rev')
  // what the checks say is written in the same units
  await page.getByTestId('findings').click()
  await expect(page.getByTestId('accepted').filter({ hasText: '9.7 hp of heat at 2611 psi' })).toBeVisible()
  await page.keyboard.press('Escape')
  await setting.fill('1450')
  await setting.press('Enter')
  await expect(setting).toHaveValue('1450 psi')
  await page.getByRole('combobox', { name: 'Units' }).selectOption('metric')
  await expect(setting).toHaveValue('99.974 bar')
  await setting.fill('2,5 bar')
  await setting.press('Enter')
  await expect(setting).toHaveValue('2.5 bar')

  await setting.fill('12 furlong')
  await setting.press('Enter')
  await expect(page.getByRole('alert')).toContainText('Unknown unit "furlong"')
  await expect(setting).toHaveValue('12 furlong')
  await setting.press('Escape')
  await expect(setting).toHaveValue('2.5 bar')
  // an absurd value is kept and named, and the run is held back
  await setting.fill('99999 bar')
  await setting.press('Enter')
  await expect(page.getByRole('alert')).toContainText('outside what is possible')
  await expect(page.locator('[data-component="V3"]')).toHaveClass(/marked-error/)
  await step(page, 'Run')
  await expect(page.getByTestId('run')).toBeDisabled()
  await step(page, 'Sheet')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByTestId('findings')).toContainText('Checks pass')
  await saved(page)
})

test('names a circuit that cannot be run at the component concerned', async ({ page }) => {
  await openCopy(page, 'shavings-press', 'Faulty')
  await clickPipe(page, 'L4')
  await expect(page.locator('[data-pipe="L4"]')).toHaveClass(/selected/)
  await page.getByTestId('sheet').press('Delete')
  await expect(page.locator('[data-open-port="V1:P"]')).toBeVisible()
  await expect(page.locator('[data-component="P1"]')).toHaveClass(/marked-warning/)
  await page.getByTestId('findings').click()
  await expect(page.getByRole('button', { name: /Port P of 1-0V1 .protected line. is open/ })).toBeVisible()
  await page.getByRole('button', { name: /has no relief valve/ }).click()
  await expect(page.locator('[data-component="P1"]')).toHaveClass(/selected/)
  await step(page, 'Run')
  await expect(page.getByTestId('run')).toBeDisabled()
  await expect(page.getByTestId('tape')).toContainText('cannot be run yet')
  await step(page, 'Sheet')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByTestId('findings')).toContainText('Checks pass')
  await saved(page)
})

test('writes a sheet file and reads it back; a bad one changes nothing', async ({ page }) => {
  await openCopy(page, 'relief-rig', 'Filed')
  await page.getByTestId('files').click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByTestId('export-json').click(),
  ])
  expect(download.suggestedFilename()).toBe('relief-rig.json')
  const path = await download.path()
  await newMachine(page, 'Copy of the rig')
  await page.getByTestId('import').setInputFiles(path)
  await expect(components(page)).toHaveCount(15)
  await page.getByTestId('import').setInputFiles({
    name: 'x.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"format":"oar-bench-sheet","version":99}'),
  })
  await expect(page.getByRole('alert')).toContainText('Nothing was changed')
  await expect(components(page)).toHaveCount(15)
  await saved(page)
})

test('places, turns, moves and deletes with the keyboard alone', async ({ page }) => {
  await newMachine(page, 'By keyboard')
  await page.getByTestId('sheet').focus()
  await page.keyboard.press('/')
  await page.keyboard.type('cylinder')
  await page.keyboard.press('Enter')
  await page.keyboard.press('r')
  await page.keyboard.press('Enter')
  await expect(components(page)).toHaveCount(1)
  await expect(page.locator('[data-component="A1"] .symbol')).toHaveAttribute('transform', / rotate\(90\)$/)
  const before = await page.locator('[data-component="A1"] > g').first().getAttribute('transform')
  await page.keyboard.press('ArrowLeft')
  await expect(page.locator('[data-component="A1"] > g').first()).not.toHaveAttribute('transform', before!)
  await page.keyboard.press('Delete')
  await expect(components(page)).toHaveCount(0)
})

test('an empty sheet offers an example that passes the checks', async ({ page }) => {
  await newMachine(page, 'From the example')
  await page.getByRole('button', { name: 'Insert a power unit' }).click()
  await expect(components(page)).toHaveCount(6)
  await expect(page.getByTestId('findings')).toContainText('Checks pass')
  await expect(page.getByText('An empty sheet')).toHaveCount(0)
  await saved(page)
})

test('leads a pipe elsewhere by its end, lays a pilot line, selects by a frame, duplicates', async ({
  page,
}) => {
  await openCopy(page, 'relief-rig', 'Hands on')
  await place(page, 'gauge', 640, 600)
  await clickPipe(page, 'L7')
  // the far end of the gauge pipe goes from the old gauge to the new one
  const end = page.locator('[data-item="end:L7:to"]')
  await expect(end).toBeVisible()
  await lay(page, end, port(page, 'S2', 'P'))
  await expect(page.locator('[data-open-port="S1:P"]')).toBeVisible()
  await expect(page.locator('[data-open-port="S2:P"]')).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.locator('[data-open-port="S1:P"]')).toHaveCount(0)

  // a line laid with the tool is of the kind in hand
  await page.getByTestId('tool-connect').click()
  await page.getByTestId('sheet').getByRole('combobox', { name: 'Line type' }).selectOption('pilot')
  await lay(page, port(page, 'S2', 'P'), page.locator('[data-item="junction:J2"] .junction-dot'))
  await expect(page.locator('.pipe.line-pilot')).toHaveCount(1)
  await page.getByTestId('sheet').press('Escape')

  // a shaft does not join oil
  await lay(page, port(page, 'M1', 'W'), port(page, 'V1', 'P'))
  await expect(page.getByRole('alert')).toContainText('A shaft joins only a shaft')
  await page.getByRole('button', { name: 'Close', exact: true }).click()

  // frame selection, then all of it moves and goes together
  const box = (await page.getByTestId('sheet').boundingBox())!
  await page.keyboard.down('Shift')
  await page.mouse.move(box.x + 5, box.y + 60)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width - 5, box.y + box.height - 5)
  await page.mouse.up()
  await page.keyboard.up('Shift')
  await expect(page.getByText(/\d+ selected/)).toBeVisible()
  await expect(page.locator('.component.selected')).toHaveCount(16)
  const first = await page.locator('[data-component="P1"] > g').first().getAttribute('transform')
  const shape = await page.locator('[data-pipe="L8"] .pipe-line').getAttribute('points')
  await page.getByTestId('sheet').press('ArrowDown')
  await expect(page.locator('[data-component="P1"] > g').first()).not.toHaveAttribute('transform', first!)
  // pipes within the frame move along unchanged in shape
  const moved = (await page.locator('[data-pipe="L8"] .pipe-line').getAttribute('points'))!
  expect(moved).toBe(
    shape!
      .split(' ')
      .map((p) => p.split(',').map(Number))
      .map(([x, y]) => `${x},${y + 1}`)
      .join(' '),
  )
  await page.getByTestId('sheet').press('Escape')

  await page.locator('[data-component="V4"]').click()
  await page.getByRole('button', { name: 'Duplicate' }).click()
  await expect(page.locator('[data-kind="orifice"]')).toHaveCount(2)
  await saved(page)
})

test('edits pipes and the oil, and names what is out of range', async ({ page }) => {
  await openCopy(page, 'relief-rig', 'Pipes')
  await clickPipe(page, 'L3')
  const pane = page.getByRole('complementary', { name: 'Properties' })
  const length = pane.getByRole('textbox', { name: 'Length' })
  await expect(length).toHaveValue('1000 mm')
  await length.fill('4 m')
  await length.press('Enter')
  await expect(pane).toContainText('Holds 0.804 L of oil')
  await pane.getByRole('textbox', { name: 'Line name' }).fill('test line')
  await pane.getByRole('textbox', { name: 'Line name' }).press('Tab')
  await expect(page.locator('[data-pipe="L3"]')).toHaveAttribute('aria-label', /^test line/)
  await length.fill('9 km')
  await length.press('Enter')
  await expect(pane.getByRole('alert')).toContainText('Unknown unit')
  await length.press('Escape')
  await length.fill('0 mm')
  await length.press('Enter')
  await pane.getByTestId('line-model').selectOption('friction')
  await expect(page.locator('[data-pipe="L3"]')).toHaveClass(/marked-error/)
  await expect(pane).toContainText('A pipe with friction needs a length')
  await page.getByRole('button', { name: 'Undo' }).click()
  await page.getByTestId('sheet').press('Escape')
  const thick = pane.getByRole('textbox', { name: 'Viscosity at 100 °C' })
  await thick.fill('60 mm²/s')
  await thick.press('Enter')
  await expect(pane.getByRole('alert')).toContainText('thinner at 100 °C')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByTestId('findings')).toContainText('Checks pass')
  await saved(page)
})

test('finds components by plain words, and says so where there is none', async ({ page }) => {
  await newMachine(page, 'Words')
  const search = page.getByTestId('palette-search')
  const options = page.getByTestId('palette-options').getByRole('option')
  for (const [word, label] of [
    ['tank', 'Reservoir'],
    ['poc', 'Check valve, pilot to open'],
    ['cbv', 'Counterbalance and brake valve'],
    ['rv', 'Relief valve, direct-acting'],
    ['cyl', 'Cylinder, double-acting'],
    ['4/3', 'Directional valve 4/3'],
    ['nitrogen', 'Accumulator, gas-loaded'],
    ['load sensing', 'Pump, variable, load-sensing'],
  ]) {
    await search.fill(word)
    await expect(options.first()).toHaveText(label)
  }
  await search.fill('flux capacitor')
  await expect(page.getByText('No match.')).toBeVisible()
})
