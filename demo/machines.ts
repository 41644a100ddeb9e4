/** The machines of the demo: what each must do, and the sheet where it is drawn. */
import { readFileSync } from 'node:fs'
import type { Sheet } from '../core/sheet/schema'
import { readSheetText } from '../core/sheet/read'
import type { Brief } from '../core/size/brief/brief'
import * as briefs from './briefs'

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
  brief: Brief,
  ...variants: readonly (readonly [name: string, file: string])[]
): DemoMachine => ({
  name,
  summary,
  brief,
  variants: variants.map(([name, file]) => ({ name, sheet: sheetFile(file) })),
})

/** The yard's machines, invented with it. */
export const demoMachines = (): DemoMachine[] => [
  machine(
    'Shavings press',
    'Presses planing shavings into bales; the force rises steeply over the last of the stroke.',
    briefs.shavingsPress,
    ['High–low, unloader and check', 'shavings-press-high-low'],
    ['Two-stage pump', 'shavings-press-two-stage'],
    ['One pump, larger motor', 'shavings-press'],
  ),
  machine(
    'Relief rig',
    'Test bench: one pump, a direct-acting and a pilot-operated relief valve, a jet to unload.',
    briefs.reliefRig,
    ['Direct and piloted', 'relief-rig'],
    ['Vented and set from afar', 'relief-rig-vented'],
  ),
  machine(
    'Blade press',
    'Closes the mould cheeks, then squeezes the glued laminations of an oar blade.',
    briefs.bladePress,
    ['One sequence valve', 'blade-press'],
    ['Two sequence valves', 'blade-press-two-sequence'],
    ['Two hand valves', 'blade-press-two-valves'],
    ['Pressure and limit switches', 'blade-press-switches'],
    ['Sequence valve, limit switches, relay', 'blade-press-sequence-relay'],
  ),
  machine(
    'Boat lift',
    'Raises, holds, floats and lowers a 3 t platform.',
    briefs.boatLift,
    ['Counterbalance valve', 'boat-lift'],
    ['Pilot check, hand pump', 'boat-lift-pilot-check'],
    ['Lever valve with float, and a lock', 'boat-lift-lever'],
  ),
  machine(
    'Slipway winch',
    'Hauls hulls up the slip with a closed-circuit drive.',
    briefs.slipwayWinch,
    ['Charge relief to tank', 'slipway-winch'],
    ['Charge relief into the case', 'slipway-winch-case'],
  ),
  machine(
    'Turntable',
    'Turns a hull end for end.',
    briefs.turntable,
    ['Brake valves, open centre', 'turntable-brake-valve'],
    ['Cross-port reliefs, blocked centre', 'turntable-cross-port'],
    ['Cross-port reliefs, tandem centre', 'turntable-tandem'],
  ),
  machine(
    'Sluice rotor',
    "A vane actuator that turns the yard's tide sluice; duty and standby packs.",
    briefs.sluiceRotor,
    ['Duty and standby packs', 'sluice-rotor'],
  ),
  machine(
    'Gate pack',
    'Accumulator pack that closes the flood boards.',
    briefs.gatePack,
    ['Pump unloaded', 'gate-pack'],
    ['Motor started and stopped', 'gate-pack-start-stop'],
  ),
  machine(
    'Quay crane',
    'Luff, slew and hoist from one load-sensing pump.',
    briefs.quayCrane,
    ['Pre-compensated', 'quay-crane'],
    ['Flow sharing', 'quay-crane-sharing'],
  ),
  machine('Mud dredge', 'Two pumps, a merge and divide manifold, reduced pilot supply.', briefs.mudDredge, [
    'Merge and divide',
    'mud-dredge',
  ]),
  machine(
    'Yard tug bank',
    'Three-section lever valve, set up open centre, closed centre or with carry-over.',
    briefs.tugBank,
    ['Open centre', 'tug-bank'],
    ['Closed centre', 'tug-bank-closed'],
    ['Carry-over', 'tug-bank-carry-over'],
  ),
]
