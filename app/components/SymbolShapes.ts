/** The shapes of a symbol in modules, at a place where one is given. Text stays upright however the symbol is turned. */
import { h, type FunctionalComponent, type VNode } from 'vue'
import type { SymbolDrawing } from '@oar-bench/core/catalogue/symbol'
import { symbolPieces, type SymbolPiece } from '../utils/symbolPieces'

interface Placed {
  drawing: SymbolDrawing
  at?: readonly [number, number]
  /** Quarter turns. */
  rotation?: number
  mirrored?: boolean
}

function draw(piece: SymbolPiece, placed: Placed): VNode {
  switch (piece.as) {
    case 'part':
      return h(
        'g',
        { 'data-part': piece.part },
        piece.pieces.map((inner) => draw(inner, placed)),
      )
    case 'path':
      return h('path', { d: piece.d, class: piece.classes || undefined })
    case 'oil': {
      const [x, y] = piece.at
      const [width, height] = piece.size
      return h('rect', { x, y, width, height, class: 'oil', 'data-oil-port': piece.port })
    }
    case 'text': {
      const upright = `${placed.mirrored ? ' scale(-1 1)' : ''} rotate(${-90 * (placed.rotation ?? 0)})`
      const transform = `translate(${piece.at[0]} ${piece.at[1]})${upright}`
      return h('text', { transform, 'font-size': piece.size, class: 'symbol-text' }, piece.text)
    }
  }
}

const SymbolShapes: FunctionalComponent<Placed> = (placed) => {
  const { drawing, at, rotation, mirrored } = placed
  const turns = [
    at && `translate(${at[0]} ${at[1]})`,
    rotation && `rotate(${90 * rotation})`,
    mirrored && 'scale(-1 1)',
  ].filter(Boolean)
  return h(
    'g',
    { class: 'symbol', transform: turns.length ? turns.join(' ') : undefined },
    symbolPieces(drawing).map((piece) => draw(piece, placed)),
  )
}
SymbolShapes.props = ['drawing', 'at', 'rotation', 'mirrored']
export default SymbolShapes
