import { lost, stuck } from '../faults'
import { conditionSpecs, defineKind, indices, inputSpecs, outputSpecs, quantity, stateSpecs } from '../kind'
import { arrowHead, dashed, line, rectangle } from '../symbol'

const STATE = indices('engaged', 'followed')
const OUTPUT = indices('holding')
const CONDITION = indices('moves')
const INPUT = indices('locked')

const R = 0
/** Time by which the position that it compares lags, s, and the speed at which a locked load is said to move, m/s. */
const FOLLOW = 0.02
const MOVES = 1e-3

/**
 * A mechanical lock on a rod: engaged by a share φ that follows its command, it holds by F = φ·F_h against either direction, which the
 * driver of the rod takes as friction.
 */
export const loadLock = defineKind({
  name: 'load-lock',
  label: 'Load lock, mechanical',
  family: 'actuators',
  searchTerms: ['load lock', 'rod lock', 'locking pin', 'safety catch', 'mechanical lock', 'clamp'],
  designationLetter: 'Z',
  description: 'Holds a rod mechanically, without oil, up to its holding force.',
  ports: [{ name: 'R', domain: 'rod', role: 'rod that is held' }],
  parameters: {
    holdingForce: quantity('Holding force', 'force', '50 kN', 1, 1e8),
    engaging: quantity('Time to engage', 'time', '0.2 s', 1e-3, 60),
  },
  inputs: inputSpecs(INPUT, {
    locked: {
      label: 'lock',
      quantity: 'ratio',
      rest: 0,
      min: 0,
      max: 1,
      positions: [
        { value: 1, label: 'locked', action: 'is locked' },
        { value: 0, label: 'released', action: 'is released' },
      ],
    },
  }),
  faults: [stuck(STATE.engaged, 'stays as it is'), lost(INPUT.locked, 'does not engage')],
  traits: { mechanicalLock: 'R' },
  safetyNote:
    'A lock holds only while it is engaged: it must be seen to be, before anybody goes under the load.',
  symbol: () => ({
    shapes: [
      dashed([-4, 0], [-1.5, 0]),
      rectangle(-1.5, -1.5, 3, 3),
      line([-0.8, 0.9], [0.8, 0.9], [0.8, -0.2], [-0.8, -0.2], [-0.8, 0.9]),
      line([-0.5, -0.2], [-0.5, -0.8], [0.5, -0.8], [0.5, -0.2]),
      arrowHead(-1.6, 0, 1, 0, 0.8),
    ],
    ports: { R: { x: -4, y: 0, side: 'left' } },
    box: { x: -1.5, y: -1.5, w: 3, h: 3 },
  }),
  caption: (v, show) => [show(v.holdingForce, 'force')],
  model: (v) => ({
    states: stateSpecs(STATE, {
      engaged: { label: 'engaged', quantity: 'share', initial: 0, scale: 1 },
      followed: {
        label: 'position of the rod',
        quantity: 'length',
        initial: 0,
        isCounter: true,
        scale: 0.01,
      },
    }),
    outputs: outputSpecs(OUTPUT, { holding: { label: 'holding force', quantity: 'force' } }),
    conditions: conditionSpecs(CONDITION, {
      moves: { label: 'moves while locked: its holding force is exceeded', severity: 'danger' },
    }),
    lockForce: (l) => v.holdingForce * Math.min(Math.max(l.x[STATE.engaged], 0), 1),
    evaluate(l) {
      l.q[R] = 0
      l.dx[STATE.engaged] = (l.u[INPUT.locked] - l.x[STATE.engaged]) / (v.engaging / 3)
      l.dx[STATE.followed] = (l.p[R] - l.x[STATE.followed]) / FOLLOW
    },
    observe(l) {
      l.o[OUTPUT.holding] = v.holdingForce * l.x[STATE.engaged]
      const speed = Math.abs(l.p[R] - l.x[STATE.followed]) / FOLLOW
      l.c[CONDITION.moves] = l.x[STATE.engaged] > 0.98 ? speed - MOVES : -1
    },
  }),
  describeState: (l, _v, show) =>
    l.x[STATE.engaged] > 0.98
      ? `Locked: it holds up to ${show(l.o[OUTPUT.holding], 'force')}.`
      : l.x[STATE.engaged] < 0.02
        ? 'Released.'
        : `Engaging, ${Math.round(l.x[STATE.engaged] * 100)} %.`,
})
