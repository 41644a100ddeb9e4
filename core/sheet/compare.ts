/** What two states of a sheet differ in, in the words of the drawing. */
import { findKind } from '../catalogue'
import type { Parameter } from '../catalogue/kind'
import {
  type DrawingChange,
  nameOf,
  type Pipe,
  type PipeEnd,
  type Schedule,
  type Sheet,
  type SheetComponent,
} from './schema'

export interface Change {
  readonly what: 'added' | 'removed' | 'changed'
  /** Designation, line or schedule concerned. */
  readonly name: string
  /** What it is, and for a change what of it: "setting: 160 bar → 200 bar". */
  readonly details: readonly string[]
  /** Id of the component or pipe, for showing it; none for the sheet itself. */
  readonly id?: string
}

const written = (value: unknown): string =>
  Array.isArray(value)
    ? value.map((pair) => (Array.isArray(pair) ? pair.join(': ') : String(pair))).join(', ')
    : typeof value === 'boolean'
      ? value
        ? 'yes'
        : 'no'
      : String(value)
const step = (label: string, before: unknown, after: unknown) =>
  `${label}: ${written(before)} → ${written(after)}`
const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)

/** Additions first, then what went, then what changed, each in the order of the sheet. Names of pipes are by their line. */
export function compareSheets(before: Sheet, after: Sheet): Change[] {
  const changes = [
    ...items(before.components, after.components, nameOf, componentWords, componentChanges),
    ...items(
      before.pipes,
      after.pipes,
      (p) => p.name ?? p.id,
      (p, s) => [pipeWords(p, s)],
      pipeChanges,
      before,
      after,
    ),
    ...items(
      before.schedules,
      after.schedules,
      (s) => s.name,
      () => ['schedule'],
      scheduleChanges,
    ),
    ...controlChanges(before, after),
    ...record('Fluid', before.fluid, after.fluid),
    ...record('Tank', before.tank, after.tank),
    ...record('Page', withoutChanges(before), withoutChanges(after)),
    ...texts('Revision table', before.page.changes.map(changeWords), after.page.changes.map(changeWords)),
    ...record('Written on the sheet', before.annotations, after.annotations),
    ...record('Pressures at the start', before.initialPressures, after.initialPressures),
    ...(before.title === after.title
      ? []
      : [{ what: 'changed' as const, name: 'Title', details: [step('title', before.title, after.title)] }]),
    ...acceptedWarningChanges(before, after),
    ...listChanges('States of the state table', before.states, after.states),
    ...listChanges('Pen strokes', before.pens, after.pens),
  ]
  const order = { added: 0, removed: 1, changed: 2 }
  return changes.sort((a, b) => order[a.what] - order[b.what])
}

function items<T extends { id: string }>(
  before: readonly T[],
  after: readonly T[],
  name: (item: T) => string,
  words: (item: T, sheet: Sheet) => string[],
  differences: (a: T, b: T, before: Sheet, after: Sheet) => string[],
  sheetBefore?: Sheet,
  sheetAfter?: Sheet,
): Change[] {
  const old = new Map(before.map((item) => [item.id, item]))
  const now = new Map(after.map((item) => [item.id, item]))
  return [
    ...after.flatMap((item): Change[] => {
      const was = old.get(item.id)
      if (!was) return [{ what: 'added', name: name(item), details: words(item, sheetAfter!), id: item.id }]
      if (same(was, item)) return []
      const details = differences(was, item, sheetBefore!, sheetAfter!)
      return details.length ? [{ what: 'changed', name: name(item), details, id: item.id }] : []
    }),
    ...before.flatMap((item): Change[] =>
      now.has(item.id)
        ? []
        : [{ what: 'removed', name: name(item), details: words(item, sheetBefore!), id: item.id }],
    ),
  ]
}

const labelOf = (c: SheetComponent) => findKind(c.kind)?.label ?? c.kind
const componentWords = (c: SheetComponent) => [labelOf(c)]

function componentChanges(a: SheetComponent, b: SheetComponent): string[] {
  const details: string[] = []
  if (a.kind !== b.kind) details.push(step('kind', labelOf(a), labelOf(b)))
  if (a.designation !== b.designation) details.push(step('designation', nameOf(a), nameOf(b)))
  const parameters = { ...findKind(a.kind)?.parameters, ...findKind(b.kind)?.parameters } as Record<
    string,
    Parameter
  >
  for (const name of new Set([...Object.keys(a.parameters), ...Object.keys(b.parameters)])) {
    if (same(a.parameters[name], b.parameters[name])) continue
    const parameter = parameters[name]
    const usual = parameter && 'default' in parameter ? parameter.default : 'none'
    const [before, after] = [a.parameters[name] ?? usual, b.parameters[name] ?? usual]
    // written out or left at its usual value, it is the same
    if (!same(before, after)) details.push(step((parameter?.label ?? name).toLowerCase(), before, after))
  }
  if (a.peopleUnder !== b.peopleUnder)
    details.push(step('people under its load', a.peopleUnder ?? false, b.peopleUnder ?? false))
  if (a.form !== b.form) details.push(step('symbol', a.form ?? 'simplified', b.form ?? 'simplified'))
  if (a.x !== b.x || a.y !== b.y) details.push('moved')
  if (a.rotation !== b.rotation || a.mirrored !== b.mirrored) details.push('turned or mirrored')
  return details
}

