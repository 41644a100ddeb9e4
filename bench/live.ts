/**
 * How a live run feels, in headless Chromium at 1280×800: intervals between two frames of it, the time from a press to the first
 * frame that shows its effect, and how well it keeps up with the clock; on every demo machine and on a generated sheet of about 300
 * components. Also the memory of an hour live on the crane. The application must be built.
 */
import type { Page } from '@playwright/test'
import { demoMachines } from '../demo/machines'
import { compileMachineLive } from '../core/control/run'
import { LiveRun } from '../core/simulate/live-run'
import type { Sheet } from '../core/sheet/schema'
import { laidSheet, median, share, startApp } from './app'

const { address, browser, machineWith, close } = await startApp(4181)

/** Instants at which the time that is shown changed, ms. Text: what is bundled for Node refers to helpers that a page has not. */
const FRAMES = `(async () => {
  const time = document.querySelector('[data-testid="time"]')
  const at = []
  const watch = new MutationObserver(() => at.push(performance.now()))
  watch.observe(time, { characterData: true, childList: true, subtree: true })
  await new Promise((done) => setTimeout(done, 4000))
  watch.disconnect()
  return at
})()`
/** Presses what is worked on the sheet, and waits for the first change of the drawn run that follows at that part. */
const PRESS = `(async () => {
  const times = []
  const hands = [...document.querySelectorAll('.hand.lever')]
  for (let i = 0; i < 10 && hands.length; i++) {
    const hand = hands[i % hands.length]
    const id = hand.dataset.testid.slice(5).split('.')[0]
    const part = document.querySelector('[data-component="' + id + '"]')
    const seen = new Promise((done) => {
      const watch = new MutationObserver(() => (watch.disconnect(), done(performance.now())))
      watch.observe(part, { attributes: true, attributeFilter: ['style'], subtree: true })
      setTimeout(() => (watch.disconnect(), done(undefined)), 1500)
    })
    const start = performance.now()
    hand.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', bubbles: true }))
    const end = await seen
    if (end !== undefined) times.push(end - start)
    await new Promise((done) => setTimeout(done, 300))
    hand.dispatchEvent(new KeyboardEvent('keyup', { key: ' ', bubbles: true }))
    await new Promise((done) => setTimeout(done, 400))
  }
  return times
})()`

async function live(page: Page, name: string, sheet: Sheet): Promise<void> {
  const id = await machineWith(name, sheet)
  await page.goto(`${address}/machines/${id}/run`)
  await page.getByTestId('live').click()
  await page.getByTestId('live-pause').waitFor({ timeout: 120_000 })
  await page.waitForTimeout(1500)
  const before = Number((await page.getByTestId('time').textContent())!.split(' ')[0])
  const at = await page.evaluate<number[]>(FRAMES)
  const after = Number((await page.getByTestId('time').textContent())!.split(' ')[0])
  const gaps = at.slice(1).map((t, i) => t - at[i])
  const presses = await page.evaluate<number[]>(PRESS)
  const pace = (after - before) / 4
  const press = presses.length
    ? `press to frame median ${median(presses).toFixed(0)} ms, worst ${Math.max(...presses).toFixed(0)} ms`
    : 'no lever'
  console.log(
    `${name}: frames p50 ${share(gaps, 0.5).toFixed(0)} ms, p95 ${share(gaps, 0.95).toFixed(0)} ms; ${press}; pace ${pace.toFixed(2)}`,
  )
  await page.getByTestId('live-end').click()
}

/** Memory of the crane after an hour of machine time, MB: what a worker would hold. */
function hour(sheet: Sheet): void {
  const { compiled } = compileMachineLive(sheet, undefined, true)
  const run = new LiveRun(compiled!)
  const started = performance.now()
  for (let t = 10; t <= 3600; t += 10) run.goOn(t)
  globalThis.gc?.()
  const { arrayBuffers, heapUsed } = process.memoryUsage()
  const { store } = run.simulation.recorder
  const samples = (store.count * (store.columns.length + 2) * 4) / 1e6
  console.log(
    `an hour on the crane: ${((performance.now() - started) / 1000).toFixed(0)} s of the clock; samples ${samples.toFixed(0)} MB, arrays ${(arrayBuffers / 1e6).toFixed(0)} MB, heap ${(heapUsed / 1e6).toFixed(0)} MB`,
  )
}

try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  for (const { name, variants } of demoMachines()) await live(page, name, variants[0].sheet)
  const large = laidSheet(330)
  await live(page, `generated, ${large.components.length} components`, large)
  hour(demoMachines().find(({ name }) => name === 'Quay crane')!.variants[0].sheet)
} finally {
  await close()
}
