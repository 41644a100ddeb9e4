/** Symbols of contacts and coils: those of IEC 60617, and brackets (IEC 61131-3). The current flows along the first coordinate. */
import { circle, dashed, line, polygon, rectangle, text, type Point, type Shape } from '../catalogue/symbol'

/** What acts on the contacts of a type of device. */
export const ACTUATORS: Readonly<Record<string, string>> = {
  'push-button': 'button',
  'emergency-stop': 'mushroom',
  selector: 'turn',
  timer: 'delay',
  'value-contact': '=',
}
/** Devices with a special coil symbol in both symbol sets. */
export const LOOKS: Readonly<Record<string, true>> = { lamp: true, horn: true }

export type Put = (p: Point) => Point
const stroke = (put: Put, ...points: Point[]): Shape => line(...points.map(put))

/** A contact of IEC 60617: its blade to one side where it is open, over its fixed part where it is closed. */
export function contactSymbol(closed: boolean, actuator: string, put: Put): Shape[] {
  const blade = closed
    ? [stroke(put, [-1, 0], [-1, 0.9]), stroke(put, [1, 0], [-1.35, 0.75])]
    : [stroke(put, [1, 0], [-1, -1.1])]
  const at = closed ? 0.37 : -0.55
  const link = (to: number): Shape =>
    dashed(
      ...(
        [
          [0, at],
          [0, to],
        ] as Point[]
      ).map(put),
    )
  const end = -2.8
  switch (actuator) {
    case 'none':
      return blade
    case 'button':
      return [...blade, link(end), stroke(put, [-0.8, end + 0.6], [-0.8, end], [0.8, end], [0.8, end + 0.6])]
    case 'mushroom': {
      const head = Array.from({ length: 9 }, (_, i): Point => {
        const a = (Math.PI * i) / 8
        return put([-0.95 * Math.cos(a), end - 0.7 * Math.sin(a) + 0.3])
      })
      return [...blade, link(end + 0.3), polygon('paper', ...head)]
    }
    case 'turn':
      return [...blade, link(end), stroke(put, [-0.8, end - 0.6], [-0.8, end], [0.8, end], [0.8, end + 0.6])]
    case 'roller':
      return [...blade, link(end + 0.6), circle(...put([0, end + 0.1]), 0.55)]
    case 'delay': {
      const bow = Array.from({ length: 9 }, (_, i): Point => {
        const a = Math.PI * (0.15 + (0.7 * i) / 8)
        return put([-0.9 * Math.cos(a), end + 0.8 - 0.9 * Math.sin(a)])
      })
      return [...blade, link(end), line(...bow)]
    }
    default: {
      const [x, y] = put([0, end])
      return [...blade, link(end + 0.8), rectangle(x - 0.85, y - 0.85, 1.7, 1.7), text(x, y, actuator, 1.2)]
    }
  }
}

export function bracketContact(closed: boolean, put: Put): Shape[] {
  return [
    stroke(put, [-1, 0], [-0.6, 0]),
    stroke(put, [0.6, 0], [1, 0]),
    stroke(put, [-0.6, -1.1], [-0.6, 1.1]),
    stroke(put, [0.6, -1.1], [0.6, 1.1]),
    ...(closed ? [stroke(put, [0.9, -1.1], [-0.9, 1.1])] : []),
  ]
}

export function coilSymbol(type: string | undefined, put: Put, upright: boolean): Shape[] {
  const [x, y] = put([0, 0])
  const [w, h] = upright ? [3.4, 2] : [2, 3.4]
  const box = rectangle(x - w / 2, y - h / 2, w, h)
  switch (type) {
    case 'lamp':
      return [
        circle(x, y, 1.2),
        stroke(put, [-1, 0], [-1.2, 0]),
        line([x - 0.85, y - 0.85], [x + 0.85, y + 0.85]),
        line([x - 0.85, y + 0.85], [x + 0.85, y - 0.85]),
      ]
    case 'horn':
      return [
        stroke(put, [-1, 0], [-0.9, 0]),
        polygon(
          'paper',
          ...(
            [
              [-0.9, -1.2],
              [0.9, -0.6],
              [0.9, 0.6],
              [-0.9, 1.2],
            ] as Point[]
          ).map(put),
        ),
        stroke(put, [0.9, 0], [1, 0]),
      ]
    case 'timer':
      // the part that delays, crossed
      return [
        box,
        rectangle(
          x - w / 2 - (upright ? 1.3 : 0),
          y - h / 2 - (upright ? 0 : 1.3),
          upright ? 1.3 : w,
          upright ? h : 1.3,
        ),
        ...(upright
          ? [
              line([x - w / 2 - 1.3, y - h / 2], [x - w / 2, y + h / 2]),
              line([x - w / 2 - 1.3, y + h / 2], [x - w / 2, y - h / 2]),
            ]
          : [
              line([x - w / 2, y - h / 2 - 1.3], [x + w / 2, y - h / 2]),
              line([x - w / 2, y - h / 2], [x + w / 2, y - h / 2 - 1.3]),
            ]),
      ]
    case undefined:
      // a solenoid of the sheet
      return [box, line([x - w / 2, y + h / 2], [x + w / 2, y - h / 2])]
    default:
      return [box]
  }
}
export function bracketCoil(put: Put): Shape[] {
  const side = (sign: 1 | -1): Shape =>
    line(
      ...Array.from({ length: 9 }, (_, i): Point => {
        const a = Math.PI * (-0.32 + (0.64 * i) / 8)
        return put([sign * (1.4 * Math.cos(a) - 0.4), 1.4 * Math.sin(a)])
      }),
    )
  return [side(-1), side(1)]
}