function endWords(end: PipeEnd, sheet: Sheet): string {
  if ('junction' in end) return 'a junction'
  const component = sheet.components.find((c) => c.id === end.component)
  return `${component ? nameOf(component) : end.component} ${end.port}`
}
const pipeWords = (pipe: Pipe, sheet: Sheet) =>
  `${pipe.lineType} line from ${endWords(pipe.from, sheet)} to ${endWords(pipe.to, sheet)}`

function pipeChanges(a: Pipe, b: Pipe, before: Sheet, after: Sheet): string[] {
  const details: string[] = []
  const [was, is] = [pipeWords(a, before), pipeWords(b, after)]
  if (was !== is) details.push(`${was} → ${is}`)
  else if (!same(a.from, b.from) || !same(a.to, b.to)) details.push('other junctions')
  for (const name of [
    'name',
    'length',
    'bore',
    'volume',
    'rating',
    'construction',
    'lineModel',
    'wall',
    'material',
  ] as const)
    if (!same(a[name], b[name])) details.push(step(name, a[name] ?? 'none', b[name] ?? 'none'))
  if (!details.length && !same(a.route, b.route)) details.push('led another way')
  return details
}

function scheduleChanges(a: Schedule, b: Schedule): string[] {
  const details: string[] = []
  for (const name of ['name', 'duration', 'every', 'start', 'tolerance'] as const)
    if (a[name] !== b[name]) details.push(step(name, a[name], b[name]))
  if (!same(a.tracks, b.tracks)) details.push('other commands')
  return details
}

/** Changes of the control; a path is named by its number in the later sheet that has it. */
function controlChanges({ control: before }: Sheet, { control: after }: Sheet): Change[] {
  const number = (id: string) => {
    const at = after.rungs.findIndex((r) => r.id === id)
    return `Path ${(at < 0 ? before.rungs.findIndex((r) => r.id === id) : at) + 1}`
  }
  const differences = (a: object, b: object) => record('', a, b).flatMap(({ details }) => details)
  const { layout, symbols, colours } = after
  return [
    ...items(
      before.devices,
      after.devices,
      (d) => [nameOf(d), d.label].filter(Boolean).join(' '),
      (d) => [d.type],
      (a, b) =>
        differences({ ...a, parameters: '', ...a.parameters }, { ...b, parameters: '', ...b.parameters }),
    ),
    ...items(
      before.rungs,
      after.rungs,
      (r) => number(r.id),
      (r) => [`${r.contacts} → ${r.coils.join(', ')}`],
      differences,
    ),
    ...items(
      before.sequences,
      after.sequences,
      (s) => s.name || s.id,
      () => ['step sequence'],
      () => ['other steps or transitions'],
    ),
    ...items(
      before.requirements,
      after.requirements,
      (r) => r.name || r.id,
      (r) => [`must never be: ${r.never}`],
      differences,
    ),
    ...record(
      'Drawing of the control',
      { layout: before.layout, symbols: before.symbols, colours: before.colours },
      { layout, symbols, colours },
    ),
  ]
}

function record(name: string, before: object, after: object): Change[] {
  const [a, b] = [before as Record<string, unknown>, after as Record<string, unknown>]
  const details = [...new Set([...Object.keys(a), ...Object.keys(b)])]
    .filter((key) => !same(a[key], b[key]))
    .map((key) => step(key, a[key] ?? 'none', b[key] ?? 'none'))
  return details.length ? [{ what: 'changed', name, details }] : []
}

const withoutChanges = ({ page }: Sheet) => ({ ...page, changes: '' })
const changeWords = ({ issue, change, date, by }: DrawingChange) =>
  [issue, change, date, by].filter(Boolean).join(', ')
/** Rows of text that came and went. */
function texts(name: string, before: readonly string[], after: readonly string[]): Change[] {
  const details = [
    ...after.filter((row) => !before.includes(row)).map((row) => `added ${row}`),
    ...before.filter((row) => !after.includes(row)).map((row) => `removed ${row}`),
  ]
  return details.length ? [{ what: 'changed', name, details }] : []
}

/** Entries of a list with names that came, went or changed. */
function listChanges<T extends { readonly name: string }>(
  name: string,
  before: readonly T[],
  after: readonly T[],
): Change[] {
  const details = [
    ...after.flatMap((item) => {
      const was = before.find((b) => b.name === item.name)
      if (!was) return [`added ${item.name}`]
      return JSON.stringify(was) === JSON.stringify(item) ? [] : [`changed ${item.name}`]
    }),
    ...before.filter((b) => !after.some((a) => a.name === b.name)).map((b) => `removed ${b.name}`),
  ]
  return details.length ? [{ what: 'changed', name, details }] : []
}

function acceptedWarningChanges(before: Sheet, after: Sheet): Change[] {
  const key = (s: Sheet['acceptedWarnings'][number]) =>
    `${s.rule} at ${s.location || 'the sheet'}: ${s.reason}`
  const [was, is] = [before.acceptedWarnings.map(key), after.acceptedWarnings.map(key)]
  const details = [
    ...is.filter((s) => !was.includes(s)).map((s) => `accepted ${s}`),
    ...was.filter((s) => !is.includes(s)).map((s) => `no longer accepted ${s}`),
  ]
  return details.length ? [{ what: 'changed', name: 'Accepted warnings', details }] : []
}
