/** How far the metering edges of a spool are open over its position: by a notch, by two notches one after the other, or as measured. */
import { interpolate, notchOpening } from '../flow-laws'
import { quantity, type ChoiceParameter, type Table, type TableParameter } from '../kind'

const GROUP = 'Metering edges'
const edgeTable = (label: string) =>
  ({
    type: 'table',
    label,
    group: GROUP,
    note: 'measured; from the dead band on where it is left empty',
    x: { label: 'spool position', quantity: 'share' },
    y: { label: 'opening', quantity: 'share', min: 0, max: 1.5 },
  }) as const satisfies TableParameter

/** Of a spool that a proportional solenoid works against a spring: its dry friction holds it within this width. */
export const hysteresis = () =>
  quantity('Hysteresis', 'share', '0 %', 0, 0.3, {
    note: 'by dry friction, of the full stroke: 3 to 6 % is usual without, 1 % with feedback of its position',
  })

/** @param deadBand as usual for the kind */
export const meteringParameters = (deadBand: string, note?: string) =>
  ({
    deadBand: quantity('Dead band', 'share', deadBand, 0, 0.5, { note }),
    edges: {
      type: 'choice',
      label: 'Metering edges',
      default: 'notch',
      group: GROUP,
      choices: {
        notch: 'one notch, by its exponent',
        twoNotches: 'two notches, by their lengths',
        table: 'as measured',
      },
    } satisfies ChoiceParameter,
    exponent: quantity('Notch exponent', 'ratio', '1.5', 0.5, 4, {
      group: GROUP,
      note: '1 is linear; 1.5 is usual',
    }),
    fineLength: quantity('Length of the fine notch', 'share', '50 %', 0.01, 0.98, {
      group: GROUP,
      note: 'of the stroke beyond the dead band',
    }),
    fineIn: quantity('Opening at its end, inlet', 'share', '15 %', 0.001, 1, { group: GROUP }),
    fineOut: quantity('Opening at its end, outlet', 'share', '15 %', 0.001, 1, { group: GROUP }),
    inletTable: edgeTable('Inlet edge'),
    outletTable: edgeTable('Outlet edge'),
  }) as const

export interface MeteringValues {
  readonly deadBand: number
  readonly edges: 'notch' | 'twoNotches' | 'table'
  readonly exponent: number
  readonly fineLength: number
  readonly fineIn: number
  readonly fineOut: number
  readonly inletTable: Table
  readonly outletTable: Table
}

/** Parameters that this choice of edges does not read. */
export function idleMetering({ edges }: MeteringValues): (keyof MeteringValues)[] {
  return [
    ...(edges === 'notch' ? [] : (['exponent'] as const)),
    ...(edges === 'twoNotches' ? [] : (['fineLength', 'fineIn', 'fineOut'] as const)),
    ...(edges === 'table' ? [] : (['inletTable', 'outletTable'] as const)),
  ]
}

/**
 * The openings of the edges that oil comes in and goes out by, over the spool position y, 1 = full stroke. With s the share of the
 * stroke beyond the dead band: s^e; or two straight lines, to the opening of the fine notch at its end and to 1; or a table of |y|.
 */
export function meteringEdges(v: MeteringValues): {
  readonly inlet: (y: number) => number
  readonly outlet: (y: number) => number
} {
  const notch = notchOpening(v)
  if (v.edges === 'notch') return { inlet: notch, outlet: notch }
  const beyond = (y: number) => (Math.abs(y) - v.deadBand) / (1 - v.deadBand)
  if (v.edges === 'twoNotches') {
    const lines = (fine: number) => (y: number) => {
      const s = beyond(y)
      if (s <= 0) return 0
      if (s < v.fineLength) return (fine * s) / v.fineLength
      return fine + ((1 - fine) * (s - v.fineLength)) / (1 - v.fineLength)
    }
    return { inlet: lines(v.fineIn), outlet: lines(v.fineOut) }
  }
  const measured = ({ x, y: opening }: Table) =>
    x.length ? (y: number) => interpolate(x, opening, Math.abs(y)) : notch
  return { inlet: measured(v.inletTable), outlet: measured(v.outletTable) }
}
