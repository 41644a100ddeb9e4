/** The relief law, shared by the direct-acting and the pilot-operated kind. */
import { poppetSection } from '../section-elements'
import type { SectionDrawing } from '../section'
import { heldAtSetting, pressureBalance } from '../answers'
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
import { addRelief, heldSetting, RELIEF, reliefNumbers } from './relief-law'
import { arrow, dashed, line, rectangle, type Shape, type SymbolDrawing } from '../symbol'
import {
  adjustable,
  dot,
  enclosureLine,
  pilotTriangle,
  restriction,
  solenoid,
  spring,
  springBetween,
} from '../symbol-elements'

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
const tankSide = { port: T, factor: 1, label: 'behind it' } as const

/**
 * The relief law from P to T.
 * @param settingOf the setting asked for now, Pa; the knob where nothing else is said
 */
export function reliefModel(values: ReliefValues, settingOf = (l: Local) => l.u[INPUT.setting]): Model {
  const { ratedFlow, timeConstant } = values
  const numbers = reliefNumbers(ratedFlow, timeConstant)
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
      cracked: { label: 'open', severity: 'info', begins: 'opens', ends: 'shuts', worst: 'flow' },
      full: { label: 'at or above rated flow', severity: 'warning', worst: 'flow' },
    }),
    evaluate(l) {
      const setting = heldSetting(settingOf(l))
      const crack = setting * crackShare
      numbers[RELIEF.crack] = crack
      numbers[RELIEF.span] = setting * fullShare - crack
      l.q[P] = l.q[T] = 0
      addRelief(l, STATE.opening, P, T, numbers)
    },
    observe(l) {
      l.o[OUTPUT.flow] = l.q[P]
      l.c[CONDITION.cracked] = l.q[P] - 1e-3 * ratedFlow
      l.c[CONDITION.full] = l.q[P] - ratedFlow
      l.power[Power.heat] = l.q[P] * (l.p[P] - l.p[T])
    },
    holds: (l) => [heldAtSetting(l.p, P, heldSetting(settingOf(l)), [tankSide], l.q[P] > 1e-3 * ratedFlow)],
    balances: (l) => [
      pressureBalance(
        'opens',
        { 'pressure at P': l.p[P] },
        { spring: heldSetting(settingOf(l)) * crackShare, 'pressure at T': l.p[T] },
      ),
    ],
  }
}

/** Its two stages. The model has the opening of the main stage; over it stands what its pilot stage lets stand there. */
export const reliefSection = (values: ReliefValues): SectionDrawing => {
  const { crack } = reliefPressures(values)
  return poppetSection({
    inlet: { name: 'P', pressure: (l) => l.p[P] },
    outlet: { name: 'T', pressure: (l) => l.p[T] },
    opening: (l) => l.x[STATE.opening],
    above: { name: 'over it', pressure: (l) => Math.min(l.p[P], l.p[T] + crack) },
    pilotStage: true,
    note: 'Over the main stage: the pressure before it, as far as the pilot stage lets it rise.',
  })
}

/** The knob: a schedule may turn it. */
export const reliefInputs = settingInput

export const reliefFaults = [...settingFaults, leak(0, 1, 'leaks')] as const

/** What sets a relief valve: a spring with its knob, a proportional solenoid, or a solenoid that chooses between two settings. */
type ReliefSetting = 'knob' | 'proportional' | 'two'

