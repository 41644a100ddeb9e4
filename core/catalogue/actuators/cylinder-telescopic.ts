import { defineKind, quantity } from '../kind'
import { circleArea } from '../flow-laws'
import { rectangle } from '../symbol'
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

/** Over this way one stage hands over to the next, m. */
const HANDOVER = 1e-3

/**
 * Stages of equal stroke whose diameters fall evenly from the first to the last. The largest moves first, so at the
 * same load pressure rises, and at the same flow speed rises, from stage to stage: A(x) = π/4·d_i²,
 * V(x) = ∫A dx. The rest as every cylinder (cylinder.ts).
 */
export const cylinderTelescopic = defineKind({
  name: 'cylinder-telescopic',
  label: 'Cylinder, telescopic',
  family: 'actuators',
  searchTerms: ['telescopic', 'telescope', 'multi-stage', 'tipper'],
  designationLetter: 'A',
  description: 'Stages one inside the other: the largest comes out first, the smallest last and fastest.',
  ports: [{ name: 'A', domain: 'oil', role: 'pressure side' }, rodPort],
  parameters: {
    first: quantity('First stage', 'length', '90 mm', 1e-3, 2, { note: 'its diameter' }),
    last: quantity('Last stage', 'length', '50 mm', 1e-3, 2, { note: 'its diameter' }),
    stages: {
      type: 'choice',
      label: 'Stages',
      default: '3',
      choices: { '2': 'two', '3': 'three', '4': 'four', '5': 'five' },
    },
    ...singleActingParameters,
  },
  inputs: cylinderInputs,
  idleInputs: idleCylinderInputs,
  faults: singleActingFaults,
  traits: {
    ratedPressure: 'ratedPressure',
    measures: cylinderMeasures,
    movement: cylinderMovement,
    sizingTargets: { firstStage: 'first', lastStage: 'last', ...singleActingSized },
    motions(v) {
      // its smallest stage asks for the most
      return cylinderMotions(v, { cap: circleArea(v.last), annulus: 0 }, 0)
    },
  },
  safetyNote:
    'A raised load can come down when its line opens. Support it mechanically before anyone reaches in.',
  validate: (v) => [
    ...travelProblems(v),
    ...(v.last >= v.first
      ? [{ parameter: 'last' as const, message: 'The last stage must be thinner than the first.' }]
      : []),
  ],
  symbol(values) {
    const stages = Number(values.stages)
    return cylinderSymbol({
      rodSide: false,
      // the stages one inside the other, each a little longer and thinner than the last
      rod: [
        rectangle(-4, -1.5, 1, 3),
        ...Array.from({ length: stages }, (_, i) => {
          const inner = i / (stages - 1)
          const half = 1.1 - 0.8 * inner
          return rectangle(-3 + inner, -half, 7.4 + 0.6 * inner - inner, 2 * half)
        }),
      ],
    })
  },
  caption: (v, show) => [
    `⌀ ${show(v.first, 'length')} to ${show(v.last, 'length')}`,
    `stroke ${show(v.stroke, 'length')}`,
  ],
  model(v, fluid) {
    const count = Number(v.stages)
    const length = v.stroke / count
    const areas = Array.from({ length: count }, (_, i) =>
      circleArea(v.first + ((v.last - v.first) * i) / (count - 1)),
    )
    const swept = areas.map((_, i) => areas.slice(0, i).reduce((sum, a) => sum + a * length, 0))
    const stageAt = (x: number) => Math.min(count - 1, Math.max(0, Math.floor(x / length)))
    return cylinderModel(
      v,
      fluid,
      {
        cap: areas[0],
        annulus: 0,
        stages: {
          area(x) {
            const i = stageAt(x)
            const into = (x - i * length) / HANDOVER
            return i > 0 && into < 1 ? areas[i - 1] + (areas[i] - areas[i - 1]) * into : areas[i]
          },
          volume(x) {
            const i = stageAt(x)
            const into = x - i * length
            // while it hands over, the area falls in a straight line
            const step = i > 0 ? areas[i - 1] - areas[i] : 0
            const extra =
              into < HANDOVER ? step * (into - (into * into) / (2 * HANDOVER)) : (step * HANDOVER) / 2
            // what each hand-over before this one swept beyond the plain stages
            let before = 0
            for (let k = 1; k < i; k++) before += ((areas[k - 1] - areas[k]) * HANDOVER) / 2
            return swept[i] + areas[i] * into + extra + before
          },
        },
      },
      { A: 0, B: -1, R: 1 },
    )
  },
  describeState: (l, _values, show) => describeCylinder(l, show),
})
