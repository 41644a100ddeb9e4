import { defineKind } from '../kind'
import { rectangle } from '../symbol'
import {
  cylinderAreas,
  cylinderInputs,
  idleCylinderInputs,
  cylinderModel,
  cylinderMotions,
  cylinderProblems,
  describeCylinder,
  cylinderSymbol,
  doubleActingFaults,
  doubleActingParameters,
  doubleActingSized,
  rodPort,
  cylinderMeasures,
  cylinderMovement,
} from './cylinder'

/** Equal ring areas on both sides; the equations are those of every cylinder (cylinder.ts). */
export const cylinderDoubleRod = defineKind({
  name: 'cylinder-double-rod',
  label: 'Cylinder, double-rod',
  family: 'actuators',
  searchTerms: ['double rod', 'through rod', 'equal area', 'steering'],
  designationLetter: 'A',
  description: 'A rod at both ends: the same force and speed both ways.',
  ports: [
    { name: 'A', domain: 'oil', role: 'side that moves it out' },
    { name: 'B', domain: 'oil', role: 'side that moves it back' },
    rodPort,
  ],
  parameters: doubleActingParameters,
  inputs: cylinderInputs,
  idleInputs: idleCylinderInputs,
  faults: doubleActingFaults,
  traits: {
    ratedPressure: 'ratedPressure',
    measures: cylinderMeasures,
    movement: cylinderMovement,
    sizingTargets: doubleActingSized,
    motions(v) {
      const { annulus } = cylinderAreas(v.bore, v.rod)
      return cylinderMotions(v, { cap: annulus, annulus }, v.rod)
    },
  },
  validate: cylinderProblems,
  symbol: () =>
    cylinderSymbol({
      rodSide: true,
      left: -12,
      rod: [rectangle(-12, -0.4, 8, 0.8), rectangle(-4, -1.5, 1, 3), rectangle(-3, -0.4, 8, 0.8)],
    }),
  caption: (v, show) => [
    `⌀ ${show(v.bore, 'length')} / ${show(v.rod, 'length')}`,
    `stroke ${show(v.stroke, 'length')}`,
  ],
  model(v, fluid) {
    const { annulus } = cylinderAreas(v.bore, v.rod)
    return cylinderModel(v, fluid, { cap: annulus, annulus }, { A: 0, B: 1, R: 2 })
  },
  describeState: (l, _values, show) => describeCylinder(l, show),
})
