/** Drawing at the sheet: pipes shaped by hand, frames, words, crossings, cures, overview, the printed page. */
import { readFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import {
  clickPipe,
  components,
  lay,
  onPipe,
  newMachine,
  openCopy,
  pipes,
  place,
  placeByKey,
  port,
  portByKey,
  run,
  saved,
  times,
} from './helpers'

const path = (page: Page, id: string) => page.locator(`[data-pipe="${id}"] .pipe-line`).getAttribute('points')
const corners = (points: string | null) => points!.split(' ').map((p) => p.split(',').map(Number))

test('the boat lift is drawn from nothing by keyboard alone, taken back twenty steps, reloaded, and runs', async ({
  page,
}) => {
  test.setTimeout(120_000)
  await page.goto('/')
  await page.getByTestId('new-machine').focus()
  await page.keyboard.press('Enter')
  await page.keyboard.type('Boat lift by keys')
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('machine-name')).toHaveText('Boat lift by keys')
  const step = page.getByRole('navigation', { name: 'Steps' }).getByRole('link', { name: /^Sheet/ })
  await step.focus()
  await page.keyboard.press('Enter')
  await expect(step).toHaveAttribute('aria-current', 'step')
  const parts: [word: string, id: string, x: number, y: number][] = [
    ['fp', 'P1', -16, 14],
    ['em', 'M1', -32, 14],
    ['res', 'Z1', -16, 26],
    ['rv', 'V1', 0, 14],
    ['res', 'Z2', 0, 26],
    ['pg', 'S1', -28, 0],
    ['dcv', 'V2', 18, 2],
    ['res', 'Z3', 19, 26],
    ['cbv', 'V3', 10, -12],
    ['cyl', 'A1', 26, -26],
  ]
  for (const [word, , x, y] of parts) await placeByKey(page, word, [x, y])
  await expect(components(page)).toHaveCount(parts.length)
  const named = async (id: string) =>
    (await page.locator(`[data-component="${id}"]`).getAttribute('aria-label'))!.split(',')[0]
  await page.keyboard.press('Escape')
  await page.keyboard.press('f')
  await page.keyboard.press('c')
  const joins = [
    ['Z1.T', 'P1.S'],
    ['M1.W', 'P1.W'],
    ['P1.P', 'V1.P'],
    ['V1.T', 'Z2.T'],
    ['P1.P', 'S1.P'],
    ['V1.P', 'V2.P'],
    ['V2.T', 'Z3.T'],
    ['V2.A', 'V3.2'],
    ['V3.1', 'A1.A'],
    ['V2.B', 'A1.B'],
    ['A1.B', 'V3.X'],
  ]
  for (const join of joins) {
    for (const end of join) {
      const [id, name] = end.split('.')
      await portByKey(page, id, await named(id), name)
      await page.keyboard.press('Enter')
    }
  }
  await expect(pipes(page)).toHaveCount(joins.length)
  await page.keyboard.press('Escape')
  // its load, in the properties
  await page.locator('[data-component="A1"]').focus()
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  const angle = page.getByTestId('parameter-angle').locator('input')
  for (let i = 0; i < 40 && !(await angle.evaluate((e) => e === document.activeElement)); i++)
    await page.keyboard.press('Tab')
  await page.keyboard.press('Control+a')
  await page.keyboard.type('90 °')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('sheet')).toBeFocused()
  await expect(page.getByTestId('findings')).not.toContainText('error')
  await saved(page)
  const drawn = await page.evaluate(() => document.querySelectorAll('[data-pipe],[data-component]').length)
  for (const key of times(20, 'Control+z')) await page.keyboard.press(key)
  await expect(components(page).and(page.locator('[data-component="P1"]'))).toHaveCount(1)
  expect(
    await page.evaluate(() => document.querySelectorAll('[data-pipe],[data-component]').length),
  ).toBeLessThan(drawn - 15)
  await saved(page)
  await page.reload()
  await expect(components(page).first()).toBeVisible()
  await page.getByTestId('sheet').focus()
  for (const key of times(20, 'Control+Shift+z')) await page.keyboard.press(key)
  await expect(pipes(page)).toHaveCount(joins.length)
  await page.getByRole('navigation', { name: 'Steps' }).getByRole('link', { name: /^Run/ }).focus()
  await page.keyboard.press('Enter')
  await run(page)
  await expect(page.locator('[data-component="S1"] .reading')).toContainText('bar')
})

