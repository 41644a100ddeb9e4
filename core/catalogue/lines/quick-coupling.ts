import { conditionSpecs, defineKind, indices, inputSpecs, Power, stateSpecs, type Local } from '../kind'
import { pathCoefficient, smoothSquareRoot } from '../flow-laws'
import { circle, line, type Shape } from '../symbol'
import { throttledFaults, throttledModel, throttledParameters } from '../flow/throttled'

const INPUT = indices('coupled')
const STATE = indices('spilled')
const CONDITION = indices('underPressure', 'losing')
/** Pressure above which a coupling is not to be pulled apart, Pa. */
const RESIDUAL = 5e5

/** Coupled, Q = path(p_A − p_B); apart, both halves shut by their checks, or without checks each loses Q = path(p) to the outside. */
export const quickCoupling = defineKind({
  name: 'quick-coupling',
  label: 'Quick coupling',
  family: 'lines',
  searchTerms: ['quick coupling', 'coupler', 'disconnect', 'hose coupling', 'qrc'],
  designationLetter: 'Z',
  description: 'Joins a hose by hand; pulled apart, both halves shut if they have checks.',
  ports: [
    { name: 'A', domain: 'oil', role: 'one half' },
    { name: 'B', domain: 'oil', role: 'other half' },
  ],
  parameters: {
    ...throttledParameters('60 L/min', '2 bar', 50e5),
    joined: { type: 'switch', label: 'Coupled at the start', default: true },
    checks: {
      type: 'switch',
      label: 'Checks in both halves',
      default: true,
      note: 'without them oil runs out of both halves when it is pulled apart',
    },
  },
  inputs: inputSpecs(INPUT, {
    coupled: {
      label: 'coupled',
      quantity: 'ratio',
      rest: 'joined',
      min: 0,
      max: 1,
      positions: [
        { value: 1, label: 'coupled', action: 'is coupled' },
        { value: 0, label: 'disconnected', action: 'is disconnected' },
      ],
    },
  }),
  faults: throttledFaults,
  traits: { paths: [{ from: 'A', to: 'B', type: 'switched' }] },
  safetyNote: 'It does not come off a line under pressure, and must not be forced: bleed both sides first.',
  symbol(values) {
    // joined, the two halves touch; apart, there is a gap between them
    const gap = values.joined ? 0 : 0.5
    const half = (side: -1 | 1): Shape[] => [
      ...(values.checks
        ? [
            line([side * 3, 0], [side * (gap + 1.4), 0]),
            line([side * (gap + 0.7), -0.7], [side * (gap + 1.4), 0], [side * (gap + 0.7), 0.7]),
            circle(side * (gap + 0.6), 0, 0.5),
          ]
        : [line([side * 3, 0], [side * gap, 0])]),
      line([side * (gap + 0.5), -1.2], [side * gap, -1.2]),
      line([side * gap, -1.2], [side * gap, 1.2]),
      line([side * (gap + 0.5), 1.2], [side * gap, 1.2]),
    ]
    return {
      shapes: [...half(-1), ...half(1)],
      ports: { A: { x: -3, y: 0, side: 'left' }, B: { x: 3, y: 0, side: 'right' } },
      box: { x: -2.1, y: -1.3, w: 4.2, h: 2.6 },
    }
  },
  model(v) {
    const coupled = (l: Local) => l.u[INPUT.coupled] > 0.5
    const underPressure = {
      label: 'disconnected under pressure',
      severity: 'danger',
    } as const
    const standing = (l: Local) => (coupled(l) ? -1 : Math.max(l.p[0], l.p[1]) - RESIDUAL)
    if (v.checks)
      return throttledModel(v, (l) => (coupled(l) ? 1 : 0), {
        conditions: [{ name: 'underPressure', ...underPressure }],
        observe(l) {
          l.c[CONDITION.underPressure] = standing(l)
        },
      })
    const coefficient = pathCoefficient(v.ratedFlow, v.ratedDrop)
    return throttledModel(v, (l) => (coupled(l) ? 1 : 0), {
      states: stateSpecs(STATE, {
        spilled: {
          label: 'oil lost',
          quantity: 'volume',
          initial: 0,
          isCounter: true,
          scale: 1e-4,
          storesOil: true,
        },
      }),
      conditions: conditionSpecs(CONDITION, {
        underPressure,
        losing: { label: 'apart: external leakage', severity: 'danger' },
      }),
      afterEvaluate(l) {
        l.dx[STATE.spilled] = 0
        if (coupled(l)) return
        for (let port = 0; port < 2; port++) {
          // nothing comes back in
          l.q[port] = l.p[port] > 0 ? coefficient * smoothSquareRoot(l.p[port]) : 0
          l.dx[STATE.spilled] += l.q[port]
        }
      },
      observe(l) {
        l.c[CONDITION.underPressure] = standing(l)
        l.c[CONDITION.losing] = l.dx[STATE.spilled] - 1e-8
        if (!coupled(l)) l.power[Power.heat] = l.p[0] * l.q[0] + l.p[1] * l.q[1]
      },
    })
  },
  describeState: (l, v, show) =>
    l.u[INPUT.coupled] > 0.5
      ? `Coupled, passing ${show(Math.abs(l.q[0]), 'flow')}.`
      : !v.checks
        ? `Apart and open: ${show(l.x[STATE.spilled], 'volume')} are lost.`
        : `Apart: ${show(l.p[0], 'pressure')} and ${show(l.p[1], 'pressure')} stand in its halves.`,
})
