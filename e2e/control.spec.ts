/** The control: drawn by keyboard, proved, run, and worked by its buttons. */
import { readFile } from 'node:fs/promises'
import { expect, test, type Page } from '@playwright/test'
import { goTo, openCopy, run, saved, step } from './helpers'

const stroke = async (page: Page, id: string) =>
  Number(
    ((await page.locator(`[data-component="${id}"] [data-reading]`).textContent()) ?? '').replace(
      /[^\d.-]/g,
      '',
    ),
  )
/** Adds a device by typing a word for it. */
async function addDevice(page: Page, word: string): Promise<void> {
  const search = page.getByTestId('device-search')
  await search.fill(word)
  await search.press('Enter')
}
/** Types a path: contacts, Enter, coils, Enter; the next one is then begun. */
async function typePath(page: Page, contacts: string, coils: string): Promise<void> {
  await page.keyboard.type(contacts)
  await page.keyboard.press('Enter')
  await page.keyboard.type(coils)
  await page.keyboard.press('Enter')
}
const time = async (page: Page) => Number((await page.getByTestId('time').textContent())!.split(' ')[0])

test('a start that holds itself is drawn by keyboard, in both habits, and works its valve in a live run', async ({
  page,
}) => {
  await openCopy(page, 'shavings-press', 'By keyboard', 'Control')
  await expect(page.getByTestId('control-empty')).toBeVisible()
  for (const word of ['emergency', 'push', 'push', 'relay']) await addDevice(page, word)
  await page.getByTestId('device-K1').click()
  await page.getByTestId('device-label').fill('Pressing')
  await page.getByTestId('device-label').press('Enter')
  // the device list has the solenoids of the sheet
  await expect(page.getByTestId('device-V3.coilA')).toContainText('1-1V1.a')
  await page.getByTestId('device-V3.coilA').press('n')
  await expect(page.getByTestId('contacts')).toBeFocused()
  await typePath(page, '/S3 * /S8 * (S5 + K1)', 'K1')
  // a name that is not there is said, and stays as it was typed
  await expect(page.getByTestId('rung-R1')).toBeVisible()
  await typePath(page, 'K1', '1-1V1.a')
  await page.getByTestId('delete-path').click()
  await page.getByTestId('rung-R1').click({ position: { x: 4, y: 4 } })
  await expect(page.getByTestId('path-problem')).toContainText('there is no contact "S8"')
  await page.getByTestId('contacts').fill('/S3 · /S4 · (S5 + K1')
  await expect(page.getByTestId('path-problem')).toContainText('A bracket is not closed.')
  await page.getByTestId('contacts').fill('/S3 · /S4 · (S5 + K1)')
  await page.getByTestId('contacts').press('Enter')
  await expect(page.getByTestId('path-problem')).toHaveCount(0)
  await expect(page.getByTestId('contact-R1-3')).toHaveAttribute('aria-label', 'K1, normally open')

  // the contacts of a device are told, and a renamed one has its name everywhere
  await page.getByTestId('contact-R1-1').click()
  await expect(page.getByTestId('control-uses')).toContainText('Path 1: normally closed contact')
  await page.getByTestId('device-designation').fill('S9')
  await page.getByTestId('device-designation').press('Enter')
  await expect(page.getByTestId('contacts')).toHaveValue('/S3 · /S9 · (S5 + K1)')
  await page.getByTestId('device-purpose').locator('select').selectOption('stop')
  // placed by mouse: inverted, taken back by undo
  await page.getByTestId('invert').click()
  await expect(page.getByTestId('contacts')).toHaveValue('/S3 · S9 · (S5 + K1)')
  await expect(page.getByTestId('path-problem').first()).toContainText('wired normally open')
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(page.getByTestId('contacts')).toHaveValue('/S3 · /S9 · (S5 + K1)')

  await page.getByLabel('Drawing habit').selectOption('rails')
  await page.getByLabel('Signs').selectOption('brackets')
  await expect(page.getByTestId('coil-K1')).toBeVisible()
  await saved(page)

  await step(page, 'Run')
  await page.getByTestId('live').click()
  await page.getByTestId('show-paths').click()
  const start = page.getByTestId('contact-R1-2')
  await expect(start).toHaveClass(/pressable/)
  await expect.poll(() => time(page)).toBeGreaterThan(0.2)
  await start.scrollIntoViewIfNeeded()
  const box = (await start.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await expect(page.getByTestId('rung-R1')).toHaveAttribute('data-current', 'true')
  // its relay takes its time to pull in, and a live run may be slower than the clock
  await expect(page.getByTestId('rung-R2')).toHaveAttribute('data-current', 'true')
  await page.mouse.up()
  // let go, it holds itself
  const letGo = await time(page)
  await expect.poll(() => time(page)).toBeGreaterThan(letGo + 0.1)
  await expect(page.getByTestId('rung-R2')).toHaveAttribute('data-current', 'true')
  await expect.poll(() => stroke(page, 'A1')).toBeGreaterThan(30)
  await page.getByTestId('switch-S3.pressed-1').click()
  await expect(page.getByTestId('rung-R1')).toHaveAttribute('data-current', 'false')
  await page.getByTestId('switch-S3.pressed-0').click()
  await expect(page.getByTestId('rung-R1')).toHaveAttribute('data-current', 'false')
})

test('the blade press does its cycle by one press, stays when its clamp jams, and drops out without voltage', async ({
  page,
}) => {
  await openCopy(page, 'blade-press-switches', 'By its buttons', 'Run')
  await page.getByTestId('live').click()
  await expect.poll(() => time(page)).toBeGreaterThan(0.2)
  await expect(page.getByTestId('lamp-P11')).toHaveAttribute('data-on', 'true')
  // what is to be jammed half way is chosen first, and the machine slowed down: the clamp takes two seconds
  const pace = page.getByLabel('Pace', { exact: true })
  await pace.selectOption('0.25')
  await page.locator('[data-component="A1"] .component-reach').click()
  const jam = page.getByTestId('fail-A1.jammed')
  await expect(jam).toBeVisible()
  const start = page.getByTestId('button-S12.pressed')
  await start.focus()
  await page.keyboard.down(' ')
  await expect(start).toHaveAttribute('aria-pressed', 'true')
  await expect(page.getByTestId('lamp-P12')).toHaveAttribute('data-on', 'true')
  await page.keyboard.up(' ')
  await expect.poll(() => stroke(page, 'A1'), { intervals: [50] }).toBeGreaterThan(60)
  // jammed half way: pressure says done, position does not
  await jam.click()
  await pace.selectOption('1')
  const jammed = await time(page)
  await expect.poll(() => time(page)).toBeGreaterThan(jammed + 2)
  expect(await stroke(page, 'A1')).toBeLessThan(250)
  expect(await stroke(page, 'A2')).toBeLessThan(2)
  await expect(page.getByTestId('lamp-P12')).toHaveAttribute('data-on', 'true')
  // lanes of the tape: a switch, a relay, a coil
  for (const lane of ['S12 Start', 'K1 Cycle', '1-1S1', '1-1V1 coil a'])
    await expect(page.getByText(lane, { exact: true }).last()).toBeVisible()
  // without the console its buttons stand on the sheet
  await page.getByTestId('open-console').click()
  const operators = page.getByTestId('sheet-operators')
  await expect(operators.getByTestId('button-S12.pressed')).toBeVisible()
  await operators.getByTestId('switch-S10.pressed-1').click()
  await page.getByTestId('open-console').click()
  await expect(page.getByTestId('lamp-P12')).toHaveAttribute('data-on', 'false')
})

test('a recorded run shows the current in its paths wherever the tape is scrubbed', async ({ page }) => {
  await openCopy(page, 'blade-press-switches', 'Scrubbed', 'Run')
  await page.getByTestId('show-paths').click()
  await run(page)
  await goTo(page, 1.5)
  await expect(page.getByTestId('rung-R4')).toHaveAttribute('data-current', 'true')
  await expect(page.getByTestId('rung-R5')).toHaveAttribute('data-current', 'false')
  await goTo(page, 4)
  await expect(page.getByTestId('rung-R5')).toHaveAttribute('data-current', 'true')
  // the contacts make room for the charts
  await expect(page.getByText('K1 Cycle', { exact: true }).first()).toBeVisible()
  await page.getByTestId('contact-lanes').click()
  await expect(page.getByText('K1 Cycle', { exact: true })).toHaveCount(0)
  await goTo(page, 8.5)
  await expect(page.getByTestId('rung-R7')).toHaveAttribute('data-current', 'true')
  await expect(page.getByTestId('contact-R7-2')).toHaveAttribute('aria-label', /acted on/)
})

test('an interlock is proved, a missing one is refuted and played on the tape', async ({ page }) => {
  await openCopy(page, 'blade-press-switches', 'Proved', 'Control')
  await page.getByTestId('control-view-proofs').click()
  await expect(page.getByTestId('proof-N1')).toHaveAttribute('data-outcome', 'proved', { timeout: 60_000 })
  await expect(page.getByTestId('proof-both-coils V2')).toHaveAttribute('data-outcome', 'proved')
  // a race needs two causes at exactly one instant here
  await expect(page.getByTestId('proof-race')).toHaveAttribute('data-outcome', 'chance')
  // without the limit switch in its path the squeeze may come first
  // the path is found by its words, from any step, and its view is opened
  await step(page, 'Sheet')
  await page.keyboard.press('Control+k')
  await page.getByTestId('search-word').fill('squeeze: clamped')
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('contacts')).toHaveValue('K1 · /K3 · 1-1S2 · 1-1S1')
  await page.getByTestId('contact-R5-2').click()
  await page.getByTestId('remove-contact').click()
  await expect(page.getByTestId('contacts')).toHaveValue('K1 · /K3 · 1-1S1')
  await page.getByTestId('control-view-proofs').click()
  const proof = page.getByTestId('proof-N1')
  await expect(proof).toHaveAttribute('data-outcome', 'refuted', { timeout: 60_000 })
  await expect(proof).toContainText('S12 (Start): pressed')
  await proof.getByTestId('play-proof').click()
  await expect(page.getByText('S12 Start', { exact: true }).last()).toBeVisible()
  await expect(page.getByText('1-2V1 coil a', { exact: true })).toBeVisible()
})

