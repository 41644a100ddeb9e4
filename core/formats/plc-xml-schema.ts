/** The structure of IEC 61131-10 files as far as paths and step sequences need it, after the elements of the standard. */
import { z } from 'zod'

export const NAMESPACE = 'www.iec.ch/public/TC65SC65BWG7TF10'
export const DEVICES = 'urn:oar-bench:devices'
/** Action qualifiers of the standard. */
export const QUALIFIERS = { while: 'N', set: 'S', reset: 'R', delayed: 'D', limited: 'L' } as const

const textElement = (name: string) => z.object({ name: z.literal(name), text: z.string() })
const number = z.string().regex(/^\d{1,6}$/)
export const inPoint = z.object({
  name: z.literal('ConnectionPointIn'),
  children: z.array(
    z.object({ name: z.literal('Connection'), attributes: z.object({ refConnectionPointOutId: number }) }),
  ),
})
export const outPoint = z.object({
  name: z.literal('ConnectionPointOut'),
  attributes: z.object({ connectionPointOutId: number }),
})
const points = z.union([inPoint, outPoint])
export const ldObject = z.object({
  name: z.literal('LdObject'),
  attributes: z.object({
    'xsi:type': z.enum(['LeftPowerRail', 'Contact', 'Coil']),
    operand: z.string().optional(),
    negated: z.enum(['true', 'false']).optional(),
    duration: z.string().optional(),
  }),
  children: z.array(points),
})
export const rungSchema = z.object({
  name: z.literal('Rung'),
  attributes: z.object({ evaluationOrder: number, label: z.string().optional() }),
  children: z.array(z.union([ldObject, textElement('Documentation'), textElement('Unread')])),
})
export const actionElement = z.object({
  name: z.literal('Action'),
  attributes: z.object({ qualifier: z.enum(['N', 'S', 'R', 'D', 'L']), duration: z.string().optional() }),
  children: z
    .array(z.object({ name: z.literal('Reference'), attributes: z.object({ name: z.string() }) }))
    .length(1),
})
export const sfcObject = z.object({
  name: z.literal('SfcObject'),
  attributes: z.object({
    'xsi:type': z.enum(['Step', 'Transition']),
    name: z.string(),
    initialStep: z.enum(['true', 'false']).optional(),
  }),
  children: z.array(
    z.union([
      points,
      actionElement,
      textElement('Documentation'),
      z.object({ name: z.literal('Condition'), children: z.array(textElement('Inline')).length(1) }),
    ]),
  ),
})
const bodySchema = z.object({
  name: z.literal('BodyContent'),
  attributes: z.object({ 'xsi:type': z.enum(['LD', 'SFC']) }),
  children: z.array(z.union([rungSchema, sfcObject, textElement('Documentation')])),
})
const programSchema = z.object({
  name: z.literal('Program'),
  attributes: z.object({ name: z.string() }),
  children: z.tuple([
    z.object({
      name: z.literal('ExternalVars'),
      children: z.array(
        z.object({
          name: z.literal('Variable'),
          attributes: z.object({ name: z.string().regex(/^[A-Za-z0-9_]+$/) }),
          children: z.tuple([
            z.object({ name: z.literal('Type'), children: z.tuple([textElement('TypeName')]) }),
            textElement('Documentation'),
          ]),
        }),
      ),
    }),
    z.object({ name: z.literal('MainBody'), children: z.tuple([bodySchema]) }),
  ]),
})
const deviceSchema = z.object({
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
/** The structure of IEC 61131-10 as far as paths and step sequences need it. */
export const projectSchema = z.object({
  name: z.literal('Project'),
  attributes: z.object({ xmlns: z.literal(NAMESPACE), schemaVersion: z.string() }),
  children: z.tuple([
    z.object({ name: z.literal('FileHeader') }),
    z.object({ name: z.literal('ContentHeader') }),
    z.object({
      name: z.literal('Types'),
      children: z.tuple([z.object({ name: z.literal('GlobalNamespace'), children: z.array(programSchema) })]),
    }),
    z.object({
      name: z.literal('AddData'),
      children: z.tuple([
        z.object({
          name: z.literal('Data'),
          attributes: z.object({ name: z.literal(DEVICES) }),
          children: z.array(deviceSchema),
        }),
      ]),
    }),
  ]),
})
export type Project = z.infer<typeof projectSchema>
