import { describe, expect, it } from 'vitest'
import { agreement } from '../core/size/agreement'
import { agrees, resultsOf, targetsOf } from '../core/size/apply'
import { briefProblems, missingOf } from '../core/size/brief/brief'
import { sizeMachine, withSupply } from '../core/size/graph'
import { demoMachines } from './machines'

describe.each(demoMachines().map((machine) => [machine.name, machine] as const))('%s', (_name, machine) => {
  it('has a brief that says all that sizing needs', () => {
    expect(briefProblems(machine.brief)).toEqual([])
    expect(missingOf(machine.brief)).toEqual([])
  })
  it.each(machine.variants.map((variant) => [variant.name, variant.sheet] as const))(
    'is drawn with the sizes that were worked out: %s',
    (_variant, sheet) => {
      const sizing = sizeMachine(machine.brief, sheet.sizing)
      const { nodes } = sizing
      expect(nodes.flatMap((n) => n.problems)).toEqual([])
      expect(nodes.flatMap((n) => n.warnings.filter((w) => w.severity === 'error'))).toEqual([])
      const brief = withSupply(machine.brief, sheet.sizing)
      const differing = nodes.flatMap(resultsOf).flatMap((result) =>
        targetsOf(sheet, brief, result)
          .filter((t) => t.assigned && !agrees(t, result))
          .map((t) => `${result.node.id}.${result.variable}: ${t.value} for ${result.value}`),
      )
      expect(differing).toEqual([])
      // every component and line that a card could size, and none that waits for somebody
      const { sized, agreeing, waiting } = agreement(sheet, brief, sizing)
      expect([agreeing, waiting]).toEqual([sized, 0])
      // a choice that was made by a person has its reason beside it
      for (const id of Object.keys(sheet.sizing.reasons)) expect(nodes.map((n) => n.id)).toContain(id)
    },
  )
})
