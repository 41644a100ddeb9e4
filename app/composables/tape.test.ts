import { computed, nextTick, ref, shallowRef } from 'vue'
import { describe, expect, it } from 'vitest'
import {
  bar,
  circuit,
  idOf,
  powerUnit,
  powerUnitPipes,
  runSheet,
  timed,
  track,
} from '@oar-bench/core/testing'
import type { UnitSystem } from '@oar-bench/core/units/quantities'
import { showIn } from '@oar-bench/core/units/text'
import type { ShownRun } from '../stores/simulationRuns'
import { commandLanes, intervals } from '../utils/commandLanes'
import { usePlayback } from './usePlayback'
import { useTapeCharts } from './useTapeCharts'

const bare = circuit(
  {
    ...powerUnit,
    valve: ['directional-valve-4-3'],
    cylinder: ['cylinder-double-acting', { mass: '100 kg' }],
    back2: ['reservoir'],
  },
  [...powerUnitPipes, 'pump.P valve.P', 'valve.T back2.T', 'valve.A cylinder.A', 'valve.B cylinder.B'],
)
const valve = idOf(bare, 'directional-valve-4-3')
const cylinder = idOf(bare, 'cylinder-double-acting')
const sheet = timed(bare, 2, [
  track(valve, 'command', [0.2, '1'], [1, '0']),
  track(cylinder, 'force', [0, '0 kN'], [2, '5 kN', 'ramp']),
])
const result = runSheet(sheet)
const shown = shallowRef<ShownRun | undefined>({ result, sheet, name: 'This run' })

describe('the charts of the tape', () => {
  const overlay = shallowRef<ShownRun>()
  const system = ref<UnitSystem>('metric')
  const charts = useTapeCharts(shown, overlay, system, ref(false))
  it('are those that the run has something for, with the signals that move most', () => {
    expect(charts.available.value).toEqual(expect.arrayContaining(['length', 'speed', 'pressure']))
    expect(charts.shown.value).toEqual(['length', 'pressure'])
    const [stroke] = charts.panels.value
    expect(stroke.unit).toBe('mm')
    expect(stroke.traces[0].id).toBe(`${cylinder}.position`)
    expect(Math.max(...stroke.series[0].data.map((p) => p[1]))).toBeGreaterThan(50)
  })
  it('are switched on and off, but the last one stays', () => {
    charts.toggleChart('speed')
    expect(charts.shown.value).toContain('speed')
    for (const quantity of ['speed', 'pressure', 'length'] as const) charts.toggleChart(quantity)
    expect(charts.shown.value).toHaveLength(1)
    charts.toggleChart('pressure')
  })
  it('have the signals that are chosen, at least one and at most six', () => {
    const pressures = result.signals.filter((s) => s.role === 'pressure').map((s) => s.id)
    const before = charts.signalsOf('pressure', result)
    for (const id of before.slice(1)) charts.toggleSignal('pressure', id)
    expect(charts.signalsOf('pressure', result)).toEqual(before.slice(0, 1))
    charts.toggleSignal('pressure', before[0])
    expect(charts.signalsOf('pressure', result)).toHaveLength(1)
    for (const id of pressures)
      if (!charts.signalsOf('pressure', result).includes(id)) charts.toggleSignal('pressure', id)
    expect(charts.signalsOf('pressure', result).length).toBeLessThanOrEqual(6)
  })
  it('draw an overlaid run dashed, in the units that are chosen', () => {
    overlay.value = { result, sheet, name: 'Before', id: 'r' }
    system.value = 'us'
    const panel = charts.panels.value.find((p) => p.quantity === 'pressure')!
    expect(panel.unit).toBe('psi')
    expect(panel.series).toHaveLength(2 * panel.traces.length)
    expect(panel.series.filter((s) => s.dashed).every((s) => s.name.endsWith(', Before'))).toBe(true)
    overlay.value = undefined
  })
  it('are none without a run', () => {
    const none = useTapeCharts(shallowRef(), overlay, system, ref(true))
    expect([none.available.value, none.panels.value]).toEqual([[], []])
  })
})

describe('the lanes of the commands', () => {
  const lanes = commandLanes(result, sheet, showIn('metric'))
  it('name the positions of a valve, and draw a ramp as a line', () => {
    expect(lanes).toHaveLength(2)
    const [command, force] = lanes
    expect(command.blocks.map((b) => b.text)).toEqual(['centre', 'position a', 'centre'])
    expect(command.blocks.map((b) => b.idle)).toEqual([true, false, true])
    expect(command.blocks[1].from).toBeCloseTo(0.2, 2)
    expect(command.blocks[1].to).toBeCloseTo(1, 2)
    expect(force.blocks).toEqual([])
    expect(force.profile.split(' ').length).toBeGreaterThan(50)
    expect(force.range).toBe('0 kN to 5 kN')
  })
  it('draw a short ramp as a line too', () => {
    const short = timed(bare, 2, [track(cylinder, 'force', [1, '0 kN'], [1.05, '5 kN', 'ramp'])])
    const [force] = commandLanes(runSheet(short), short, showIn('metric'))
    expect(force.blocks).toEqual([])
    expect(force.profile).not.toBe('')
  })
  it('are the intervals in which a value stays', () => {
    expect(intervals([0, 1, 2, 3], [5, 5, 7, 7])).toEqual([
      { from: 0, to: 2, value: 5 },
      { from: 2, to: 3, value: 7 },
    ])
    expect(intervals([], [])).toEqual([])
  })
  it('leave out what was never commanded', () => {
    const idle = runSheet(timed(bare, 0.1, []))
    expect(commandLanes(idle, bare, showIn('metric'))).toEqual([])
    expect(Math.max(...idle.extremes.map((e) => e.max))).toBeGreaterThan(bar)
  })
})

describe('playback', () => {
  it('goes on at its speed, ends at the end, and begins anew from there', async () => {
    const time = ref(0)
    const duration = ref<number | undefined>(2)
    const playback = usePlayback(
      time,
      computed(() => duration.value),
    )
    playback.toggle()
    expect(playback.playing.value).toBe(true)
    playback.speed.value = 4
    playback.advance(0.25)
    expect(time.value).toBe(1)
    playback.advance(1)
    expect([time.value, playback.playing.value]).toEqual([2, false])
    playback.toggle()
    expect([time.value, playback.playing.value]).toEqual([0, true])
    playback.toggle()
    duration.value = undefined
    playback.advance(1)
    await nextTick()
    expect([time.value, playback.playing.value]).toEqual([0, false])
  })
})
