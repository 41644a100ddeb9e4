/** What the browser tests do again and again. */
import { readFileSync } from 'node:fs'
import { expect, type Locator, type Page } from '@playwright/test'
import type { Brief } from '../core/size/brief/brief'

export async function newMachine(page: Page, name: string): Promise<void> {
  await page.goto('/')
  await page.getByTestId('new-machine').click()
  await page.getByTestId('machine-name-field').fill(name)
  await page.getByRole('button', { name: 'Create' }).click()
  await expect(page.getByTestId('machine-name')).toHaveText(name)
  await step(page, 'Sheet')
}
/** Goes to a step, and waits until it is shown. */
export async function step(page: Page, name: string): Promise<void> {
  const link = page
    .getByRole('navigation', { name: 'Steps' })
    .getByRole('link', { name: new RegExp(`^${name}`) })
  await link.click()
  await expect(link).toHaveAttribute('aria-current', 'step')
}

export async function openMachine(page: Page, name: string, at = 'Sheet'): Promise<void> {
  await page.goto('/')
  await page.getByRole('link', { name, exact: true }).click()
  await expect(page.getByTestId('machine-name')).toHaveText(name)
  await step(page, at)
}
/** Opens a machine of its own with the sheet and perhaps the brief of a demo machine, so that tests do not meet. */
export async function openCopy(
  page: Page,
  file: string,
  name: string,
  at = 'Sheet',
  brief?: Brief,
): Promise<void> {
  const sheet = JSON.parse(readFileSync(`demo/sheets/${file}.json`, 'utf8'))
  const { id } = await (await page.request.post('/api/machines', { data: { name } })).json()
  const detail = await (await page.request.get(`/api/machines/${id}`)).json()
  await page.request.put(`/api/sheets/${detail.sheet.id}`, { data: { revision: 1, sheet } })
  if (brief) await page.request.put(`/api/machines/${id}/brief`, { data: { revision: 1, brief } })
  await openMachine(page, name, at)
}
export const saved = (page: Page) =>
  expect(page.getByTestId('save-state')).toHaveAttribute('data-state', 'saved')

/** Types a plain word into the palette and places what it finds at a point of the sheet. */
export async function place(page: Page, word: string, x: number, y: number): Promise<void> {
  const search = page.getByTestId('palette-search')
  await search.fill(word)
  await expect(page.getByTestId('palette-options').getByRole('option').first()).toBeVisible()
  await search.press('Enter')
  const box = (await page.getByTestId('sheet').boundingBox())!
  await page.mouse.move(box.x + x, box.y + y)
  await page.mouse.click(box.x + x, box.y + y)
}
async function middle(locator: Locator): Promise<{ x: number; y: number }> {
  const box = (await locator.boundingBox())!
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 }
}
export const port = (page: Page, component: string, name: string) =>
  page.locator(`[data-item="port:${component}:${name}"]`)

/** The middle of the longest part of a pipe, once the sheet has been fitted to the window. */
export const onPipe = (page: Page, id: string) =>
  page.locator(`.layer[style*="translate"] [data-pipe="${id}"] .pipe-line`).evaluate((element) => {
    const line = element as unknown as SVGPolylineElement
    const points = [...line.points].map((p) => p.matrixTransform(line.getScreenCTM()!))
    const parts = points.slice(1).map((b, i) => {
      const a = points[i]
      return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, length: Math.hypot(b.x - a.x, b.y - a.y) }
    })
    return parts.sort((a, b) => b.length - a.length)[0]
  })

/** Clicks a pipe in the middle of its longest part. */
export async function clickPipe(page: Page, id: string): Promise<void> {
  const at = await onPipe(page, id)
  await page.mouse.click(at.x, at.y)
}

