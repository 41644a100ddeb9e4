import type { Sheet } from '../sheet/schema'

/** What of a sheet a run with a schedule depends on, as a text; sheets with the same one give the same numbers. */
export function simulatedPart(sheet: Sheet, scheduleId: string): string {
  const { components, junctions, pipes, fluid, tank, initialPressures, schedules, control } = sheet
  const schedule = schedules.find((s) => s.id === scheduleId)
  // how the control is drawn, and what is written beside it, changes nothing
  const logic = [
    control.devices,
    control.rungs.map(({ id, contacts, coils }) => [id, contacts, coils]),
    control.sequences,
    control.requirements,
  ]
  return JSON.stringify([components, junctions, pipes, fluid, tank, initialPressures, schedule, logic])
}
