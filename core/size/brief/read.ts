/** Reads briefs of all versions. */
import { issueText } from '../../sheet/issue-text'
import { BRIEF_VERSION, briefSchema, type Brief, type CycleStep, type Motion } from './brief'

/** A brief of version 1: one cylinder with its values. */
interface FirstBrief {
  purpose?: string
  never?: string
  onLoss?: string
  values?: Record<string, string>
}
/** Defaults of version 1 that its machines were sized with wherever they gave some values. */
const FIRST_DEFAULTS: Readonly<Record<string, string>> = {
  stroke: '600 mm',
  advanceTime: '6 s',
  returnTime: '5 s',
  pressForce: '60 kN',
  returnForce: '4 kN',
  mass: '450 kg',
  pressStroke: '150 mm',
  workingPressure: '160 bar',
  shaftSpeed: '1500 rpm',
}

/** Decisions of version 1 that are inputs of cards now: by card and variable. */
const FIRST_CARD_VALUES: Readonly<Record<string, readonly [card: string, variable: string]>> = {
  lineLoss: ['cylinder-bore@motion', 'lineLoss'],
  backPressure: ['cylinder-bore@motion', 'backPressure'],
  cylinderEfficiency: ['cylinder-bore@motion', 'efficiency'],
  rodOverhang: ['cylinder-buckling@motion', 'overhang'],
  bucklingSafety: ['cylinder-buckling@motion', 'safety'],
  volumetricEfficiency: ['pump-displacement', 'volumetric'],
  hydromechanicalEfficiency: ['pump-displacement', 'hydromechanical'],
  reliefMargin: ['relief-setting', 'margin'],
  reliefOverride: ['relief-setting', 'override'],
  settingAt: ['relief-setting', 'settingAt'],
}

/**
 * A brief of version 1 in the present form. A brief in which no value was given describes no motion: its figures were the defaults of
 * the program and not those of the machine.
 */
function fromFirst({ purpose = '', never = '', onLoss = '', values: given = {} }: FirstBrief): unknown {
  const texts = { purpose, never, onLoss }
  if (!Object.keys(given).length) return { version: BRIEF_VERSION, ...texts }
  const values = { ...FIRST_DEFAULTS, ...given }
  const motion: Partial<Motion> = {
    id: 'motion',
    name: 'Motion',
    actuator: 'doubleActing',
    values: {
      stroke: values.stroke,
      outTime: values.advanceTime,
      backTime: values.returnTime,
      workForce: values.pressForce,
      workStroke: values.pressStroke,
      forceBack: values.returnForce,
      mass: values.mass,
    },
  }
  const cycle: Partial<CycleStep>[] = [
    { id: 'out', motion: 'motion', way: 'out' },
    { id: 'back', motion: 'motion', way: 'back' },
  ]
  const cards: Record<string, Record<string, string>> = {}
  for (const [name, [card, variable]] of Object.entries(FIRST_CARD_VALUES))
    if (given[name]) cards[card] = { ...cards[card], [variable]: given[name] }
  if (given.bucklingLength) {
    const factor =
      Number.parseFloat(given.bucklingLength.replace(',', '.')) /
      (given.bucklingLength.includes('%') ? 100 : 1)
    const [mounting] = Object.entries({
      fixedFixed: 0.5,
      fixedPivoted: 0.7,
      pivotedPivoted: 1,
      fixedFree: 2,
    }).sort((a, b) => Math.abs(a[1] - factor) - Math.abs(b[1] - factor))[0]
    cards['cylinder-buckling@motion'] = { ...cards['cylinder-buckling@motion'], mounting }
  }
  return {
    version: BRIEF_VERSION,
    ...texts,
    values: { maximumPressure: values.workingPressure, shaftSpeed: values.shaftSpeed },
    motions: [motion],
    cycle,
    cardValues: cards,
  }
}

/** Brings what was kept in an older version into the present form; leaves anything else as it is. */
export function migrateBrief(data: unknown): unknown {
  if (typeof data !== 'object' || data === null || Array.isArray(data)) return data
  const { version } = data as { version?: unknown }
  if (version === undefined) return fromFirst(data)
  // what version 3 added stands at its default: nothing was asked for before
  return version === 2 ? { ...data, version: BRIEF_VERSION } : data
}

/** Reads a brief of any version. @throws Error with words for people */
export function readBrief(data: unknown): Brief {
  const version = (data as { version?: unknown } | null)?.version
  if (typeof version === 'number' && version > BRIEF_VERSION)
    throw new Error(`The brief has version ${version}; this program reads up to version ${BRIEF_VERSION}.`)
  const parsed = briefSchema.safeParse(migrateBrief(data))
  if (parsed.success) return parsed.data
  throw new Error(`The brief cannot be read: ${issueText(parsed.error.issues[0], 'the brief')}`)
}
