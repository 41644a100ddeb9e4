import { describe, expect, it, vi } from 'vitest'
import { circuit, idOf, powerUnit, powerUnitPipes } from '@oar-bench/core/testing'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import { showIn } from '@oar-bench/core/units/text'
import { commandFor, isEnabled, keyTexts, labelOf } from './command'
import { sheetCommands, type CommandContext } from './sheetCommands'

/** A context without stores. */
function contextOf(sheet: Sheet, selected: string[] = []) {
  const ids = new Set(selected)
  const state = { sheet }
  const context: CommandContext = {
    sheetDocument: {
      get sheet() {
        return state.sheet
      },
      canUndo: true,
      canRedo: false,
      apply: vi.fn((next: Sheet) => (state.sheet = next)),
      undo: vi.fn(),
      redo: vi.fn(),
    },
    selection: {
      ids,
      get components() {
        return state.sheet.components.filter((c) => ids.has(c.id))
      },
      get pipes() {
        return state.sheet.pipes.filter((p) => ids.has(p.id))
      },
      get junctions() {
        return state.sheet.junctions.filter((j) => ids.has(j.id))
      },
      select: vi.fn((list: Iterable<string>) => {
        ids.clear()
        for (const id of list) ids.add(id)
      }),
    },
    editor: {
      clipboard: { components: [], junctions: [], pipes: [] },
      tool: 'select',
      dialog: undefined,
      settings: true,
      lineNames: false,
      overview: false,
      view: undefined,
      startPlacing: vi.fn(),
      setPane: vi.fn(),
    },
    show: showIn('metric'),
    exportAs: vi.fn(),
  }
  const commands = sheetCommands(context)
  const named = (name: string) => commands.find((c) => c.name === name)!
  return { context, state, ids, commands, named }
}
const sheet = circuit(powerUnit, powerUnitPipes)
const relief = idOf(sheet, 'relief-valve-direct')
const key = (name: string, modifiers: KeyboardEventInit = {}) =>
  new KeyboardEvent('keydown', { key: name, ...modifiers })

describe('the list of commands', () => {
  const { commands, context } = contextOf(sheet, [relief])
  it('has each name once, and no key for two commands', () => {
    expect(new Set(commands.map((c) => c.name)).size).toBe(commands.length)
    const keys = commands.flatMap((c) => c.keys ?? [])
    expect(new Set(keys).size).toBe(keys.length)
  })
  it('finds out what can be done without doing it', () => {
    for (const selected of [[], [relief], [sheet.pipes[0].id], sheet.components.map((c) => c.id)]) {
      const { commands: list, context: own } = contextOf(sheet, selected)
      for (const command of list) isEnabled(command)
      expect(own.sheetDocument.apply).not.toHaveBeenCalled()
      expect(own.selection.select).not.toHaveBeenCalled()
    }
    expect(context.sheetDocument.apply).not.toHaveBeenCalled()
  })
  it.each([
    ['z', { ctrlKey: true }, 'undo'],
    ['r', {}, 'rotate'],
    ['R', {}, 'rotate'],
    ['c', {}, 'connect'],
    ['c', { ctrlKey: true }, 'copy'],
    ['Backspace', {}, 'delete'],
    ['?', { shiftKey: true }, 'keys'],
    ['+', { shiftKey: true }, 'zoomIn'],
    ['=', {}, 'zoomIn'],
    ['r', { altKey: true }, undefined],
    ['y', { ctrlKey: true }, undefined],
  ])('%s with %j means %s', (name, modifiers, command) =>
    expect(commandFor(commands, key(name, modifiers))?.name).toBe(command),
  )
  it('writes keys as people read them', () => {
    const texts = (name: string) => keyTexts(commands.find((c) => c.name === name)!)
    expect(texts('redo')).toEqual(['Ctrl Shift Z', 'Ctrl Y'])
    expect(texts('keys')).toEqual(['?'])
    expect(texts('zoomIn')).toEqual(['+', '='])
    expect(texts('rotate')).toEqual(['R'])
  })
})

describe('commands on the selection', () => {
  it('cut what is selected, and paste it under other ids', () => {
    const { state, named, ids } = contextOf(sheet, [relief])
    expect(isEnabled(named('paste'))).toBe(false)
    named('cut').run()
    expect(state.sheet.components.some((c) => c.id === relief)).toBe(false)
    expect(isEnabled(named('paste'))).toBe(true)
    named('paste').run()
    named('paste').run()
    expect(state.sheet.components.filter((c) => c.kind === 'relief-valve-direct')).toHaveLength(2)
    expect(ids.size).toBe(1)
  })
  it('are there for what they can be done with only', () => {
    const enabled = (selected: string[]) => {
      const { commands } = contextOf(sheet, selected)
      return new Set(commands.filter(isEnabled).map((c) => c.name))
    }
    const [nothing, one, pipe, all] = [
      enabled([]),
      enabled([relief]),
      enabled([sheet.pipes[0].id]),
      enabled(sheet.components.map((c) => c.id)),
    ]
    expect(nothing.has('rotate') || nothing.has('delete') || nothing.has('junction')).toBe(false)
    expect(one.has('swapPorts') && one.has('enclose') && !one.has('align-left')).toBe(true)
    expect(pipe.has('junction') && pipe.has('delete') && !pipe.has('rotate') && !pipe.has('reroute')).toBe(
      true,
    )
    expect(all.has('distribute-x') && !all.has('swapPorts') && !all.has('properties')).toBe(true)
  })
  it('add a junction to a pipe, reroute it and swap ports, each as one step', () => {
    const { state, named, context } = contextOf(sheet, [sheet.pipes[0].id])
    named('junction').run()
    expect(state.sheet.junctions).toHaveLength(sheet.junctions.length + 1)
    expect(context.sheetDocument.apply).toHaveBeenCalledTimes(1)
    const swap = contextOf(sheet, [relief])
    swap.named('swapPorts').run()
    const at = (s: Sheet) =>
      s.pipes.flatMap((p) => [p.from, p.to]).filter((e) => 'component' in e && e.component === relief)
    expect(at(swap.state.sheet)).not.toEqual(at(sheet))
  })
  it('switch what is shown, and say which way', () => {
    const { named, context } = contextOf(sheet)
    expect(labelOf(named('settings'))).toMatch(/^Hide/)
    named('settings').run()
    expect(context.editor.settings).toBe(false)
    expect(labelOf(named('settings'))).toMatch(/^Show/)
    named('search').run()
    expect(context.editor.dialog).toBe('search')
    named('export-dxf').run()
    expect(context.exportAs).toHaveBeenCalledWith(expect.objectContaining({ name: 'dxf' }))
    expect(labelOf(named('annotation-ports'))).toBe('Show port letters')
    named('annotation-ports').run()
    expect(context.sheetDocument.sheet.annotations.ports).toBe(true)
    expect(labelOf(named('annotation-ports'))).toBe('Hide port letters')
  })
})
