/** The angle that an instrument sees of a shaft: φ̇ = ω/i from where it stands at the start. */
import { quantity, type Local, type StateSpec } from '../kind'

export const shaftAngleParameters = () =>
  ({
    start: quantity('Angle at the start', 'angle', '0 °', -1e3, 1e3),
    ratio: quantity('Gear ratio', 'ratio', '1', 1e-2, 1000, {
      note: 'turns of the shaft for one of what is watched',
    }),
  }) as const
interface ShaftAngleValues {
  readonly start: number
  readonly ratio: number
}

export const angleState = ({ start }: ShaftAngleValues): Omit<StateSpec, 'name'> => ({
  label: 'angle',
  quantity: 'angle',
  initial: start,
  isCounter: true,
  scale: 0.01,
})
/** Rate of the angle, from the speed at the only port. */
export const angleRate = (l: Local, { ratio }: ShaftAngleValues): number => l.p[0] / ratio