test('a pipe keeps the shape that it was given by hand', async ({ page }) => {
  await openCopy(page, 'relief-rig', 'Shaped')
  const id = await page.locator('[data-pipe]').first().getAttribute('data-pipe')
  await clickPipe(page, id!)
  const before = await path(page, id!)
  const [a, b] = corners(before)
  const level = a[1] === b[1]
  // the arrow across its longest part
  const [one, two] = level ? ['ArrowUp', 'ArrowDown'] : ['ArrowLeft', 'ArrowRight']
  for (const key of times(3, one)) await page.keyboard.press(key)
  const manual = await path(page, id!)
  expect(corners(manual).length).toBeGreaterThan(corners(before).length)
  for (const key of times(3, two)) await page.keyboard.press(key)
  await expect.poll(() => path(page, id!)).toBe(before)
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect.poll(() => path(page, id!)).toBe(manual)
  await page.keyboard.press('Control+k')
  await page.keyboard.type('reroute the pipe')
  await page.keyboard.press('Enter')
  await expect.poll(() => path(page, id!)).toBe(before)
})

test('a part of a pipe is dragged aside; a frame takes along what it holds; words stand on the sheet', async ({
  page,
}) => {
  await newMachine(page, 'Frames')
  await place(page, 'plug', 300, 300)
  await place(page, 'plug', 560, 300)
  await lay(page, port(page, 'Z1', 'A'), port(page, 'Z2', 'A'))
  await page.keyboard.press('Escape')
  const before = corners(await path(page, 'L1'))
  const { x, y } = await onPipe(page, 'L1')
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x, y - 60)
  await page.mouse.move(x, y - 80)
  await page.mouse.up()
  const after = corners(await path(page, 'L1'))
  const top = (list: number[][]) => Math.min(...list.map((p) => p[1]))
  expect(top(after)).toBeLessThan(top(before) - 2)

  await page.keyboard.press('Control+a')
  await page.keyboard.press('g')
  await expect(page.locator('[data-kind="enclosure"]')).toHaveCount(1)
  const at = async (id: string) =>
    (await page.locator(`[data-component="${id}"] > g[transform]`).first().getAttribute('transform'))!
  const plug = await at('Z1')
  await page.keyboard.press('ArrowDown')
  expect(await at('Z1')).not.toBe(plug)
  expect(top(corners(await path(page, 'L1')))).toBe(top(after) + 1)

  await page.keyboard.press('Escape')
  await page.keyboard.press('w')
  const box = (await page.getByTestId('sheet').boundingBox())!
  await page.mouse.click(box.x + 430, box.y + 80)
  await page.keyboard.press('Enter')
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Flush before first start')
  await page.keyboard.press('Tab')
  await expect(page.locator('[data-kind="note"]')).toContainText('Flush before first start')
  await saved(page)
  const saving = page.waitForEvent('download')
  await page.getByTestId('files').click()
  await page.getByTestId('export-svg').click()
  expect(readFileSync((await (await saving).path())!, 'utf8')).toContain('>Flush before first start</text>')
})

