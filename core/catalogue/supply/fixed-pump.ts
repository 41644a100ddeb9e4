import { gearSection } from '../section-elements'
import { leak, leakOut, wrongRotation } from '../faults'
import { defineKind, Power, quantity, indices, outputSpecs, conditionSpecs } from '../kind'
import { inletFilling, starvation } from '../flow-laws'
import { leakageSlope, holdShaft, shaftTorque } from '../displacement-machine'
import { circle, line } from '../symbol'
import { flowTriangle, shaftStub } from '../symbol-elements'

const OUTPUT = indices('delivery', 'leakage', 'shaftPower')
const CONDITION = indices('starved', 'overPressure')

const [S, P, W] = [0, 1, 2]

/**
 * Q = D·n·f(P_S) − C_L·(p_P − p_S), C_L = (1 − η_v)·D·n_r/p_r scaled with ν_ref/ν;
 * T = D·(p_P − p_S)/(2π·η_hm) + T_d·sgn ω, η_hm multiplying when the oil drives the pump.
 * f falls from 1 to 0 as the inlet's absolute pressure falls from 0.3 bar to 0; turning backwards, P is the inlet.
 */
export const fixedPump = defineKind({
  name: 'fixed-pump',
  label: 'Pump, fixed displacement',
  family: 'supply',
  searchTerms: ['pump', 'gear pump', 'vane pump', 'hydraulic pump', 'fp'],
  designationLetter: 'P',
  description: 'Delivers its displacement every turn, whatever the pressure, less its leakage.',
  ports: [
    { name: 'S', domain: 'oil', role: 'suction line' },
    { name: 'P', domain: 'oil', role: 'pressure line' },
    { name: 'W', domain: 'shaft', role: 'shaft' },
  ],
  parameters: {
    displacement: quantity('Displacement', 'displacement', '16 cm³/rev', 1e-8, 5e-3),
    volumetricEfficiency: quantity('Volumetric efficiency', 'share', '92 %', 0.3, 1, {
      group: 'Losses',
      note: 'at the rated speed and pressure; wear lowers it',
    }),
    ratedSpeed: quantity('at speed', 'rotationalSpeed', '1500 rpm', 1, 1000, { group: 'Losses' }),
    ratedPressure: quantity('at pressure', 'pressure', '210 bar', 1e5, 700e5, { group: 'Losses' }),
    hydromechanicalEfficiency: quantity('Hydro-mechanical efficiency', 'share', '92 %', 0.3, 1, {
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
  faults: [leak(P, S, 'worn: leaks more', 'worn'), leakOut(S, 'shaft seal leaks outwards'), wrongRotation(W)],
  traits: {
    ratedPressure: 'maxPressure',
    constantDelivery: { displacement: 'displacement', speed: 'ratedSpeed' },
    deliveryPorts: ['P'],
    suctionPorts: ['S'],
    measures: { delivery: 'delivery', shaftPower: 'shaftPower' },
    sizingTargets: {
      displacement: 'displacement',
      highDisplacement: 'displacement',
      lowDisplacement: 'displacement',
      chargeDisplacement: 'displacement',
    },
  },
  symbol: () => ({
    shapes: [
      circle(0, 0, 3),
      flowTriangle(0, -3, 0, -1),
      line([0, -3], [0, -4]),
      line([0, 3], [0, 4]),
      ...shaftStub(-4, -3),
    ],
    ports: {
      S: { x: 0, y: 4, side: 'down' },
      P: { x: 0, y: -4, side: 'up' },
      W: { x: -4, y: 0, side: 'left' },
    },
    box: { x: -3, y: -3, w: 6, h: 6 },
  }),
  caption: (values, show) => [show(values.displacement, 'displacement')],
  section: () =>
    gearSection({
      suction: (l) => l.p[S],
      pressure: (l) => l.p[P],
      speed: (l) => l.p[W],
      leakage: (l, show) => `leaks ${show(l.o[OUTPUT.leakage], 'flow', 2)}`,
    }),
  model(values, fluid) {
    const perRadian = values.displacement / (2 * Math.PI)
    const { volumetricEfficiency, ratedSpeed, ratedPressure, drag } = values
    const leakage = leakageSlope(volumetricEfficiency, perRadian, ratedSpeed, ratedPressure)
    const eta = values.hydromechanicalEfficiency
    return {
      dryFriction: [{ port: W }],
      outputs: outputSpecs(OUTPUT, {
        delivery: { label: 'delivery', quantity: 'flow' },
        leakage: { label: 'internal leakage', quantity: 'flow' },
        shaftPower: { label: 'shaft power', quantity: 'power' },
      }),
      conditions: conditionSpecs(CONDITION, {
        starved: { label: 'starved at its inlet', severity: 'warning' },
        overPressure: { label: 'above its maximum pressure', severity: 'danger' },
      }),
      evaluate(l) {
        const speed = l.p[W]
        const drop = l.p[P] - l.p[S]
        const filling = inletFilling(speed >= 0 ? l.p[S] : l.p[P])
        const flow = perRadian * speed * filling - leakage * fluid.leakageFactor * drop
        l.q[S] = flow
        l.q[P] = -flow
        const ideal = perRadian * drop
        l.q[W] = shaftTorque(ideal, l.slide[0], eta, drag)
        if (l.slide[0] === 0) holdShaft(l, 0, ideal, eta, drag)
      },
      observe(l) {
        const drop = l.p[P] - l.p[S]
        l.o[OUTPUT.delivery] = -l.q[P]
        l.o[OUTPUT.leakage] = leakage * fluid.leakageFactor * drop
        l.o[OUTPUT.shaftPower] = l.q[W] * l.p[W]
        l.c[CONDITION.starved] = l.p[W] > 0 ? starvation(l.p[S]) : -1
        l.c[CONDITION.overPressure] = l.p[P] - values.maxPressure
        l.power[Power.heat] = l.o[OUTPUT.shaftPower] + l.p[S] * l.q[S] + l.p[P] * l.q[P]
      },
    }
  },
  describeState: (l, _values, show) =>
    `Delivers ${show(l.o[OUTPUT.delivery], 'flow')} against ${show(l.p[P] - l.p[S], 'pressure')}, taking ${show(l.o[OUTPUT.shaftPower], 'power')} at the shaft.`,
})
