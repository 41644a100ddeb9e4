/**
 * The contract between a type of control device and everything else. A type is one file in `devices`: what it is called, how it is
 * worked, which contacts and coils it has, and what it does at an instant. It changes only at instants.
 */
import type { FaultSpec, InputSpec, OutputSpec, Parameters, Values } from '../catalogue/kind'

/** What a device keeps between instants; plain data. */
export interface DeviceState {
  /** Current of each of its coils. */
  readonly coils: boolean[]
  /** Whether it has acted: a relay that has pulled in, a timer that is on. */
  on: boolean
  /** Instant at which it changes by itself, s; Infinity where nothing is due. */
  due: number
  /** Closures that a counter has counted, or the output of a controller. */
  count: number
  /** What a controller aims at, SI, and since when, s; NaN before it has begun. */
  reference: number
  since: number
}
export const initialState = (coils: number): DeviceState => ({
  coils: Array.from({ length: coils }, () => false),
  on: false,
  due: Infinity,
  count: 0,
  reference: Number.NaN,
  since: Number.NaN,
})

/** A copy that can be changed. */
export const copyOfDevice = ({ coils, on, due, count, reference, since }: DeviceState): DeviceState => ({
  coils: coils.slice(),
  on,
  due,
  count,
  reference,
  since,
})

/** A device at an instant. */
export interface DeviceView<V = Readonly<Record<string, unknown>>> {
  readonly values: V
  readonly state: DeviceState
  /** Value of one of its inputs: how far a button is pressed, where a selector stands. */
  input(name: string): number
}

/** A contact or a coil of a device. The terminal of the only or usual one is empty. */
export interface Terminal {
  readonly terminal: string
  readonly label: string
}

/** Letters of IEC 81346-2 for what a device is for. */
export type DeviceLetter = 'B' | 'E' | 'F' | 'K' | 'M' | 'P' | 'Q' | 'S' | 'T'

/** What it means that a contact, as a normally open one, is closed or open. */
export interface ContactConditions {
  readonly closed: string
  readonly open: string
}

/** A standard function block of IEC 61131-3 that does what a device does. */
export interface FunctionBlock<V> {
  /** TON, TOF, TP, CTU. */
  typeName(values: V): string
  /** Values of the device for which it is that block; none where it never is. */
  valuesOf(typeName: string): Readonly<Record<string, string>> | undefined
  /** Names of its inputs, by the terminals of the coils of the device. */
  readonly inputs: Readonly<Record<string, string>>
  /** The input that has a constant: a time or a count. */
  readonly constant: { readonly input: string; readonly parameter: string; readonly type: 'TIME' | 'INT' }
}

export interface DeviceType<P extends Parameters = Parameters> {
  /** Name in the sheet file. */
  readonly name: string
  readonly label: string
  readonly letter: DeviceLetter
  readonly description: string
  readonly searchTerms: readonly string[]
  /** Where it stands: worked or seen by people, or in the cabinet. */
  readonly place: 'operator' | 'cabinet'
  readonly parameters: P
  /** How people work it. */
  inputs?(values: Values<P>): readonly InputSpec[]
  readonly faults?: readonly FaultSpec[]
  contacts?(values: Values<P>): readonly Terminal[]
  readonly coils?: readonly Terminal[]
  /** Signals of the sheet that it watches, by "component.signal". */
  watched?(values: Values<P>): string | undefined
  /** Inputs that are values of what it watches, and have its quantity. */
  readonly measuredInputs?: readonly string[]
  /** Change of its inputs at which it looks at them anew, where they may move with time. */
  inputResolution?(values: Values<P>): number
  /** Coils and amplifiers of the sheet that it drives by itself, by "component.input". */
  drives?(values: Values<P>): string | undefined
  /** What else is recorded of it. */
  readonly outputs?: readonly OutputSpec[]
  /** Parameters that name something of the sheet: a coil, an amplifier, a value. */
  readonly references?: Readonly<Partial<Record<keyof P & string, 'coil' | 'signal' | 'value'>>>
  /** It is no part of the machine and only watches a run. */
  isVirtual?(values: Values<P>): boolean
  /** Only one of it may stand in a control. */
  readonly single?: true
  /** While its contact is open, no coil has current. */
  readonly suppliesControl?: true
  /** People turn it to one of several positions, in which it stays: a choice of the mode. */
  readonly selects?: true
  /** Pressed, it must take the current of every coil that moves something. */
  readonly stopsMotion?: true

  /** Whether a contact of it, as a normally open one, is closed. */
  closed?(d: DeviceView<Values<P>>, terminal: string): boolean
  /** One of its coils has gained or lost current. @param t s */
  currentChanged?(d: DeviceView<Values<P>>, coil: number, t: number): void
  /** An operator works it, or has released it. */
  worked?(d: DeviceView<Values<P>>): void
  /** What was due at t happens. */
  expire?(d: DeviceView<Values<P>>, t: number): void
  /** It sees the signal that it watches, SI. @returns the range in which nothing changes */
  observe?(d: DeviceView<Values<P>>, value: number, t: number): readonly [low: number, high: number]
  /** Value that it gives the amplifier that it drives, SI. */
  output?(d: DeviceView<Values<P>>): number
  /** Whether what changed it at the start is settled before 0 s. */
  readonly settlesAtStart?: true
  /** It is free to change at any later instant where states are explored. */
  readonly freeDelay?: true
  /** It is a function block where the control is a program. */
  readonly functionBlock?: FunctionBlock<Values<P>>
  /** What the states of its contacts mean: "pressed", "not pressed"; nothing given: "acted", "not acted". */
  readonly conditions?: ContactConditions
  /** What its change is called: "pulls in", "drops out". */
  readonly words?: { readonly on: string; readonly off: string }
}

export const defineDevice = <const P extends Parameters>(type: DeviceType<P>): DeviceType<P> => type

/** A contact that no longer changes. */
export const stuck: FaultSpec = {
  name: 'stuck',
  label: 'contacts stuck',
  form: 'stuck',
  quantity: 'ratio',
  min: 0,
  max: 1,
  positions: [
    { value: 1, label: 'stuck' },
    { value: 0, label: 'sound' },
  ],
}
/** A coil that no longer takes current. */
export const burnt: FaultSpec = {
  name: 'burnt',
  label: 'coil burnt',
  form: 'lost',
  quantity: 'ratio',
  min: 0,
  max: 1,
  positions: [
    { value: 1, label: 'burnt' },
    { value: 0, label: 'sound' },
  ],
}

/** An input that is pressed and released, or stays where it was put. */
export const pressed = (stays: boolean): InputSpec => ({
  name: 'pressed',
  label: 'pressed',
  quantity: 'ratio',
  rest: 0,
  min: 0,
  max: 1,
  ...(stays ? {} : { momentary: true as const }),
  positions: [
    { value: 1, label: 'pressed', action: 'is pressed' },
    { value: 0, label: stays ? 'reset' : 'released', action: stays ? 'is reset' : 'is released' },
  ],
})
export const PRESSED_CONDITIONS: ContactConditions = { closed: 'pressed', open: 'not pressed' }
