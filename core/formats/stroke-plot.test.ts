/** The stroke–step diagram on paper and as rows. */
import { describe, expect, it } from 'vitest'
import { letteringFonts } from '../cli/fonts'
import type { StrokeSteps } from '../explain/stroke-steps'
import { showIn } from '../units/text'
import { plotStrokes, strokeRows, strokesToPdf } from './stroke-plot'
import { plotToSvg } from './svg'

const show = showIn('metric')
/** A rod that goes out 200 mm in 2 s of 4 s, where 1 s was intended. */
const steps: StrokeSteps = {
  duration: 4,
  rows: [
    {
      component: 'A1',
      name: '1-1A1',
      quantity: 'length',
      range: [0, 0.2],
      simulated: [
        [0, 0],
        [1, 0],
        [3, 0.2],
        [4, 0.2],
      ],
      intended: [
        [0, 0],
        [1, 0],
        [2, 0.2],
        [4, 0.2],
      ],
    },
  ],
  steps: [1, 3],
  signals: [{ at: 3, part: 'S1', name: '1-1S1' }],
  differences: [{ kind: 'time', text: '1-1A1 extends in 2 s; 1 s was intended.', at: 3, part: 'A1' }],
}

describe('the stroke–step diagram', () => {
  it('has each line in its row, over the time of the run', () => {
    const { strokes } = plotStrokes('Press', steps, show)
    const lines = strokes.flatMap(({ ink, colour }) => (ink.shape === 'line' ? [{ ...ink, colour }] : []))
    const simulated = lines.find(({ colour }) => colour)!.points
    const intended = lines.find(({ points, dash }) => dash === 'pilot' && points.length === 4)!.points
    const [start, , , end] = simulated
    // out is up: y falls, and the same place is at the same height in both
    expect(end[1]).toBeLessThan(start[1])
    expect(intended[3]).toEqual(end)
    const share = ([x]: readonly [number, number]) => (x - start[0]) / (end[0] - start[0])
    expect(share(simulated[2])).toBeCloseTo(3 / 4, 9)
    expect(share(intended[2])).toBeCloseTo(2 / 4, 9)
    const svg = plotToSvg(plotStrokes('Press', steps, show))
    for (const text of ['1-1A1', '200 mm', '1-1S1', '4 s']) expect(svg).toContain(`>${text}<`)
  })
  it('is written as rows in the units that are read', () => {
    const rows = strokeRows(steps)
    expect(rows).toContainEqual(['simulated', '1-1A1', 3, 200, 'mm', ''])
    expect(rows).toContainEqual(['intended', '1-1A1', 2, 200, 'mm', ''])
    expect(rows).toContainEqual(['signal', '1-1S1', 3, '', '', ''])
    expect(rows.at(-1)).toEqual(['differs', '1-1A1', 3, '', '', '1-1A1 extends in 2 s; 1 s was intended.'])
  })
  it('is a page with what differs', async () => {
    const { bytes, missing } = await strokesToPdf(
      steps,
      { title: 'Press: strokes', line: 'cycle' },
      letteringFonts,
      show,
    )
    expect(new TextDecoder().decode(bytes.slice(0, 5))).toBe('%PDF-')
    expect(missing).toEqual([])
  })
})
