/** The check valve law, shared by the check valve and the valves with a check built in. */
import { quantity, type Local } from '../kind'
import { smoothRamp } from '../flow-laws'

export const checkParameters = (group?: string) =>
  ({
    crackingPressure: quantity('Cracking pressure', 'pressure', '0.5 bar', 0, 50e5, { group }),
    openingRange: quantity('Pressure rise to full opening', 'pressure', '0.5 bar', 1e3, 50e5, { group }),
    checkFlow: quantity('Free flow, rated', 'flow', '40 L/min', 1e-6, 0.2, { group }),
    checkDrop: quantity('at pressure drop', 'pressure', '3 bar', 1e4, 50e5, { group }),
    checkResponse: quantity('Response', 'time', '1 ms', 1e-4, 1, { group }),
  }) as const

export const checkNominal = { flow: 'checkFlow', drop: 'checkDrop' } as const

export interface CheckValues {
  readonly crackingPressure: number
  readonly openingRange: number
  readonly checkFlow: number
  readonly checkDrop: number
  readonly checkResponse: number
}

/**
 * The law of one check: writes the rate of its opening φ, τ·dφ/dt = ramp((Δp − p_crack)/p_open) − φ, 1/s, from the pressures at two ports.
 * A law holds its numbers by itself: read from the values of many kinds they would be looked up every time. It works on ports
 * and states by their indices: numbers that pass from function to function are put on the heap.
 */
export function checkValveMotion({ crackingPressure, openingRange, checkResponse }: CheckValues) {
  return ({ p, x, dx }: Local, state: number, inlet: number, outlet: number): void => {
    dx[state] =
      (smoothRamp((p[inlet] - p[outlet] - crackingPressure) / openingRange) - x[state]) / checkResponse
  }
}
