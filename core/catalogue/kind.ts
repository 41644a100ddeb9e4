/**
 * The contract between a component kind and everything else. A kind is one module that
 * exports one `Kind`; checks, drawing, editing and simulation read it from here.
 */
import type { Balance, Hold, Way } from './answers'
import type { Fluid } from '../fluid/fluid'
import type { Quantity } from '../units/quantities'
import type { SectionDrawing } from './section'
import type { SymbolDrawing } from './symbol'

/**
 * What a port joins: oil (pressure, flow), a rotating shaft (speed, torque), or a rod whose position others follow
 * (position, velocity).
 */
export type Domain = 'oil' | 'shaft' | 'rod'

export interface PortSpec {
  readonly name: string
  readonly domain: Domain
  /** What the port is for, in words: "pressure line", "tank line". */
  readonly role: string
  /** A port that may stay unconnected (it is then closed). */
  readonly mayStayOpen?: boolean
  /** The component holds this port's pressure or speed itself (a tank, a fixed-speed motor). */
  readonly imposes?: boolean
  /** The component moves this rod; nothing else may. */
  readonly drives?: boolean
}

interface ParameterBase {
  readonly label: string
  /** Heading under which the inspector lists it. */
  readonly group?: string
  /** Where the default comes from, or what the value means. */
  readonly note?: string
}
export interface QuantityParameter extends ParameterBase {
  readonly type: 'quantity'
  readonly quantity: Quantity
  /** As written in a sheet file: "160 bar". */
  readonly default: string
  /** Allowed range in SI, inclusive. */
  readonly min: number
  readonly max: number
}
export interface ChoiceParameter extends ParameterBase {
  readonly type: 'choice'
  readonly default: string
  readonly choices: Readonly<Record<string, string>>
}
export interface SwitchParameter extends ParameterBase {
  readonly type: 'switch'
  readonly default: boolean
}
/** Words as they are to be read on the sheet. */
export interface TextParameter extends ParameterBase {
  readonly type: 'text'
  readonly default: string
}
/** Pairs of values with straight lines between them, constant beyond its ends; may be left empty. */
export interface TableParameter extends ParameterBase {
  readonly type: 'table'
  readonly x: { readonly label: string; readonly quantity: Quantity }
  readonly y: {
    readonly label: string
    readonly quantity: Quantity
    readonly min: number
    readonly max: number
  }
}
export type Parameter = QuantityParameter | ChoiceParameter | SwitchParameter | TableParameter | TextParameter
export type Parameters = Readonly<Record<string, Parameter>>

/** Values of a component's parameters after parsing: SI numbers, choices, switches. */
export type Values<P extends Parameters> = {
  readonly [K in keyof P]: P[K] extends ChoiceParameter
    ? keyof P[K]['choices'] & string
    : P[K] extends SwitchParameter
      ? boolean
      : P[K] extends TableParameter
        ? Table
        : P[K] extends TextParameter
          ? string
          : number
}

/** A table after parsing: rising x, SI; empty where none is given. */
export interface Table {
  readonly x: readonly number[]
  readonly y: readonly number[]
}

/** A quantity that a schedule may drive: a spool command, a speed, a force. */
export interface InputSpec {
  readonly name: string
  readonly label: string
  readonly quantity: Quantity
  /** Value without a schedule, SI. A parameter's name takes that parameter's value. */
  readonly rest: number | string
  readonly min: number
  readonly max: number
  /** It is worked only as long as a hand holds it: released, it takes its value at rest. A detent is part of the model. */
  readonly momentary?: true
  /** It belongs to what the component moves: it is not worked at the symbol. */
  readonly ofLoad?: true
  /**
   * What drives it where it is electric. coil: has current or not, and is given 1, or its value at rest where that is a parameter;
   * signal: any value of its range, from an amplifier.
   */
  readonly electric?: 'coil' | 'signal'
  /** Named positions, for commands that have a few: the boxes of a valve. */
  readonly positions?: readonly {
    readonly value: number
    readonly label: string
    /** What the component does as it is put there, for sentences: "goes to position a". */
    readonly action?: string
  }[]
}

export interface StateSpec {
  readonly name: string
  readonly label: string
  readonly quantity: Quantity
  readonly initial: number
  /** It only counts up (an angle turned, a volume passed): it need not come to rest and starts anew with a run. */
  readonly isCounter?: boolean
  /** Size of a change that matters, SI: sets the absolute error allowed. */
  readonly scale: number
  /** It is a volume of oil kept in the component, apart from the lines at its ports. */
  readonly storesOil?: boolean
}

