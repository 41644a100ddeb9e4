/** What a run reports, no proof may have called impossible: random controls, worked at random times. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ControlMachine } from './machine'
import { Logic } from './logic'
import { readControl } from './program'
import { prove } from './prove'
import { controlSheet } from './testing'

/** Controls that are tried; more from the command line. */
const CONTROLS = Number(process.env.RANDOM_CONTROLS ?? 250)

const DEVICES = {
  S1: ['push-button'],
  S2: ['push-button'],
  S3: ['selector'],
  K1: ['relay'],
  K2: ['relay'],
  K3: ['relay', { pullIn: '22 ms' }],
  K4: ['relay'],
  P1: ['lamp'],
  P2: ['lamp'],
} as const
const contact = fc.constantFrom(
  'S1',
  '/S1',
  'S2',
  '/S2',
  'S3.1',
  'K1',
  '/K1',
  'K2',
  '/K2',
  'K3',
  '/K3',
  'K4',
  '/K4',
)
const path = fc
  .array(fc.array(contact, { minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 2 })
  .map((rows) => rows.map((row) => row.join(' · ')).join(' + '))
/** ms to the next action, and what is worked. */
const action = fc.tuple(fc.integer({ min: 1, max: 60 }), fc.constantFrom('S1', 'S2', 'S3'))

describe('proofs and runs', () => {
  it('never disagree on races and on what must never be', { timeout: 300 * CONTROLS + 60_000 }, () => {
    fc.assert(
      fc.property(
        fc.tuple(path, path, path, path, path),
        fc.array(action, { minLength: 2, maxLength: 10 }),
        ([k1, k2, k3, k4, lamp], actions) => {
          const sheet = controlSheet(
            DEVICES,
            [`${k1} -> K1`, `${k2} -> K2`, `${k3} -> K3`, `${k4} -> K4`, `${lamp} -> P1`, 'K3 · K4 -> P2'],
            { requirements: [{ id: 'N1', name: 'both lamps', never: 'P1 · P2', assumed: false }] },
          )
          const { races, isLit } = worked(sheet, actions)
          if (!races && !isLit) return
          const proofs = new Map(prove(sheet).map((p) => [p.id, p.outcome]))
          if (races) expect(proofs.get('race')).not.toBe('proved')
          if (isLit) expect(proofs.get('N1')).not.toBe('proved')
        },
      ),
      { numRuns: CONTROLS },
    )
  })
})

function worked(sheet: Parameters<typeof readControl>[0], actions: readonly (readonly [number, string])[]) {
  const { program } = readControl(sheet)
  const machine = new ControlMachine(new Logic(program))
  const inputs = new Map<string, number>()
  const readings = {
    isOn: () => false,
    input: (id: string, name: string) => inputs.get(`${id}.${name}`) ?? 0,
    watched: () => 0,
  }
  let [races, isLit, changes] = [false, false, 0]
  const react = (t: number) => {
    const { events = [], nextDue } = machine.react(t, readings)
    races ||= events.some((e) => e.what.startsWith('race of '))
    isLit ||= machine.conditions.at(-1)!
    return nextDue
  }
  let due = react(0)
  let t = 0
  const until = (end: number) => {
    // what never rests is not followed for ever
    while (due <= end && changes++ < 400) due = react(due)
  }
  for (const [wait, id] of actions) {
    t += wait / 1000
    until(t)
    const key = `${id}.${id === 'S3' ? 'position' : 'pressed'}`
    inputs.set(key, 1 - (inputs.get(key) ?? 0))
    due = react(t)
  }
  until(t + 0.5)
  return { races, isLit }
}
