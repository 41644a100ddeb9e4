/** The sheet file: the single description from which types, validation and JSON Schema come. */
import { z } from 'zod'

export const SHEET_FORMAT = 'oar-bench-sheet'
export const SHEET_VERSION = 11

const identifier = z
  .string()
  .min(1)
  .max(64)
  .regex(/^[A-Za-z0-9][A-Za-z0-9_-]*$/, 'Use letters, digits, "-" and "_", starting with a letter or digit.')
/** Control characters, line ends and halves of letters: they break drawing files and cannot be seen. */
const UNPRINTABLE = /[\p{Cc}\p{Cs}\u2028\u2029]/u
export const UNPRINTABLE_MESSAGE = 'has a line break or a control character; write it in one line of letters'
/** Half of a letter of two parts (a lone surrogate) is no text that a file in UTF-8 can keep. */
export const isWellFormed = (text: string) => !/\p{Cs}/u.test(text)
export const ILL_FORMED_MESSAGE = 'has half of a letter; write it again'
export const isPrintable = (text: string) => !UNPRINTABLE.test(text)
const printable = (longest: number) =>
  z.string().max(longest).refine(isPrintable, { error: UNPRINTABLE_MESSAGE })
const shortText = printable(200)
/** Words on the sheet may have several lines. */
const words = z
  .string()
  .min(1)
  .max(500)
  .refine((text) => isPrintable(text.replaceAll('\n', '')), { error: 'has a control character' })
const written = z
  .string()
  .min(1)
  .max(60)
  .refine(isPrintable, { error: UNPRINTABLE_MESSAGE })
  .describe('A value with its unit, for example "160 bar"; ratios may stand without one.')
const coordinate = z.number().int().min(-5000).max(5000)

export const endSchema = z.union([
  z.strictObject({ component: identifier, port: z.string().min(1).max(8) }),
  z.strictObject({ junction: identifier }),
])

export const tableSchema = z
  .array(z.tuple([written, written]))
  .min(2)
  .max(200)
  .describe('Pairs of written values, the first of each rising; straight lines between them.')

/** Parameters of one component; no kind has nearly so many. */
const MOST_PARAMETERS = 200

export const componentSchema = z.strictObject({
  id: identifier.describe('Unique on the sheet; used by pipes, schedules and the command line.'),
  kind: z.string().min(1).max(64),
  designation: printable(24).min(1).optional(),
  x: coordinate.default(0),
  y: coordinate.default(0),
  rotation: z
    .union([z.literal(0), z.literal(1), z.literal(2), z.literal(3)])
    .default(0)
    .describe('Quarter turns clockwise.'),
  mirrored: z.boolean().default(false).describe('Left and right exchanged before rotation.'),
  form: z
    .enum(['simplified', 'detailed'])
    .optional()
    .describe('How the symbol is drawn where it has two forms; simplified where nothing is said.'),
  peopleUnder: z
    .boolean()
    .optional()
    .describe('People may be under what it holds; the checks then ask for more than a single valve.'),
  parameters: z
    .record(z.string().max(64), z.union([words, z.boolean(), tableSchema]))
    .refine((values) => Object.keys(values).length <= MOST_PARAMETERS, {
      error: `has more than ${MOST_PARAMETERS} entries`,
    })
    .default({})
    .describe('Values that differ from the default: written with a unit, words, true or false, or a table.'),
})

export const junctionSchema = z.strictObject({
  id: identifier,
  x: coordinate.default(0),
  y: coordinate.default(0),
})