/** A computed quantity that is no state, recorded with the run. */
export interface OutputSpec {
  readonly name: string
  readonly label: string
  readonly quantity: Quantity
}

/** Something worth reporting while it lasts; active where its measure is above zero. */
export interface ConditionSpec {
  readonly name: string
  /** What the reader sees: "relief cracked". */
  readonly label: string
  readonly severity: 'info' | 'warning' | 'danger'
  /** What the component does as it begins and ends, for sentences: "opens", "shuts". Without them its label is shown. */
  readonly begins?: string
  readonly ends?: string
  /** Output whose largest value during the condition is reported. */
  readonly worst?: string
}

/** A located instant at which the equations change: contact, release, a switch. */
export interface EventSpec {
  readonly name: string
  readonly label: string
  /** What the component does then, for sentences, where its label is no verb. */
  readonly begins?: string
  /** Report crossings of this direction: 1 rising, −1 falling, 0 none (internal). */
  readonly report: 1 | -1 | 0
  /** State or output reported with it, for example the speed at an end stop. */
  readonly value?: string
  /** No flow changes there, only forces: the next step may be longer than after another event. */
  readonly onlyForces?: true
}

/**
 * The numbers of one component during a run. All arrays are made once; a model reads
 * `p`, `x`, `u`, `mode` and writes the rest. Flow is positive INTO the component.
 */
export interface Local {
  /** Potential at each port: gauge pressure Pa, shaft speed rad/s, or rod position m. */
  readonly p: Float64Array
  /** Own states. */
  readonly x: Float64Array
  /** Scheduled inputs. */
  readonly u: Float64Array
  /** Discrete modes, changed only by `switch`. */
  readonly mode: Int32Array
  /** Flow into the component at each port: m³/s; torque taken from the shaft N·m; less the rod's velocity m/s. */
  readonly q: Float64Array
  /** Capacity the component adds to each port's node: oil volume m³, or inertia kg·m². */
  readonly v: Float64Array
  /** Compliance of air trapped at each port, m³/Pa, beside that of the oil: written by a fault. */
  readonly a: Float64Array
  /** Part of `q` at each port that leaves to the surroundings or to another machine, m³/s. */
  readonly e: Float64Array
  /** Force by which locks hold each rod that the component drives, N; read as friction. */
  readonly h: Float64Array
  /**
   * Of each dry friction of the model (`dryFriction`): the direction in which it slides, 1 or −1, or 0 where friction holds it. In a
   * place that is held, what its dry friction can hold against a start forward and backward, N or N·m, written by the model; and the force
   * that it holds now: written by the model for what it moves itself, and for a shaft by the engine.
   */
  readonly slide: Float64Array
  readonly holdForward: Float64Array
  readonly holdBack: Float64Array
  readonly held: Float64Array
  /** Force in each rod, N: given by what drives it, read by what measures it; only in `observe`. */
  readonly f: Float64Array
  /** Rates of the own states. */
  readonly dx: Float64Array
  /** Guards: a change of sign is located as an event. */
  readonly g: Float64Array
  /** Outputs, condition measures and powers; filled by `observe`. */
  readonly o: Float64Array
  readonly c: Float64Array
  /** Powers W: see Power. */
  readonly power: Float64Array
  /** Energy that its states keep, J: of motion, height, springs, gas; one number, filled by `observe`. */
  readonly energy: Float64Array
}

/** Indices into `Local.power`. */
export const Power = {
  /** Put in from outside (electricity, an engine). */
  input: 0,
  /** Taken out as useful work by a load. */
  useful: 1,
  /** Turned into heat here. */
  heat: 2,
  /** Going into storage here (kinetic, spring, gas, height). */
  stored: 3,
  /** Taken out of the oil as heat: a cooler. */
  cooled: 4,
} as const
export const POWERS = 5

/** Where dry friction acts: on the shaft at a port, or on what the model moves itself, whose speed is a state. */
export type DryFriction = { readonly port: number } | { readonly velocity: number }

