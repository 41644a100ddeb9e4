/** The relief law, shared by the direct-acting and the pilot-operated kind. */
import {
  Power,
  quantity,
  type ChoiceParameter,
  type Local,
  type Model,
  type Show,
  type SymbolForm,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
} from '../kind'
import { leak } from '../faults'
import { settingFaults, settingInput, INPUT } from './body'
import { heldSetting, reliefLaw } from './relief-law'
import { arrow, dashed, line, rectangle, spring, type Shape, type SymbolDrawing } from '../symbol'

export const STATE = indices('opening')
const OUTPUT = indices('flow')
const CONDITION = indices('cracked', 'full')

export interface ReliefValues {
  readonly setting: number
  readonly settingAt: 'cracking' | 'ratedFlow'
  readonly ratedFlow: number
  readonly override: number
  readonly timeConstant: number
}

/** Parameters of a relief; only override and response differ between the two designs. */
export const reliefParameters = (override: string, timeConstant: string) =>
  ({
    setting: quantity('Setting', 'pressure', '160 bar', 2e5, 700e5),
    settingAt: {
      type: 'choice',
      label: 'Setting defined at',
      default: 'ratedFlow',
      choices: { ratedFlow: 'rated flow', cracking: 'cracking' },
      note: 'offices differ: the pressure at which it starts to open, or at which it passes its rated flow',
    } satisfies ChoiceParameter as {
      readonly type: 'choice'
      readonly label: string
      readonly default: 'ratedFlow'
      readonly choices: { readonly ratedFlow: string; readonly cracking: string }
      readonly note: string
    },
    ratedFlow: quantity('Rated flow', 'flow', '40 L/min', 1e-6, 0.2),
    override: quantity('Override', 'share', override, 0.005, 0.6, {
      note: '(p_full − p_crack)/p_full, usual for this design',
    }),
    timeConstant: quantity('Response', 'time', timeConstant, 1e-4, 1, {
      note: 'time constant of its opening',
    }),
  }) as const

/** Cracking and full-flow pressure of a relief, Pa. */
export function reliefPressures(v: ReliefValues): { crack: number; full: number } {
  return v.settingAt === 'cracking'
    ? { crack: v.setting, full: v.setting / (1 - v.override) }
    : { crack: v.setting * (1 - v.override), full: v.setting }
}

const [P, T] = [0, 1]

/**
 * The relief law from P to T.
 * @param settingOf the setting asked for now, Pa; the knob where nothing else is said
 */
export function reliefModel(values: ReliefValues, settingOf = (l: Local) => l.u[INPUT.setting]): Model {
  const { ratedFlow } = values
  const law = reliefLaw(values)
  const crackShare = values.settingAt === 'cracking' ? 1 : 1 - values.override
  const fullShare = values.settingAt === 'cracking' ? 1 / (1 - values.override) : 1
  return {
    states: stateSpecs(STATE, {
      opening: { label: 'opening', quantity: 'share', initial: 0, scale: 1 },
    }),
    outputs: outputSpecs(OUTPUT, {
      flow: { label: 'flow', quantity: 'flow' },
    }),
    conditions: conditionSpecs(CONDITION, {
      cracked: { label: 'open', severity: 'info', worst: 'flow' },
      full: { label: 'at or above rated flow', severity: 'warning', worst: 'flow' },
    }),
    evaluate(l) {
      const drop = l.p[P] - l.p[T]
      const setting = heldSetting(settingOf(l))
      l.dx[STATE.opening] = law.rate(
        l.x[STATE.opening],
        drop,
        setting * crackShare,
        setting * (fullShare - crackShare),
      )
      const flow = law.flow(l.x[STATE.opening], drop)
      l.q[P] = flow
      l.q[T] = -flow
    },
    observe(l) {
      l.o[OUTPUT.flow] = l.q[P]
      l.c[CONDITION.cracked] = l.q[P] - 1e-3 * ratedFlow
      l.c[CONDITION.full] = l.q[P] - ratedFlow
      l.power[Power.heat] = l.q[P] * (l.p[P] - l.p[T])
    },
  }
}

/** The knob: a schedule may turn it. */
export const reliefInputs = settingInput

export const reliefFaults = [...settingFaults, leak(0, 1, 'leaks')] as const

