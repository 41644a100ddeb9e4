import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { openMachine, run, step } from './helpers'

for (const scheme of ['light', 'dark'] as const)
  test(`main views have no serious accessibility faults (${scheme})`, async ({ browser }) => {
    test.setTimeout(240_000)
    const context = await browser.newContext({ colorScheme: scheme, viewport: { width: 1280, height: 800 } })
    const page = await context.newPage()
    const check = async (view: string) => {
      const axe = new AxeBuilder({ page })
      // in the dark only the colours are others
      const { violations } = await (scheme === 'light' ? axe : axe.withRules('color-contrast')).analyze()
      const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical')
      expect(
        serious.map(
          (v) =>
            `${view}: ${v.id} at ${v.nodes
              .map((n) => n.target)
              .slice(0, 3)
              .join(' ')}`,
        ),
      ).toEqual([])
    }
    await page.goto('/')
    await expect(page.getByRole('link', { name: 'Shavings press' })).toBeVisible()
    await check('machines')
    await openMachine(page, 'Shavings press', 'Brief')
    await check('brief')
    await step(page, 'Sheet')
    await page.locator('[data-component="V1"]').click()
    await check('sheet')
    const sheet = page.getByTestId('sheet')
    for (const [keys, box] of [
      ['Control+k', 'search'],
      ['Control+p', 'print'],
      ['t', 'contents'],
      ['?', 'keys'],
    ]) {
      await sheet.press(keys)
      await expect(page.getByRole('dialog')).toHaveCount(1)
      await check(box)
      await page.keyboard.press('Escape')
      await expect(page.getByRole('dialog')).toHaveCount(0)
    }
    await page.getByTestId('files').click()
    await page.getByTestId('open-revisions').click()
    await expect(page.getByRole('dialog')).toHaveCount(1)
    await check('revisions')
    await page.keyboard.press('Escape')
    await sheet.press('o')
    await expect(page.getByTestId('overview')).toBeVisible()
    await check('overview')
    await sheet.press('o')
    await step(page, 'Control')
    await page.getByTestId('contact-R1-1').click()
    await check('control')
    await page.getByTestId('control-view-proofs').click()
    await expect(page.locator('[data-outcome]').first()).toBeVisible({ timeout: 60_000 })
    await check('proofs')
    await step(page, 'Sizes')
    await check('sizes')
    await step(page, 'Run')
    await run(page)
    await page.getByTestId('show-paths').click()
    await check('run')
    await page.getByTestId('live').click()
    await expect(page.getByTestId('console')).toBeVisible()
    await page.getByTestId('live-pause').click()
    await page.getByTestId('nut-V1.setting').click()
    await check('live run')
    await page.getByTestId('live-end').click()
    await context.close()
  })
