/** A run as JSON for other programs: metric units as named, every sample of every signal. */
import { fromSI, shownUnit } from '../units/quantities'
import type { Quantity } from '../units/quantities'
import type { RunResult } from '../simulate/result'
import type { Sheet } from '../sheet/schema'

/** @param signals ids of those to be written, all where nothing is said */
export function resultToJson(sheet: Sheet, result: RunResult, signals?: ReadonlySet<string>): string {
  const shown = (value: number, quantity: Quantity) => fromSI(value, shownUnit(quantity, 'metric'))
  return (
    JSON.stringify(
      {
        format: 'oar-bench-result',
        version: 1,
        title: sheet.title,
        schedule: result.schedule,
        duration: result.duration,
        finished: result.finished,
        stopped: result.stopped?.message,
        warnings: result.warnings,
        lineOfPort: Object.fromEntries(
          Object.entries(result.lineOfPort).map(([port, line]) => [port, result.lines[line]]),
        ),
        times: [...result.times],
        signals: result.signals.flatMap((s, i) => {
          if (s.role === 'mode' || (signals && !signals.has(s.id))) return []
          const e = result.extremes[i]
          return [
            {
              id: s.id,
              label: s.label,
              unit: shownUnit(s.quantity, 'metric').symbol,
              component: s.component,
              end: shown(e.end, s.quantity),
              min: shown(e.min, s.quantity),
              minAt: e.minAt,
              max: shown(e.max, s.quantity),
              maxAt: e.maxAt,
              samples: Array.from(result.columns[i], (v) => Number(shown(v, s.quantity).toPrecision(8))),
            },
          ]
        }),
        conditions: result.conditions.map((c) => ({
          name: c.name,
          label: c.label,
          severity: c.severity,
          component: c.component,
          pipe: c.pipe,
          line: c.node === undefined ? undefined : result.lines[c.node],
          start: c.start,
          end: c.end,
          worst: c.worst && {
            label: c.worst.label,
            value: shown(c.worst.value, c.worst.quantity),
            unit: shownUnit(c.worst.quantity, 'metric').symbol,
            at: c.worst.at,
          },
        })),
        events: result.events.map(({ change, ...event }) => ({
          ...event,
          ...(change && {
            input: change.input,
            value: shown(change.value, change.quantity),
            unit: shownUnit(change.quantity, 'metric').symbol,
          }),
        })),
        energy: result.energy,
        oil: result.oil,
        lineLoads: result.lineLoads,
        statistics: result.statistics,
      },
      null,
      1,
    ) + '\n'
  )
}
