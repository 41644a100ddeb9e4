import { defineKind } from '../kind'
import { circleArea } from '../flow-laws'
import {
  cylinderBore,
  cylinderInputs,
  idleCylinderInputs,
  cylinderModel,
  cylinderMotions,
  describeCylinder,
  cylinderSymbol,
  rodPort,
  singleActingFaults,
  singleActingParameters,
  singleActingSized,
  travelProblems,
  cylinderMeasures,
  cylinderMovement,
} from './cylinder'

/** Oil at A extends it; its spring or its load brings it back. The equations are those of every cylinder (cylinder.ts). */
export const cylinderSingleActing = defineKind({
  name: 'cylinder-single-acting',
  label: 'Cylinder, single-acting',
  family: 'actuators',
  searchTerms: ['single acting', 'spring return', 'jack', 'lift', 'clamp', 'sa'],
  designationLetter: 'A',
  description: 'Oil at A extends it; a spring or its load brings it back.',
  ports: [{ name: 'A', domain: 'oil', role: 'cap side' }, rodPort],
  parameters: { bore: cylinderBore, ...singleActingParameters },
  inputs: cylinderInputs,
  idleInputs: idleCylinderInputs,
  faults: singleActingFaults,
  traits: {
    ratedPressure: 'ratedPressure',
    measures: cylinderMeasures,
    movement: cylinderMovement,
    sizingTargets: { bore: 'bore', ...singleActingSized },
    motions(v) {
      // its rod is not among its parameters, so nothing is said of buckling
      return cylinderMotions(v, { cap: circleArea(v.bore), annulus: 0 }, 0)
    },
  },
  safetyNote:
    'A raised load can come down when its line opens. Support it mechanically before anyone reaches in.',
  validate: travelProblems,
  symbol: (v) => cylinderSymbol({ rodSide: false, spring: v.springRate > 0 }),
  caption: (v, show) => [`⌀ ${show(v.bore, 'length')}`, `stroke ${show(v.stroke, 'length')}`],
  model: (v, fluid) =>
    cylinderModel(v, fluid, { cap: circleArea(v.bore), annulus: 0 }, { A: 0, B: -1, R: 1 }),
  describeState: (l, _values, show) => describeCylinder(l, show),
})
