/** What is drawn so that it would be read wrongly: a line through a symbol, a symbol on another. */
import { outline, polyline, type Rect } from '../sheet/geometry'
import { isSolid } from '../sheet/role'
import { nameOf } from '../sheet/schema'
import { findKind } from '../catalogue'
import type { Rule } from './rule'

/** So far inside an outline a line is through it, and two outlines lie on one another, modules. */
const INSIDE = 0.6

const inset = ({ x, y, w, h }: Rect): Rect => ({
  x: x + INSIDE,
  y: y + INSIDE,
  w: w - 2 * INSIDE,
  h: h - 2 * INSIDE,
})
const crosses = ([ax, ay]: readonly [number, number], [bx, by]: readonly [number, number], r: Rect) =>
  Math.max(ax, bx) > r.x &&
  Math.min(ax, bx) < r.x + r.w &&
  Math.max(ay, by) > r.y &&
  Math.min(ay, by) < r.y + r.h

export const lineThroughSymbol: Rule = {
  id: 'line-through-symbol',
  reason: 'A line that runs through a symbol reads as if it were connected there.',
  check({ sheet }) {
    const bodies = sheet.components
      .filter((c) => isSolid(c) && findKind(c.kind))
      .map((component) => ({ component, body: inset(outline(component)) }))
      .filter(({ body }) => body.w > 0 && body.h > 0)
    return sheet.pipes.flatMap((pipe) => {
      const own = new Set([pipe.from, pipe.to].flatMap((end) => ('component' in end ? [end.component] : [])))
      const points = polyline(sheet, pipe)
      let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity]
      for (const [x, y] of points) {
        left = Math.min(left, x)
        right = Math.max(right, x)
        top = Math.min(top, y)
        bottom = Math.max(bottom, y)
      }
      const through = bodies.find(
        ({ component, body: r }) =>
          // most symbols lie far from the line
          right > r.x &&
          left < r.x + r.w &&
          bottom > r.y &&
          top < r.y + r.h &&
          !own.has(component.id) &&
          points.slice(1).some((point, i) => crosses(points[i], point, r)),
      )
      if (!through) return []
      return [
        {
          severity: 'warning' as const,
          message: `The line ${pipe.name ?? pipe.id} runs through ${nameOf(through.component)}.`,
          remedy: 'Lead it round the symbol, or move one of them.',
          location: { pipe: pipe.id },
        },
      ]
    })
  },
}

export const symbolOnSymbol: Rule = {
  id: 'symbol-on-symbol',
  reason: 'Symbols that lie on one another cannot be told apart on paper.',
  check({ sheet }) {
    const solid = sheet.components
      .filter((c) => isSolid(c) && findKind(c.kind))
      .map((component) => ({ component, body: outline(component) }))
      .sort((a, b) => a.body.x - b.body.x)
    return solid.flatMap(({ component, body }, i) => {
      for (let k = i + 1; k < solid.length && solid[k].body.x < body.x + body.w - INSIDE; k++) {
        const other = solid[k].body
        const wide = Math.min(body.x + body.w, other.x + other.w) - Math.max(body.x, other.x)
        const high = Math.min(body.y + body.h, other.y + other.h) - Math.max(body.y, other.y)
        if (wide > INSIDE && high > INSIDE)
          return [
            {
              severity: 'warning' as const,
              message: `${nameOf(component)} lies on ${nameOf(solid[k].component)}.`,
              remedy: 'Move one of them.',
              location: { component: component.id },
            },
          ]
      }
      return []
    })
  },
}