test('two lines are joined where they cross, and parted again', async ({ page }) => {
  await newMachine(page, 'Crossing')
  for (const [x, y, turns] of [
    [260, 300, 1],
    [560, 300, 3],
    [410, 440, 0],
    [410, 160, 2],
  ]) {
    await page.getByTestId('palette-search').fill('plug')
    await page.getByTestId('palette-search').press('Enter')
    for (const key of times(turns, 'r')) await page.keyboard.press(key)
    const box = (await page.getByTestId('sheet').boundingBox())!
    await page.mouse.click(box.x + x, box.y + y)
  }
  await lay(page, port(page, 'Z1', 'A'), port(page, 'Z2', 'A'))
  await lay(page, port(page, 'Z3', 'A'), port(page, 'Z4', 'A'))
  await page.keyboard.press('Escape')
  await page.locator('[data-pipe="L1"]').focus()
  await page.keyboard.press('Enter')
  const end = (await port(page, 'Z4', 'A').boundingBox())!
  await page.keyboard.down('Shift')
  await page.mouse.click(end.x + end.width / 2, end.y + 40)
  await page.keyboard.up('Shift')
  await page.keyboard.press('Control+k')
  await page.keyboard.type('connect the two lines')
  await page.keyboard.press('Enter')
  await expect(page.locator('.junction')).toHaveCount(1)
  await expect(pipes(page)).toHaveCount(4)
  await page.locator('.junction .junction-dot').click()
  await page.keyboard.press('Control+k')
  await page.keyboard.type('cross without connection')
  await page.keyboard.press('Enter')
  await expect(page.locator('.junction')).toHaveCount(0)
  await expect(pipes(page)).toHaveCount(2)
})

test('a finding is cured at one press, and a marked load asks for two valves', async ({ page }) => {
  await openCopy(page, 'boat-lift', 'Cures')
  await page.locator('[data-component="A1"] .component-reach').click()
  await page.getByTestId('people-under').check()
  await page.getByTestId('findings').click()
  await expect(page.getByTestId('finding').filter({ hasText: 'a single valve keeps its oil' })).toBeVisible()
  await page.keyboard.press('Escape')
  await place(page, 'flow meter', 120, 80)
  await expect(page.getByTestId('findings')).toContainText('2 open ports')
  for (let i = 0; i < 2; i++) {
    await page.getByTestId('findings').click()
    await page.getByTestId('fix').first().click()
    await page.keyboard.press('Escape')
  }
  await expect(page.locator('[data-kind="plug"]')).toHaveCount(2)
  await expect(page.getByTestId('findings')).not.toContainText('open port')
})

test('the overview shows where one is and leads elsewhere', async ({ page }) => {
  await openCopy(page, 'quay-crane', 'Overview')
  await page.getByTestId('sheet').focus()
  await page.keyboard.press('o')
  const overview = page.getByTestId('overview')
  await expect(overview).toBeVisible()
  for (const key of times(6, '+')) await page.keyboard.press(key)
  const place = () =>
    page
      .locator('.sheet .layer')
      .first()
      .evaluate((e) => (e as SVGElement).style.transform)
  const before = await place()
  await overview.click({ position: { x: 12, y: 12 } })
  expect(await place()).not.toBe(before)
  await page.getByTestId('sheet').focus()
  await page.keyboard.press('o')
  await expect(overview).toHaveCount(0)
})

test('the page is looked at before it is printed', async ({ page }) => {
  await openCopy(page, 'boat-lift', 'Printed')
  await page.getByTestId('sheet').focus()
  await page.keyboard.press('Control+p')
  const picture = page.getByTestId('print').locator('img')
  await expect(picture).toBeVisible()
  const shape = () =>
    picture.evaluate((e) => (e as HTMLImageElement).naturalWidth / (e as HTMLImageElement).naturalHeight)
  await expect.poll(shape).toBeCloseTo(420 / 297, 1)
  await page.getByTestId('print').getByTestId('paper').selectOption('A4')
  await page.getByTestId('print').getByLabel('Portrait').check()
  await expect.poll(shape).toBeCloseTo(210 / 297, 1)
  await page.evaluate(() => {
    // what the printer gets is looked at instead of printed
    const frame = document.querySelector('iframe')!.contentWindow!
    frame.print = () => (document.title = `printed ${frame.document.images.length}`)
  })
  await page.getByTestId('print-now').click()
  await expect(page).toHaveTitle('printed 1')
})
