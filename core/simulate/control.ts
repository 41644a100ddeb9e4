/** What a simulation knows of a control: it reads the circuit at instants where something happens, and writes inputs. */

/** What a control may read at an instant. */
export interface Readings {
  /** Whether a switch of the sheet is on. */
  isOn(component: string): boolean
  /** Present value of an input, SI. */
  input(component: string, name: string): number
}
/** An input that control gives a value, SI. */
export interface ControlOutput {
  readonly component: string
  readonly input: string
  readonly value: number
}
export interface Reaction {
  readonly outputs: readonly ControlOutput[]
  /** When the control wants to be asked again at the latest, s; Infinity where nothing is due. */
  readonly nextDue: number
}
/** Acts only at instants: at the start, at events of the circuit, at actions from outside, and where it asked to be called. */
export interface Control {
  react(instant: number, readings: Readings): Reaction
  /** Its state as plain data, and back. */
  save(): unknown
  load(saved: unknown): void
}
