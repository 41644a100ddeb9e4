/** The machine worked by hand: held, turned, broken, gone back in, kept. */
import { expect, test, type Page } from '@playwright/test'
import { openCopy, step } from './helpers'

const bar = async (page: Page, gauge: string) =>
  Number((await page.getByTestId(`gauge-${gauge}`).textContent())!.replace(/[^\d.-]/g, ''))
const stroke = async (page: Page) =>
  Number(
    ((await page.locator('[data-component="A1"] [data-reading]').textContent()) ?? '').replace(
      /[^\d.-]/g,
      '',
    ),
  )
async function startLive(page: Page, name: string): Promise<void> {
  await openCopy(page, 'shavings-press', name, 'Run')
  await page.getByTestId('live').click()
  await expect(page.getByTestId('console')).toBeVisible()
  await expect
    .poll(async () => Number((await page.getByTestId('time').textContent())!.split(' ')[0]))
    .toBeGreaterThan(0.3)
}

test('a lever is held on the sheet by mouse, by touch and by key, and falls back when it is let go', async ({
  browser,
}) => {
  const context = await browser.newContext({ hasTouch: true, viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  await startLive(page, 'Held')
  const lever = page.getByTestId('hand-V3.command 1')
  await expect(lever).toHaveAttribute('aria-label', '1-1V1: hold for position a')
  const command = page.getByTestId('hold-V3.command-1')
  const box = (await lever.boundingBox())!
  const at = { x: box.x + box.width / 2, y: box.y + box.height / 2 }

  await page.mouse.move(at.x, at.y)
  await page.mouse.down()
  await expect(command).toHaveAttribute('aria-pressed', 'true')
  await expect.poll(() => stroke(page)).toBeGreaterThan(30)
  await page.mouse.up()
  await expect(command).toHaveAttribute('aria-pressed', 'false')
  const stood = await stroke(page)

  const touch = await context.newCDPSession(page)
  await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [at] })
  await expect(command).toHaveAttribute('aria-pressed', 'true')
  await expect.poll(() => stroke(page)).toBeGreaterThan(stood + 20)
  await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
  await expect(command).toHaveAttribute('aria-pressed', 'false')

  const back = page.getByTestId('hand-V3.command -1')
  await back.focus()
  const before = await stroke(page)
  await page.keyboard.down(' ')
  await expect.poll(() => stroke(page)).toBeLessThan(before - 10)
  await page.keyboard.up(' ')
  await expect(page.getByTestId('hold-V3.command--1')).toHaveAttribute('aria-pressed', 'false')
  // with Shift it stays, until it is pressed again
  await command.click({ modifiers: ['Shift'] })
  await expect(page.getByTestId('operable-V3.command')).toContainText('kept')
  await expect(command).toHaveAttribute('aria-pressed', 'true')
  await command.click()
  await expect(command).toHaveAttribute('aria-pressed', 'false')
  await expect(page.getByTestId('done').getByRole('button').first()).toBeVisible()
  // a key of one's own works it from anywhere, and the order of the console is one's own
  const arrange = page.getByRole('button', { name: 'Arrange the console' })
  await arrange.click()
  await page.getByLabel('1-1V1, command: key plus').press('j')
  await page.getByRole('button', { name: '1-0V1 up' }).click()
  await arrange.click()
  await page.getByTestId('sheet').focus()
  await page.keyboard.down('j')
  await expect(command).toHaveAttribute('aria-pressed', 'true')
  await page.keyboard.up('j')
  await expect(command).toHaveAttribute('aria-pressed', 'false')
  const settings = page.locator('[data-testid^="operable-"]:has([role=slider])')
  await expect(settings.first()).toContainText('1-0V1')
  await context.close()
})

