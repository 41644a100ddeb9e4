import { expect, test, type Page } from '@playwright/test'
import { bladePress, shavingsPress } from '../demo/briefs'
import { newMachine, openCopy, place, saved, step } from './helpers'

async function fillIn(page: Page, field: string, text: string): Promise<void> {
  const box = page.getByTestId(field).getByRole('textbox')
  await box.fill(text)
  await box.press('Enter')
}

test('a brief of two motions, from empty to a cycle', async ({ page }) => {
  await newMachine(page, 'Two-cylinder press')
  await step(page, 'Brief')
  await expect(page.getByTestId('brief-missing')).toContainText('No motion is described yet')
  await step(page, 'Sizes')
  await expect(page.getByTestId('sizes-empty')).toContainText('Nothing is sized from made-up figures')
  await page.getByRole('link', { name: 'Fill in the brief' }).click()

  await fillIn(page, 'brief-maximumPressure', '160 bar')
  const fill = (field: string, text: string) => fillIn(page, `motion-${field}`, text)
  await page.getByTestId('add-motion').click()
  await page.getByRole('menuitem', { name: 'Cylinder, double-acting' }).click()
  await page.getByLabel('Name of the motion').fill('Clamp')
  await page.getByLabel('Name of the motion').press('Enter')
  await fill('stroke', '200 mm')
  await fill('outTime', '2')
  await fill('forceOut', '20 kN')
  await expect(page.getByTestId('brief-missing')).toHaveCount(0)
  await fill('outSpeed', '50 mm/s')
  await expect(page.getByTestId('motion-outSpeed').getByRole('alert')).toContainText('not both')
  await fill('outSpeed', '')

  await page.getByTestId('add-motion').click()
  await page.getByRole('menuitem', { name: 'Cylinder, double-acting' }).click()
  await expect(page.getByTestId('brief-missing')).toContainText('Motion 2: the stroke is not given')
  await fill('stroke', '0.5 m')
  await fill('outTime', '5 s')
  await fill('workForce', '10 t')
  await expect(page.getByTestId('motion-workForce').getByRole('alert')).toContainText('It is a unit of mass')
  await fill('workForce', '80 kN')
  await expect(page.getByTestId('cycle-table').getByRole('row')).toHaveCount(5)

  // the corner of the first step, by the keyboard and by the pointer
  const corner = page.getByTestId('corner-s1')
  await corner.focus()
  await corner.press('Shift+ArrowRight')
  await page.getByTestId('motion-m1').click()
  await expect(page.getByTestId('motion-outTime').getByRole('textbox')).toHaveValue('2.2 s')
  await corner.press('ArrowUp')
  await expect(page.getByTestId('motion-stroke').getByRole('textbox')).toHaveValue('204 mm')
  const at = (await corner.boundingBox())!
  await page.mouse.move(at.x + 5, at.y + 5)
  await page.mouse.down()
  await page.mouse.move(at.x + 65, at.y + 5, { steps: 4 })
  await page.mouse.up()
  await expect(page.getByTestId('motion-outTime').getByRole('textbox')).not.toHaveValue('2.2 s')
  await page.getByTestId('cycle-diagram').click({ position: { x: 5, y: 5 } })
  await page.keyboard.press('Control+z')
  await expect(page.getByTestId('motion-outTime').getByRole('textbox')).toHaveValue('2.2 s')
  await saved(page)
  await page.reload()
  await expect(page.getByTestId('motion-m2')).toBeVisible()
  await expect(page.getByTestId('cycle-diagram')).toContainText('peak')
})

test('motions go out to a table and come back from one', async ({ page }) => {
  await openCopy(page, 'blade-press', 'Motions as a table', 'Brief', bladePress)
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Motions and cycle as a CSV file' }).click(),
  ])
  const text = (await (await import('node:fs/promises')).readFile((await file.path())!, 'utf8')).replace(
    'Cheeks',
    'Jaws',
  )
  const give = (content: string) =>
    page
      .getByTestId('brief-csv')
      .setInputFiles({ name: 'm.csv', mimeType: 'text/csv', buffer: Buffer.from(content) })
  await give(text)
  await expect(page.getByTestId('motion-cheeks')).toHaveText('Jaws')
  await give(text.replace('300 mm', '300 bar'))
  await expect(page.getByRole('alert')).toContainText('unit of pressure')
  await expect(page.getByTestId('motion-cheeks')).toHaveText('Jaws')
  await saved(page)
})

test('the helper for units questions a number without one, and takes another unit', async ({ page }) => {
  await openCopy(page, 'shavings-press', 'Stamped', 'Brief', shavingsPress)
  await page.getByRole('button', { name: 'Units of Pressure class' }).click()
  const value = page.getByTestId('unit-helper-value')
  await value.fill('165')
  await expect(page.getByTestId('unit-helper')).toContainText('without a unit')
  await value.fill('1 bar')
  await expect(page.getByTestId('unit-helper')).toContainText('× 14.50377377302')
  await value.fill('2320.6038 psi')
  await page
    .getByTestId('unit-helper')
    .getByRole('row', { name: /^160 bar/ })
    .getByRole('button')
    .click()
  await expect(page.getByTestId('brief-maximumPressure').getByRole('textbox')).toHaveValue('160 bar')
  await saved(page)
})

test('a press of two cylinders, from an empty brief to sizes on its sheet', async ({ page }) => {
  await newMachine(page, 'Bracket press')
  await place(page, 'cylinder double', 200, 120)
  await place(page, 'cylinder double', 200, 260)
  await place(page, 'fixed pump', 480, 420)
  await place(page, 'relief', 620, 360)
  const designations = await page.locator('[data-component] .designation').allTextContents()
  await step(page, 'Brief')
  await fillIn(page, 'brief-maximumPressure', '160 bar')
  const motion = async (name: string, designation: string, values: Readonly<Record<string, string>>) => {
    await page.getByTestId('add-motion').click()
    await page.getByRole('menuitem', { name: 'Cylinder, double-acting' }).click()
    await page.getByLabel('Name of the motion').fill(name)
    await page.getByLabel('Name of the motion').press('Enter')
    await page.getByLabel('On the sheet').selectOption(designation)
    for (const [field, text] of Object.entries(values)) await fillIn(page, `motion-${field}`, text)
  }
  const cylinders = designations.filter((d) => /A\d+$/.test(d))
  expect(cylinders).toHaveLength(2)
  await motion('Clamp', cylinders[0], { stroke: '200 mm', outTime: '2 s', forceOut: '20 kN' })
  await motion('Press', cylinders[1], { stroke: '500 mm', outTime: '5 s', workForce: '80 kN' })
  await step(page, 'Sizes')
  const nav = page.getByTestId('sizes-nav')
  await nav.getByRole('button', { name: 'Apply all to the sheet' }).click()
  await expect(nav).toContainText(/(\d+) of \1 values on the sheet agree/)
  await step(page, 'Sheet')
  // 20 kN / (0.93 · 150 bar − 5 bar) = 14.87 cm² → 43.5 mm; 80 kN → 87.0 mm
  await expect(page.locator('.caption', { hasText: '⌀ 50 mm' })).toHaveCount(1)
  await expect(page.locator('.caption', { hasText: '⌀ 100 mm' })).toHaveCount(1)
  await saved(page)
})
