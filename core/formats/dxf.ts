/** A sheet as DXF (text format, version AC1021): millimetres, one layer a kind of line, one block a symbol, text as text. */
import {
  Colors,
  DxfWriter,
  HatchBoundaryPaths,
  HatchPolylineBoundary,
  HatchPredefinedPatterns,
  LWPolylineFlags,
  pattern,
  point3d,
  TextHorizontalAlignment,
  TextVerticalAlignment,
  Units,
  vertex,
  type DxfBlock,
} from '@tarikjabiri/dxf'
import type { Show } from '../catalogue/kind'
import type { Sheet } from '../sheet/schema'
import { dashes, layers, MODULE, plotSheet, type DrawnShape, type Layer } from './plot'

/** Cap height is this share of the size of letters. */
const CAPITALS = 0.7
const lineTypes = { pilot: 'PILOT', chain: 'CHAIN' } as const
const lineTypeOf: Readonly<Partial<Record<Layer, string>>> = { pilot: 'PILOT', drain: 'PILOT', rod: 'CHAIN' }

type Target = DxfWriter | DxfBlock

const mm = (m: number) => m * MODULE
/** DXF has y upwards. */
const point = ([x, y]: readonly [number, number]) => point3d(mm(x), -mm(y))

function draw(target: Target, ink: DrawnShape, layerName: string): void {
  const lineType = 'dash' in ink && ink.dash ? { lineType: lineTypes[ink.dash] } : {}
  const options = { layerName, ...lineType }
  switch (ink.shape) {
    case 'line':
    case 'polygon': {
      const flags = ink.shape === 'polygon' ? LWPolylineFlags.Closed : LWPolylineFlags.None
      target.addLWPolyline(
        ink.points.map((p) => ({ point: point(p) })),
        { ...options, flags },
      )
      if (ink.shape === 'polygon' && ink.fill === 'ink') fill(target, ink.points, layerName)
      return
    }
    case 'circle':
      target.addCircle(point(ink.at), mm(ink.r), options)
      if (ink.fill === 'ink') fill(target, ring(ink.at, ink.r), layerName)
      return
    case 'arc': {
      // clockwise from the right as seen; DXF goes anticlockwise
      const [from, to] = ink.to > ink.from ? [-ink.to, -ink.from] : [-ink.from, -ink.to]
      const turn = (a: number) => ((a % 360) + 360) % 360
      target.addArc(point(ink.at), mm(ink.r), turn(from), turn(to), options)
      return
    }
    case 'letters': {
      const horizontal = {
        start: TextHorizontalAlignment.Left,
        middle: TextHorizontalAlignment.Center,
        end: TextHorizontalAlignment.Right,
      }[ink.anchor]
      target.addText(point(ink.at), mm(ink.size) * CAPITALS, ink.text, {
        layerName,
        horizontalAlignment: horizontal,
        verticalAlignment:
          ink.on === 'middle' ? TextVerticalAlignment.Middle : TextVerticalAlignment.BaseLine,
        ...(ink.anchor === 'start' && ink.on === 'baseline' ? {} : { secondAlignmentPoint: point(ink.at) }),
      })
    }
  }
}

const ring = (at: readonly [number, number], r: number) =>
  Array.from({ length: 24 }, (_, i): [number, number] => {
    const a = (i / 24) * 2 * Math.PI
    return [at[0] + r * Math.cos(a), at[1] + r * Math.sin(a)]
  })

function fill(target: Target, points: readonly (readonly [number, number])[], layerName: string): void {
  const outline = new HatchPolylineBoundary()
  for (const [x, y] of points) outline.add(vertex(mm(x), -mm(y)))
  const paths = new HatchBoundaryPaths()
  paths.addPolylineBoundary(outline)
  target.addHatch(paths, pattern({ name: HatchPredefinedPatterns.SOLID }), { layerName })
}

export function sheetToDxf(sheet: Sheet, show: Show): string {
  const plot = plotSheet(sheet, show)
  const dxf = new DxfWriter()
  dxf.setUnits(Units.Millimeters)
  dxf.addLType(lineTypes.pilot, 'pilot and drain lines', signed(dashes.pilot))
  dxf.addLType(lineTypes.chain, 'enclosures and rods', signed(dashes.chain))
  for (const name of layers) dxf.addLayer(name, Colors.White, lineTypeOf[name] ?? 'Continuous')
  for (const { layer, ink } of plot.strokes) draw(dxf, ink, layer)
  for (const [name, inks] of plot.blocks) {
    const block = dxf.addBlock(name)
    for (const ink of inks) draw(block, ink, 'symbols')
  }
  for (const { block, x, y } of plot.symbols) dxf.addInsert(block, point([x, y]), { layerName: 'symbols' })
  return dxf.stringify()
}

/** Marks are positive, gaps negative, in millimetres. */
const signed = (lengths: readonly number[]) => lengths.map((length, i) => (i % 2 ? -mm(length) : mm(length)))