test('a relief valve is turned while it is open, and the gauge follows', async ({ page }) => {
  await startLive(page, 'Turned')
  await expect.poll(() => bar(page, 'S1')).toBeGreaterThan(150)
  const setting = page.getByTestId('setting-V1.setting')
  await expect(setting).toHaveAttribute('aria-disabled', 'true')
  await page.getByTestId('nut-V1.setting').click()
  await setting.focus()
  for (let i = 0; i < 4; i++) await page.keyboard.press('PageDown')
  await expect(setting).toContainText('160 bar')
  await expect.poll(() => bar(page, 'S1')).toBeLessThan(165)
  await page.getByLabel('1-0V1, setting: set to').fill('90 bar')
  await page.getByLabel('1-0V1, setting: set to').press('Enter')
  await expect.poll(() => bar(page, 'S1')).toBeLessThan(100)
  // beside the symbol stands what it is set to now, not what is drawn
  const caption = page.locator('[data-component="V1"] tspan.value')
  await expect(caption.first()).toHaveText('90 bar')
  // by the wheel on the symbol
  const symbol = page.getByTestId('hand-V1.setting')
  await symbol.hover()
  for (let i = 0; i < 5; i++) await page.mouse.wheel(0, -100)
  await expect(setting).not.toContainText('90 bar')
  await expect(caption.first()).not.toHaveText('90 bar')
  // a value that is not possible is refused where it was typed, and the run goes on
  await page.getByLabel('1-0V1, setting: set to').fill('900 bar')
  await page.getByLabel('1-0V1, setting: set to').press('Enter')
  await expect(page.getByTestId('live-message')).toContainText('outside')
})

test('a rod is jammed, a line burst, the power cut', async ({ page }) => {
  await startLive(page, 'Broken')
  await page.getByTestId('hold-V3.command-1').click({ modifiers: ['Shift'] })
  await expect.poll(() => stroke(page)).toBeGreaterThan(40)
  await page.locator('[data-component="A1"] .component-reach').click()
  const part = page.getByTestId('selected-part')
  await part.getByTestId('fail-A1.jammed').click()
  await expect(part).toContainText('Repair')
  const jammed = await stroke(page)
  await expect.poll(() => bar(page, 'S1')).toBeGreaterThan(150)
  expect(Math.abs((await stroke(page)) - jammed)).toBeLessThan(8)
  await part.getByRole('button', { name: /repair/ }).click()
  await part.getByTestId('measure').click()
  await expect(page.getByTestId('card-A1')).toContainText('stroke')
  // a value that can change in flight, and one that cannot
  const value = part.getByTestId('live-parameters')
  await value.getByRole('combobox').selectOption({ label: 'Moved mass' })
  await value.getByRole('textbox').fill('900 kg')
  await value.getByRole('textbox').press('Enter')
  await expect(page.getByTestId('branches')).toContainText('1-1A1: mass 900 kg')
  await value.getByRole('combobox').selectOption({ label: 'Stroke' })
  await value.getByRole('textbox').fill('20 mm')
  await value.getByRole('textbox').press('Enter')
  await expect(page.getByTestId('live-message')).not.toBeEmpty()
  await page.getByTestId('power').click()
  await expect(page.getByTestId('power')).toContainText('Power is off')
  await expect.poll(() => bar(page, 'S1')).toBeLessThan(20)
  await page.getByTestId('power').click()
  await expect.poll(() => bar(page, 'S1')).toBeGreaterThan(30)
  const on = await page
    .locator('[data-item="pipe:L4"] .pipe-reach')
    .first()
    .evaluate((path: SVGGeometryElement) => {
      const { x, y } = path.getPointAtLength(path.getTotalLength() / 2).matrixTransform(path.getScreenCTM()!)
      return [x, y]
    })
  await page.mouse.click(on[0], on[1])
  await part.getByTestId('burst').click()
  await expect(part).toContainText('burst, hole 4 mm')
})