export interface Model {
  /**
   * Where its dry friction acts. While it slides (`Local.slide` 1 or −1) the model counts its kinetic friction against that direction; while it is
   * held (0) it counts none, and says what friction can hold. What it moves itself then has no acceleration.
   */
  readonly dryFriction?: readonly DryFriction[]
  readonly states?: readonly StateSpec[]
  readonly outputs?: readonly OutputSpec[]
  readonly conditions?: readonly ConditionSpec[]
  readonly eventFunctions?: readonly EventSpec[]
  /** Ports that these parameter values make idle: no equation reads them, nothing flows there. */
  readonly idlePorts?: readonly number[]
  /** Initial discrete modes. */
  readonly modes?: readonly number[]
  /** Potentials at the start by port, where not 0 and no initial pressure is given. */
  readonly initialPotentials?: readonly { readonly port: number; readonly value: number }[]
  /** Ports of two shafts that turn alike at the start, where nothing else is said: a coupling. */
  readonly alikeAtStart?: readonly [number, number]
  /** Force by which it locks the rod that it follows, N; reads states and inputs only. */
  lockForce?(l: Local): number
  /** The volumes at its ports change with its states; what does not say so adds the same at all times. */
  readonly hasVariableVolume?: boolean
  /** The tank (index into `Fluid.tanks`) to which its imposing ports belong. */
  readonly tank?: number
  /** Oil in that tank, m³, below which its equations follow the level. */
  readonly levelMattersBelow?: number
  /** Air goes into and out of a tank through it. */
  readonly breathing?: {
    readonly tank: number
    /** Air over the oil at the start, m³. */
    readonly airSpace: number
    /** Share of its way that is shut, 0 to 1. */
    shut(l: Local): number
  }
  /** Writes the potentials of imposing ports into `p`; may read only `u` and the oil, and is not called again while these stay. */
  impose?(l: Local): void
  /**
   * Flows, capacities, state rates and guards from potentials, states, inputs and modes; none where nothing flows, adds capacity
   * or moves.
   */
  evaluate?(l: Local): void
  /** Oil that it keeps in its states beside its volumes at ports, m³: pressed into them. */
  storesOil?(l: Local): number
  /** Outputs, condition measures and powers; called after `evaluate` at the same point. */
  observe?(l: Local): void
  /** The ways of the oil through it, where they do not follow from the flows at its ports alone; called after `evaluate`. */
  ways?(l: Local): readonly Way[]
  /** The pressures that it holds at its ports; called after `observe`. */
  holds?(l: Local): readonly Hold[]
  /** What opposes each other in what opens, shuts, strokes or moves; called after `observe`. */
  balances?(l: Local): readonly Balance[]
  /** Why the present states cannot go on with these values, where a parameter is changed in flight; nothing where they can. */
  refuses?(l: Local): string | undefined
  /** Changes modes when guard `index` crosses zero; direction is that of the crossing. */
  switch?(l: Local, index: number, direction: 1 | -1): void
}

export type FaultForm =
  'stuck' | 'leak' | 'blocked' | 'worn' | 'springBroken' | 'drift' | 'reversed' | 'air' | 'lost'

/**
 * A way in which a component fails: an input that rests at 0 and that a schedule may set. It changes what the sound
 * model reads (`beforeEvaluate`) or has computed (`afterEvaluate`). A component without a fault is evaluated without it.
 */
export interface FaultSpec extends Omit<InputSpec, 'rest'> {
  readonly form: FaultForm
  /** Changes what the model reads; restored after it. */
  beforeEvaluate?(l: Local, amount: number): void
  /** Changes the potentials that the component holds. */
  afterImpose?(l: Local, amount: number): void
  /** Changes the flows that the model's `observe` reads; restored after it. */
  duringObserve?(l: Local, amount: number): void
  /** Changes outputs and powers after the model's `observe`: heat that the fault makes by itself. */
  afterObserve?(l: Local, amount: number): void
  /** Changes what it found. */
  afterEvaluate?(l: Local, amount: number, fluid: Fluid, values: Readonly<Record<string, unknown>>): void
}

/** A motion that oil at one port drives, or that the load makes by itself; at rest, without inertia. */
export interface Motion {
  /** Port at which oil comes in, and the area it acts on, m² (m³ a radian where it turns). */
  readonly inletPort?: string
  readonly area: number
  /** Port at which oil is pushed out, and the area that pushes it. */
  readonly outletPort?: string
  readonly outletArea: number
  /** Force (torque) of the load against it where it begins, and the least along its way, N; below 0 the load helps. */
  readonly load: number
  readonly minimumLoad: number
  readonly friction: number
  /** What is set in motion, kg. */
  readonly mass?: number
  /** The rod that it presses against the load: diameter and greatest free length, m. */
  readonly column?: { readonly diameter: number; readonly length: number }
}

