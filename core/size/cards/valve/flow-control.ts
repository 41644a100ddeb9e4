import { card, choice, failure, input, option, step, warning } from '../../card'
import { holdingOption, peopleOption, speedControlOption, supplyInput } from '../../common-inputs'

/** What the supply can send into a motion, and the flow controls that hold it to the speed that was asked for. */
export const flowControl = card({
  id: 'flow-control',
  title: 'Greatest speed and flow control',
  group: 'valve',
  scope: 'motion',
  applies: {
    actuators: ['linear', 'rotary', 'winch'],
    supply: ['fixedPump', 'highLow', 'compensated', 'loadSensing', 'accumulator'],
  },
  about:
    'How much faster than asked the motion can run with what the supply sends, and the flow control in inlet, outlet or beside it that limits it.',
  source: 'continuity; Q = C_d · A · √(2 · Δp / ρ), C_d = 0.7',
  answer: 'ratioOut',
  variables: {
    supply: supplyInput('a load-sensing section limits the flow itself; all others send what they have'),
    limits: speedControlOption(),
    holding: holdingOption(),
    people: peopleOption(),
    method: option(
      '',
      'Throttled',
      'ratio',
      {
        byLoad: [
          -1,
          'in the inlet where a counterbalance valve holds it or the outlet rises too high, else in the outlet',
        ],
        meterIn: [0, 'in the inlet'],
        meterOut: [1, 'in the outlet'],
        bleedOff: [2, 'beside it, to tank'],
      },
      'byLoad',
    ),
    askedOut: input('Q', 'Flow asked for, out', 'flow', '15 L/min', 0, 1, {
      from: ['cylinder-motion.flowOut', 'motor-displacement.flowOut', 'semi-rotary.flowOut'],
      required: true,
    }),
    askedBack: input('Qᵣ', 'Flow asked for, back', 'flow', '12 L/min', 0, 1, {
      from: ['cylinder-motion.flowBack', 'motor-displacement.flowBack', 'semi-rotary.flowBack'],
      required: true,
    }),
    outletOut: input('Q₂', 'Flow given back, out', 'flow', '10 L/min', 0, 1, {
      from: ['cylinder-motion.returnOut', 'motor-displacement.flowOut', 'semi-rotary.flowOut'],
      required: true,
    }),
    outletBack: input('Q₂ᵣ', 'Flow given back, back', 'flow', '18 L/min', 0, 1, {
      from: ['cylinder-motion.returnBack', 'motor-displacement.flowBack', 'semi-rotary.flowBack'],
      required: true,
    }),
    workOut: input('p₁', 'Pressure at the inlet with load, out', 'pressure', '80 bar', 0, 1500e5, {
      from: ['cylinder-motion.pressureOut', 'motor-displacement.pressureOut', 'semi-rotary.pressureOut'],
    }),
    workBack: input('p₁ᵣ', 'Pressure at the inlet with load, back', 'pressure', '30 bar', 0, 1500e5, {
      from: ['cylinder-motion.pressureBack', 'motor-displacement.pressureBack', 'semi-rotary.pressureBack'],
    }),
    inducedOut: input(
      'p_h',
      'Pressure that a load induces at the outlet, out',
      'pressure',
      '0 bar',
      0,
      1500e5,
      {
        from: ['cylinder-motion.inducedOut', 'motor-displacement.inducedOut', 'semi-rotary.inducedOut'],
      },
    ),
    inducedBack: input(
      'p_hᵣ',
      'Pressure that a load induces at the outlet, back',
      'pressure',
      '0 bar',
      0,
      1500e5,
      { from: ['cylinder-motion.inducedBack', 'motor-displacement.inducedBack', 'semi-rotary.inducedBack'] },
    ),
    pressure: input('p', 'Supply pressure', 'pressure', '150 bar', 1e5, 700e5, {
      from: ['relief-setting.cracking', 'brief.maximumPressure'],
    }),
    pump: input('Q_p', 'Flow of the supply', 'flow', '30 L/min', 1e-8, 1, {
      from: ['pump-displacement.delivered', 'high-low-pump.delivered', 'cycle.peakFlow'],
    }),
    ratedDrop: input(
      'Δp_r',
      'Drop of the directional valve at the flow asked for',
      'pressure',
      '5 bar',
      0.1e5,
      100e5,
      {
        note: 'limits what an accumulator sends',
      },
    ),
    density: input('ρ', 'Density', 'density', '870 kg/m³', 500, 1500),
    rating: input('p_R', 'Rated pressure of the actuator', 'pressure', '250 bar', 1e5, 1000e5, {
      from: 'cylinder-motion.rating',
    }),
    freeOut: step(
      'k₀',
      'What the supply can send, against what is asked for, out',
      'share',
      'supply == 3 or askedOut == 0 ? 1 : (supply == 5 ? max(1, sqrt(max(0, pressure - workOut) / ratedDrop)) : pump / askedOut)',
    ),
    freeBack: step(
      'k₀ᵣ',
      'What the supply can send, against what is asked for, back',
      'share',
      'supply == 3 or askedBack == 0 ? 1 : (supply == 5 ? max(1, sqrt(max(0, pressure - workBack) / ratedDrop)) : pump / askedBack)',
    ),
    ratioOut: step(
      'k',
      'Greatest speed against the speed asked for, out',
      'share',
      'limits == 1 or limits == 3 ? min(1, freeOut) : freeOut',
    ),
    ratioBack: step(
      'kᵣ',
      'Greatest speed against the speed asked for, back',
      'share',
      'limits == 2 or limits == 3 ? min(1, freeBack) : freeBack',
    ),
    flowOut: step('Q₁', 'Greatest flow in, out', 'flow', 'askedOut * ratioOut'),
    flowBack: step('Q₁ᵣ', 'Greatest flow in, back', 'flow', 'askedBack * ratioBack'),
    returnOut: step('Q₃', 'Greatest flow given back, out', 'flow', 'outletOut * ratioOut'),
    returnBack: step('Q₃ᵣ', 'Greatest flow given back, back', 'flow', 'outletBack * ratioBack'),
    greatestReturn: step(
      'Q₄',
      'Greatest flow in the return line',
      'flow',
      'max(max(returnOut, returnBack), supply <= 1 ? pump : 0)',
      { note: 'a fixed pump that goes round sends all of its flow there' },
    ),
    methodOut: step(
      'w',
      'Throttled, out: 0 inlet, 1 outlet, 2 beside it',
      'ratio',
      'method >= 0 ? method : (holding == 3 or holding == 6 or outletOut == 0 or (inducedOut == 0 and pressure * askedOut / max(outletOut, 1e-12) > rating) ? 0 : 1)',
    ),
    methodBack: step(
      'wᵣ',
      'Throttled, back: 0 inlet, 1 outlet, 2 beside it',
      'ratio',
      'method >= 0 ? method : (askedBack > 0 and (holding == 3 or holding == 6 or (inducedBack == 0 and pressure * askedBack / max(outletBack, 1e-12) > rating)) ? 0 : 1)',
    ),
    throttledOut: step(
      'Q_t',
      'Flow through the control, out',
      'flow',
      'methodOut == 2 ? max(0, pump - askedOut) : (methodOut == 1 and outletOut > 0 ? outletOut : askedOut)',
    ),
    throttledBack: step(
      'Q_tᵣ',
      'Flow through the control, back',
      'flow',
      'methodBack == 2 ? max(0, pump - askedBack) : (methodBack == 1 or askedBack == 0 ? outletBack : askedBack)',
    ),
    dropOut: step(
      'Δp',
      'Pressure drop of the control, out',
      'pressure',
      'max(1e5, methodOut == 2 ? workOut : (methodOut == 1 and outletOut > 0 ? (pressure - workOut) * askedOut / outletOut + inducedOut : pressure - workOut))',
      {
        note: 'what the load leaves of the supply pressure, at the area of the outlet, and what the load induces there',
      },
    ),
    dropBack: step(
      'Δpᵣ',
      'Pressure drop of the control, back',
      'pressure',
      'max(1e5, methodBack == 2 ? workBack : (methodBack == 1 or askedBack == 0 ? (pressure - workBack) * askedBack / max(outletBack, 1e-12) + inducedBack : pressure - workBack))',
    ),
    unloadedOut: step(
      'p₂₀',
      'Pressure at the outlet without load, throttled there, out',
      'pressure',
      'methodOut == 1 and outletOut > 0 and (limits == 1 or limits == 3) ? pressure * askedOut / outletOut + inducedOut : 0',
      { note: 'intensification' },
    ),
    unloadedBack: step(
      'p₂₁',
      'Pressure at the outlet without load, throttled there, back',
      'pressure',
      'methodBack == 1 and askedBack > 0 and (limits == 2 or limits == 3) ? pressure * askedBack / max(outletBack, 1e-12) + inducedBack : 0',
    ),
    diameterOut: step(
      'd₀',
      'Orifice needed, out',
      'length',
      'sqrt(4 * throttledOut / (pi * 0.7 * sqrt(2 * dropOut / density)))',
    ),
    diameterBack: step(
      'd₀ᵣ',
      'Orifice needed, back',
      'length',
      'sqrt(4 * throttledBack / (pi * 0.7 * sqrt(2 * dropBack / density)))',
    ),
    orifice: choice('d', 'Orifice, out', 'length', 'orifices', 'diameterOut', {
      rounding: 'down',
      sized: 'orifice',
      sizedWhen: 'limits == 1 or limits == 3',
    }),
    orificeBack: choice('dᵣ', 'Orifice, back', 'length', 'orifices', 'diameterBack', {
      rounding: 'down',
      sized: 'orifice',
      sizedWhen: 'limits == 2 or limits == 3',
    }),
    flowSetting: step('Q_s', 'Setting of a compensated flow control, out', 'flow', 'throttledOut', {
      sized: 'flowSetting',
      sizedWhen: 'limits == 1 or limits == 3',
    }),
    flowSettingBack: step('Q_sᵣ', 'Setting of a compensated flow control, back', 'flow', 'throttledBack', {
      sized: 'flowSetting',
      sizedWhen: 'limits == 2 or limits == 3',
    }),
    over: step(
      'Q_R',
      'Over the relief valve, out',
      'flow',
      'methodOut == 2 or limits == 0 or limits == 2 or limits == 4 or supply >= 2 ? 0 : max(0, pump - askedOut)',
    ),
    heat: step(
      'P',
      'Heat of the throttling, out',
      'power',
      'limits == 1 or limits == 3 ? over * pressure + throttledOut * dropOut : 0',
    ),
  },
  warnings: [
    failure(
      'ratioOut',
      'ratioOut > 1.15 and people == 1 and limits != 4',
      'Going out it can run more than 15 % faster than was asked for, with people under or in front of it: limit it by a flow control of the size below, and say so in the brief.',
    ),
    warning(
      'ratioOut',
      'ratioOut > 1.15 and (people == 0 or limits == 4)',
      'Going out it can run more than 15 % faster than was asked for: limit it by a flow control of the size below, or ask for the speed that it gets.',
    ),
    failure(
      'ratioBack',
      'ratioBack > 1.15 and people == 1 and limits != 4',
      'Coming back it can run more than 15 % faster than was asked for, with people under or in front of it: limit it by a flow control of the size below, and say so in the brief.',
    ),
    warning(
      'ratioBack',
      'ratioBack > 1.15 and (people == 0 or limits == 4)',
      'Coming back it can run more than 15 % faster than was asked for: limit it by a flow control of the size below, or ask for the speed that it gets.',
    ),
    failure(
      'inducedOut',
      'inducedOut > 0 and holding != 3 and holding != 6 and limits != 4 and (methodOut != 1 or limits == 0 or limits == 2)',
      'A load drives it out and nothing in its outlet limits the speed: it runs ahead of the pump. Throttle the outlet, or hold it with a counterbalance valve.',
    ),
    failure(
      'inducedBack',
      'inducedBack > 0 and holding != 3 and holding != 6 and limits != 4 and (methodBack != 1 or limits <= 1)',
      'A load drives it back and nothing in its outlet limits the speed: it runs ahead of the pump. Throttle the outlet, or hold it with a counterbalance valve.',
    ),
    warning(
      'limits',
      'limits == 4 and max(inducedOut, inducedBack) > 0 and holding != 3 and holding != 6',
      'A load drives it, and only the hand at the valve limits its speed: where the lever is moved all the way, it runs ahead of the pump.',
    ),
    failure(
      'unloadedOut',
      'max(unloadedOut, unloadedBack) > rating',
      'Without load the outlet rises above the rating of the actuator by intensification: throttle in the inlet, or limit the pressure.',
    ),
  ],
  compare: ['dropOut', 'over', 'heat'],
})
