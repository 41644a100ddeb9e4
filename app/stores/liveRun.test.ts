/** The store of a live run, with the code of the worker in this thread. */
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'
import { readBrief } from '@oar-bench/core/size/brief/read'
import { bar, circuit, idOf, powerUnit, powerUnitPipes, timed, track } from '@oar-bench/core/testing'
import { useHold } from '../composables/useHold'
import { useLiveRun } from './liveRun'
import { useSheetDocument } from './sheetDocument'
import { useSimulationRuns } from './simulationRuns'

const worker = vi.hoisted(() => ({ api: {} as Record<string, (...args: never[]) => unknown> }))
vi.mock('comlink', () => ({
  expose: (api: typeof worker.api) => (worker.api = api),
  transfer: <T>(value: T) => value,
  proxy: <T>(value: T) => value,
}))
vi.mock('../utils/workerClient', () => ({
  workerClient: () => ({
    worker: { terminate() {} },
    failed: new Promise(() => {}),
    remote: new Proxy(
      {},
      {
        get:
          (_, name: string) =>
          async (...args: never[]) =>
            worker.api[name](...args),
      },
    ),
  }),
}))
vi.stubGlobal('Worker', class {})

const sheet = timed(
  circuit(
    {
      ...powerUnit,
      valve: ['directional-valve-4-3'],
      cylinder: ['cylinder-double-acting'],
      tank2: ['reservoir'],
    },
    [...powerUnitPipes, 'pump.P valve.P', 'valve.T tank2.T', 'valve.A cylinder.A', 'valve.B cylinder.B'],
  ),
  5,
  [],
)
const relief = idOf(sheet, 'relief-valve-direct')
const valve = idOf(sheet, 'directional-valve-4-3')
const cylinder = idOf(sheet, 'cylinder-double-acting')

beforeEach(async () => {
  await import('../workers/live.worker')
  setActivePinia(createPinia())
  useSheetDocument().open({
    id: 'm',
    name: 'Press',
    summary: '',
    brief: readBrief({ purpose: 'press' }),
    briefRevision: 1,
    sheet: { id: 's', name: 'First', revision: 1, content: sheet },
    variants: [],
    runs: [],
  })
})
const until = (done: () => boolean) =>
  vi.waitFor(() => expect(done()).toBe(true), { timeout: 5000, interval: 10 })
async function started() {
  const live = useLiveRun()
  expect(await live.start()).toBe(true)
  await until(() => (live.frame?.t ?? 0) > 0.1)
  return live
}

