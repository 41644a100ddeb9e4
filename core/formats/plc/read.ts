/** Paths and step sequences from an IEC 61131-10 file that was written here. */
import { resolveDevice } from '../../control/terminals'
import { controlSchema, type ControlDeviceData, type ControlSection } from '../../sheet/schema'
import { parseXml, type XmlElement } from '../xml'
import type { Meanings } from './meanings'
import { secondsOf } from './names'
import { delayFlags, sequenceOf } from './read-chart'
import { constantsOf, isCall, rungOf } from './read-rungs'
import {
  NAMESPACE,
  projectSchema,
  type Instances,
  type Origin,
  type Project,
  type Rung,
  type SfcObject,
  type Types,
} from './schema'

/** Reads the control of a file. Never throws; what is not understood is said in words. */
export function controlFromXml(
  text: string,
):
  { readonly ok: true; readonly control: ControlSection } | { readonly ok: false; readonly message: string } {
  try {
    const root = parseXml(text)
    if (root.name !== 'Project' || root.attributes.xmlns !== NAMESPACE)
      return {
        ok: false,
        message: 'This is no IEC 61131-10 file: its root is not a Project of that namespace.',
      }
    const read = projectSchema.safeParse(root)
    if (!read.success) {
      const found = deepest(read.error.issues)
      return {
        ok: false,
        message: `The file has parts that are not understood here, at ${placeOf(root, found)}. Paths of contacts and coils, timers, counters and step charts are, as they are written here.`,
      }
    }
    return { ok: true, control: controlOfProject(read.data) }
  } catch (error) {
    return { ok: false, message: (error as Error).message }
  }
}

interface Issue {
  readonly path: readonly PropertyKey[]
  readonly errors?: readonly (readonly Issue[])[]
}
/** The path of the issue that lies deepest: of alternatives the one that was nearest. */
function deepest(issues: readonly Issue[]): readonly PropertyKey[] {
  let found: readonly PropertyKey[] = []
  for (const { path, errors } of issues) {
    const inner = (errors ?? []).map(deepest).reduce((a, b) => (b.length > a.length ? b : a), [])
    if (path.length + inner.length >= found.length) found = [...path, ...inner]
  }
  return found
}
/** The names of the elements on the way to an issue. */
function placeOf(root: XmlElement, path: readonly PropertyKey[]): string {
  const names = [root.name]
  let at: XmlElement | undefined = root
  for (let i = 0; i + 1 < path.length && at; i++)
    if (path[i] === 'children' && typeof path[i + 1] === 'number') {
      at = at.children[path[i + 1] as number]
      if (at) names.push(at.attributes.name ? `${at.name} ${at.attributes.name}` : at.name)
    }
  return names.join(' > ')
}

const partOf = <T extends { name: string }>(project: Project, name: T['name']): T | undefined =>
  (project.children as readonly { name: string }[]).find((c): c is T => c.name === name)

function controlOfProject(project: Project): ControlSection {
  const programs = partOf<Types>(project, 'Types')!.children[0].children
  const origin = partOf<Origin>(project, 'AddData')!.children[0].children
  const globals = (partOf<Instances>(project, 'Instances')?.children[0].children[0].children ?? []).flatMap(
    (c) => ('children' in c ? c.children : []),
  )
  const invertedNames = new Set(
    globals.flatMap((v) =>
      'children' in v && v.children.some((c) => c.name === 'InitialValue' && isTrue(c))
        ? [v.attributes.name]
        : [],
    ),
  )
  const names = origin.flatMap((c) => (c.name === 'Name' ? [c] : []))
  const refs = new Map(
    names.length
      ? names.map(({ attributes: { name, ref } }) => [name, ref] as const)
      : documentedNames(programs),
  )
  const refOf = (name: string | undefined): string => {
    const ref = name === undefined ? undefined : refs.get(name)
    if (ref === undefined) throw new Error(`The file uses "${name ?? ''}", which it does not declare.`)
    return ref
  }
  const bodies = programs.map(({ attributes, children }) => ({
    name: attributes.name,
    body: children[1].children[0],
  }))
  const charts = bodies
    .filter(({ body }) => body.attributes['xsi:type'] === 'SFC')
    .map(({ name, body }) => ({
      id: refs.get(name) ?? name,
      parts: body.children as (SfcObject | { name: 'Documentation'; text: string })[],
    }))
  const isStep = (ref: string) => charts.some(({ id }) => ref.startsWith(`${id}.`))
  const delays = delayFlags(
    charts.map(({ parts }) => parts),
    (name) => isStep(refOf(name)),
  )
  const meanings: Meanings = {
    refOf,
    operandOf(operand) {
      const name = operand?.replace(/\.Q$/, '')
      return {
        ref: refOf(name),
        inverted: invertedNames.has(name ?? ''),
        seconds: delays.get(name ?? '') ?? 0,
      }
    },
  }
  const rungs = bodies.flatMap(({ body }) => body.children.filter((c): c is Rung => c.name === 'Rung'))
  const constants = constantsOf(rungs.filter(isCall), refOf)
  return controlSchema.parse({
    devices: origin
      .flatMap((c) => (c.name === 'Device' ? [c] : []))
      .map(({ attributes: { id, type, designation, label }, children }) =>
        withConstant(
          {
            id,
            type,
            ...(designation ? { designation } : {}),
            label,
            parameters: Object.fromEntries(
              children.map((p) => [p.attributes.name, p.attributes.boolean ? p.text === 'true' : p.text]),
            ),
          },
          constants.get(id),
        ),
      ),
    rungs: rungs.filter((rung) => !isCall(rung)).map((rung, i) => rungOf(rung, i, meanings)),
    sequences: charts.map(({ id, parts }) => sequenceOf(id, parts, meanings, isStep)),
  })
}
const isTrue = (initial: object) =>
  'children' in initial &&
  (initial.children as readonly { attributes: { value: string } }[])[0].attributes.value === 'TRUE'

/** Version 1 told what a variable stands for in its documentation. */
const documentedNames = (programs: Types['children'][0]['children']): [string, string][] =>
  programs.flatMap(({ children: [vars] }) =>
    vars.children.flatMap((v): [string, string][] => {
      const documentation = v.children.find((c) => c.name === 'Documentation')
      return documentation && 'text' in documentation ? [[v.attributes.name, documentation.text]] : []
    }),
  )

/** A timer or a counter as its function block is: what it is and its constant are read there. */
function withConstant(
  device: ControlDeviceData,
  found: { readonly typeName: string; readonly constant: string } | undefined,
): ControlDeviceData {
  const { resolved } = resolveDevice(device)
  const block = resolved?.type.functionBlock
  if (!found || !block) return device
  const values = block.valuesOf(found.typeName)
  if (!values)
    throw new Error(`${device.id} is a function block ${found.typeName}, which is no ${resolved.type.label}.`)
  const { parameter, type } = block.constant
  const value = type === 'TIME' ? secondsOf(found.constant) : Number(found.constant)
  if (value === undefined || !Number.isFinite(value))
    throw new Error(`${device.id}: "${found.constant}" is no ${type === 'TIME' ? 'time' : 'count'}.`)
  const changed = Object.entries(values).filter(([key, own]) => resolved.values[key] !== own)
  // what says the same stays as it was written
  const same = Math.abs(Number(resolved.values[parameter]) - value) < 1e-6 * Math.max(1, value)
  return {
    ...device,
    parameters: {
      ...device.parameters,
      ...Object.fromEntries(changed),
      ...(same ? {} : { [parameter]: type === 'TIME' ? `${value} s` : String(value) }),
    },
  }
}
