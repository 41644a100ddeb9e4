/** Quick reliefs with checks beside them: what guards the lines of an actuator. */
import { type Balance, pressureBalance } from '../answers'
import { quantity, type Local } from '../kind'
import { addRelief, heldSetting, RELIEF, reliefFlow, reliefNumbers } from './relief-law'

export const portReliefParameters = (setting: string) =>
  ({
    setting: quantity('Setting', 'pressure', setting, 2e5, 700e5, { note: 'at rated flow' }),
    ratedFlow: quantity('Rated flow', 'flow', '40 L/min', 1e-6, 0.2),
    override: quantity('Override', 'share', '15 %', 0.005, 0.6, { note: '(p_full − p_crack)/p_full' }),
    timeConstant: quantity('Response', 'time', '2 ms', 1e-4, 1),
  }) as const
export interface PortReliefValues {
  readonly ratedFlow: number
  readonly override: number
  readonly timeConstant: number
}

/** One quick relief as an element of a larger one, its setting at rated flow. */
export function portRelief(v: PortReliefValues) {
  const { override, ratedFlow, timeConstant } = v
  const numbers = reliefNumbers(ratedFlow, timeConstant)
  return {
    /** @param drop Pa @returns m³/s */
    flow: (opening: number, drop: number) => reliefFlow(ratedFlow, opening, drop),
    /** What pushes it open between two ports, by their names and pressures, Pa. @param name what then happens */
    balance(
      name: string,
      inlet: { readonly port: string; readonly pressure: number },
      outlet: { readonly port: string; readonly pressure: number },
      setting: number,
    ): Balance {
      return pressureBalance(
        name,
        { [`pressure at ${inlet.port}`]: inlet.pressure },
        { spring: heldSetting(setting) * (1 - override), [`pressure at ${outlet.port}`]: outlet.pressure },
      )
    },
    /** Writes the rate of its opening, 1/s, and adds its flow from one port to the other. @param settings Pa, and which of them holds */
    add(l: Local, state: number, inlet: number, outlet: number, settings: Float64Array, setting: number) {
      const full = heldSetting(settings[setting])
      numbers[RELIEF.crack] = full * (1 - override)
      numbers[RELIEF.span] = full * override
      addRelief(l, state, inlet, outlet, numbers)
    },
  }
}
