import { defineKind } from '../kind'
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

/** Oil at both ends; the equations are those of every cylinder (cylinder.ts). */
export const cylinderDoubleActing = defineKind({
  name: 'cylinder-double-acting',
  label: 'Cylinder, double-acting',
  family: 'actuators',
  searchTerms: ['cylinder', 'ram', 'jack', 'actuator', 'press', 'cushioned', 'cyl', 'da'],
  designationLetter: 'A',
  description: 'Oil at A extends the rod, oil at B retracts it. Cushions may slow it before its stops.',
  ports: [
    { name: 'A', domain: 'oil', role: 'cap side' },
    { name: 'B', domain: 'oil', role: 'rod side' },
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
      return cylinderMotions(v, cylinderAreas(v.bore, v.rod), v.rod)
    },
  },
  safetyNote:
    'A raised or pressed load can move when a line opens. Support it mechanically before anyone reaches in.',
  validate: cylinderProblems,
  symbol: (v) => cylinderSymbol({ rodSide: true, cushionIn: v.cushionIn > 0, cushionOut: v.cushionOut > 0 }),
  caption: (v, show) => [
    `⌀ ${show(v.bore, 'length')} / ${show(v.rod, 'length')}`,
    `stroke ${show(v.stroke, 'length')}`,
  ],
  model: (v, fluid) => cylinderModel(v, fluid, cylinderAreas(v.bore, v.rod), { A: 0, B: 1, R: 2 }),
  describeState: (l, _values, show) => describeCylinder(l, show),
})