test('one goes back and on from there; branches are compared, edited and written as a schedule', async ({
  page,
}) => {
  await startLive(page, 'Branched')
  await page.getByTestId('hold-V3.command-1').click({ modifiers: ['Shift'] })
  await expect.poll(() => stroke(page)).toBeGreaterThan(60)
  await page.getByTestId('live-pause').click()
  const slider = page.getByTestId('time-slider')
  const end = Number((await page.getByTestId('time').textContent())!.split(' ')[0])
  await slider.fill(String((end - 0.5).toFixed(2)))
  await page.getByTestId('live-play').click()
  const branches = page.getByTestId('branches')
  await expect(branches.getByTestId('branch-1')).toContainText('Branch 1')
  await expect(branches.getByLabel('Name of the present branch')).toHaveValue('Branch 2')
  await page.getByTestId('live-pause').click()
  await branches.getByTestId('branch-1').getByRole('button', { name: 'Overlay' }).click()
  await expect(branches.getByTestId('branch-1').getByRole('button', { name: 'Overlay' })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  // without what was done the rod stays where it was
  await branches
    .getByRole('button', { name: /^Delete: 1-1V1/ })
    .first()
    .click()
  await expect(branches).toContainText('Nothing yet.')
  await expect.poll(() => stroke(page)).toBeLessThan(5)
  await branches.getByTestId('branch-2').getByRole('button', { name: 'Resume' }).click()
  await expect.poll(() => stroke(page)).toBeGreaterThan(20)
  await page.getByTestId('live-schedule').click()
  await page.getByLabel('Name of the schedule').fill('By hand, once')
  await page.getByRole('button', { name: 'Write it' }).click()
  await page.getByTestId('live-end').click()
  await page.getByRole('combobox', { name: 'Schedule' }).selectOption({ label: 'By hand, once' })
  const shown = await stroke(page)
  await page.getByTestId('run').click()
  await expect(page.getByTestId('run')).toBeVisible()
  await page.getByTestId('time-slider').fill('999')
  await expect.poll(() => stroke(page)).toBeGreaterThan(20)
  expect(Math.abs((await stroke(page)) - shown)).toBeLessThan(3)
  // its actions are edited like its commands
  await page.getByTestId('edit-schedule').click()
  const actions = page.getByTestId('schedule-actions')
  await expect(actions.getByRole('listitem')).toHaveCount(1)
  await actions.getByTestId('add-action').fill('1 s 1-0V1.setting=95 mm')
  await actions.getByTestId('add-action').press('Enter')
  await expect(actions.getByRole('alert')).toContainText('unit of length')
  await actions.getByTestId('add-action').fill('0.1 s 1-0V1.setting=95 bar')
  await actions.getByTestId('add-action').press('Enter')
  await expect(actions.getByRole('listitem').first()).toContainText('1-0V1: setting 95 bar')
  await actions.getByRole('button', { name: /^Repeat: 1-0V1/ }).click()
  await expect(actions.getByRole('listitem')).toHaveCount(3)
  await actions
    .getByRole('button', { name: /^Delete: 1-0V1/ })
    .last()
    .click()
  await actions.getByLabel('Instant of: 1-0V1: setting 95 bar').fill('0.2 s')
  await actions.getByLabel('Instant of: 1-0V1: setting 95 bar').press('Enter')
  await page.getByTestId('run').click()
  await expect(page.getByTestId('tape')).toContainText('1-0V1 setting')
})

test('a live run is kept, reopened and worked on; it goes to the next event and to a condition', async ({
  page,
}) => {
  await startLive(page, 'Kept live')
  await page.getByTestId('live-pause').click()
  await page.getByTestId('hold-V3.command-1').click({ modifiers: ['Shift'] })
  await page.getByTestId('live-event').click()
  await expect(page.getByTestId('live-message')).toContainText('stop, ended')
  await page.getByTestId('live-until').click()
  await page.getByLabel('Value that is watched').selectOption({ label: '1-1A1 stroke' })
  await page.getByLabel('Limit').fill('100 bar')
  await page.getByRole('button', { name: 'Run until then' }).click()
  await expect(page.getByRole('alert')).toContainText('unit of pressure')
  await page.getByLabel('Limit').fill('100 mm')
  await page.getByRole('button', { name: 'Run until then' }).click()
  await expect(page.getByTestId('live-message')).toContainText('condition is reached')
  await expect.poll(() => stroke(page)).toBeGreaterThan(99)
  expect(await stroke(page)).toBeLessThan(110)
  await page.getByTestId('keep').click()
  await page.getByLabel('Name of the run').fill('As far as 100 mm')
  await page.getByRole('button', { name: 'Save this run' }).click()
  const held = await stroke(page)
  // it is kept before the page is left
  await expect(page.getByTestId('kept-runs')).toBeVisible()
  await page.reload()
  await step(page, 'Run')
  await page.getByTestId('kept-runs').click()
  await page.getByTestId('kept-run').getByRole('button', { name: 'Open' }).click()
  await page.keyboard.press('Escape')
  await page.getByTestId('live-reopen').click()
  await expect(page.getByTestId('live-play')).toBeVisible()
  await expect.poll(() => stroke(page)).toBeCloseTo(held, 0)
  await page.getByRole('combobox', { name: 'Pace' }).selectOption({ label: '1 : 4' })
  await page.getByTestId('live-play').click()
  await expect.poll(() => stroke(page)).toBeGreaterThan(held + 5)
})
