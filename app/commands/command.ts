/** What a command is: keys, menus, the search and the list of keys are made from one list of them. */
import { matchKeyBindingPress, parseKeybinding } from 'tinykeys'

export const commandGroups = ['Edit', 'Arrange', 'View', 'Files'] as const

export interface Command {
  readonly name: string
  readonly label: string | (() => string)
  readonly group: (typeof commandGroups)[number]
  /** Key bindings as tinykeys reads them, the first of them shown to people: "$mod+z", "Shift+r". */
  readonly keys?: readonly string[]
  /** Whether it can be carried out now; always where it is not given. It changes nothing. */
  readonly enabled?: () => boolean
  readonly run: () => void
}

export const labelOf = ({ label }: Command) => (typeof label === 'function' ? label() : label)
export const isEnabled = (command: Command) => command.enabled?.() ?? true

/** A key binding as people read it: "Ctrl Z". */
export function keyText(binding: string): string {
  const [presses] = [parseKeybinding(binding)[0]]
  const [modifiers, key] = presses
  const names: Readonly<Record<string, string>> = { Control: 'Ctrl', Meta: 'Cmd' }
  // a sign that needs Shift on most keyboards is read as the sign alone
  const shown = modifiers.filter((m) => m !== 'Shift' || !/^[?+]$/.test(String(key)))
  const text = String(key)
  return [...shown.map((m) => names[m] ?? m), text.length === 1 ? text.toUpperCase() : text].join(' ')
}
/** All keys of a command as people read them, each once. */
export const keyTexts = ({ keys = [] }: Command) => [...new Set(keys.map(keyText))]

/** The enabled command that a key is bound to. */
export const commandFor = (commands: readonly Command[], event: KeyboardEvent) =>
  commands.find(
    (command) =>
      command.keys?.some((binding) => matchKeyBindingPress(event, parseKeybinding(binding)[0])) &&
      isEnabled(command),
  )
