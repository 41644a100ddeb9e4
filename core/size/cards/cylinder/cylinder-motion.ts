import { card, choice, failure, input, relation, step, trade } from '../../card'
import { backForces, cylinderKind, heldLoads } from '../../common-inputs'

/** Speeds, flows, pressures and forces of a cylinder both ways. */
export const cylinderMotion = card({
  id: 'cylinder-motion',
  title: 'Speeds, flows and pressures',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['linear'] },
  about: 'What the cylinder takes, gives back and needs while it extends and retracts.',
  source: 'continuity and balance of forces at the piston; strokes of ISO 4393',
  answer: 'flowOut',
  demand: {
    out: {
      flow: 'flowOut',
      pressure: 'pressureOut',
      idlePressure: 'idleOut',
      speed: ['cylinder-motion.speedOut'],
      load: ['cylinder-motion.forceOut'],
    },
    back: {
      flow: 'flowBack',
      pressure: 'pressureBack',
      idlePressure: 'idleBack',
      speed: ['cylinder-motion.speedBack'],
      load: ['cylinder-motion.forceBack'],
    },
  },
  variables: {
    bore: input('D', 'Bore', 'length', '80 mm', 1e-3, 2, {
      from: ['telescopic-stages.first', 'cylinder-bore.bore'],
      required: true,
    }),
    rod: input('d', 'Rod', 'length', '45 mm', 0, 2, { from: 'cylinder-buckling.rod', required: true }),
    kind: cylinderKind(),
    last: input('d_n', 'Last stage', 'length', '50 mm', 1e-3, 2, {
      from: 'telescopic-stages.last',
      note: 'of a telescopic cylinder; it carries the load alone',
    }),
    travel: input('s', 'Stroke', 'length', '600 mm', 1e-3, 20, { from: 'motion.travel', required: true }),
    outTime: input('t', 'Time out', 'time', '6 s', 0.01, 86400, { from: 'motion.outTime', required: true }),
    backTime: input('tᵣ', 'Time back', 'time', '5 s', 0.01, 86400, {
      from: ['motion.backTime', 'motion.outTime'],
      required: true,
    }),
    forceOut: input('F', 'Force, out', 'force', '60 kN', 0, 1e8, {
      from: 'linear-load.forceOut',
      required: true,
    }),
    forceMoving: input('F_m', 'Force while it only moves, out', 'force', '2 kN', 0, 1e8, {
      from: 'linear-load.forceMoving',
    }),
    ...backForces('4 kN', '2 kN'),
    ...heldLoads,
    lineLoss: input('Δp', 'Pressure loss to the cylinder', 'pressure', '10 bar', 0, 100e5, {
      from: 'cylinder-bore.lineLoss',
    }),
    backPressure: input('p₂', 'Back pressure on the other side', 'pressure', '5 bar', 0, 200e5, {
      from: 'cylinder-bore.backPressure',
    }),
    efficiency: input('η', 'Cylinder efficiency', 'share', '93 %', 0.3, 1, {
      from: 'cylinder-bore.efficiency',
    }),
    maximumPressure: input('p', 'Working pressure, at most', 'pressure', '160 bar', 1e5, 700e5, {
      from: ['pressure-levels.available', 'brief.maximumPressure'],
      required: true,
    }),
    class: input('p_N', 'Pressure class', 'pressure', '160 bar', 5e5, 700e5, {
      from: 'brief.maximumPressure',
    }),
    rating: input('p_R', 'Rated pressure of the cylinder', 'pressure', '250 bar', 1e5, 1000e5, {
      ruler: 'rating',
    }),
    capArea: step('A₁', 'Area, extending', 'area', 'kind == 1 ? pi * (bore^2 - rod^2) / 4 : pi * bore^2 / 4'),
    loadedArea: step(
      'A_p',
      'Area that carries the load, out',
      'area',
      'kind == 4 ? pi * last^2 / 4 : capArea',
    ),
    rodArea: step('A₂', 'Area, retracting', 'area', 'kind >= 2 ? 0 : pi * (bore^2 - rod^2) / 4'),
    inducedOut: step(
      'p_h',
      'Pressure that a load induces on the rod side',
      'pressure',
      'rodArea > 0 ? heldOut / rodArea : 0',
      { note: 'a load that drives the rod out' },
    ),
    inducedBack: step(
      'p_hᵣ',
      'Pressure that a load induces on the piston side',
      'pressure',
      'heldBack / loadedArea',
      { note: 'a load that drives the rod back' },
    ),
    stroke: choice('s₁', 'Stroke of the series', 'length', 'strokes', 'travel', {
      note: 'where the machine has stops of its own',
    }),
    speedOut: step('v', 'Speed out', 'speed', 'travel / outTime'),
    speedBack: step('vᵣ', 'Speed back', 'speed', 'travel / backTime'),
    flowOut: step('Q', 'Flow, extending', 'flow', 'capArea * speedOut', {
      trade: trade('capArea * speedOut * 60 / 231', 'gpm', { capArea: 'in²', speedOut: 'in/s' }),
    }),
    flowBack: step('Qᵣ', 'Flow, retracting', 'flow', 'rodArea * speedBack', {
      trade: trade('rodArea * speedBack * 60 / 231', 'gpm', { rodArea: 'in²', speedBack: 'in/s' }),
    }),
    returnOut: step('Q₂', 'Flow given back, extending', 'flow', 'rodArea * speedOut', {
      trade: trade('rodArea * speedOut * 60 / 231', 'gpm', { rodArea: 'in²', speedOut: 'in/s' }),
    }),
    returnBack: step('Q₁ᵣ', 'Flow given back, retracting', 'flow', 'capArea * speedBack', {
      note: 'the largest flow that the valve sees',
      trade: trade('capArea * speedBack * 60 / 231', 'gpm', { capArea: 'in²', speedBack: 'in/s' }),
    }),
    idleOut: step(
      'pᵢ',
      'Pressure without load, out',
      'pressure',
      'backPressure * rodArea / (loadedArea * efficiency) + lineLoss',
    ),
    movingOut: step(
      'p_m',
      'Pressure while it only moves, out',
      'pressure',
      '(forceMoving + backPressure * rodArea) / (loadedArea * efficiency) + lineLoss',
      { ruler: 'moving' },
    ),
    pressureOut: step(
      'pₑ',
      'Pressure, extending',
      'pressure',
      '(forceOut + backPressure * rodArea) / (loadedArea * efficiency) + lineLoss',
      {
        trade: trade('(forceOut + backPressure * rodArea) / (loadedArea * efficiency) + lineLoss', 'psi', {
          forceOut: 'lbf',
          backPressure: 'psi',
          rodArea: 'in²',
          loadedArea: 'in²',
          lineLoss: 'psi',
          efficiency: '',
        }),
        ruler: 'working',
      },
    ),
    idleBack: step(
      'pᵢᵣ',
      'Pressure without load, back',
      'pressure',
      'rodArea == 0 ? 0 : backPressure * capArea / (rodArea * efficiency) + lineLoss',
    ),
    movingBack: step(
      'p_mᵣ',
      'Pressure while it only moves, back',
      'pressure',
      'rodArea == 0 ? 0 : (forceMovingBack + backPressure * capArea) / (rodArea * efficiency) + lineLoss',
      { ruler: 'moving' },
    ),
    pressureBack: step(
      'pᵣ',
      'Pressure, retracting',
      'pressure',
      'rodArea == 0 ? 0 : (forceBack + backPressure * capArea) / (rodArea * efficiency) + lineLoss',
      { ruler: 'working' },
    ),
    areaRatio: step('φ', 'Ratio of areas', 'ratio', 'rodArea == 0 ? 1 : capArea / rodArea'),
    intensified: step(
      'p_φ',
      'Side that is blocked or throttled, with the load that drives it',
      'pressure',
      'max(class * areaRatio + inducedOut, class / areaRatio + inducedBack)',
      { note: 'intensification, at the pressure class; what a flow control makes of it is on its card' },
    ),
    power: step('P', 'Hydraulic power, extending', 'power', 'flowOut * pressureOut', {
      trade: trade('flowOut * pressureOut / 1714', 'hp', { flowOut: 'gpm', pressureOut: 'psi' }),
    }),
    wall: step(
      's_w',
      'Wall of the tube, estimated',
      'length',
      'max(0.06 * bore, rating * bore / (2 * 120e6))',
      { source: 'thin-walled tube at 120 N/mm²' },
    ),
    mass: step(
      'm_c',
      'Mass of the cylinder, estimated',
      'mass',
      '7850 * pi * ((bore + wall) * wall * (travel + 1.5 * bore) + rod^2 / 4 * (travel + 2 * bore) + 0.5 * bore^3)',
      { source: 'steel: tube, rod, heads and piston as two thirds of a cube of the bore' },
    ),
  },
  relations: [relation('rod', 'rod < bore or kind >= 2', 'The rod must be thinner than the bore.')],
  warnings: [
    failure(
      'pressureOut',
      'pressureOut > maximumPressure * 1.000001',
      'Extending needs more than the working pressure that there is: take a larger bore.',
    ),
    failure(
      'pressureBack',
      'pressureBack > maximumPressure * 1.000001',
      'Retracting needs more than the working pressure that there is: the rod is too thick or the bore too small.',
    ),
    failure(
      'heldOut',
      'heldOut > 0 and rodArea == 0',
      'A load drives the rod out, and this cylinder has no rod side that could hold it: take a double-acting one.',
    ),
    failure(
      'inducedOut',
      'max(inducedOut, inducedBack) > class',
      'The load alone induces more than the pressure class where it is held: take a larger bore.',
    ),
  ],
})