export const pipeSchema = z.strictObject({
  id: identifier,
  name: shortText.optional().describe('Name of the line, used for its pressure in results.'),
  lineType: z.enum(['working', 'pilot', 'drain', 'hose', 'shaft', 'rod']).default('working'),
  from: endSchema,
  to: endSchema,
  route: z
    .array(z.tuple([coordinate, coordinate]))
    .max(200)
    .default([])
    .describe('Corners between the two ends, in modules.'),
  manualRoute: z
    .boolean()
    .optional()
    .describe('True: the corners were set by hand, and are kept where an end moves.'),
  length: written.default('1 m'),
  bore: written.default('12 mm'),
  volume: written.optional().describe('Oil volume; without it, that of the bore.'),
  rating: written.optional().describe('Highest working pressure of the pipe or hose.'),
  construction: shortText
    .optional()
    .describe('Kind of pipe or hose, as it is ordered: "20 × 2, E235" or "DN 12, 2SN".'),
  lineModel: z
    .enum(['automatic', 'lossFree', 'friction', 'distributed'])
    .default('automatic')
    .describe(
      'How its oil is computed: without loss; with friction and inertia; in segments, so that pressure waves run in it; or as its flow asks for.',
    ),
  wall: written.optional().describe('Thickness of the wall: with its material it gives beside the oil.'),
  material: z.enum(['steel', 'stainless', 'copper', 'aluminium']).optional().describe('Of the wall.'),
})

export const fluidSchema = z.strictObject({
  name: shortText.default('Mineral oil, 46 mm²/s at 40 °C'),
  density15: written.default('870 kg/m³'),
  viscosity40: written.default('46 mm²/s'),
  viscosity100: written.default('6.8 mm²/s'),
  temperature: written.default('40 °C'),
  bulkModulus: written.default('1500 MPa'),
  freeAir: written.default('0.5 %'),
  airExponent: written.default('1.4'),
})

export const tankSchema = z.strictObject({
  oil: written.default('100 L').describe('Oil in each tank at the start.'),
  ambient: written.default('20 °C'),
  heatLoss: written
    .default('15 W/K')
    .describe('Heat that tank and lines give off for each kelvin above the surroundings.'),
  warming: z
    .boolean()
    .default(false)
    .describe('True: the heat of a run warms the oil. False: its temperature stays.'),
})

export const lineSpeedsSchema = z.strictObject({
  suction: written.default('1.2 m/s'),
  return: written.default('3 m/s'),
  pressure: written.default('7 m/s'),
})

/** A row of the revision table. */
export const changeSchema = z.strictObject({
  issue: shortText.default('').describe('Revision letter or number, as written.'),
  change: shortText.default('').describe('What was changed.'),
  date: shortText.default(''),
  by: shortText.default(''),
})

/** Rows of the revision table. */
export const MOST_CHANGES = 30

export const pageSchema = z.strictObject({
  size: z
    .enum(['A4', 'A3', 'A2', 'A1', 'ANSI A', 'ANSI B', 'ANSI C', 'ANSI D'])
    .default('A3')
    .describe('Paper of the drawing (ISO 216; ASME Y14.1 for inch sizes).'),
  upright: z.boolean().default(false).describe('True: the short side is at the bottom.'),
  owner: shortText.default('').describe('Legal owner of the drawing.'),
  documentType: shortText.default('Circuit diagram'),
  number: shortText.default('').describe('Drawing number.'),
  sheetNumber: z.number().int().min(1).max(999).default(1),
  sheets: z.number().int().min(1).max(999).default(1).describe('Number of sheets of the document.'),
  drawnBy: shortText.default(''),
  approvedBy: shortText.default(''),
  date: shortText.default('').describe('Date of issue, as written.'),
  issue: shortText.default('').describe('Revision letter or number, as written.'),
  changes: z.array(changeSchema).max(MOST_CHANGES).default([]).describe('Revision table, the latest last.'),
})

