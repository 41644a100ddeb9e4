/** What comes in and goes out beside drawings: whole workspaces, tables, and states compared. */
import { strFromU8, unzipSync, zipSync } from 'fflate'
import { expect, test } from '@playwright/test'
import { openCopy, openMachine, saved, step } from './helpers'

const csv = (name: string, text: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })

test('all machines go out in one archive and come in again; a bad archive changes nothing', async ({
  page,
}) => {
  await page.goto('/')
  const rows = page.getByTestId('machine')
  await expect(rows.first()).toBeVisible()
  const count = await rows.count()
  const saving = page.waitForEvent('download')
  await page.getByTestId('export-workspace').click()
  const path = (await (await saving).path())!
  const { readFileSync } = await import('node:fs')
  const files = unzipSync(readFileSync(path))
  const listed = JSON.parse(strFromU8(files['workspace.json']))
  expect(listed.machines).toHaveLength(count)
  const one = {
    ...listed,
    machines: listed.machines.slice(0, 1).map((m: object) => ({ ...m, name: 'Came back' })),
  }
  const bring = (bytes: Uint8Array) =>
    page
      .getByTestId('import-workspace')
      .setInputFiles({ name: 'w.zip', mimeType: 'application/zip', buffer: Buffer.from(bytes) })
  await bring(zipSync({ ...files, 'workspace.json': Buffer.from(JSON.stringify(one)) }))
  await expect(page.getByRole('status')).toContainText('1 machine was added')
  await expect(rows).toHaveCount(count + 1)
  await expect(page.getByRole('link', { name: 'Came back' })).toBeVisible()
  await bring(zipSync({ '../../x': Buffer.from('x') }))
  await expect(page.getByRole('alert')).toContainText(
    'Nothing was changed. The archive has a file whose name leads out',
  )
  await bring(zipSync({ 'workspace.json': Buffer.alloc(60e6, 48) }))
  await expect(page.getByRole('alert')).toContainText('unpacks to far more')
  await expect(rows).toHaveCount(count + 1)
})

test('a body that is too large is refused before it is read', async ({ request }) => {
  const answer = await request.post('/api/machines', { data: { name: 'x'.repeat(30e6) } })
  expect(answer.status()).toBe(413)
  expect((await answer.json()).message).toContain('nothing was changed')
})

test('a schedule and a load table come from CSV files, and a bad row is named', async ({ page }) => {
  await openCopy(page, 'boat-lift', 'Tables')
  await step(page, 'Run')
  await page
    .getByRole('button', { name: /schedule/i })
    .first()
    .click()
  const pane = page.getByRole('complementary', { name: 'Schedule' })
  await expect(pane).toBeVisible()
  await page
    .getByTestId('schedule-csv')
    .setInputFiles(csv('s.csv', 'Component;Command;Time [s];Value\n1-1V1;command;1;7\n'))
  await page
    .getByTestId('schedule-csv')
    .setInputFiles(csv('s.csv', 'Component;Command;Time [s];Value\n1-9V9;command;1;1\n'))
  await expect(pane.getByRole('alert')).toContainText('Row 2: there is no component "1-9V9"')
  await page
    .getByTestId('schedule-csv')
    .setInputFiles(csv('s.csv', 'Component,Command,Time,Value\n1-1V1,command,1 s,1\n1-1V1,command,4 s,0\n'))
  await expect(pane.getByRole('heading', { name: /1-1V1/ })).toBeVisible()
  await expect(pane.getByLabel('At', { exact: true }).first()).toHaveValue('1 s')
  await saved(page)
  await step(page, 'Sheet')
  await page.locator('[data-component="A1"] .component-reach').click()
  await page.getByTestId('table-csv').setInputFiles(csv('t.csv', 'stroke [mm],force [kN]\n0,1\n600,soft\n'))
  await expect(page.getByText('Row 3, force:')).toBeVisible()
  await page.getByTestId('table-csv').setInputFiles(csv('t.csv', 'stroke [mm],force [kN]\n0,1\n600,4\n'))
  await expect(page.getByLabel('stroke, row 2')).toHaveValue('600 mm')
  await expect(page.getByLabel('force, row 2')).toHaveValue('4 kN')
})

test('two variants of a machine are compared, and any two states of a sheet', async ({ page }) => {
  await openMachine(page, 'Blade press')
  await page.getByTestId('files').click()
  await page.getByTestId('open-revisions').click()
  await page.getByTestId('compare-variants').click()
  await expect(page.getByTestId('changes').getByRole('listitem').first()).toBeVisible()
  await expect(page.getByTestId('revisions').locator('img')).toHaveCount(2)
  const [, second] = await page.getByTestId('compare-before').locator('option').all()
  const key = (await second.getAttribute('value'))!
  // the second choice does not wait for the first, which comes late
  let late = true
  await page.route(/\?sheet=/, async (route) => {
    if (late) await new Promise((done) => setTimeout(done, 1000))
    late = false
    await route.continue()
  })
  await page.getByTestId('compare-after').selectOption(key)
  await page.getByTestId('compare-before').selectOption(key)
  await expect(page.getByText('Nothing is different.')).toBeVisible()
})