describe('a live run', () => {
  it('follows the clock, stands, and shows what is done', async () => {
    const live = await started()
    expect(live.playing).toBe(true)
    await live.set(relief, 'setting', 90 * bar)
    expect(live.orderOf(`${relief}.setting`)).toBe(90 * bar)
    await until(() => live.valueOf(`${relief}.setting`) === 90 * bar)
    await live.play(false)
    const at = live.frame!.t
    await new Promise((done) => setTimeout(done, 60))
    expect(live.frame!.t).toBe(at)
    expect(live.actions.map((a) => a.kind)).toEqual(['set'])
    expect(useSimulationRuns().shown!.result.times.length).toBeGreaterThan(5)
  })
  it('says what cannot be done and goes on as it was', async () => {
    const live = await started()
    expect(await live.set(relief, 'setting', 1e12)).toBe(false)
    expect(live.message).toContain('outside')
    expect(live.orderOf(`${relief}.setting`)).toBe(live.valueOf(`${relief}.setting`))
    expect(await live.set('gone', 'setting', 1)).toBe(false)
    expect(live.message).toContain('no component')
    expect(live.open).toBe(true)
    live.close()
    expect([live.open, live.frame]).toEqual([false, undefined])
    expect(await live.set(relief, 'setting', 1)).toBe(false)
  })
  it('goes back, tries another way, and finds the first one again', async () => {
    const live = await started()
    const runs = useSimulationRuns()
    await live.set(valve, 'command', 1)
    await until(() => (live.valueOf(`${cylinder}.position`) ?? 0) > 0.01)
    await live.play(false)
    const first = { t: live.frame!.t, at: live.valueOf(`${cylinder}.position`)! }
    // what is done while one looks back is done there
    runs.time = 0.05
    await live.set(relief, 'setting', 80 * bar)
    expect(live.branches.map((b) => b.name)).toEqual(['Branch 1'])
    expect(live.branch).toMatchObject({ name: 'Branch 2', from: 0.05 })
    expect(live.actions).toMatchObject([{ component: relief }])
    await live.openBranch(live.branches[0])
    expect(live.branches.map((b) => b.name)).toEqual(['Branch 2'])
    expect(live.frame!.t).toBeCloseTo(first.t, 1)
    expect(Math.abs(live.valueOf(`${cylinder}.position`)! - first.at)).toBeLessThan(0.02)
    live.compare(live.branches[0])
    expect(runs.overlay!.name).toBe('Branch 2')
    live.renameBranch(1, 'The good way')
    expect(live.branch.name).toBe('The good way')
    // without the lever the rod stays
    await live.rerun([])
    expect(live.valueOf(`${cylinder}.position`)).toBeLessThan(1e-3)
    expect(live.branches).toHaveLength(2)
  })
  it('holds the commands of the start, or goes on with those of the schedule', async () => {
    const document = useSheetDocument()
    document.apply(timed(sheet, 5, [track(valve, 'command', [0.05, '1'])]))
    const live = await started()
    await until(() => live.frame!.t > 0.2)
    expect(live.valueOf(`${valve}.command`)).toBe(0)
    expect(await live.start(true)).toBe(true)
    await until(() => live.valueOf(`${valve}.command`) === 1)
    // a hand overrules it
    await live.set(valve, 'command', 0)
    await until(() => live.valueOf(`${valve}.command`) === 0)
  })
  it('keeps every branch, and of the older ones what was done', async () => {
    const live = await started()
    await live.play(false)
    for (let i = 0; i < 10; i++) await live.goOnFrom(0.05)
    expect(live.branches).toHaveLength(10)
    expect(live.branches.map((b) => !!b.result)).toEqual([false, false, ...Array<boolean>(8).fill(true)])
    live.compare(live.branches[0])
    expect(useSimulationRuns().overlay).toBeUndefined()
  })
  it('becomes a schedule of the sheet', async () => {
    const live = await started()
    await live.set(relief, 'setting', 90 * bar)
    await live.setSpeed(0.25)
    await live.play(false)
    await live.writeSchedule('By hand', 'tried on Friday')
    const { schedules } = useSheetDocument().sheet
    expect(schedules.at(-1)).toMatchObject({
      id: 'live1',
      name: 'By hand',
      note: 'tried on Friday',
      longestStep: '0.02 s',
    })
    expect(schedules.at(-1)!.actions.map((a) => a.kind)).toEqual(['set', 'longestStep'])
    // a schedule more does not make the run one of another sheet
    expect(useSimulationRuns().outdated).toBe(false)
  })
  it('goes to the next event, and to a condition', async () => {
    const live = await started()
    await live.play(false)
    await live.set(valve, 'command', 1)
    await live.goToEvent()
    await until(() => !live.playing && live.message !== '')
    expect(live.message).toContain('stop')
    await live.goUntil({ signal: `${cylinder}.position`, above: true, value: 0.02 })
    await until(() => live.message.includes('condition'))
    expect(live.valueOf(`${cylinder}.position`)).toBeGreaterThan(0.02)
  })
  it('takes the supply away and gives it back', async () => {
    const live = await started()
    const [motor] = live.machine.electric
    await live.cutPower(true)
    await until(() => live.valueOf(motor) === 1)
    await live.cutPower(false)
    await until(() => live.valueOf(motor) === 0)
  })
})

describe('a lever', () => {
  it('falls back when it is let go, and stays where it is kept until it is pressed again', async () => {
    const live = await started()
    const key = `${valve}.command`
    const lever = live.machine.operables.find((o) => o.key === key)!
    const scope = effectScope()
    const hold = scope.run(() => useHold(() => lever))!
    await hold.press(1)
    expect(hold.value.value).toBe(1)
    await hold.letGo()
    expect(hold.value.value).toBe(0)
    // a lever that nobody holds is not let go
    const before = live.actions.length
    await hold.letGo()
    const keys = hold.holding(-1)
    const event = (key: string, shiftKey = false) =>
      new KeyboardEvent('keydown', { key, shiftKey, cancelable: true })
    keys.onKeydown(event('x'))
    expect(hold.value.value).toBe(0)
    keys.onKeydown(event(' ', true))
    await until(() => hold.value.value === -1)
    keys.onKeyup(event(' '))
    expect([hold.kept.value, hold.value.value]).toEqual([true, -1])
    keys.onKeydown(event('Enter'))
    await until(() => hold.value.value === 0)
    expect(hold.kept.value).toBe(false)
    expect(before).toBeLessThanOrEqual(live.actions.length)
    scope.stop()
  })
})
