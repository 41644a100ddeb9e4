/**
 * How smooth the sheet is: a generated one of about 300 components and 450 pipes in headless Chromium. Prints the time to open
 * it, the 95th percentile of the frames while a part is dragged and while the sheet is panned, the time from an edit to its checks,
 * and the time to show another instant of a run, there and on every demo machine.
 * The application must be built.
 */
import type { Page } from '@playwright/test'
import { demoMachines } from '../demo/machines'
import { laidSheet, median, share, startApp } from './app'

const { address, browser, machineWith, close } = await startApp(4179)
const sheet = laidSheet(330)

/** Moves the instant of a run over its whole length; the time from each to the frame that shows it, ms. Text as below. */
const SCRUB = `(async () => {
  const slider = document.querySelector('[data-testid="time-slider"]')
  const times = []
  for (let i = 0; i < 60; i++) {
    slider.value = String((Number(slider.max) * ((i * 37) % 60)) / 60)
    const start = performance.now()
    slider.dispatchEvent(new Event('input'))
    await new Promise((done) => requestAnimationFrame(() => setTimeout(done)))
    times.push(performance.now() - start)
  }
  return times
})()`
/** Moves the chosen part by keys; the time from each to the page that shows what the checks find, ms. Text as below. */
const NUDGE = `(async () => {
  const sheet = document.querySelector('[data-testid="sheet"]')
  const times = []
  for (let i = 0; i < 30; i++) {
    const checked = new Promise((done) => {
      const label = document.querySelector('[data-checked]')
      const watch = new MutationObserver(() => {
        if (label.dataset.checked === 'true') watch.disconnect(), done()
      })
      watch.observe(label, { attributeFilter: ['data-checked'] })
    })
    const start = performance.now()
    sheet.dispatchEvent(new KeyboardEvent('keydown', { key: i % 2 ? 'ArrowLeft' : 'ArrowRight', bubbles: true }))
    await checked
    times.push(performance.now() - start)
    await new Promise((done) => setTimeout(done, 500))
  }
  return times
})()`
async function scrub(page: Page, id: string): Promise<string> {
  await page.goto(`${address}/machines/${id}/run`)
  await page.getByTestId('run').click()
  await page.getByTestId('time-slider').waitFor({ timeout: 120_000 })
  await page.waitForTimeout(500)
  const times = await page.evaluate<number[]>(SCRUB)
  return `p50 ${share(times, 0.5).toFixed(0)} ms, p95 ${share(times, 0.95).toFixed(0)} ms`
}

/** Runs in the page, as text: what is bundled for Node refers to helpers that a page has not. */
const COUNT = `
  window.frameTimes = []
  requestAnimationFrame(function next(t) {
    window.frameTimes.push(t)
    window.counting = requestAnimationFrame(next)
  })`
/** Times between frames, ms, while something goes on. */
async function frames(page: Page, work: () => Promise<void>): Promise<number[]> {
  await page.evaluate(COUNT)
  await work()
  const times = await page.evaluate<number[]>('cancelAnimationFrame(window.counting); window.frameTimes')
  return times.slice(1).map((t, i) => t - times[i])
}

try {
  const id = await machineWith('Large', sheet)
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const opening: number[] = []
  for (let i = 0; i < 7; i++) {
    // from the list of machines, as one comes to it; not from the same sheet, which would have to be taken down first
    await page.goto(address)
    await page.getByTestId('new-machine').waitFor()
    const start = performance.now()
    await page.goto(`${address}/machines/${id}/sheet`)
    await page
      .locator('[data-component]')
      .nth(sheet.components.length - 1)
      .waitFor()
    opening.push(performance.now() - start)
  }
  console.log(`${sheet.components.length} components, ${sheet.pipes.length} pipes`)
  console.log(`open: median ${median(opening).toFixed(0)} ms of ${opening.length}`)

  await page.locator('[data-checked="true"]').waitFor()
  await page.waitForTimeout(500)
  const part = page.locator('[data-kind="cylinder-double-acting"] .component-reach').nth(20)
  const box = (await part.boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  const wave = async (n: number) => {
    for (let i = 0; i < n; i++) {
      await page.mouse.move(x + 40 * Math.sin(i / 6), y + 30 * Math.sin(i / 9))
      await page.evaluate(() => new Promise(requestAnimationFrame))
    }
  }
  await page.mouse.move(x, y)
  await page.mouse.down()
  const dragged = await frames(page, () => wave(120))
  await page.mouse.up()
  console.log(
    `drag: frame p50 ${share(dragged, 0.5).toFixed(1)} ms, p95 ${share(dragged, 0.95).toFixed(1)} ms`,
  )

  const free = (await page.getByTestId('sheet').boundingBox())!
  const panned = await frames(page, async () => {
    for (let round = 0; round < 3; round++) {
      await page.mouse.move(free.x + free.width - 30, free.y + 120)
      await page.mouse.down()
      for (let i = 0; i < 60; i++) {
        await page.mouse.move(free.x + free.width - 30 - 3 * i, free.y + 120 + 2 * i)
        await page.evaluate(() => new Promise(requestAnimationFrame))
      }
      await page.mouse.up()
    }
  })
  console.log(`pan: frame p50 ${share(panned, 0.5).toFixed(1)} ms, p95 ${share(panned, 0.95).toFixed(1)} ms`)

  await page.getByTestId('sheet').press('f')
  await page.locator('[data-kind="cylinder-double-acting"] .component-reach').nth(20).click()
  const checks = await page.evaluate<number[]>(NUDGE)
  console.log(
    `edit to checks: median ${median(checks).toFixed(0)} ms, p95 ${share(checks, 0.95).toFixed(0)} ms`,
  )

  console.log(`scrub, the generated one: ${await scrub(page, id)}`)
  for (const { name, variants } of demoMachines())
    console.log(`scrub, ${name}: ${await scrub(page, await machineWith(name, variants[0].sheet))}`)
} finally {
  await close()
}
