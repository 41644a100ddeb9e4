/**
 * Paths and step sequences as an IEC 61131-10 project: ladder rungs with timers and counters as function blocks (IEC 61131-3), a
 * sequential function chart for each sequence, their variables with what TRUE means of each, and a task that calls them. Nothing that
 * the program does stands in the data of our own, which only tell from which devices and references it came.
 */
import type { Sheet } from '../../sheet/schema'
import { element, writeXml, type XmlElement } from '../xml'
import { ORIGIN, NAMESPACE } from './schema'
import { Variables, type Variable } from './variables'
import { chartElements } from './write-chart'
import { blockRung, documentation, rungElement } from './write-rungs'

/** Interval at which the programs are called. */
const CYCLE = 'T#0.01s'
const SECTIONS = ['inputs', 'outputs', 'memory', 'function blocks'] as const

/** @param date of the file, ISO 8601 */
export function controlToXml(sheet: Sheet, date = '2026-01-01T00:00:00'): string {
  const { control } = sheet
  const variables = new Variables(sheet)
  /** Names that are no variables: charts, steps, transitions. */
  const named: [name: string, ref: string][] = []
  const nameOf = (key: string, ref: string) => {
    const name = variables.names.of(key)
    named.push([name, ref])
    return name
  }
  // paths and conditions first: what they ask of steps becomes actions of the charts
  const rungs = control.rungs.map((rung, i) => rungElement(rung, i, variables))
  const charts = control.sequences.map((sequence) => chartElements(sequence, variables, nameOf))
  const programs = [
    ...control.sequences.map(({ id }, i) => ({
      name: nameOf(`Sequence ${id}`, id),
      body: element('BodyContent', { 'xsi:type': 'SFC' }, charts[i]()),
    })),
    {
      name: 'Paths',
      body: element('BodyContent', { 'xsi:type': 'LD' }, [
        ...rungs,
        ...variables.blocks().map((block, i) => blockRung(block, rungs.length + i)),
      ]),
    },
  ].filter(({ body }) => body.children.length)
  const all = variables.all()
  const project = element(
    'Project',
    {
      xmlns: NAMESPACE,
      'xmlns:xsi': 'http://www.w3.org/2001/XMLSchema-instance',
      schemaVersion: '1.0',
    },
    [
      element('FileHeader', { companyName: '', productName: 'Oar Bench', productVersion: '2' }),
      element('ContentHeader', { name: sheet.title, creationDateTime: date }),
      element('Types', {}, [
        element(
          'GlobalNamespace',
          {},
          programs.map(({ name, body }) =>
            element('Program', { name }, [
              element('ExternalVars', {}, all.map(external)),
              element('MainBody', {}, [body]),
            ]),
          ),
        ),
      ]),
      element('Instances', {}, [
        element('Configuration', { name: 'Machine' }, [
          element('Resource', { name: 'Controller', resourceTypeName: 'Controller' }, [
            element('Task', { name: 'Cycle', interval: CYCLE, priority: '1' }),
            ...SECTIONS.map((section) =>
              element('GlobalVars', {}, [
                documentation(section),
                ...all.filter((v) => v.section === section).map(declaration),
              ]),
            ).filter(({ children }) => children.length > 1),
            ...programs.map(({ name }) =>
              element('ProgramInstance', {
                name: `Run_${name}`,
                typeName: name,
                associatedTaskName: 'Cycle',
              }),
            ),
          ]),
        ]),
      ]),
      element('AddData', {}, [
        element('Data', { name: ORIGIN, handleUnknown: 'preserve' }, [
          ...[...all.map((v): [string, string] => [v.name, v.ref]), ...named].map(([name, ref]) =>
            element('Name', { name, ref }),
          ),
          ...control.devices.map(deviceElement),
        ]),
      ]),
    ],
  )
  return `<?xml version="1.0" encoding="UTF-8"?>\n${writeXml(project)}`
}

const typeElement = (name: string) => element('Type', {}, [element('TypeName', {}, [], name)])
const external = ({ name, typeName }: Variable) => element('Variable', { name }, [typeElement(typeName)])
const declaration = (v: Variable) =>
  element('Variable', { name: v.name }, [
    typeElement(v.typeName),
    ...(v.initial ? [element('InitialValue', {}, [element('SimpleValue', { value: v.initial })])] : []),
    documentation(v.documentation),
  ])

function deviceElement({
  id,
  type,
  designation,
  label,
  parameters,
}: Sheet['control']['devices'][number]): XmlElement {
  return element(
    'Device',
    { id, type, ...(designation ? { designation } : {}), label },
    Object.entries(parameters).map(([key, value]) =>
      element(
        'Parameter',
        { name: key, ...(typeof value === 'boolean' ? { boolean: 'true' } : {}) },
        [],
        String(value),
      ),
    ),
  )
}
