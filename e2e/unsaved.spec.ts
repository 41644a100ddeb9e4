/** What is not saved is never lost: asked about, kept in the browser, offered again. */
import { expect, test, type Page } from '@playwright/test'
import { components, newMachine, openMachine, place, saved } from './helpers'

/** The server does not answer saves from here on. */
const cutOff = (page: Page) => page.route('**/api/sheets/*', (route) => route.abort())
const connect = (page: Page) => page.unroute('**/api/sheets/*')
const toList = (page: Page) => page.getByRole('link', { name: 'Oar Bench' }).click()
const leave = (page: Page) => page.getByTestId('leave')

test('leaving with unsaved edits asks; they stay in the browser, are marked in the list and offered again', async ({
  page,
}) => {
  await newMachine(page, 'Unsaved')
  await place(page, 'reservoir', 300, 300)
  await saved(page)
  await cutOff(page)
  await place(page, 'fixed', 300, 150)
  await expect(page.getByTestId('save-state')).toHaveAttribute('data-state', 'failed')
  await toList(page)
  await expect(leave(page)).toContainText('changes stay in this browser')
  await leave(page).getByRole('button', { name: 'Stay here' }).click()
  await expect(components(page)).toHaveCount(2)
  await toList(page)
  await leave(page).getByRole('button', { name: 'Leave' }).click()
  const row = page.getByTestId('machine').filter({ hasText: 'Unsaved' }).first()
  await expect(row.getByTestId('unsaved')).toBeVisible()
  // reloaded on the list, with the undo history of the tab gone
  await page.reload()
  await connect(page)
  await openMachine(page, 'Unsaved')
  await expect(components(page)).toHaveCount(1)
  await expect(page.getByTestId('draft-offer')).toContainText('were not saved')
  await page.getByRole('button', { name: 'Restore them' }).click()
  await expect(components(page)).toHaveCount(2)
  await saved(page)
  await page.reload()
  await expect(components(page)).toHaveCount(2)
  await expect(page.getByTestId('draft-offer')).toHaveCount(0)
})

test('another variant is not opened over unsaved edits without asking, and a draft can be discarded', async ({
  page,
}) => {
  await newMachine(page, 'Variants unsaved')
  await place(page, 'reservoir', 300, 300)
  await saved(page)
  await page.getByTestId('variants').click()
  await page.getByTestId('add-variant').click()
  await expect(page).toHaveURL(/sheet=/)
  await cutOff(page)
  await place(page, 'fixed', 300, 150)
  await page.getByTestId('variants').click()
  await page.getByRole('button', { name: 'Open First variant' }).click()
  await expect(leave(page)).toBeVisible()
  await leave(page).getByRole('button', { name: 'Leave' }).click()
  await expect(components(page)).toHaveCount(1)
  await connect(page)
  await page.getByTestId('variants').click()
  await page.getByRole('button', { name: 'Open Variant 2' }).click()
  const offer = page.getByTestId('draft-offer')
  await offer.getByRole('button', { name: 'Discard them' }).click()
  await offer.getByRole('button', { name: 'Really discard them' }).click()
  await expect(offer).toHaveCount(0)
  await page.reload()
  await expect(components(page)).toHaveCount(1)
  await expect(offer).toHaveCount(0)
})

test('a save whose answer was lost is no conflict', async ({ page }) => {
  await newMachine(page, 'Lost answer')
  await place(page, 'reservoir', 300, 300)
  await saved(page)
  let lost = 0
  await page.route('**/api/sheets/*', async (route) => {
    if (route.request().method() !== 'PUT' || lost++) return route.continue()
    // the server does its work, and the answer never arrives
    await route.fetch()
    await route.abort()
  })
  await place(page, 'fixed', 300, 150)
  await expect(page.getByTestId('save-state')).toHaveAttribute('data-state', 'failed')
  await saved(page)
  expect(lost).toBeGreaterThan(1)
  await page.reload()
  await expect(components(page)).toHaveCount(2)
})

test('works where the browser denies storage', async ({ page }) => {
  await page.addInitScript(() => {
    const deny = (name: string) =>
      Object.defineProperty(window, name, {
        get: () => {
          throw new DOMException('denied', 'SecurityError')
        },
      })
    deny('localStorage')
    deny('sessionStorage')
    deny('indexedDB')
  })
  const errors: string[] = []
  page.on('pageerror', (error) => errors.push(error.message))
  await newMachine(page, 'Without storage')
  await place(page, 'reservoir', 300, 300)
  await saved(page)
  await page.getByRole('combobox', { name: 'Units' }).selectOption('us')
  await place(page, 'fixed', 300, 150)
  await page.keyboard.press('Control+z')
  await expect(components(page)).toHaveCount(1)
  await saved(page)
  await toList(page)
  await expect(page.getByTestId('machine').first()).toBeVisible()
  expect(errors).toEqual([])
})
