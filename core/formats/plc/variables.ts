/** The variables of a program: inputs, outputs, memory and function blocks, declared at their first use. */
import { resolveDevice, type ResolvedDevice } from '../../control/terminals'
import { meaningOf, wiredInputs, wiredOutputs } from '../../control/wiring'
import type { Sheet } from '../../sheet/schema'
import { VariableNames } from './names'

export interface Variable {
  readonly name: string
  /** What it stands for in the control. */
  readonly ref: string
  readonly section: 'inputs' | 'outputs' | 'memory' | 'function blocks'
  readonly typeName: string
  readonly initial?: 'TRUE'
  readonly documentation: string
}
/** A device that is a function block, and the variables that feed it, by the names of its inputs. */
export interface BlockUse {
  readonly name: string
  readonly typeName: string
  readonly inputs: ReadonlyMap<string, string>
  readonly constant: { readonly input: string; readonly type: 'TIME' | 'INT'; readonly value: number }
  readonly comment: string
}
/** A variable that a step of a chart drives: it is active, or has been for a time. */
export interface StepFlag {
  readonly name: string
  readonly step: string
  readonly seconds: number
}

type AnyBlock = NonNullable<ResolvedDevice['type']['functionBlock']>
const joined = (owner: string, terminal: string) => (terminal ? `${owner}.${terminal}` : owner)

export class Variables {
  /** Names of variables, steps, transitions and charts: one scope. */
  readonly names = new VariableNames()
  readonly flags: StepFlag[] = []
  private readonly declared = new Map<string, Variable>()
  private readonly inputs
  private readonly outputs
  /** References of all steps. */
  private readonly steps: ReadonlySet<string>
  private readonly blockDevices: ReadonlyMap<string, ResolvedDevice & { readonly block: AnyBlock }>

  constructor(sheet: Sheet) {
    this.inputs = new Map(wiredInputs(sheet).map((input) => [input.ref, input]))
    this.outputs = new Map(wiredOutputs(sheet).map((output) => [output.ref, output]))
    this.steps = new Set(
      sheet.control.sequences.flatMap(({ id, steps }) => steps.map((s) => joined(id, s.id))),
    )
    this.blockDevices = new Map(
      sheet.control.devices.flatMap((device) => {
        const { resolved } = resolveDevice(device)
        const block = resolved?.type.functionBlock
        return block ? [[device.id, { ...resolved, block }] as const] : []
      }),
    )
  }

  private declare(key: string, variable: Omit<Variable, 'name'>): string {
    const name = this.names.of(key)
    if (!this.declared.has(name)) this.declared.set(name, { name, ...variable })
    return name
  }
  private memory(key: string, ref: string, documentation: string): string {
    return this.declare(key, { ref, section: 'memory', typeName: 'BOOL', documentation })
  }

  /** What a contact asks for. @returns the operand, and whether it is TRUE while the contact, as a normally open one, is open */
  contact(ref: string): { operand: string; inverted: boolean } {
    const input = this.inputs.get(ref)
    if (input) {
      const { closedAtRest, purpose, name } = input
      const operand = this.declare(ref, {
        ref,
        section: 'inputs',
        typeName: 'BOOL',
        ...(closedAtRest ? { initial: 'TRUE' } : {}),
        documentation: `${name}, ${purpose}. ${meaningOf(input)}`,
      })
      return { operand, inverted: closedAtRest }
    }
    if (this.steps.has(ref)) return { operand: this.stepFlag(ref, 0), inverted: false }
    if (this.blockDevices.has(ref)) return { operand: `${this.block(ref)}.Q`, inverted: false }
    return { operand: this.coil(ref), inverted: false }
  }
  /** The variable that a step drives. @param seconds after which it follows */
  stepFlag(ref: string, seconds: number): string {
    const what = seconds ? `for ${seconds} s` : 'active'
    const name = this.memory(`${ref} ${what}`, ref, `step ${ref} is active${seconds ? ` ${what}` : ''}`)
    if (!this.flags.some((f) => f.name === name)) this.flags.push({ name, step: ref, seconds })
    return name
  }
  /** The variable of a coil. */
  coil(ref: string): string {
    const output = this.outputs.get(ref)
    if (output)
      return this.declare(ref, {
        ref,
        section: 'outputs',
        typeName: 'BOOL',
        documentation: `${output.name}, ${output.purpose}. TRUE: it has current`,
      })
    for (const [id, { block }] of this.blockDevices)
      for (const [terminal, input] of Object.entries(block.inputs))
        if (joined(id, terminal) === ref) {
          this.block(id)
          return this.memory(`${id} ${input}`, ref, `${input} of ${id}`)
        }
    return this.memory(ref, ref, ref)
  }
  /** The instance of a timer or a counter. */
  private block(id: string): string {
    const { block, values, device } = this.blockDevices.get(id)!
    return this.declare(id, {
      ref: id,
      section: 'function blocks',
      typeName: block.typeName(values),
      documentation: device.label || id,
    })
  }

  /** Function blocks that are used, as they are called. */
  blocks(): BlockUse[] {
    return [...this.blockDevices].flatMap(([id, { block, values, device }]): BlockUse[] => {
      if (!this.declared.has(this.names.of(id))) return []
      const { input, type, parameter } = block.constant
      return [
        {
          name: this.names.of(id),
          typeName: block.typeName(values),
          inputs: new Map(
            Object.values(block.inputs).flatMap((name): [string, string][] => {
              const fed = this.names.of(`${id} ${name}`)
              return this.declared.has(fed) ? [[name, fed]] : []
            }),
          ),
          constant: { input, type, value: Number(values[parameter]) },
          comment: device.label,
        },
      ]
    })
  }
  all(): Variable[] {
    return [...this.declared.values()]
  }
}
