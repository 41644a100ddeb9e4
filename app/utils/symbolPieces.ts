/** A symbol as few elements: neighbouring outlines of one look and one moving part are one path. */
import {
  arcData,
  type Lettering,
  type OilArea,
  type Point,
  type Shape,
  type SymbolDrawing,
} from '@oar-bench/core/catalogue/symbol'

interface Outline {
  readonly as: 'path'
  d: string
  readonly classes: string
}
type Fixed = Outline | ({ readonly as: 'oil' } & OilArea) | ({ readonly as: 'text' } & Lettering)
export type SymbolPiece = Fixed | { readonly as: 'part'; readonly part: string; readonly pieces: Fixed[] }

const through = (points: readonly Point[]) => `M${points.map((p) => p.join(' ')).join('L')}`

/** Path data of an outline, in modules. */
export function pathOf(shape: Exclude<Shape, OilArea | Lettering>): string {
  switch (shape.shape) {
    case 'line':
      return through(shape.points)
    case 'polygon':
      return `${through(shape.points)}Z`
    case 'circle': {
      const { at, r } = shape
      return `M${at[0] - r} ${at[1]}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`
    }
    case 'arc':
      return arcData(shape)
  }
}

export function symbolPieces(drawing: SymbolDrawing): SymbolPiece[] {
  const pieces: SymbolPiece[] = []
  for (const shape of drawing.shapes) {
    if (!shape.part) {
      add(pieces, shape)
      continue
    }
    // what moves together is one group, to be moved as one
    const last = pieces[pieces.length - 1]
    if (last?.as === 'part' && last.part === shape.part) add(last.pieces, shape)
    else {
      const part = { as: 'part', part: shape.part, pieces: [] as Fixed[] } as const
      add(part.pieces, shape)
      pieces.push(part)
    }
  }
  return pieces
}

function add(pieces: SymbolPiece[], shape: Shape): void {
  if (shape.shape === 'oil') pieces.push({ as: 'oil', ...shape })
  else if (shape.shape === 'text') pieces.push({ as: 'text', ...shape })
  else {
    const fill = 'fill' in shape && shape.fill !== 'none' ? `fill-shape-${shape.fill}` : ''
    const classes = [shape.dash && `dash-${shape.dash}`, fill].filter(Boolean).join(' ')
    const last = pieces[pieces.length - 1]
    // what is filled with paper hides what lies under it, and so stays by itself
    const joins = last?.as === 'path' && last.classes === classes && fill !== 'fill-shape-paper'
    if (joins) last.d += pathOf(shape)
    else pieces.push({ as: 'path', d: pathOf(shape), classes })
  }
}
