import { describe, expect, it } from 'vitest'
import { briefSchema } from '@oar-bench/core/size/brief/brief'
import { placeSteps } from '@oar-bench/core/size/brief/cycle'
import { dragCorner, nudgeCorner, startCornerDrag } from './cycleCorner'

const brief = briefSchema.parse({
  motions: [
    {
      id: 'm',
      name: 'M',
      actuator: 'doubleActing',
      values: { stroke: '400 mm', outTime: '4 s', backTime: '2 s' },
    },
  ],
  cycle: [
    { id: 'out', motion: 'm', way: 'out' },
    { id: 'back', motion: 'm', way: 'back' },
  ],
})
const [out, back] = placeSteps(brief)
const values = (changed: typeof brief | undefined) => changed!.motions[0].values

describe('a corner of the cycle diagram', () => {
  it('dragged sideways changes the time, and not the travel while it is nearly level', () => {
    const drag = startCornerDrag(out, 100, 50, 0.02)
    expect(values(dragCorner(brief, drag, { x: 150, y: 48 }, 46))).toMatchObject({
      outTime: '5 s',
      stroke: '400 mm',
    })
  })
  it('lifted changes the travel; at the end of the way back there is none to change', () => {
    const lifted = { x: 100, y: 50 - 23 }
    expect(values(dragCorner(brief, startCornerDrag(out, 100, 50, 0.02), lifted, 46)).stroke).toBe('600 mm')
    expect(values(dragCorner(brief, startCornerDrag(back, 100, 50, 0.02), lifted, 46)).stroke).toBe('400 mm')
  })
  it.each([
    ['ArrowRight', false, 'outTime', '4.08 s'],
    ['ArrowLeft', true, 'outTime', '3.6 s'],
    ['ArrowUp', false, 'stroke', '408 mm'],
    ['ArrowDown', true, 'stroke', '360 mm'],
  ] as const)('%s moves it', (key, far, name, text) =>
    expect(values(nudgeCorner(brief, out, key, far))[name]).toBe(text),
  )
  it('stays for other keys', () => expect(nudgeCorner(brief, out, 'Enter', false)).toBeUndefined())
})
