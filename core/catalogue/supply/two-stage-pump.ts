import { pressureBalance } from '../answers'
import { leak, stuck, wrongRotation } from '../faults'
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
import { leakageSlope, holdShaft, shaftTorque } from '../displacement-machine'
import { arrow, circle, dashed, line, rectangle, type Shape } from '../symbol'
import {
  adjustable,
  checkInLine,
  dot,
  enclosureLine,
  flowTriangle,
  shaftStub,
  springBetween,
} from '../symbol-elements'

const STATE = indices('joined')
const OUTPUT = indices('delivery', 'shaftPower')
const CONDITION = indices('unloaded', 'starved', 'overPressure')
const EVENT = indices('changeOver')

const [S, P, W] = [0, 1, 2]

const unloaderShapes: readonly Shape[] = [
  line([-8, -4.2], [-8, -1.5]),
  rectangle(-9.5, -1.5, 3, 3),
  // normally closed: the path stands on the side of the pilot, which pushes it into the line
  ...arrow([-7.4, -1.5], [-7.4, 1.5]),
  line([-8, 1.5], [-8, 4]),
  springBetween([-9.5, 0], [-11, 0], 1),
  ...adjustable(-10.2, 0, 0.9),
  dashed([1, -6.2], [-5.6, -6.2], [-5.6, 0], [-6.5, 0]),
  dot(1, -6.2),
]

/**
 * Two pumps on one shaft with their unloader and check in one body. Below the change-over both deliver, above it the large one circulates at
 * its idling pressure: with the share s of its flow that goes to P, τ·ds/dt = s* − s, s* = 0 from p_set on until p_P falls below k·p_set,
 * Q_P = (s·D_1 + D_2)·n·f − C_L·(p_P − p_S), T = [D_1·(s·(p_P − p_S) + (1 − s)·p_idle) + D_2·(p_P − p_S)]/(2π·η_hm) + T_d·sgn ω.
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
  faults: [leak(P, S, 'worn: leaks more', 'worn'), stuck(STATE.joined, 'unloader sticks'), wrongRotation(W)],
  traits: {
    deliveryPorts: ['P'],
    greatestFlow: (v, speed) => ((v.small + v.large) / (2 * Math.PI)) * Math.max(v.ratedSpeed, speed),
    suctionPorts: ['S'],
    measures: { delivery: 'delivery', shaftPower: 'shaftPower' },
    sizingTargets: { highDisplacement: 'small', lowDisplacement: 'large', unloadSetting: 'changeOver' },
  },
  symbol: () => ({
    shapes: [
      enclosureLine(-12, -7, 17, 12),
      circle(-4, 0, 2.4),
      circle(1, 0, 2.4),
      flowTriangle(-4, -2.4, 0, -1),
      flowTriangle(1, -2.4, 0, -1),
      ...shaftStub(-1.6, -1.4),
      ...shaftStub(3.4, 5),
      // both draw from S; the large one joins the line of the small one past its check
      line([1, 2.4], [1, 6]),
      line([-4, 2.4], [-4, 4], [1, 4]),
      line([1, -2.4], [1, -8]),
      line([-4, -2.4], [-4, -5], [-3, -5]),
      ...checkInLine([-3, -5], [1, -5], { size: 0.8 }),
      dot(1, -5),
      dot(1, 4),
      // the unloader: opened by the line of the small one, it lets the large one circulate
      line([-4, -4.2], [-8, -4.2]),
      dot(-4, -4.2),
      ...unloaderShapes,
      line([-8, 4], [-4, 4]),
      dot(-4, 4),
    ],
    ports: {
      S: { x: 1, y: 6, side: 'down' },
      P: { x: 1, y: -8, side: 'up' },
      W: { x: 5, y: 0, side: 'right' },
    },
    box: { x: -12, y: -7, w: 17, h: 12 },
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
      dryFriction: [{ port: W }],
      outputs: outputSpecs(OUTPUT, {
        delivery: { label: 'delivery', quantity: 'flow' },
        shaftPower: { label: 'shaft power', quantity: 'power' },
      }),
      conditions: conditionSpecs(CONDITION, {
        unloaded: {
          label: 'large stage unloaded',
          severity: 'info',
          begins: 'unloads its large stage',
          ends: 'loads its large stage again',
        },
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
        l.q[W] = shaftTorque(ideal, l.slide[0], eta, v.drag)
        if (l.slide[0] === 0) holdShaft(l, 0, ideal, eta, v.drag)
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
      balances: (l) => [
        pressureBalance(
          'unloads its large stage',
          { 'pressure at P': l.p[P] },
          {
            [l.mode[0] ? 'spring of the unloader, once open' : 'spring of the unloader']:
              (l.mode[0] ? v.differential : 1) * v.changeOver,
            'pressure at S': l.p[S],
          },
        ),
      ],
    }
  },
  describeState: (l, _v, show) =>
    `Delivers ${show(l.o[OUTPUT.delivery], 'flow')} against ${show(l.p[P] - l.p[S], 'pressure')} ${l.x[STATE.joined] > 0.5 ? 'with both stages' : 'with its small stage alone'}, taking ${show(l.o[OUTPUT.shaftPower], 'power')} at the shaft.`,
})
