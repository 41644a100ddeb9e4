import { expect, test } from '@playwright/test'
import { openCopy, step } from './helpers'

test('what is written beside the symbols is chosen on the sheet, and stands on paper too', async ({
  page,
}) => {
  await openCopy(page, 'quay-crane', 'Written on')
  const written = page.locator('[data-annotation]')
  await expect(written).toHaveCount(0)
  for (const name of ['ports', 'pipes', 'fluid'])
    await page.getByTestId(`annotation-${name}`).getByRole('switch').click()
  await expect(page.locator('[data-annotation^="port:"]').first()).toBeVisible()
  await expect(page.locator('[data-annotation^="line:"]').first()).toContainText('⌀')
  await expect(page.locator('[data-annotation^="fluid:"]')).toHaveCount(2)
  await page.getByTestId('annotation-rotation').getByRole('switch').click()
  await expect(page.locator('.rotation-arrow').first()).toBeAttached()
  await page.getByTestId('designation-style').selectOption('mediumLetter')
  await expect(page.getByText(/^1-H0\.\d+$/).first()).toBeVisible()
  await page.getByTestId('designation-style').selectOption('typeLetter')
  await expect(page.getByText('1-0P1', { exact: true })).toBeVisible()
})

test('the page says what does not fit it, and proposes a larger one', async ({ page }) => {
  await openCopy(page, 'quay-crane', 'On paper')
  await page.getByTestId('add-change').click()
  await page.getByTestId('change-1').getByLabel('Change, row 2').fill('Winch brake added')
  await page.getByTestId('change-1').getByLabel('Change, row 2').press('Enter')
  await page.getByTestId('page-number').fill('W'.repeat(200))
  await page.getByTestId('page-number').press('Enter')
  await page.getByTestId('page-sheets').fill('0')
  await page.getByTestId('page-sheets').press('Enter')
  // a number that is none is left as it was
  await expect(page.getByTestId('page-sheets')).toHaveValue('2')
  await page.getByTestId('files').click()
  await page.getByTestId('open-print').click()
  const dialog = page.getByTestId('print')
  await expect(dialog.getByTestId('cut-fields')).toContainText('Document number')
  await expect(dialog.getByTestId('small-letters')).toHaveCount(0)
  await dialog.getByTestId('paper').selectOption('ANSI A')
  await expect(dialog.getByTestId('small-letters')).toContainText('ISO 3098')
  await dialog.getByTestId('larger-paper').click()
  await expect(dialog.getByTestId('small-letters')).toHaveCount(0)
  await expect(dialog.getByTestId('paper')).not.toHaveValue('ANSI A')
  const picture = await dialog.locator('img').getAttribute('src')
  expect(decodeURIComponent(picture!)).toContain('Winch brake added')
})

test('a control character is refused at the field, and nothing is lost', async ({ page }) => {
  await openCopy(page, 'relief-rig', 'Typed')
  const owner = page.getByTestId('page-owner')
  const before = await owner.inputValue()
  await owner.evaluate((field: HTMLInputElement) => {
    field.value = 'a\u0007b'
    field.dispatchEvent(new Event('change', { bubbles: true }))
  })
  await expect(owner).toHaveValue(before)
  expect(await owner.evaluate((field: HTMLInputElement) => field.validationMessage)).toContain(
    'control character',
  )
})

test('a tank of several lines has as many as are set, and asks for no more than it has', async ({ page }) => {
  await openCopy(page, 'tug-bank-closed', 'Tank')
  await page.locator('[data-component="T1"]').press('Enter')
  await page.getByTestId('parameter-lines').getByRole('combobox').selectOption('4')
  await expect(page.getByTestId('parameter-end4')).toBeVisible()
  await expect(page.getByTestId('parameter-end5')).toHaveCount(0)
  await step(page, 'Run')
  await expect(page.getByTestId('run')).toBeEnabled()
})