/** @param knob what sets it: a spring with its knob, a spring alone, a proportional or a switching solenoid */
export function reliefSymbol(
  piloted: boolean,
  knob: 'knob' | 'proportional' | 'solenoid' = 'knob',
  form: SymbolForm = 'simplified',
): SymbolDrawing {
  if (piloted && form === 'detailed') return reliefInTwoStages(knob)
  const shapes: Shape[] = [
    rectangle(-2, -2, 4, 4),
    // the flow arrow stands beside the port line: normally closed
    ...arrow([-0.7, -2], [-0.7, 2]),
    line([0, -3], [0, -2]),
    line([0, 2], [0, 3]),
    dashed([0, -2.5], [-2.6, -2.5], [-2.6, 0], [-2, 0]),
    spring(2, 0, 2.6, 1.6),
    ...(knob === 'solenoid' ? [] : arrow([2.3, 1.6], [4.3, -1.6])),
    ...(knob === 'knob' ? [] : [rectangle(4.6, -0.9, 2, 1.8), line([5.1, 0.9], [6.1, -0.9])]),
    ...(knob === 'proportional' ? arrow([4.2, 1.5], [7, -1.5]) : []),
  ]
  // the pilot stage of a pilot-operated valve: the solid triangle beside its spring
  if (piloted)
    shapes.push({
      shape: 'polygon',
      points: [
        [2, 1.2],
        [2, 2],
        [2.9, 1.6],
      ],
      fill: 'ink',
    })
  return {
    shapes,
    ports: { P: { x: 0, y: -3, side: 'up' }, T: { x: 0, y: 3, side: 'down' } },
    box: { x: -3, y: -2.5, w: knob === 'knob' ? 8 : 10.2, h: 5 },
  }
}

/** The main stage with its light spring, the orifice that feeds it, and the pilot stage that sets it. */
function reliefInTwoStages(knob: 'knob' | 'proportional' | 'solenoid'): SymbolDrawing {
  return {
    shapes: [
      { ...rectangle(-3.4, -2.7, knob === 'knob' ? 11.4 : 13, 5.4, 'none'), dash: 'chain' },
      rectangle(-2, -1.6, 3.2, 3.2),
      ...arrow([-0.6, -1.6], [-0.6, 1.6]),
      line([0, -3], [0, -1.6]),
      line([0, 1.6], [0, 3]),
      dashed([0, -2.2], [-2.8, -2.2], [-2.8, 0], [-2, 0]),
      spring(1.2, 0, 1.3, 0.9),
      // from the inlet through the orifice to the spring side and the pilot stage
      dashed([0, -2.2], [2.8, -2.2], [2.8, 0], [2.5, 0]),
      line([1.3, -2.6], [1.5, -2.35], [1.7, -2.6]),
      line([1.3, -1.8], [1.5, -2.05], [1.7, -1.8]),
      dashed([2.8, -2.2], [4.6, -2.2], [4.6, -1.1]),
      rectangle(3.8, -1.1, 1.8, 1.8),
      ...arrow([4.4, -1.1], [4.4, 0.7]),
      dashed([4.6, -1.6], [3.4, -1.6], [3.4, -0.2], [3.8, -0.2]),
      dashed([4.6, 0.7], [4.6, 2.2], [0, 2.2]),
      spring(5.6, -0.2, 1.4, 0.8),
      ...(knob === 'solenoid' ? [] : arrow([5.6, 0.8], [7.2, -1.2])),
      ...(knob === 'knob' ? [] : [rectangle(7.2, -1, 1.8, 1.6), line([7.6, 0.6], [8.6, -1])]),
    ],
    ports: { P: { x: 0, y: -3, side: 'up' }, T: { x: 0, y: 3, side: 'down' } },
    box: { x: -3.4, y: -2.7, w: knob === 'knob' ? 11.4 : 13, h: 5.4 },
  }
}

export const reliefCaption = (values: ReliefValues, show: Show) => [
  show(values.setting, 'pressure'),
  values.settingAt === 'cracking' ? 'at cracking' : 'at rated flow',
]

export const describeReliefValve = (
  l: Local,
  values: ReliefValues,
  show: Show,
  settingOf = (own: Local) => own.u[INPUT.setting],
) => {
  const { crack } = reliefPressures({ ...values, setting: settingOf(l) })
  const margin = crack - (l.p[P] - l.p[T])
  return l.q[P] > 1e-3 * values.ratedFlow
    ? `Open, passing ${show(l.q[P], 'flow')} at ${show(l.p[P], 'pressure')}; it cracks at ${show(crack, 'pressure')}.`
    : `Shut: ${show(Math.max(0, margin), 'pressure')} below its cracking pressure of ${show(crack, 'pressure')}.`
}

export const reliefPorts = [
  { name: 'P', domain: 'oil', role: 'protected line' },
  { name: 'T', domain: 'oil', role: 'tank line' },
] as const
export const reliefTraits = {
  paths: [{ from: 'P', to: 'T', type: 'relief' }],
  pressureSettings: [{ does: 'limits', parameter: 'setting', port: 'P' }],
  sizingTargets: { reliefSetting: 'setting' },
} as const