/** A rod, shaft or rope that moves: where a run shows it, by the names of outputs or states. */
export interface Movement {
  readonly speed: string
  readonly position?: string
  /** Force or torque against its forward direction; below 0 it helps. */
  readonly load?: string
  /** Torque by which oil drives it. */
  readonly drive?: string
  /** Whether it stands at an end stop; from modes only. */
  isAtStop?(l: Local): boolean
  /** Verbs: "extends", "retracts". */
  readonly forward: string
  readonly back: string
}

/** A valve that keeps oil from leaving a port, and how it releases it. */
export interface LoadHolding {
  readonly port: string
  readonly outletPort: string
  /** Port whose pressure opens it, and the parameter with the ratio of its area. */
  readonly pilot: string
  readonly ratio: string
  /** Parameter with the pressure at which it opens without pilot; a seat has none. */
  readonly setting?: string
  /** Switch that says whether back pressure behind it counts once only. */
  readonly vented?: string
}

/** A way along which oil is held back on purpose: by a narrow place, by a spring or by the edge of a spool that somebody leads. */
export interface Restriction {
  readonly from: string
  readonly to: string
  readonly element: 'throttle' | 'spring' | 'spool'
}

/** What the design checks need to know of a kind, without naming it. */
export interface Traits<V = Readonly<Record<string, unknown>>> {
  /** Port pairs that oil can take, and how: used to trace lines. */
  readonly paths?: readonly {
    readonly from: string
    readonly to: string
    readonly type: 'open' | 'oneWay' | 'relief' | 'switched'
    /** Opened, it still lets oil go forward only: a load check. */
    readonly oneWayWhenOpen?: true
    /** Switch parameter without which the way is not there. */
    readonly enabledBy?: string
  }[]
  /** Ports at which a pump delivers; such a line needs a relief. */
  readonly deliveryPorts?: readonly string[]
  /** Ports through which a pump draws; they must be supplied from a tank. */
  readonly suctionPorts?: readonly string[]
  /** Ports that are a tank. */
  readonly tankPorts?: readonly string[]
  /** Ports whose pressure steers the component, where they are in use. */
  readonly pilotPorts?: readonly string[]
  /** Ports that must lie at tank pressure for it to work as it is set. */
  readonly drainPorts?: readonly string[]
  /** Parameter that holds the highest pressure that its oil ports may see. */
  readonly ratedPressure?: string
  /**
   * What each of its settings does: limits the pressure at a port, limits how far it lies above another line of the load, lets the
   * pump there go to tank, opens a way from it only there, or lets no more than it go to it; and the parameter that holds it.
   */
  readonly pressureSettings?: readonly {
    readonly does: 'limits' | 'cushions' | 'unloads' | 'opens' | 'reduces'
    readonly parameter: string
    readonly port: string
  }[]
  /** Port behind which oil stays under pressure when the machine is switched off, and the parameter with its minimum. */
  readonly energyStorage?: { readonly port: string; readonly minimumPressure?: string }
  /** Port behind which a store can be shut off, relieved and discharged. */
  readonly safetyBlockPort?: string
  /** Displacement and speed of a pump that always delivers. */
  readonly constantDelivery?: { readonly displacement: string; readonly speed: string }
  /** Greatest flow that it can give, m³/s; Infinity where nothing limits it. @param speed of the fastest drive, rad/s */
  greatestFlow?(values: V, speed: number): number
  /** Pairs of ports that are joined while nothing is commanded, with these values. */
  connectedAtRest?(values: V): readonly (readonly [string, string])[]
  /** Parameter with the leakage of its spool at 100 bar: shut, it lets oil past. */
  readonly spoolLeakage?: string
  /** A way that is open while a port is vented to tank: the main stage of a relief valve. */
  readonly openWhenVented?: { readonly vent: string; readonly from: string; readonly to: string }
  /** How it moves a load. */
  motions?(values: V): readonly Motion[]
  /** The two ports of what oil turns without end, either way. */
  readonly continuousRotation?: readonly [string, string]
  /** The two ports of a pump that takes back what it gives. */
  readonly closedCircuitPorts?: readonly [string, string]
  readonly loadHolding?: readonly LoadHolding[]
  /** The port of a rod that it can lock without oil. */
  readonly mechanicalLock?: string
  /** A pump whose delivery follows what it is asked for, or a given supply: what it suits. */
  supply?(values: V): {
    readonly port: string
    readonly signal?: string
    readonly pump: 'fixed' | 'compensated' | 'loadSensing'
    readonly flow: number
    /** Where its stroke is taken back, Pa. */
    readonly compensator?: number
  }
  readonly restrictions?: readonly Restriction[]
  /** Ports before and behind an element that stops dirt, and the switch that says whether a valve goes round it. */
  readonly filters?: { readonly from: string; readonly to: string; readonly bypass: string }
  /** Air goes into and out of a tank through it. */
  readonly tankBreather?: true
  /** Parameters with a flow that is usual for it and the pressure that flow takes. */
  readonly nominalPoint?: { readonly flow: string; readonly drop: string }
  /** What it moves: names of the outputs or states of a run, and what either direction is called. */
  readonly movement?: Movement
  /** Port whose pressure it shows, or at which a gauge can be put. */
  readonly measuringPort?: string
  /** Parameter with the highest pressure at that port that it can show. */
  readonly measuringRange?: string
  /** Where a run shows what sizing computes: an output or state, or the line at a port. */
  readonly measures?: Partial<Readonly<Record<Measured, string | { readonly port: string }>>>
  /** Parameters that take a result of sizing, by what is sized. */
  readonly sizingTargets?: Partial<Readonly<Record<SizingResult, string>>>
  /** Range of the rod or shaft at its port in which it is on, with what it keeps of it going back. */
  range?(values: V): readonly [from: number, to: number]
  /** It is an electric switch: whether it is on; from modes only. */
  isOn?(l: Local): boolean
  /** Faults that a loss of the electric supply causes with these values. */
  electricFaults?(values: V): readonly string[]
}