export const designationStyles = ['typeLetter', 'mediumLetter'] as const
export const annotationSchema = z.strictObject({
  designations: z
    .enum(designationStyles)
    .default('typeLetter')
    .describe(
      'typeLetter: 1-2V3, with the letter of the type of component. mediumLetter: 1-H2.3, with that of the medium (ISO 1219-2:2012).',
    ),
  ports: z.boolean().default(false).describe('Port letters beside the ports.'),
  coils: z.boolean().default(false).describe('Letters a and b at the solenoids.'),
  pipes: z.boolean().default(false).describe('Bore of pipes and hoses.'),
  rotation: z.boolean().default(false).describe('Arrows of the direction of rotation at shafts.'),
  fluid: z.boolean().default(false).describe('Fluid, viscosity and oil in the tank, beside the drawing.'),
})

/** A finding of the design checks that somebody has looked at and accepts. */
export const acceptedWarningSchema = z.strictObject({
  rule: z.string().min(1).max(64),
  location: z
    .string()
    .max(80)
    .describe('Id of the component, pipe or junction concerned; empty for the whole sheet.'),
  reason: shortText.min(1),
})

/** A combination of commands whose operating point the state table gives. */
export const stateSchema = z.strictObject({
  name: shortText.min(1),
  commands: z
    .array(
      z.strictObject({
        component: identifier,
        input: z.string().min(1).max(64),
        value: written,
      }),
    )
    .max(200)
    .describe('Inputs that are not as they are at rest.'),
})

export const PEN_COLOURS = ['red', 'blue', 'green', 'orange', 'violet', 'brown'] as const
/** The way of the oil in a state, kept on the sheet as the stroke of a pen. */
export const penSchema = z.strictObject({
  id: identifier,
  name: shortText.min(1).describe('What the oil does there, for the legend.'),
  colour: z.enum(PEN_COLOURS).default('red'),
  pipes: z
    .array(z.strictObject({ pipe: identifier, share: z.number().min(0).max(1) }))
    .max(5000)
    .describe('Pipes with the share of the oil that goes through each.'),
  shown: z.boolean().default(true),
})

export const trackSchema = z.strictObject({
  component: identifier,
  input: z.string().min(1).max(64),
  points: z
    .array(
      z.strictObject({
        at: written,
        value: written,
        shape: z
          .enum(['step', 'ramp'])
          .default('step')
          .describe('step: jumps at this time; ramp: a straight line from the point before.'),
      }),
    )
    .min(1)
    .max(2000),
})

/** Something done by hand: an input or a fault is set or released, a parameter changed while it runs. */
export const recordedActionSchema = z.strictObject({
  at: written,
  kind: z
    .enum(['set', 'release', 'parameter', 'longestStep'])
    .default('set')
    .describe('longestStep: from now on no step of the solver is longer than the value.'),
  component: z.string().max(64).default('').describe('Component, or pipe for a burst.'),
  target: z.string().max(64).default('').describe('Name of an input, a fault or a parameter.'),
  value: z.union([written, z.boolean(), tableSchema]).optional(),
})

export const scheduleSchema = z.strictObject({
  id: identifier,
  name: shortText.default('Schedule'),
  duration: written.default('5 s'),
  every: written.default('10 ms').describe('Interval of the recorded samples.'),
  start: z
    .enum(['initialValues', 'steadyState'])
    .default('initialValues')
    .describe(
      'initialValues: from the initial values of the sheet. steadyState: from the steady state with the commands at 0 s.',
    ),
  onBurst: z
    .enum(['report', 'stop', 'open'])
    .default('stop')
    .describe(
      'Where a line passes four times its lowest rating: report says so, stop ends the run there, open lets its oil out.',
    ),
  tolerance: z.number().min(1e-10).max(1e-2).default(1e-5).describe('Relative error allowed per step.'),
  tracks: z.array(trackSchema).max(500).default([]),
  actions: z
    .array(recordedActionSchema)
    .max(5000)
    .default([])
    .describe('What was done by hand, in order; from its instant on an input no longer follows its track.'),
  longestStep: written
    .optional()
    .describe('No step of the solver is longer: with that of a live run its actions give the same numbers.'),
  note: z.string().max(400).default(''),
})

