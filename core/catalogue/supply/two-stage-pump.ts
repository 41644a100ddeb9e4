import { leak, stuck } from '../faults'
import {
  defineKind,
  Power,
  quantity,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
  eventSpecs,
} from '../kind'
import { inletFilling, starvation } from '../flow-laws'
import { leakageSlope, shaftTorque } from '../displacement-machine'
import { circle, flowTriangle, line, rectangle, shaftStub } from '../symbol'

const STATE = indices('joined')
const OUTPUT = indices('delivery', 'shaftPower')
const CONDITION = indices('unloaded', 'starved', 'overPressure')
const EVENT = indices('changeOver')

const [S, P, W] = [0, 1, 2]

/**
 * Two pumps on one shaft with their unloader and check in one body. Below the change-over both deliver, above it the large one circulates at
 * its idling pressure: with the share s of its flow that goes to P, τ·ds/dt = s* − s, s* = 0 from p_set on until p_P falls below k·p_set,
 * Q_P = (s·D_1 + D_2)·n·f − C_L·(p_P − p_S), T = [D_1·(s·(p_P − p_S) + (1 − s)·p_idle) + D_2·(p_P − p_S)]/(2π·η_hm) + T_d·tanh(ω/ω_t).
 */
export const twoStagePump = defineKind({
  name: 'two-stage-pump',
  label: 'Pump, two-stage (high–low)',
  family: 'supply',
  searchTerms: ['high low', 'two-stage', 'double pump', 'hi-lo', 'unloading pump'],
  designationLetter: 'P',
  description:
    'Much oil at low pressure, little at high pressure: its large stage is unloaded above the change-over.',
  ports: [
    { name: 'S', domain: 'oil', role: 'suction line' },
    { name: 'P', domain: 'oil', role: 'pressure line' },
    { name: 'W', domain: 'shaft', role: 'shaft' },
  ],
  parameters: {
    large: quantity('Displacement, large stage', 'displacement', '25 cm³/rev', 1e-8, 5e-3),
    small: quantity('Displacement, small stage', 'displacement', '6 cm³/rev', 1e-8, 5e-3),
    changeOver: quantity('Change-over pressure', 'pressure', '60 bar', 1e5, 400e5),
    differential: quantity('Back at', 'share', '85 %', 0.1, 0.99, { note: 'of the change-over pressure' }),
    idle: quantity('Idling pressure of the large stage', 'pressure', '4 bar', 0, 50e5),
    response: quantity('Response', 'time', '15 ms', 1e-3, 1),
    volumetricEfficiency: quantity('Volumetric efficiency', 'share', '92 %', 0.3, 1, {
      group: 'Losses',
      note: 'of the small stage at the rated speed and pressure',
    }),
    ratedSpeed: quantity('at speed', 'rotationalSpeed', '1500 rpm', 1, 1000, { group: 'Losses' }),
    ratedPressure: quantity('at pressure', 'pressure', '210 bar', 1e5, 700e5, { group: 'Losses' }),
    hydromechanicalEfficiency: quantity('Hydro-mechanical efficiency', 'share', '90 %', 0.3, 1, {
      group: 'Losses',
    }),
    drag: quantity('Friction torque without pressure', 'torque', '0 N·m', 0, 1e4, {
      group: 'Losses',
      note: 'of seals and bearings, beside what the efficiency counts; it stops a set that is switched off',
    }),
    maxPressure: quantity('Maximum pressure', 'pressure', '250 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded',
    }),
  },
  faults: [leak(P, S, 'worn: leaks more', 'worn'), stuck(STATE.joined, 'unloader sticks')],
  traits: { deliveryPorts: ['P'], suctionPorts: ['S'], sizingTargets: { displacement: 'small' } },
  symbol: () => ({
    shapes: [
      rectangle(-7, -3.6, 11, 7.2, 'none'),
      circle(-4, 0, 2.4),
      circle(1, 0, 2.4),
      flowTriangle(-4, -2.4, 0, -1),
      flowTriangle(1, -2.4, 0, -1),
      ...shaftStub(-1.6, -1.4),
      ...shaftStub(3.4, 5),
      // both draw from S; the large one joins the small one's line past its check
      line([1, 2.4], [1, 4]),
      line([-4, 2.4], [-4, 3], [1, 3]),
      line([1, -2.4], [1, -4]),
      line([-4, -2.4], [-4, -3], [-2.2, -3]),
      line([-1.6, -3.4], [-2.2, -3], [-1.6, -2.6]),
      circle(-1.7, -3, 0.35),
      line([-1.35, -3], [1, -3]),
      circle(1, -3, 0.25, 'ink'),
      circle(1, 3, 0.25, 'ink'),
    ],
    ports: {
      S: { x: 1, y: 4, side: 'down' },
      P: { x: 1, y: -4, side: 'up' },
      W: { x: 5, y: 0, side: 'right' },
    },
    box: { x: -7, y: -3.6, w: 11, h: 7.2 },
  }),
  caption: (v, show) => [
    `${show(v.large, 'displacement')} + ${show(v.small, 'displacement')}`,
    `change-over ${show(v.changeOver, 'pressure')}`,
  ],
  model(v, fluid) {
    const [large, small] = [v.large / (2 * Math.PI), v.small / (2 * Math.PI)]
    const leakage = leakageSlope(v.volumetricEfficiency, small, v.ratedSpeed, v.ratedPressure)
    const eta = v.hydromechanicalEfficiency
    return {
      states: stateSpecs(STATE, {
        joined: { label: 'share of the large stage delivered', quantity: 'share', initial: 1, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        delivery: { label: 'delivery', quantity: 'flow' },
        shaftPower: { label: 'shaft power', quantity: 'power' },
      }),
      conditions: conditionSpecs(CONDITION, {
        unloaded: { label: 'large stage unloaded', severity: 'info' },
        starved: { label: 'starved at its inlet', severity: 'warning' },
        overPressure: { label: 'above its maximum pressure', severity: 'danger' },
      }),
      eventFunctions: eventSpecs(EVENT, {
        changeOver: { label: 'changes over', report: 1 },
      }),
      modes: [0],
      evaluate(l) {
        const speed = l.p[W]
        const drop = l.p[P] - l.p[S]
        const s = l.x[STATE.joined]
        const f = inletFilling(speed >= 0 ? l.p[S] : l.p[P])
        const flow = (s * large + small) * speed * f - leakage * fluid.leakageFactor * drop
        l.dx[STATE.joined] = ((l.mode[0] ? 0 : 1) - s) / v.response
        l.g[EVENT.changeOver] = drop - (l.mode[0] ? v.differential : 1) * v.changeOver
        l.q[S] = flow
        l.q[P] = -flow
        const ideal = large * (s * drop + (1 - s) * v.idle) + small * drop
        l.q[W] = shaftTorque(ideal, speed, eta, v.drag)
      },
      switch(l, _index, direction) {
        l.mode[0] = direction > 0 ? 1 : 0
      },
      observe(l) {
        l.o[OUTPUT.delivery] = -l.q[P]
        l.o[OUTPUT.shaftPower] = l.q[W] * l.p[W]
        l.c[CONDITION.unloaded] = 0.5 - l.x[STATE.joined]
        l.c[CONDITION.starved] = l.p[W] > 0 ? starvation(l.p[S]) : -1
        l.c[CONDITION.overPressure] = l.p[P] - v.maxPressure
        l.power[Power.heat] = l.o[OUTPUT.shaftPower] + l.p[S] * l.q[S] + l.p[P] * l.q[P]
      },
    }
  },
  describeState: (l, _v, show) =>
    `Delivers ${show(l.o[OUTPUT.delivery], 'flow')} against ${show(l.p[P] - l.p[S], 'pressure')} ${l.x[STATE.joined] > 0.5 ? 'with both stages' : 'with its small stage alone'}, taking ${show(l.o[OUTPUT.shaftPower], 'power')} at the shaft.`,
})