/** The setting at the end x of a box, at the height y: springs with their arrows, or the solenoid. */
function settingShapes(setting: ReliefSetting, x: number, y: number): Shape[] {
  switch (setting) {
    case 'knob':
      return [spring(x, y, 2.4, 1.4), ...adjustable(x + 1.2, y, 1.2)]
    case 'proportional':
      return [...solenoid(x, -1, y - 1), ...adjustable(x + 1.5, y, 1.5)]
    case 'two':
      // one spring for each setting, the second put in by its solenoid
      return [
        spring(x, y - 0.9, 2.4, 0.9),
        ...adjustable(x + 1.2, y - 0.9, 0.9),
        spring(x, y + 0.9, 2.4, 0.9),
        ...adjustable(x + 1.2, y + 0.9, 0.9),
        line([x + 2.4, y + 0.9], [x + 2.6, y + 0.9]),
        ...solenoid(x + 2.6, -1, y - 0.1),
      ]
  }
}
const settingWidth: Readonly<Record<ReliefSetting, number>> = { knob: 2.4, proportional: 3, two: 5.6 }

/** The pilot stage in one box beside the valve: a small relief that vents its spring side. */
const pilotStage = (x: number, y: number): Shape[] => [
  rectangle(x, y, 1.4, 1.4),
  pilotTriangle(x + 1.15, y + 0.7),
]

export function reliefSymbol(
  piloted: boolean,
  setting: ReliefSetting = 'knob',
  form: SymbolForm = 'simplified',
): SymbolDrawing {
  if (piloted && form === 'detailed') return reliefInTwoStages(setting)
  const end = piloted ? 3.4 : 2
  const right = end + settingWidth[setting]
  return {
    shapes: [
      rectangle(-2, -2, 4, 4),
      // the flow arrow stands beside the port line: normally closed
      ...arrow([-0.7, -2], [-0.7, 2]),
      line([0, -3], [0, -2]),
      line([0, 2], [0, 3]),
      dashed([0, -2.5], [-2.6, -2.5], [-2.6, 0], [-2, 0]),
      ...(piloted ? pilotStage(2, -0.7) : []),
      ...settingShapes(setting, end, 0),
    ],
    ports: { P: { x: 0, y: -3, side: 'up' }, T: { x: 0, y: 3, side: 'down' } },
    box: { x: -3, y: -2.5, w: Math.ceil(right) + 3, h: 5 },
  }
}

/** Both stages in one body: the main stage with an orifice to its spring side, and the pilot stage that vents that side. */
function reliefInTwoStages(setting: ReliefSetting): SymbolDrawing {
  const right = 9 + settingWidth[setting]
  return {
    shapes: [
      enclosureLine(-3.6, -3.4, right + 4.2, 6.8),
      line([0, -4], [0, -1.6]),
      rectangle(-1.6, -1.6, 3.2, 3.2),
      ...arrow([-0.5, -1.6], [-0.5, 1.6]),
      line([0, 1.6], [0, 4]),
      dashed([0, -2.6], [-2.4, -2.6], [-2.4, 0], [-1.6, 0]),
      springBetween([1.6, 0.8], [3.2, 0.8], 0.9),
      // from the inlet through the orifice to the spring side and the pilot stage
      line([0, -2.6], [7.6, -2.6], [7.6, -1.3]),
      dot(0, -2.6),
      ...restriction(2.2, -2.6, 'sharp', 'horizontal', 0.55),
      dashed([4.4, -2.6], [4.4, -0.6], [1.6, -0.6]),
      dot(4.4, -2.6),
      rectangle(6.3, -1.3, 2.6, 2.6),
      ...arrow([7.2, -1.3], [7.2, 1.3]),
      dashed([7.6, -2], [5.7, -2], [5.7, 0], [6.3, 0]),
      line([7.6, 1.3], [7.6, 2.5], [0, 2.5]),
      dot(0, 2.5),
      ...settingShapes(setting, 8.9, 0),
    ],
    ports: { P: { x: 0, y: -4, side: 'up' }, T: { x: 0, y: 4, side: 'down' } },
    box: { x: -3.6, y: -3.4, w: right + 4.2, h: 6.8 },
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
  measures: { pressure: { port: 'P' }, relieved: 'flow' },
  sizingTargets: {
    reliefSetting: 'setting',
    reliefFlow: 'ratedFlow',
    chargeReliefSetting: 'setting',
    crossPortSetting: 'setting',
  },
} as const
