import { quantity } from '../../catalogue/kind'
import { defineDevice, type DeviceView } from '../device'

/** Share of full output by which a proportional output changes at once. */
const RESOLUTION = 0.005

interface ControllerValues {
  readonly measured: string
  readonly order: number
  readonly deadBand: number
  readonly back: number
  readonly ramp: number
  readonly form: 'twoPoint' | 'proportional'
  readonly gain: number
  readonly drives: string
}

/** A change of the order that matters. */
const resolution = ({ form, deadBand, gain }: ControllerValues) =>
  form === 'proportional' ? Math.min(RESOLUTION / gain, 0.2 * deadBand) : 0.1 * deadBand

/**
 * Compares a measured value with an order. Two-point: contact "more" closes where it lies below the order by more than the dead band,
 * "less" where above, until the difference is a share of the dead band. Proportional: u = gain·(order − measured), from −1 to 1, in
 * steps of 0.5 %, 0 within the dead band.
 */
export const positionController = defineDevice({
  name: 'position-controller',
  label: 'Position controller',
  letter: 'K',
  description: 'Brings a measured value to its order: by two contacts, or by a proportional valve.',
  searchTerms: ['position', 'controller', 'follow-up', 'servo', 'autopilot', 'dead band', 'gain'],
  place: 'operator',
  parameters: {
    measured: {
      type: 'text',
      label: 'Measured',
      default: '-',
      note: 'id and output on the sheet, such as A1.angle',
    },
    order: quantity('Order at the start', 'signal', '0', -1e3, 1e3, {
      note: 'with a unit, such as 35 ° or 120 mm',
    }),
    least: quantity('Least order', 'signal', '0', -1e3, 1e3),
    greatest: quantity('Greatest order', 'signal', '1', -1e3, 1e3),
    deadBand: quantity('Dead band, each side', 'signal', '0.01', 1e-6, 1e3),
    back: quantity('Releases at this share of the dead band', 'share', '50 %', 0, 0.99),
    form: {
      type: 'choice',
      label: 'Output',
      default: 'twoPoint',
      choices: { twoPoint: 'two contacts', proportional: 'proportional signal' },
    },
    gain: quantity('Gain', 'ratio', '10', 1e-6, 1e6, {
      note: 'full output over the difference, per rad or m',
    }),
    ramp: quantity('Order changes by, each second', 'signal', '1000', 1e-6, 1e6),
    drives: {
      type: 'text',
      label: 'Drives',
      default: '-',
      note: 'where proportional: id and input of a valve, such as V1.command',
    },
  },
  inputs: ({ order, least, greatest }) => [
    {
      name: 'order',
      label: 'order',
      quantity: 'signal',
      rest: order,
      min: least,
      max: Math.max(least, greatest),
    },
  ],
  measuredInputs: ['order'],
  contacts: ({ form }) =>
    form === 'twoPoint'
      ? [
          { terminal: 'more', label: 'below its order' },
          { terminal: 'less', label: 'above its order' },
        ]
      : [],
  references: { measured: 'value', drives: 'signal' },
  watched: ({ measured }) => (measured === '-' ? undefined : measured),
  drives: ({ form, drives }) => (form === 'proportional' && drives !== '-' ? drives : undefined),
  outputs: [{ name: 'output', label: 'output', quantity: 'ratio' }],
  closed: ({ state }, terminal) => state.count === (terminal === 'more' ? 1 : -1),
  output: ({ state }) => state.count,
  inputResolution: resolution,
  observe(d, value, t) {
    const order = reference(d, t)
    return d.values.form === 'twoPoint' ? twoPoint(d, value, order) : proportional(d, value, order)
  },
})

type ControllerView = DeviceView<ControllerValues>

/** The order, or where its ramp has come to: it moves at a constant rate, and is looked at after each small step. */
function reference({ state, values, input }: ControllerView, t: number): number {
  const order = input('order')
  if (Number.isNaN(state.reference)) state.reference = order
  else {
    // it has moved since it was looked at last only where it was on its way
    const most = state.due < Infinity ? values.ramp * (t - state.since) : 0
    state.reference += Math.min(most, Math.max(-most, order - state.reference))
  }
  state.since = t
  const left = Math.abs(order - state.reference)
  // closer than this it is there: it would not end in the arithmetic of the machine
  if (left < 1e-9 * Math.max(1, Math.abs(order))) {
    state.reference = order
    state.due = Infinity
  } else state.due = t + Math.min(left, resolution(values)) / values.ramp
  return state.reference
}
function twoPoint(d: ControllerView, value: number, order: number): readonly [number, number] {
  const { state, values } = d
  const { deadBand, back } = values
  const difference = order - value
  const near = back * deadBand
  if (difference >= deadBand) state.count = 1
  else if (difference <= -deadBand) state.count = -1
  else if ((state.count > 0 && difference <= near) || (state.count < 0 && difference >= -near))
    state.count = 0
  if (state.count > 0) return [-Infinity, order - near]
  if (state.count < 0) return [order + near, Infinity]
  return [order - deadBand, order + deadBand]
}

function proportional(d: ControllerView, value: number, order: number): readonly [number, number] {
  const { state, values } = d
  const { deadBand, gain } = values
  const difference = order - value
  if (Math.abs(difference) < deadBand) {
    state.count = 0
    return [order - deadBand, order + deadBand]
  }
  const wanted = Math.min(1, Math.max(-1, gain * difference))
  state.count = RESOLUTION * Math.round(wanted / RESOLUTION)
  // the range in which the output, rounded, stays what it is; outside the dead band
  const step = (0.75 * RESOLUTION) / gain
  let low = state.count >= 1 ? -Infinity : order - state.count / gain - step
  let high = state.count <= -1 ? Infinity : order - state.count / gain + step
  if (difference > 0) high = Math.min(high, order - deadBand)
  else low = Math.max(low, order + deadBand)
  if (low > value) low = -Infinity
  if (high < value) high = Infinity
  return [low, high]
}
