import { expect, test, type Page } from '@playwright/test'
import { components, newMachine, pipes, port, saved } from './helpers'

test.use({ hasTouch: true })

type At = readonly [x: number, y: number]
/** Fingers put down, moved together from place to place, and lifted. */
async function touch(page: Page, ...places: (readonly At[])[]): Promise<void> {
  const client = await page.context().newCDPSession(page)
  const send = (type: 'touchStart' | 'touchMove' | 'touchEnd', fingers: readonly At[]) =>
    client.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: fingers.map(([x, y], id) => ({ x, y, id })),
    })
  // one finger after the other, as hands do
  for (let n = 1; n <= places[0].length; n++) await send('touchStart', places[0].slice(0, n))
  for (const fingers of places.slice(1)) await send('touchMove', fingers)
  await send('touchEnd', [])
  await client.detach()
}
const middle = async (locator: ReturnType<Page['locator']>): Promise<At> => {
  const box = (await locator.boundingBox())!
  return [Math.round(box.x + box.width / 2), Math.round(box.y + box.height / 2)]
}
const by = ([x, y]: At, dx: number, dy: number): At => [x + dx, y + dy]

test('places, joins and moves parts with a finger, and pans and zooms with one or two', async ({ page }) => {
  await newMachine(page, 'By finger')
  const box = (await page.getByTestId('sheet').boundingBox())!
  const at = (x: number, y: number): At => [box.x + x, box.y + y]
  for (const x of [250, 520]) {
    await page.getByTestId('palette-search').fill('plug')
    await page.getByTestId('palette-options').getByRole('option').first().tap()
    await page.touchscreen.tap(...at(x, 300))
  }
  await expect(components(page)).toHaveCount(2)

  const [a, b] = [await middle(port(page, 'Z1', 'A')), await middle(port(page, 'Z2', 'A'))]
  await touch(page, [a], [by(a, 60, 40)], [b])
  await expect(pipes(page)).toHaveCount(1)

  const plug = page.locator('.layer [data-component="Z1"]').first()
  const reach = plug.locator('.component-reach')
  const lies = () => plug.locator('.symbol').getAttribute('transform')
  const first = await lies()
  const held = await middle(reach)
  await touch(page, [held], [by(held, 10, 30)], [by(held, 20, 60)])
  await expect.poll(lies).not.toBe(first)
  const moved = await lies()
  await saved(page)

  // one finger on the empty sheet pulls it about
  const before = await middle(reach)
  await touch(page, [at(150, 560)], [at(180, 540)], [at(210, 520)])
  await expect.poll(() => middle(reach)).toEqual(by(before, 60, -40))

  // two bring it nearer, though they lie on parts, and move nothing on it
  const width = async () => (await reach.boundingBox())!.width
  const far = await width()
  const [one, two] = [
    await middle(reach),
    await middle(page.locator('[data-component="Z2"] .component-reach')),
  ]
  await touch(page, [one, two], [by(one, -20, 0), by(two, 20, 0)], [by(one, -60, 0), by(two, 60, 0)])
  await expect.poll(width).toBeGreaterThan(1.2 * far)
  expect(await lies()).toBe(moved)
  await expect(page.getByTestId('moving').locator('.component')).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).tap()
  await expect.poll(lies).toBe(first)
})