/** What a run can be asked for beside a computed size. */
export type Measured =
  'speed' | 'pressure' | 'returnPressure' | 'load' | 'delivery' | 'relieved' | 'shaftPower'

/** What sizing can hand over to a component on the sheet. */
export type SizingResult =
  | 'bore'
  | 'rod'
  | 'firstStage'
  | 'lastStage'
  | 'stroke'
  | 'mass'
  | 'workPieceAt'
  | 'workPieceStiffness'
  | 'displacement'
  | 'highDisplacement'
  | 'lowDisplacement'
  | 'chargeDisplacement'
  | 'motorDisplacement'
  | 'rotaryVolume'
  | 'reliefSetting'
  | 'reliefFlow'
  | 'brakeTorque'
  | 'unloadSetting'
  | 'sequenceSetting'
  | 'counterbalanceSetting'
  | 'crossPortSetting'
  | 'chargeReliefSetting'
  | 'reducedPressure'
  | 'pilotRatio'
  | 'checkRatio'
  | 'pumpMargin'
  | 'compensatorSetting'
  | 'motorPower'
  | 'shaftSpeed'
  | 'precharge'
  | 'accumulatorVolume'
  | 'switchSet'
  | 'switchReset'
  | 'valveFlow'
  | 'counterbalanceFlow'
  | 'filterFlow'
  | 'orifice'
  | 'flowSetting'
  | 'coolerTransfer'

export type SymbolForm = 'simplified' | 'detailed'