test('a control is held against how the brief says the machine is worked', async ({ page }) => {
  await openCopy(page, 'blade-press-switches', 'Worked', 'Brief')
  const findings = page.getByTestId('operation-findings')
  const ask = async (field: string, option: string) => {
    await step(page, 'Brief')
    await page.getByLabel(field, { exact: true }).selectOption({ label: option })
    await step(page, 'Control')
    await page.getByTestId('control-view-proofs').click()
  }
  await ask('Started by', 'two buttons, pressed with both hands together')
  await expect(findings).toContainText('a start with both hands, and the control has one start button, S12')
  await ask('Started by', 'a button or lever that is held all the way')
  await expect(findings).toContainText('something can keep moving when all are released')
  await ask('Cycles', 'set up or cycle, by a selector')
  await expect(findings).toContainText('a selector of the mode, and the control has none')
  await ask('Cycles', 'one cycle for each start')
  await ask('Started by', 'one press of a button')
  await expect(page.getByTestId('proof-N1')).toBeVisible()
  await expect(findings).toHaveCount(0)
})

test('the control is written as drawing, list and XML, and read again', async ({ page }) => {
  await openCopy(page, 'blade-press-switches', 'Files of control', 'Control')
  const written = async (format: string) => {
    await page.getByTestId('control-step').getByTestId('files').click()
    const download = page.waitForEvent('download')
    await page.getByTestId(`export-${format}`).click()
    return readFile(await (await download).path(), 'utf8')
  }
  expect(await written('controlText')).toContain('K1 · /K3 · 1-1S2 · 1-1S1  ->  1-2V1.a')
  expect(await written('ioCsv')).toContain('input,S10,Emergency stop')
  expect(await written('controlSvg')).toContain('>1-2V1.a<')
  const xml = await written('controlXml')
  await page.getByTestId('rung-R9').click({ position: { x: 4, y: 4 } })
  await page.getByTestId('delete-path').click()
  await expect(page.getByTestId('rung-R9')).toHaveCount(0)
  await page
    .getByTestId('control-step')
    .getByTestId('import')
    .setInputFiles({
      name: 'control.xml',
      mimeType: 'application/xml',
      buffer: Buffer.from(xml),
    })
  await expect(page.getByTestId('rung-R9')).toHaveCount(1)
  await page
    .getByTestId('control-step')
    .getByTestId('import')
    .setInputFiles({
      name: 'other.xml',
      mimeType: 'application/xml',
      buffer: Buffer.from('<Project xmlns="elsewhere"/>'),
    })
  await expect(page.getByRole('alert')).toContainText('Nothing was changed. This is no IEC 61131-10 file')
})

