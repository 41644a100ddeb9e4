import { poppetSection } from '../section-elements'
import { heldAtSetting, type Hold, pressureBalance } from '../answers'
import {
  defineKind,
  Power,
  quantity,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
  type Local,
} from '../kind'
import { circleArea, smoothSquareRoot } from '../flow-laws'
import { dashed } from '../symbol'
import { dot } from '../symbol-elements'
import {
  reliefCaption,
  reliefFaults,
  reliefInputs,
  reliefParameters,
  reliefPorts,
  reliefPressures,
  reliefSymbol,
  reliefTraits,
} from './relief'
import { addRelief, heldSetting, RELIEF, reliefNumbers } from './relief-law'
import { INPUT } from './body'

const STATE = indices('opening')
const OUTPUT = indices('flow', 'effective')
const CONDITION = indices('cracked', 'full')

const [P, T, X] = [0, 1, 2]
/** Push of the main stage's spring, Pa. */
const MAIN_SPRING = 4e5

/**
 * A pilot-operated relief whose vent port X is fed through the main stage's orifice:
 * p_crack = clamp(p_X − p_T + 4 bar, 4 bar, p_crack,set), p_full = p_crack/(1 − o); otherwise as the relief valve. Vented to tank it
 * opens at its main spring; with a remote pilot at X the lower of the two settings holds. The override is a share of what holds.
 */
/** m³/s: less is no pilot flow. */
const LEAST_PILOT = 1e-8
export const reliefValveVented = defineKind({
  name: 'relief-valve-vented',
  label: 'Relief valve, pilot-operated, with vent port',
  family: 'pressure',
  searchTerms: ['vented relief', 'unloading relief', 'remote control relief', 'vent'],
  designationLetter: 'V',
  description:
    'A pilot-operated relief that is unloaded through its vent port X, or set from afar by a second pilot there.',
  guide: {
    acts: 'As the pilot-operated one; when X is led to tank the main stage opens against its light spring only, and the pump is unloaded.',
    fails:
      'A vent valve that leaks or stays open keeps the machine without pressure; a long vent line makes loading slow and loading shocks harder.',
    mistakes:
      'The remote pilot set above the main knob has no effect; the vent line without a small orifice lets the main stage slam.',
  },
  ports: [...reliefPorts, { name: 'X', domain: 'oil', role: 'vent and remote pilot', mayStayOpen: true }],
  parameters: {
    ...reliefParameters('6 %', '15 ms'),
    ventOrifice: quantity('Orifice to the vent port', 'length', '0.8 mm', 1e-4, 5e-3, {
      note: 'feeds X from P; the pilot oil of a vented valve',
    }),
  },
  inputs: reliefInputs,
  faults: reliefFaults,
  traits: { ...reliefTraits, openWhenVented: { vent: 'X', from: 'P', to: 'T' } },
  safetyNote: 'The main knob is the maximum. A remote pilot can only set it lower.',
  forms: true,
  symbol(_values, form) {
    const plain = reliefSymbol(true, 'knob', form)
    const detailed = form === 'detailed'
    return {
      ...plain,
      shapes: [
        ...plain.shapes,
        // X is the spring side of the main stage
        ...(detailed
          ? [dashed([4.4, -0.6], [4.4, 1.9], [-3, 1.9], [-3, 1], [-4, 1]), dot(4.4, -0.6)]
          : [dashed([2.7, 0.7], [2.7, 2.4], [-3, 2.4], [-3, 1], [-4, 1])]),
      ],
      ports: { ...plain.ports, X: { x: -4, y: 1, side: 'left' } },
    }
  },
  caption: reliefCaption,
  section: () =>
    poppetSection({
      inlet: { name: 'P', pressure: (l) => l.p[P] },
      outlet: { name: 'T', pressure: (l) => l.p[T] },
      opening: (l) => l.x[STATE.opening],
      above: { name: 'X, over it', pressure: (l) => l.p[X] },
      pilotStage: true,
      more: (l, show) =>
        `pilot flow ${show(Math.abs(l.q[X]) < LEAST_PILOT ? 0 : Math.abs(l.q[X]), 'flow', 2)}`,
    }),
  model(values, fluid) {
    const { ratedFlow, timeConstant } = values
    const numbers = reliefNumbers(ratedFlow, timeConstant)
    const feed = circleArea(values.ventOrifice)
    const share = values.settingAt === 'cracking' ? 1 : 1 - values.override
    const { crack: set, full } = reliefPressures(values)
    const span = (full - set) / set
    /** Its own setting, or what stands at X with its main spring over it. */
    const holdOf = (l: Local): Hold => {
      const leads = -l.q[T] > 1e-3 * values.ratedFlow
      const atX = l.p[X] - l.p[T]
      if (atX + MAIN_SPRING >= l.u[INPUT.setting] * share)
        return heldAtSetting(
          l.p,
          P,
          heldSetting(l.u[INPUT.setting]),
          [{ port: T, factor: 1, label: 'behind it' }],
          leads,
        )
      const isVented = atX < MAIN_SPRING
      return {
        ...heldAtSetting(
          l.p,
          P,
          MAIN_SPRING,
          [{ port: X, factor: 1, label: 'pressure at X' }],
          leads,
          'main spring',
        ),
        ...(isVented ? { by: 'spring' } : { passesOn: true }),
      }
    }
    return {
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow', quantity: 'flow' },
        effective: { label: 'effective cracking pressure', quantity: 'pressure' },
      }),
      conditions: conditionSpecs(CONDITION, {
        cracked: { label: 'open', severity: 'info', begins: 'opens', ends: 'shuts', worst: 'flow' },
        full: { label: 'at or above rated flow', severity: 'warning', worst: 'flow' },
      }),
      evaluate(l) {
        const top = Math.max(l.u[INPUT.setting] * share, MAIN_SPRING)
        const vent = l.p[X] - l.p[T] + MAIN_SPRING
        const crack = vent < MAIN_SPRING ? MAIN_SPRING : vent > top ? top : vent
        numbers[RELIEF.crack] = crack
        numbers[RELIEF.span] = crack * span
        const pilot = feed * fluid.orificeFactor * smoothSquareRoot(l.p[P] - l.p[X])
        l.q[P] = pilot
        l.q[X] = -pilot
        l.q[T] = 0
        addRelief(l, STATE.opening, P, T, numbers)
      },
      observe(l) {
        const top = Math.max(l.u[INPUT.setting] * share, MAIN_SPRING)
        l.o[OUTPUT.flow] = -l.q[T]
        l.o[OUTPUT.effective] = Math.min(Math.max(l.p[X] - l.p[T] + MAIN_SPRING, MAIN_SPRING), top)
        l.c[CONDITION.cracked] = -l.q[T] - 1e-3 * values.ratedFlow
        l.c[CONDITION.full] = -l.q[T] - values.ratedFlow
        l.power[Power.heat] = l.p[P] * l.q[P] + l.p[T] * l.q[T] + l.p[X] * l.q[X]
      },
      holds: (l) => [holdOf(l)],
      balances: (l) => [
        pressureBalance(
          'opens',
          { 'pressure at P': l.p[P] },
          { 'spring and vent': l.o[OUTPUT.effective], 'pressure at T': l.p[T] },
        ),
      ],
    }
  },
  describeState: (l, _values, show) =>
    l.o[OUTPUT.flow] > 1e-7
      ? `Open, passing ${show(l.o[OUTPUT.flow], 'flow')}; its vent lets it crack at ${show(l.o[OUTPUT.effective], 'pressure')}.`
      : `Shut; its vent lets it crack at ${show(l.o[OUTPUT.effective], 'pressure')}.`,
})
