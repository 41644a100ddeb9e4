import { describe, expect, it } from 'vitest'
import { emptyBrief, movementOf } from './brief'
import { placeSteps } from './cycle'
import {
  addMotion,
  addStep,
  alongAxis,
  changeStep,
  cycleAxis,
  moveStep,
  removeMotion,
  removeStep,
  secondsPerWidth,
  setActuator,
  setMotionValue,
  setStepDuration,
  setTravel,
} from './edit'

const one = () => {
  const { brief, id } = addMotion(emptyBrief(), 'doubleActing', 'Clamp')
  const values = { stroke: '400 mm', outTime: '4 s', backSpeed: '0.2 m/s' } as const
  return Object.entries(values).reduce(
    (b, [name, text]) => setMotionValue(b, id, name as keyof typeof values, text),
    brief,
  )
}

describe('editing a brief', () => {
  it('adds a motion with its way out and back, and takes both away', () => {
    const { brief } = addMotion(one(), 'motor')
    expect(brief.motions.map((m) => m.id)).toEqual(['m1', 'm2'])
    expect(brief.cycle.map((s) => [s.motion, s.way])).toEqual([
      ['m1', 'out'],
      ['m1', 'back'],
      ['m2', 'out'],
      ['m2', 'back'],
    ])
    const without = removeMotion(brief, 'm1')
    expect(without.cycle).toHaveLength(2)
    expect(addMotion(without, 'winch').id).toBe('m3')
    expect(addMotion(emptyBrief(), 'consumer').brief.cycle).toHaveLength(1)
  })
  it('takes a value back where its text is empty, and drops what another actuator does not have', () => {
    expect(setMotionValue(one(), 'm1', 'stroke', ' ').motions[0].values).not.toHaveProperty('stroke')
    const turned = setActuator(one(), 'm1', 'motor').motions[0]
    expect(turned.values).toEqual({ outTime: '4 s' })
  })
  it('orders steps', () => {
    const brief = addStep(one())
    expect(brief.cycle.at(-1)).toMatchObject({ way: 'wait', duration: '1 s' })
    expect(moveStep(brief, 's3', -1).cycle.map((s) => s.id)).toEqual(['s1', 's3', 's2'])
    expect(moveStep(brief, 's3', 5)).toBe(brief)
    expect(removeStep(brief, 's2').cycle).toHaveLength(2)
  })
  it('drags a corner in time: the motion takes that long, and a speed gives way', () => {
    const slower = setStepDuration(one(), 's2', 3.333)
    expect(slower.motions[0].values).toMatchObject({ backTime: '3.33 s' })
    expect(slower.motions[0].values).not.toHaveProperty('backSpeed')
    const own = setStepDuration(changeStep(one(), 's1', { duration: '9 s' }), 's1', 5)
    expect(own.cycle[0].duration).toBe('5 s')
    expect(own.motions[0].values.outTime).toBe('4 s')
    expect(placeSteps(setStepDuration(one(), 's1', -3))[0].end).toBeGreaterThan(0)
  })
  it('drags a corner in travel', () => {
    expect(movementOf(setTravel(one(), 'm1', 0.5).motions[0]).travel).toBeCloseTo(0.5, 9)
    expect(movementOf(setTravel(one(), 'm1', -1).motions[0]).travel).toBeCloseTo(0.004, 9)
  })
})

describe('the time axis', () => {
  it('shortens long pauses and nothing that moves', () => {
    const waiting = changeStep(addStep(one()), 's3', { duration: '600 s' })
    const pieces = cycleAxis(waiting, 606)
    expect(pieces.map((p) => p.shortened)).toEqual([false, false, true])
    expect(pieces[2].end - pieces[2].start).toBeLessThan(0.12)
    expect(pieces.at(-1)!.end).toBeCloseTo(1, 12)
    expect(alongAxis(pieces, 0)).toBe(0)
    expect(alongAxis(pieces, 606)).toBe(1)
    expect(alongAxis(pieces, 2) / alongAxis(pieces, 4)).toBeCloseTo(0.5, 12)
    // a time moved by the seconds of a width moves by that width
    const by = secondsPerWidth(pieces, 1) * 0.1
    expect(alongAxis(pieces, 1 + by) - alongAxis(pieces, 1)).toBeCloseTo(0.1, 9)
  })
  it('is there for a cycle without motions', () => {
    expect(alongAxis(cycleAxis(emptyBrief(), 10), 5)).toBeCloseTo(0.5, 12)
    expect(cycleAxis(emptyBrief(), 0)).toEqual([])
  })
})
