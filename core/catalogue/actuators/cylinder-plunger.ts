import { defineKind, quantity } from '../kind'
import { circleArea } from '../flow-laws'
import {
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

/** Oil pushes on the plunger itself, A = π/4·d². The equations are those of every cylinder (cylinder.ts). */
export const cylinderPlunger = defineKind({
  name: 'cylinder-plunger',
  label: 'Cylinder, plunger',
  family: 'actuators',
  searchTerms: ['plunger', 'displacement cylinder', 'ram', 'lift'],
  designationLetter: 'A',
  description: 'A thick rod without a piston: oil at A pushes it out, its load brings it back.',
  ports: [{ name: 'A', domain: 'oil', role: 'pressure side' }, rodPort],
  parameters: {
    plunger: quantity('Plunger', 'length', '60 mm', 1e-3, 2, { note: 'its diameter' }),
    ...singleActingParameters,
  },
  inputs: cylinderInputs,
  idleInputs: idleCylinderInputs,
  faults: singleActingFaults,
  traits: {
    ratedPressure: 'ratedPressure',
    measures: cylinderMeasures,
    movement: cylinderMovement,
    sizingTargets: { bore: 'plunger', ...singleActingSized },
    motions(v) {
      return cylinderMotions(v, { cap: circleArea(v.plunger), annulus: 0 }, v.plunger)
    },
  },
  safetyNote:
    'A raised load can come down when its line opens. Support it mechanically before anyone reaches in.',
  validate: travelProblems,
  symbol: () => cylinderSymbol({ rodSide: false, plunger: true }),
  caption: (v, show) => [`⌀ ${show(v.plunger, 'length')}`, `stroke ${show(v.stroke, 'length')}`],
  model: (v, fluid) =>
    cylinderModel(v, fluid, { cap: circleArea(v.plunger), annulus: 0 }, { A: 0, B: -1, R: 1 }),
  describeState: (l, _values, show) => describeCylinder(l, show),
})
