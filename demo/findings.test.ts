/** What the checks find on the demo machines with one component removed: complete, and in the form that all use. */
import { describe, expect, it } from 'vitest'
import { remove } from '../core/sheet/edit'
import { checkMachine } from '../core/control/run'
import { demoMachines } from './machines'

const fields = new Set(['rule', 'severity', 'message', 'remedy', 'location', 'incomplete', 'fix', 'accepted'])
const places = new Set(['component', 'port', 'parameter', 'pipe', 'junction', 'schedule', 'control'])

describe.each(demoMachines().map(({ name, variants }) => [name, variants[0].sheet] as const))(
  '%s',
  (_name, sheet) => {
    it('has a remedy and a location for everything that is found when a component is missing', () => {
      let found = 0
      for (const { id } of sheet.components)
        for (const finding of checkMachine(remove(sheet, [id]))) {
          found++
          expect(Object.keys(finding).filter((key) => !fields.has(key))).toEqual([])
          expect(Object.keys(finding.location).filter((key) => !places.has(key))).toEqual([])
          // what the schedule names is gone is told without one
          if (finding.rule !== 'schedule') expect(finding.remedy?.length, finding.message).toBeGreaterThan(5)
        }
      expect(found).toBeGreaterThan(0)
    })
  },
)