export interface Kind<P extends Parameters = Parameters> {
  /** Name in the sheet file. */
  readonly name: string
  /** Standard term, shown to people. */
  readonly label: string
  readonly family: Family
  /** Other plain words people type for it. */
  readonly searchTerms: readonly string[]
  /**
   * What the sheet uses it for, beside what it does to the oil: it closes a port, is drawn round other parts and takes along what lies
   * wholly inside, is text, or is a vessel in which other parts stand and which takes them along.
   */
  readonly role?: 'plug' | 'enclosure' | 'text' | 'vessel'
  /** No part of the machine: it has no designation and is not in the parts list. */
  readonly excludedFromPartsList?: true
  /** Letter of its designation: P pump, A actuator (hydraulic motors too), M prime mover, S sensor, V valve, Z other. */
  readonly designationLetter: 'P' | 'A' | 'M' | 'S' | 'V' | 'Z'
  /** One or two sentences: what it does. */
  readonly description: string
  /** A card for whoever works on it: how it opens or moves, what goes wrong with it, usual mistakes in plumbing it. */
  readonly guide?: { readonly acts: string; readonly fails: string; readonly mistakes: string }
  readonly ports: readonly PortSpec[]
  readonly parameters: P
  readonly inputs?: readonly InputSpec[]
  /** Inputs that nothing reads with these values: a coil that the valve does not have. */
  idleInputs?(values: Values<P>): readonly string[]
  /** Faults that it cannot have with these values: of a line that is not there. */
  idleFaults?(values: Values<P>): readonly string[]
  /** Parameters that nothing reads with these values; they are not asked for. */
  idleParameters?(values: Values<P>): readonly (keyof P & string)[]
  /**
   * Symbols with the same item name are one part that is drawn several times: they share their designation, count once in the parts
   * list and agree on some parameters.
   */
  sharedItem?(values: Values<P>): { readonly name: string; readonly agreeing: readonly (keyof P & string)[] }
  readonly faults?: readonly FaultSpec[]
  readonly traits?: Traits<Values<P>>
  /** The symbol; a kind that is drawn in two forms says so with `forms`. Its ports have the same names in both, and may lie elsewhere. */
  symbol(values: Values<P>, form?: SymbolForm): SymbolDrawing
  readonly forms?: true
  /** Problems between parameters (rod larger than bore); each names the parameter. */
  validate?(values: Values<P>): { parameter: keyof P & string; message: string }[]
  /** The few values written beside the symbol on the sheet. */
  caption?(values: Values<P>, show: Show): string[]
  /** Care that belongs to this component, shown where it is edited. */
  safetyNote?: string
  /** A kind without a model has no effect on the oil (an outline, a text). */
  model(values: Values<P>, fluid: Fluid): Model
  /** Its inside, as a section that moves with its states. */
  section?(values: Values<P>): SectionDrawing
  /** What it is doing at an instant, in one sentence. */
  describeState?(l: Local, values: Values<P>, show: Show): string
}

/** All that a schedule may drive of a kind: its inputs, then its faults. */
export const commandableOf = (kind: {
  readonly inputs?: readonly InputSpec[]
  readonly faults?: readonly FaultSpec[]
}): readonly (InputSpec & { form?: FaultForm })[] => [
  ...(kind.inputs ?? []),
  ...(kind.faults ?? []).map((fault) => ({ ...fault, rest: 0 })),
]

/** An SI value with its unit, as the person who reads it has chosen. @param digits significant ones, 4 if not given */
export type Show = (si: number, quantity: Quantity, digits?: number) => string

export const families = {
  supply: 'Supply',
  actuators: 'Actuators',
  directional: 'Directional valves',
  pressure: 'Pressure valves',
  flow: 'Flow valves',
  conditioning: 'Conditioning',
  lines: 'Lines and junctions',
  instruments: 'Instruments',
  sources: 'Ideal sources',
} as const
export type Family = keyof typeof families

/** The index of each name in a list, as a constant: `indices('position', 'velocity')` is `{ position: 0, velocity: 1 }`. */
export type Indices<N extends readonly string[]> = {
  readonly [K in Exclude<keyof N, keyof []> as N[K] & string]: K extends `${infer I extends number}`
    ? I
    : never
}
/** Where a model finds each of its states, outputs, conditions, event functions or inputs. */
export function indices<const N extends readonly string[]>(...names: N): Indices<N> {
  return Object.fromEntries(names.map((name, i) => [name, i])) as Indices<N>
}
/** Specifications by name, in the order of their indices. */
function inOrder<T extends { readonly name: string }>() {
  return <I extends Readonly<Record<string, number>>>(
    index: I,
    specs: { readonly [K in keyof I]: Omit<T, 'name'> },
  ): readonly T[] =>
    Object.keys(index)
      .sort((a, b) => index[a] - index[b])
      // Omit<T, 'name'> with a name is T, which the compiler cannot see for an open T
      .map((name) => ({ name, ...specs[name] }) as unknown as T)
}
export const stateSpecs = inOrder<StateSpec>()
export const outputSpecs = inOrder<OutputSpec>()
export const conditionSpecs = inOrder<ConditionSpec>()
export const eventSpecs = inOrder<EventSpec>()
export const inputSpecs = inOrder<InputSpec>()

/** No component has more inputs, states, outputs, modes and ports together. */
export const MOST_SIGNALS = 100

/** Keeps the parameter types of a kind while it is declared. */
export function defineKind<const P extends Parameters>(kind: Kind<P>): Kind<P> {
  return kind
}

export const quantity = (
  label: string,
  name: Quantity,
  standard: string,
  min: number,
  max: number,
  more: { group?: string; note?: string } = {},
): QuantityParameter => ({
  type: 'quantity',
  label,
  quantity: name,
  default: standard,
  min,
  max,
  ...more,
})
