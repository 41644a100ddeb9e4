import type { Sheet } from '../sheet/schema'

/** What of a sheet a run with a schedule depends on, as a text; sheets with the same one give the same numbers. */
export function simulatedPart(sheet: Sheet, scheduleId: string): string {
  const { components, junctions, pipes, fluid, tank, initialPressures, schedules } = sheet
  const schedule = schedules.find((s) => s.id === scheduleId)
  return JSON.stringify([components, junctions, pipes, fluid, tank, initialPressures, schedule])
}