test('a step sequence is drawn, and its steps are active in a run', async ({ page }) => {
  await openCopy(page, 'shavings-press', 'In steps', 'Control')
  await addDevice(page, 'push')
  await page.getByTestId('control-view-steps').click()
  await page.getByTestId('add-sequence').click()
  await page.getByRole('button', { name: 'Add a step after X0' }).click()
  const first = page.getByTestId('edit-step-X1')
  await first.getByLabel('Add a coil to step X1').fill('1-1V1.a')
  await first.getByLabel('Add a coil to step X1').press('Enter')
  await page.getByLabel('Condition of t1').fill('S3')
  await page.getByLabel('Condition of t1').press('Enter')
  await expect(page.getByTestId('sequence-G1')).toContainText('1-1V1.a')
  await step(page, 'Run')
  await page.getByTestId('live').click()
  await page.getByTestId('show-paths').click()
  await expect(page.getByTestId('step-X0')).toHaveAttribute('data-active', 'true')
  const button = page.getByTestId('button-S3.pressed')
  await button.focus()
  await page.keyboard.down(' ')
  await expect(page.getByTestId('step-X1')).toHaveAttribute('data-active', 'true')
  await page.keyboard.up(' ')
  await expect.poll(() => stroke(page, 'A1')).toBeGreaterThan(20)
})
