/** The machines of the demo: what each must do, and the sheet where it is drawn. */
import { readFileSync } from 'node:fs'
import type { Sheet } from '../core/sheet/schema'
import { readSheetText } from '../core/sheet/read'
import { briefSchema, type Brief } from '../core/size/brief/brief'

interface DemoMachine {
  name: string
  summary: string
  brief: Brief
  /** Ways of doing it, on the same duty: each a sheet. */
  variants: readonly { name: string; sheet: Sheet }[]
}

function sheetFile(name: string): Sheet {
  const read = readSheetText(readFileSync(new URL(`./sheets/${name}.json`, import.meta.url), 'utf8'))
  if (!read.ok) throw new Error(`${name}: ${read.problems.map((p) => p.message).join(' ')}`)
  return read.sheet
}
const machine = (
  name: string,
  summary: string,
  brief: Partial<Omit<Brief, 'values'>> & { values?: Brief['values'] },
  ...variants: readonly (readonly [name: string, file: string])[]
): DemoMachine => ({
  name,
  summary,
  brief: briefSchema.parse(brief),
  variants: variants.map(([name, file]) => ({ name, sheet: sheetFile(file) })),
})

/** The yard's machines, invented with it. */
export const demoMachines = (): DemoMachine[] => [
  machine(
    'Shavings press',
    'Presses planing shavings into bales; the force rises steeply over the last of the stroke.',
    {
      purpose:
        'One operator. Fill the chamber, close the lid, press: the platen goes out 600 mm in about 6 s, meets the bale for the last 150 mm and ends at 60 kN. Hold until the bale is tied, then return in about 5 s.',
      never:
        'The platen must not move while the lid is open. It must not creep out when the valve is in its centre and someone ties the bale.',
      onLoss:
        'The valve centres by its springs and blocks both lines; the platen stays where it is. Nothing hangs.',
      values: {
        stroke: '600 mm',
        advanceTime: '6 s',
        returnTime: '5 s',
        pressForce: '60 kN',
        returnForce: '4 kN',
        mass: '450 kg',
        pressStroke: '150 mm',
        workingPressure: '160 bar',
      },
    },
    ['High–low, unloader and check', 'shavings-press-high-low'],
    ['Two-stage pump', 'shavings-press-two-stage'],
    ['One pump, larger motor', 'shavings-press'],
  ),
  machine(
    'Relief rig',
    'Test bench: one pump, a direct-acting and a pilot-operated relief valve, a jet to unload.',
    {
      purpose:
        'Show apprentices and settle arguments: cracking against full-flow pressure, override, and the peak when flow comes on suddenly, for a direct-acting and a pilot-operated valve of one rated flow.',
      never: 'No valve of the rig may be screwed shut while the motor runs.',
      onLoss: 'The motor stops; the line bleeds down through the pump.',
    },
    ['Direct and piloted', 'relief-rig'],
    ['Vented and set from afar', 'relief-rig-vented'],
  ),
  machine(
    'Blade press',
    'Closes the mould cheeks, then squeezes the glued laminations of an oar blade.',
    {
      purpose:
        'Clamp first, then press: cheeks closed and held at force before the squeeze begins; back in the opposite order.',
      never:
        'The squeeze must not begin before the cheeks hold. The cheeks must not open while the squeeze is under force.',
      onLoss: 'Both hold what they hold; glue sets whether there is power or not.',
      values: {
        stroke: '120 mm',
        pressForce: '48 kN',
        pressStroke: '40 mm',
        advanceTime: '2 s',
        returnTime: '3 s',
        mass: '80 kg',
        rodOverhang: '150 mm',
      },
    },
    ['One sequence valve', 'blade-press'],
    ['Two sequence valves', 'blade-press-two-sequence'],
    ['Two hand valves', 'blade-press-two-valves'],
    ['Pressure and limit switches', 'blade-press-switches'],
  ),
  machine(
    'Boat lift',
    'Raises, holds, floats and lowers a 3 t platform.',
    {
      purpose:
        'Raise 3 t by 1.2 m, hold for hours, float on the tide, lower smoothly; a hand pump for dead lowering.',
      never: 'The platform must not drop. Nobody stands under it without the mechanical lock.',
      onLoss: 'It holds; it can be lowered by hand.',
      values: {
        stroke: '1200 mm',
        pressForce: '30 kN',
        pressStroke: '1200 mm',
        advanceTime: '12 s',
        returnTime: '12 s',
        mass: '3 t',
        returnForce: '0 kN',
        workingPressure: '110 bar',
      },
    },
    ['Counterbalance valve', 'boat-lift'],
    ['Pilot check, hand pump', 'boat-lift-pilot-check'],
    ['Lever valve with float, and a lock', 'boat-lift-lever'],
  ),
  machine(
    'Slipway winch',
    'Hauls hulls up the slip with a closed-circuit drive.',
    {
      purpose: 'Haul and pay out at any speed up to 12 m/min, creep at the cradle, hold on the brake.',
      never: 'The hull must not run away down the slip.',
      onLoss: 'The brake comes on by its spring.',
    },
    ['Charge relief to tank', 'slipway-winch'],
    ['Charge relief into the case', 'slipway-winch-case'],
  ),
  machine(
    'Turntable',
    'Turns a hull end for end.',
    {
      purpose: 'Turn 180° in about a minute, stop softly, stay put.',
      never: 'It must not swing on past its mark with people at the edge.',
      onLoss: 'It is braked to a stop.',
    },
    ['Brake valves, open centre', 'turntable-brake-valve'],
    ['Cross-port reliefs, blocked centre', 'turntable-cross-port'],
    ['Cross-port reliefs, tandem centre', 'turntable-tandem'],
  ),
  machine(
    'Sluice rotor',
    "A vane actuator that turns the yard's tide sluice; duty and standby packs.",
    {
      purpose:
        'Follow the ordered angle, hold against the tide, change over to the standby pack by itself when oil is lost.',
      never: 'The sluice must not swing free.',
      onLoss: 'It is locked hydraulically; then hand operation.',
    },
    ['Duty and standby packs', 'sluice-rotor'],
  ),
  machine(
    'Gate pack',
    'Accumulator pack that closes the flood boards.',
    {
      purpose: 'Close all boards once without electricity, from the accumulator; recharge afterwards.',
      never: 'The accumulator must not be opened under pressure.',
      onLoss: 'It closes the boards.',
      values: {
        stroke: '500 mm',
        pressForce: '8 kN',
        pressStroke: '500 mm',
        advanceTime: '3 s',
        returnTime: '3 s',
        mass: '200 kg',
        returnForce: '0 kN',
        workingPressure: '100 bar',
      },
    },
    ['Pump unloaded', 'gate-pack'],
    ['Motor started and stopped', 'gate-pack-start-stop'],
  ),
  machine(
    'Quay crane',
    'Luff, slew and hoist from one load-sensing pump.',
    {
      purpose: 'Three motions together, each at the speed of its lever whatever the others do.',
      never: 'The load must not drop, nor jerk when another motion starts.',
      onLoss: 'All motions hold.',
    },
    ['Pre-compensated', 'quay-crane'],
    ['Flow sharing', 'quay-crane-sharing'],
  ),
  machine(
    'Mud dredge',
    'Two pumps, a merge and divide manifold, reduced pilot supply.',
    {
      purpose: 'Bucket, arm and travel; both pumps together for the fast motions.',
      never: 'Pilot pressure must not fail while a lever is out.',
      onLoss: 'Everything stops where it is.',
    },
    ['Merge and divide', 'mud-dredge'],
  ),
  machine(
    'Yard tug bank',
    'Three-section lever valve, set up open centre, closed centre or with carry-over.',
    {
      purpose: 'Towing hook, anchor and hatch by hand levers from one pump.',
      never: 'A wrong set-up must be seen before the engine starts.',
      onLoss: 'Levers centre; loads are held by the sections.',
    },
    ['Open centre', 'tug-bank'],
    ['Closed centre', 'tug-bank-closed'],
    ['Carry-over', 'tug-bank-carry-over'],
  ),
]
