import { defineKind, Power, quantity, indices, outputSpecs } from '../kind'
import { pathCoefficient, smoothSquareRoot } from '../flow-laws'
import { line, polygon, text } from '../symbol'
import { textWidth } from '../text-width'

const OUTPUT = indices('flow')

const A = 0

/** A line goes on, on another sheet. Here it ends closed, or at the pressure that it has there: Q = path(p_A − p; q_r, Δp_r). */
export const continuation = defineKind({
  name: 'continuation',
  label: 'Continued on another sheet',
  family: 'sources',
  searchTerms: ['continuation', 'reference arrow', 'other sheet', 'continued', 'off page'],
  designationLetter: 'Z',
  excludedFromPartsList: true,
  description: 'The end of a line that goes on elsewhere, with the place where it does.',
  ports: [{ name: 'A', domain: 'oil', role: 'line that goes on' }],
  parameters: {
    reference: {
      type: 'text',
      label: 'Goes on at',
      default: 'Sheet 2',
      note: 'sheet, field and letter',
      group: 'Drawing',
    },
    boundary: {
      type: 'choice',
      label: 'In a run of this sheet',
      default: 'closed',
      choices: { closed: 'closed', held: 'held at a pressure' },
    },
    pressure: quantity('Pressure there', 'pressure', '0 bar', -1e5, 700e5),
    ratedFlow: quantity('Flow of the line', 'flow', '40 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '1 bar', 1e3, 50e5),
  },
  idleParameters: (v) => (v.boundary === 'held' ? [] : ['pressure', 'ratedFlow', 'ratedDrop']),
  symbol(v) {
    const width = Math.ceil(textWidth(v.reference.replace(/\n/g, ' '), 1.2)) + 2
    return {
      shapes: [
        line([-2, 0], [0, 0]),
        polygon('none', [0, -1], [width, -1], [width + 1, 0], [width, 1], [0, 1]),
        text(width / 2, 0, v.reference.replace(/\n/g, ' '), 1.2),
        ...(v.boundary === 'closed' ? [line([-0.6, -0.5], [-0.6, 0.5])] : []),
      ],
      ports: { A: { x: -2, y: 0, side: 'left' } },
      box: { x: 0, y: -1, w: width + 1, h: 2 },
    }
  },
  model(v) {
    const coefficient = v.boundary === 'held' ? pathCoefficient(v.ratedFlow, v.ratedDrop) : 0
    return {
      outputs: outputSpecs(OUTPUT, { flow: { label: 'flow to the other sheet', quantity: 'flow' } }),
      evaluate(l) {
        l.q[A] = coefficient * smoothSquareRoot(l.p[A] - v.pressure)
        // the oil goes elsewhere
        l.e[A] = l.q[A]
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[A]
        // what leaves here does work elsewhere, what comes was given it there
        l.power[Power.useful] = l.q[A] > 0 ? l.p[A] * l.q[A] : 0
        l.power[Power.input] = l.q[A] < 0 ? -l.p[A] * l.q[A] : 0
      },
    }
  },
  describeState: (l, v, show) =>
    v.boundary === 'closed'
      ? `Closed here, at ${show(l.p[A], 'pressure')}.`
      : `${l.q[A] >= 0 ? 'Gives' : 'Takes'} ${show(Math.abs(l.o[OUTPUT.flow]), 'flow')} ${l.q[A] >= 0 ? 'to' : 'from'} the other sheet.`,
})
