import { offeredCoils } from '../terminals'
import type { ControlRule } from './rule'

export const coilWithoutPath: ControlRule = {
  id: 'coil-without-path',
  reason: 'A coil that nothing drives never acts, and what hangs on it never happens.',
  check({ sheet, read: { program } }) {
    const driven = new Set([
      ...program.paths.flatMap((p) => p.coils.map((i) => program.targets[i].ref)),
      ...program.sequences.flatMap((s) =>
        s.steps.flatMap((step) => step.actions.map((a) => program.targets[a.target].ref)),
      ),
      ...program.driving.map(({ component, input }) => `${component}.${input}`),
    ])
    const own = new Set(sheet.control.devices.map((d) => d.id))
    return offeredCoils(sheet)
      .filter(({ ref, runsAlone }) => !runsAlone && !driven.has(ref))
      .map(({ name, label, owner }) => ({
        severity: 'warning' as const,
        message: `${name} (${label}) is driven by no path: ${own.has(owner) ? 'it never has current' : 'only a schedule or a hand works it'}.`,
        remedy: 'Draw a path to it, or delete it.',
        location: own.has(owner) ? { control: owner } : { component: owner },
      }))
  },
}
