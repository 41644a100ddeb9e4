/** What a simulation knows of a control: it reads the circuit at instants where something happens, and writes inputs. */
import type { ConditionSpec, FaultSpec, InputSpec, OutputSpec } from '../catalogue/kind'
import type { Finding } from '../sheet/finding'

/** What a control may read at an instant. */
export interface Readings {
  /** Whether a switch of the sheet is on. */
  isOn(component: string): boolean
  /** Present value of an input of a component or of a device of the control, SI. */
  input(component: string, name: string): number
  /** Present value of a watched signal, SI. */
  watched(index: number): number
}
/** An input that control gives a value, SI. */
export interface ControlOutput {
  readonly component: string
  readonly input: string
  readonly value: number
}
/** Something that happened in the control. */
export interface ControlEvent {
  /** Device concerned. */
  readonly device: string
  /** For people: "pulls in". */
  readonly what: string
}
export interface Reaction {
  readonly outputs: readonly ControlOutput[]
  /** When the control wants to be asked again at the latest, s; Infinity where nothing is due. */
  readonly nextDue: number
  readonly events?: readonly ControlEvent[]
  /** Range in which each watched signal may move without the control being asked, SI; as long as they stay, nothing changes. */
  readonly ranges?: readonly (readonly [low: number, high: number])[]
}
/** Acts only at instants: at the start, at events of the circuit, at actions from outside, and where it asked to be called. */
export interface Control {
  react(instant: number, readings: Readings): Reaction
  /** Present values of all outputs of the devices, in the order of the definition. */
  readonly values?: ArrayLike<number>
  /** Whether each condition of the devices is there, in the order of the definition. */
  readonly conditions?: readonly boolean[]
  /** Its state as plain data, and back. */
  save(): unknown
  load(saved: unknown): void
}

/** A device of the control as a run sees it: what works it, how it fails, and what is recorded of it. */
export interface ControlDevice {
  readonly id: string
  /** What people call it. */
  readonly name: string
  readonly inputs: readonly InputSpec[]
  readonly faults: readonly FaultSpec[]
  readonly outputs: readonly OutputSpec[]
  /** What is reported as long as it lasts. */
  readonly conditions?: readonly ConditionSpec[]
}
/** A signal of the circuit that leaves a range at an instant which is located: an output, a state or an input of a component. */
export interface WatchedSignal {
  readonly component: string
  readonly signal: string
}
/** What a control adds to a circuit; never changed, any number of controls may be made from one. */
export interface ControlDefinition {
  readonly devices: readonly ControlDevice[]
  readonly watched: readonly WatchedSignal[]
  readonly findings: readonly Finding[]
  create(): Control
}
