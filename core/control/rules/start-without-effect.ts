import { nameOf } from '../../sheet/schema'
import { copyOf, Logic, Unstable, type LogicState, type Surroundings } from '../logic'
import type { Program } from '../program'
import { switchesAtStart } from '../start'
import type { ControlRule } from './rule'

/** Changes of relays that are followed after a press. */
const MOST_CHANGES = 50

/** The control of a machine that stands at its start, where only people do something. */
class Standing {
  private readonly logic: Logic
  private readonly isOn: (component: string) => boolean
  readonly state: LogicState

  /** @throws Unstable */
  constructor(
    private readonly program: Program,
    on: ReadonlySet<string>,
  ) {
    this.logic = new Logic(program)
    this.isOn = (component) => on.has(component)
    this.state = this.logic.initial()
    this.logic.settle(this.state, this.around())
  }
  private around(device?: string, name?: string, value = 0): Surroundings {
    return {
      isOn: this.isOn,
      input: (id, input) => (id === device && input === name ? value : 0),
      sound: true,
    }
  }
  /** Where it rests with one input worked. */
  private rest(state: LogicState, around: Surroundings): void {
    this.logic.solve(state, around, 0)
    this.logic.rest(state, around, MOST_CHANGES)
  }
  /** States after one thing was done and released, or something is seen that was not. */
  afterOne(): LogicState[] {
    return this.program.devices.flatMap(({ device, type, values }, i) => {
      if (type.observe) {
        const seen = copyOf(this.state)
        seen.devices[i].on = true
        this.rest(seen, this.around())
        return [seen]
      }
      return (type.inputs?.(values) ?? []).flatMap(
        (input: { name: string; positions?: readonly { value: number }[] }) =>
          (input.positions ?? []).map(({ value }) => {
            const after = copyOf(this.state)
            this.rest(after, this.around(device.id, input.name, value))
            this.rest(after, this.around())
            return after
          }),
      )
    })
  }
  /** Whether a press changes a current or a step. */
  answers(state: LogicState, device: string): boolean {
    const after = copyOf(state)
    this.rest(after, this.around(device, 'pressed', 1))
    const shown = ({ currents, steps }: LogicState) => JSON.stringify([currents, steps])
    return shown(after) !== shown(state)
  }
}

export const startWithoutEffect: ControlRule = {
  id: 'start-without-effect',
  reason:
    'Whoever presses start on a machine that is switched on and stands ready expects that something happens.',
  check({ sheet, read: { program } }) {
    const starts = program.devices.filter(({ values }) => values.purpose === 'start')
    if (!starts.length) return []
    try {
      const standing = new Standing(program, switchesAtStart(sheet))
      const states = [standing.state, ...standing.afterOne()]
      return starts
        .filter(({ device }) => !states.some((state) => standing.answers(state, device.id)))
        .map(({ device }) => ({
          severity: 'warning' as const,
          message: `${nameOf(device)} starts the machine, and does nothing where the machine stands at the start, whatever one other button is pressed before.`,
          remedy:
            'Find the contact of its path that is open there: a switch beside the place where its rod begins, or a contact of the wrong kind.',
          location: { control: device.id },
        }))
    } catch (error) {
      // what never comes to rest is reported by a run
      if (error instanceof Unstable) return []
      throw error
    }
  },
}