/** Drags a pipe from one place to another. */
export async function lay(page: Page, from: Locator, to: Locator | { x: number; y: number }): Promise<void> {
  const [a, b] = [await middle(from), 'x' in to ? to : await middle(to)]
  await page.mouse.move(a.x, a.y)
  await page.mouse.down()
  await page.mouse.move((a.x + b.x) / 2, (a.y + b.y) / 2)
  await page.mouse.move(b.x, b.y)
  await page.mouse.up()
}
export const pipes = (page: Page) => page.locator('[data-pipe]')
export const components = (page: Page) => page.locator('[data-component]')

export async function run(page: Page): Promise<void> {
  await page.getByTestId('run').click()
  await expect(page.getByTestId('run')).toBeVisible({ timeout: 30_000 })
  await expect(page.getByTestId('time-slider')).toBeVisible()
}
export async function goTo(page: Page, t: number): Promise<void> {
  await page.getByTestId('time-slider').fill(String(t))
  await expect(page.getByTestId('time')).toHaveText(`${t.toFixed(2)} s`)
}
export const reading = (page: Page, component: string) =>
  page.locator(`[data-component="${component}"] [data-reading]`)
export const number = async (locator: Locator) => Number.parseFloat((await locator.textContent())!)

/** Where the component that is being placed stands, modules. */
async function ghostAt(page: Page): Promise<[number, number]> {
  const transform = await page.locator('.ghost .symbol').getAttribute('transform')
  const [, x, y] = /translate\((\S+) (\S+)\)/.exec(transform!)!
  return [Number(x), Number(y)]
}
/** Finds a component by a word and places it by arrow keys: no pointer is used. @param to place in modules; where it starts if none @returns its place */
export async function placeByKey(
  page: Page,
  word: string,
  to?: readonly [number, number],
): Promise<[number, number]> {
  await page.getByTestId('sheet').focus()
  await page.keyboard.press('/')
  await expect(page.getByTestId('palette-search')).toBeFocused()
  await page.keyboard.type(word)
  await expect(page.getByTestId('palette-options').getByRole('option').first()).toBeVisible()
  await page.keyboard.press('Enter')
  const from = await ghostAt(page)
  const [x, y] = to ? [to[0] - from[0], to[1] - from[1]] : [0, 0]
  for (const key of times(Math.abs(x), x < 0 ? 'ArrowLeft' : 'ArrowRight')) await page.keyboard.press(key)
  for (const key of times(Math.abs(y), y < 0 ? 'ArrowUp' : 'ArrowDown')) await page.keyboard.press(key)
  const at = await ghostAt(page)
  await page.keyboard.press('Enter')
  return at
}
export const times = (n: number, key: string) => Array<string>(n).fill(key)

/** Takes the keyboard's place for pipes to a port. */
export async function portByKey(page: Page, id: string, designation: string, name: string) {
  const at = page.getByRole('status').filter({ hasText: 'port' })
  const tried = new Set<string>()
  for (let i = 0; i < 40; i++) {
    const here = (await at.textContent())!
    if (here.includes(`${designation}, port ${name}:`)) return
    const from = (await page.locator('.port-cursor').boundingBox())!
    const to = (await port(page, id, name).boundingBox())!
    const [dx, dy] = [
      to.x + to.width / 2 - from.x - from.width / 2,
      to.y + to.height / 2 - from.y - from.height / 2,
    ]
    const level = dx > 0 ? 'ArrowRight' : 'ArrowLeft'
    const upright = dy > 0 ? 'ArrowDown' : 'ArrowUp'
    const first = Math.abs(dx) > Math.abs(dy) ? [level, upright] : [upright, level]
    // not the same way twice from the same place
    const key =
      first.find((k) => !tried.has(`${here} ${k}`)) ??
      ['ArrowLeft', 'ArrowUp', 'ArrowRight', 'ArrowDown'][i % 4]
    tried.add(`${here} ${key}`)
    await page.keyboard.press(key)
  }
  throw new Error(`the keyboard does not get to ${designation} ${name}: ${await at.textContent()}`)
}
