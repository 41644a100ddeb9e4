import { card, input, step } from '../../card'

const PARTS = [1, 2, 3, 4, 5, 6] as const
const [firstPower, firstTime] = [
  ['11 kW', '4 kW', '1 kW'],
  ['10 s', '20 s', '30 s'],
]
const sum = (text: (n: number) => string) => PARTS.map(text).join(' + ')

/** The root mean square of a list of powers, each with its time. */
export const rmsPower = card({
  id: 'rms-power',
  title: 'R.m.s. of a list of powers',
  group: 'pump',
  scope: 'machine',
  applies: { onRequest: true },
  about: 'The constant power that heats a motor as a cycle of several powers does.',
  source: 'P_rms = √(Σ P² · t / Σ t), for periodic duty after IEC 60034-1',
  answer: 'rms',
  variables: {
    ...Object.fromEntries(
      PARTS.flatMap((n) => [
        [`power${n}`, input(`P${'₀₁₂₃₄₅₆'[n]}`, `Power ${n}`, 'power', firstPower[n - 1] ?? '0 kW', 0, 1e7)],
        [`time${n}`, input(`t${'₀₁₂₃₄₅₆'[n]}`, `Time ${n}`, 'time', firstTime[n - 1] ?? '0 s', 0, 1e7)],
      ]),
    ),
    total: step(
      't',
      'Whole time',
      'time',
      sum((n) => `time${n}`),
    ),
    mean: step('P_m', 'Mean power', 'power', `(${sum((n) => `power${n} * time${n}`)}) / total`),
    rms: step('P', 'R.m.s. power', 'power', `sqrt((${sum((n) => `power${n}^2 * time${n}`)}) / total)`),
    greatest: step(
      'P_x',
      'Greatest power',
      'power',
      'max(max(max(power1, power2), max(power3, power4)), max(power5, power6))',
    ),
    overload: step('k', 'Greatest power against r.m.s.', 'ratio', 'greatest / rms'),
  },
})
