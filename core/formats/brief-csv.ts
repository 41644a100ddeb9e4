/** Motions and cycle of a brief as a table: one row a motion, then one row a step. */
import {
  actuators,
  briefProblems,
  briefSchema,
  LARGEST_BRIEF,
  motionChoices,
  motionFieldNames,
  type ActuatorName,
  type Brief,
  type CycleStep,
  type MotionChoiceName,
} from '../size/brief/brief'
import { rowsOf } from './csv-read'

/** Columns of what is chosen for a motion. */
const CHOICES = {
  holding: 'holding',
  mounting: 'mounting',
  speedControl: 'speed control',
  workWay: 'work way',
} as const satisfies Record<MotionChoiceName, string>
const choiceNames = Object.keys(CHOICES) as MotionChoiceName[]
const MOTION = [
  'motion',
  'name',
  'actuator',
  'designation',
  ...Object.values(CHOICES),
  'people',
  'load table',
] as const
const STEP = ['step', 'motion', 'way', 'start', 'delay', 'duration', 'condition'] as const

/** Rows of a brief; `readBriefCsv` reads them back. */
export const briefRows = ({ motions, cycle }: Brief): string[][] => [
  [...MOTION, ...motionFieldNames],
  ...motions.map((m) => [
    m.id,
    m.name,
    m.actuator,
    m.designation,
    ...choiceNames.map((name) => m[name]),
    m.people ? 'yes' : 'no',
    m.loadTable.map(([x, force]) => `${x}: ${force}`).join('; '),
    ...motionFieldNames.map((name) => m.values[name] ?? ''),
  ]),
  [...STEP],
  ...cycle.map((s) => [s.id, s.motion ?? '', s.way, s.start, s.delay ?? '', s.duration ?? '', s.condition]),
]

/**
 * Takes motions and cycle from a table, the rest from a brief.
 * @returns the brief, or what is wrong and in which row
 */
export function readBriefCsv(
  text: string,
  brief: Brief,
): { readonly brief: Brief } | { readonly message: string } {
  const read = rowsOf(text)
  if (!read.ok) return { message: read.message }
  let heading: string[] = []
  const motions: unknown[] = []
  const cycle: unknown[] = []
  for (const { cells, line } of read.value) {
    const [first] = cells
    if (first.toLowerCase() === 'motion' || first.toLowerCase() === 'step') {
      heading = cells
      const known = new Set<string>(
        first.toLowerCase() === 'motion' ? [...MOTION, ...motionFieldNames] : STEP,
      )
      const unknown = heading.find((name) => name && !known.has(name))
      if (unknown) return { message: `Row ${line}: there is no column "${unknown}".` }
      continue
    }
    if (!heading.length) return { message: `Row ${line}: a heading that begins with "motion" is missing.` }
    const cell = (name: string) => cells[heading.indexOf(name)] ?? ''
    if (heading[0] === 'motion') {
      const actuator = cell('actuator') || 'doubleActing'
      if (!Object.hasOwn(actuators, actuator))
        return { message: `Row ${line}: the actuator is one of ${Object.keys(actuators).join(', ')}.` }
      // what is left out is as usual
      const chosen = choiceNames.flatMap((name) => {
        const option = cell(CHOICES[name])
        return option ? [[name, option] as const] : []
      })
      const wrong = chosen.find(([name, option]) => !Object.hasOwn(motionChoices[name].options, option))
      if (wrong) {
        const options = Object.keys(motionChoices[wrong[0]].options).join(', ')
        return { message: `Row ${line}: ${CHOICES[wrong[0]]} is one of ${options}, not "${wrong[1]}".` }
      }
      const table = cell('load table')
        .split(';')
        .map((pair) => pair.split(':').map((part) => part.trim()))
        .filter((pair) => pair[0])
      if (table.some((pair) => pair.length !== 2))
        return { message: `Row ${line}: the load table is written as "0 mm: 1 kN; 200 mm: 5 kN".` }
      motions.push({
        id: first,
        name: cell('name') || first,
        actuator: actuator as ActuatorName,
        designation: cell('designation'),
        ...Object.fromEntries(chosen),
        people: /^(yes|true|1)$/i.test(cell('people')),
        loadTable: table,
        values: Object.fromEntries(
          motionFieldNames.flatMap((name) => (cell(name) ? [[name, cell(name)]] : [])),
        ),
      })
    } else
      cycle.push({
        id: first,
        motion: cell('motion') || undefined,
        way: cell('way') as CycleStep['way'],
        start: cell('start') || 'after',
        delay: cell('delay') || undefined,
        duration: cell('duration') || undefined,
        condition: cell('condition'),
      })
  }
  if (motions.length > LARGEST_BRIEF.motions)
    return { message: `There are more than ${LARGEST_BRIEF.motions} motions.` }
  const parsed = briefSchema.safeParse({ ...brief, motions, cycle })
  if (!parsed.success) {
    const [issue] = parsed.error.issues
    return { message: `${issue.path.join('.')}: ${issue.message}` }
  }
  const [problem] = briefProblems(parsed.data)
  if (problem) {
    const whose = parsed.data.motions.find((m) => m.id === problem.motion)?.name ?? problem.step
    return { message: `${whose ? `${whose}: ` : ''}${problem.message}` }
  }
  return { brief: parsed.data }
}