/** A device of the control that does not stand on the sheet: a push button, a relay, a timer. */
export const controlDeviceSchema = z.strictObject({
  id: identifier.describe('Unique among components, devices, rungs and sequences.'),
  type: z.string().min(1).max(64),
  designation: printable(24).min(1).optional(),
  label: shortText.default('').describe('What it is for, in words: "Start".'),
  parameters: z
    .record(z.string().max(64), z.union([words, z.boolean()]))
    .refine((values) => Object.keys(values).length <= MOST_PARAMETERS, {
      error: `has more than ${MOST_PARAMETERS} entries`,
    })
    .default({}),
})

const expression = z
  .string()
  .max(500)
  .describe(
    'Contacts by id: "S1 + K1 · /S0". "·" in series, "+" parallel, "/" normally closed, "id.terminal" for one of several contacts.',
  )
export const rungSchema = z.strictObject({
  id: identifier,
  comment: shortText.default(''),
  contacts: expression.default(''),
  coils: z
    .array(z.string().min(1).max(80))
    .max(20)
    .default([])
    .describe('Coils that it drives: the id of a device, or "id.terminal".'),
})

export const stepActionSchema = z.strictObject({
  coil: z.string().min(1).max(80),
  qualifier: z
    .enum(['while', 'set', 'reset', 'delayed', 'limited'])
    .default('while')
    .describe(
      'while: as long as the step is active; set, reset: from its beginning on; delayed: after a time; limited: for a time at most.',
    ),
  time: written.optional(),
})
export const stepSchema = z.strictObject({
  id: identifier,
  name: shortText.default(''),
  initial: z.boolean().default(false),
  actions: z.array(stepActionSchema).max(20).default([]),
})
export const transitionSchema = z.strictObject({
  id: identifier,
  from: z.array(identifier).min(1).max(20),
  to: z.array(identifier).min(1).max(20),
  condition: expression.default(''),
})
/** Steps and transitions (IEC 60848). */
export const sequenceSchema = z.strictObject({
  id: identifier,
  name: shortText.default(''),
  steps: z.array(stepSchema).max(200).default([]),
  transitions: z.array(transitionSchema).max(300).default([]),
})
/** Something that must never be, to be proved. */
export const requirementSchema = z.strictObject({
  id: identifier,
  name: shortText.default(''),
  never: expression,
  assumed: z
    .boolean()
    .default(false)
    .describe('True: it cannot be, as a fact about the machine that proofs may use.'),
})
export const controlSchema = z.strictObject({
  layout: z
    .enum(['paths', 'rails'])
    .default('paths')
    .describe('paths: numbered upright current paths; rails: rungs between two upright rails.'),
  symbols: z
    .enum(['iec60617', 'brackets'])
    .default('iec60617')
    .describe(
      'Signs of contacts and coils: those of IEC 60617, or brackets as in ladder diagrams (IEC 61131-3).',
    ),
  colours: z.boolean().default(false).describe('True: all contacts of one relay have one colour.'),
  devices: z.array(controlDeviceSchema).max(500).default([]),
  rungs: z.array(rungSchema).max(1000).default([]),
  sequences: z.array(sequenceSchema).max(20).default([]),
  requirements: z.array(requirementSchema).max(50).default([]),
})

const cardId = z.string().min(1).max(100)
const cardVariable = z.string().min(1).max(60)
/** What a person decided while the machine was sized for this sheet. */
export const sizingSchema = z.strictObject({
  supply: z
    .string()
    .max(40)
    .optional()
    .describe('How the machine is supplied with oil here, where it is not as the brief says.'),
  values: z
    .record(cardId, z.record(cardVariable, z.string().max(60)))
    .default({})
    .describe('Values that stand in place of those computed, by card and variable.'),
  solved: z
    .record(cardId, z.strictObject({ unknown: cardVariable, wanted: cardVariable }))
    .default({})
    .describe('Inputs that are solved for, and the result that is wanted.'),
  components: z
    .record(cardId, z.array(z.string().max(40)).max(40))
    .default({})
    .describe(
      'Designations of the components that take the results of a card, or one result of it as card.variable.',
    ),
  reasons: z.record(cardId, z.string().max(400)).default({}).describe('Why something was chosen, by card.'),
  added: z.array(cardId).max(200).default([]),
  hidden: z.array(cardId).max(400).default([]),
})

