/** The structure of IEC 61131-10 files as far as paths and step sequences need it, after the elements of the standard. */
import { z } from 'zod'

export const NAMESPACE = 'www.iec.ch/public/TC65SC65BWG7TF10'
/** Data of our own: from which devices and references the variables came. */
export const ORIGIN = 'urn:oar-bench:devices'
/** Data of our own: the text of a path that could not be read. */
export const UNREAD = 'urn:oar-bench:unread'
/** Action qualifiers of the standard. */
export const QUALIFIERS = { while: 'N', set: 'S', reset: 'R', delayed: 'D', limited: 'L' } as const

const textElement = (name: string) => z.object({ name: z.literal(name), text: z.string() })
const number = z.string().regex(/^\d{1,6}$/)
const variableName = z.string().regex(/^\w{1,200}$/)
const operand = z.string().regex(/^[\w.]{1,200}$/)
export const inPoint = z.object({
  name: z.literal('ConnectionPointIn'),
  children: z.array(
    z.object({ name: z.literal('Connection'), attributes: z.object({ refConnectionPointOutId: number }) }),
  ),
})
export const outPoint = z.object({
  name: z.enum(['ConnectionPointOut', 'ConnectionPointOutAction']),
  attributes: z.object({ connectionPointOutId: number }),
})
const points = z.union([inPoint, outPoint])
export const ldObject = z.object({
  name: z.literal('LdObject'),
  attributes: z.object({
    'xsi:type': z.enum(['LeftPowerRail', 'Contact', 'Coil']),
    operand: operand.optional(),
    negated: z.enum(['true', 'false']).optional(),
    /** Of files of version 1: how long a step has been active. */
    duration: z.string().optional(),
  }),
  children: z.array(points),
})
const dataSource = z.object({
  name: z.literal('FbdObject'),
  attributes: z.object({ 'xsi:type': z.literal('DataSource'), identifier: z.string() }),
  children: z.tuple([outPoint]),
})
const inputVariable = z.object({
  name: z.literal('InputVariable'),
  attributes: z.object({ parameterName: z.string() }),
  children: z.tuple([inPoint]),
})
const block = z.object({
  name: z.literal('FbdObject'),
  attributes: z.object({
    'xsi:type': z.literal('Block'),
    typeName: z.string(),
    instanceName: variableName,
  }),
  children: z.tuple([
    z.object({ name: z.literal('InputVariables'), children: z.array(inputVariable) }),
    z.object({ name: z.literal('OutputVariables') }),
  ]),
})
export const fbdObject = z.union([dataSource, block])
const unread = z.object({
  name: z.literal('AddData'),
  children: z.tuple([
    z.object({
      name: z.literal('Data'),
      attributes: z.object({ name: z.literal(UNREAD) }),
      children: z.tuple([textElement('Text')]),
    }),
  ]),
})
export const rungSchema = z.object({
  name: z.literal('Rung'),
  attributes: z.object({ evaluationOrder: number, label: z.string().optional() }),
  children: z.array(
    z.union([ldObject, fbdObject, textElement('Documentation'), textElement('Unread'), unread]),
  ),
})
export const actionElement = z.object({
  name: z.literal('Action'),
  attributes: z.object({ qualifier: z.enum(['N', 'S', 'R', 'D', 'L']), duration: z.string().optional() }),
  children: z.tuple([
    z.object({ name: z.literal('Reference'), attributes: z.object({ name: variableName }) }),
  ]),
})
export const sfcObject = z.object({
  name: z.literal('SfcObject'),
  attributes: z.object({
    'xsi:type': z.enum([
      'Step',
      'Transition',
      'ActionBlock',
      'SelectionDivergence',
      'SelectionConvergence',
      'SimultaneousDivergence',
      'SimultaneousConvergence',
    ]),
    name: z.string().optional(),
    initialStep: z.enum(['true', 'false']).optional(),
  }),
  children: z.array(
    z.union([
      points,
      actionElement,
      textElement('Documentation'),
      z.object({ name: z.literal('Condition'), children: z.tuple([textElement('Inline')]) }),
    ]),
  ),
})
const bodySchema = z.object({
  name: z.literal('BodyContent'),
  attributes: z.object({ 'xsi:type': z.enum(['LD', 'SFC']) }),
  children: z.array(z.union([rungSchema, sfcObject, textElement('Documentation')])),
})
export const variableSchema = z.object({
  name: z.literal('Variable'),
  attributes: z.object({ name: variableName }),
  children: z.array(
    z.union([
      z.object({ name: z.literal('Type'), children: z.tuple([textElement('TypeName')]) }),
      z.object({
        name: z.literal('InitialValue'),
        children: z.tuple([
          z.object({ name: z.literal('SimpleValue'), attributes: z.object({ value: z.string() }) }),
        ]),
      }),
      textElement('Documentation'),
    ]),
  ),
})
export const programSchema = z.object({
  name: z.literal('Program'),
  attributes: z.object({ name: z.string() }),
  children: z.tuple([
    z.object({ name: z.literal('ExternalVars'), children: z.array(variableSchema) }),
    z.object({ name: z.literal('MainBody'), children: z.tuple([bodySchema]) }),
  ]),
})
export const deviceSchema = z.object({
  name: z.literal('Device'),
  attributes: z.object({
    id: z.string(),
    type: z.string(),
    designation: z.string().optional(),
    label: z.string(),
  }),
  children: z.array(
    z.object({
      name: z.literal('Parameter'),
      attributes: z.object({ name: z.string(), boolean: z.literal('true').optional() }),
      text: z.string(),
    }),
  ),
})
const nameSchema = z.object({
  name: z.literal('Name'),
  attributes: z.object({ name: z.string(), ref: z.string() }),
})
const typesSchema = z.object({
  name: z.literal('Types'),
  children: z.tuple([z.object({ name: z.literal('GlobalNamespace'), children: z.array(programSchema) })]),
})
const globals = z.object({
  name: z.literal('GlobalVars'),
  children: z.array(z.union([variableSchema, textElement('Documentation')])),
})
const resource = z.object({
  name: z.literal('Resource'),
  children: z.array(
    z.union([
      globals,
      z.object({ name: z.literal('Task') }),
      z.object({ name: z.literal('ProgramInstance') }),
    ]),
  ),
})
const instancesSchema = z.object({
  name: z.literal('Instances'),
  children: z.tuple([z.object({ name: z.literal('Configuration'), children: z.tuple([resource]) })]),
})
const originSchema = z.object({
  name: z.literal('AddData'),
  children: z.tuple([
    z.object({
      name: z.literal('Data'),
      attributes: z.object({ name: z.literal(ORIGIN) }),
      children: z.array(z.union([nameSchema, deviceSchema])),
    }),
  ]),
})
const root = { name: z.literal('Project'), attributes: z.object({ xmlns: z.literal(NAMESPACE) }) }
const fileHeader = z.object({ name: z.literal('FileHeader') })
const contentHeader = z.object({ name: z.literal('ContentHeader') })
export const projectSchema = z.object({
  ...root,
  children: z.union([
    z.tuple([fileHeader, contentHeader, typesSchema, instancesSchema, originSchema]),
    // version 1 had no instances
    z.tuple([fileHeader, contentHeader, typesSchema, originSchema]),
  ]),
})
export type Project = z.infer<typeof projectSchema>
export type Types = z.infer<typeof typesSchema>
export type Instances = z.infer<typeof instancesSchema>
export type Origin = z.infer<typeof originSchema>
export type Program = z.infer<typeof programSchema>
export type Rung = z.infer<typeof rungSchema>
export type SfcObject = z.infer<typeof sfcObject>
export type LdObject = z.infer<typeof ldObject>
export type FbdObject = z.infer<typeof fbdObject>