export const sheetSchema = z.strictObject({
  format: z.literal(SHEET_FORMAT),
  version: z.literal(SHEET_VERSION),
  title: printable(200).min(1).default('Sheet'),
  page: pageSchema.default(() => pageSchema.parse({})),
  fluid: fluidSchema.default(() => fluidSchema.parse({})),
  tank: tankSchema.default(() => tankSchema.parse({})),
  lineSpeeds: lineSpeedsSchema
    .default(() => lineSpeedsSchema.parse({}))
    .describe('How fast oil may flow in a line before it is reported.'),
  annotations: annotationSchema
    .default(() => annotationSchema.parse({}))
    .describe('What is written beside the symbols.'),
  components: z.array(componentSchema).max(2000).default([]),
  junctions: z.array(junctionSchema).max(5000).default([]),
  pipes: z.array(pipeSchema).max(5000).default([]),
  schedules: z
    .array(scheduleSchema)
    .max(50)
    .default(() => [scheduleSchema.parse({ id: 'main' })]),
  initialPressures: z
    .record(z.string().max(80), written)
    .default({})
    .describe('Pressure of a line at the start, by "component.port"; 0 bar where nothing is said.'),
  acceptedWarnings: z.array(acceptedWarningSchema).max(500).default([]),
  states: z.array(stateSchema).max(100).default([]),
  pens: z.array(penSchema).max(24).default([]),
  control: controlSchema.default(() => controlSchema.parse({})),
  sizing: sizingSchema.default(() => sizingSchema.parse({})),
})

export type Sheet = z.infer<typeof sheetSchema>
export type SheetComponent = z.infer<typeof componentSchema>
/** What a component is called: as it is designated, else its id. */
export const nameOf = ({ id, designation }: { readonly id: string; readonly designation?: string }) =>
  designation ?? id
export type Junction = z.infer<typeof junctionSchema>
export type Pipe = z.infer<typeof pipeSchema>
export type PipeEnd = z.infer<typeof endSchema>
export type LineSpeedSettings = z.infer<typeof lineSpeedsSchema>
export type TankSettings = z.infer<typeof tankSchema>
export type TableText = z.infer<typeof tableSchema>
export type FluidSettings = z.infer<typeof fluidSchema>
export type RecordedAction = z.infer<typeof recordedActionSchema>
export type Schedule = z.infer<typeof scheduleSchema>
export type PageSettings = z.infer<typeof pageSchema>
export type DrawingChange = z.infer<typeof changeSchema>
export type Annotations = z.infer<typeof annotationSchema>
export type AcceptedWarning = z.infer<typeof acceptedWarningSchema>
export type SheetState = z.infer<typeof stateSchema>
export type Pen = z.infer<typeof penSchema>
export type PenColour = Pen['colour']
export type Track = z.infer<typeof trackSchema>
export type ControlSection = z.infer<typeof controlSchema>
export type ControlDeviceData = z.infer<typeof controlDeviceSchema>
export type Rung = z.infer<typeof rungSchema>
export type StepAction = z.infer<typeof stepActionSchema>
export type SequenceStep = z.infer<typeof stepSchema>
export type Transition = z.infer<typeof transitionSchema>
export type Sequence = z.infer<typeof sequenceSchema>
export type Requirement = z.infer<typeof requirementSchema>
export type SheetSizing = z.infer<typeof sizingSchema>

export const emptySheet = (title: string): Sheet =>
  sheetSchema.parse({ format: SHEET_FORMAT, version: SHEET_VERSION, title })
