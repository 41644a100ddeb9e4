/**
 * A sheet as DXF (text format, version AC1021): the page in millimetres with frame and title block, one layer a kind of line, one block
 * a symbol with its designation as attribute, text as text.
 */
import { PEN_INKS } from '../sheet/pens'
import type { PenColour } from '../sheet/schema'
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
  type DxfLayer,
} from '@tarikjabiri/dxf'
import { CAPITALS } from '../catalogue/text-width'
import type { Show } from '../catalogue/kind'
import type { XY } from '../sheet/geometry'
import type { Sheet } from '../sheet/schema'
import { visibleParts } from './clip'
import { pageOf } from './page'
import {
  dashes,
  layers,
  MODULE,
  plotSheet,
  THIN,
  type DrawnShape,
  type Layer,
  type Letters,
  type PlotOptions,
} from './plot'

const lineTypes = { pilot: 'PILOT', drain: 'DRAIN', chain: 'CHAIN' } as const
const lineTypeOf: Readonly<Partial<Record<Layer, string>>> = { pilot: 'PILOT', drain: 'DRAIN', rod: 'CHAIN' }
/** Colours by which layers are told apart on the screen of a drawing program; paper takes them black. */
const colourOf: Readonly<Record<Exclude<Layer, 'pens'> | 'frame', number>> = {
  working: Colors.White,
  pilot: Colors.Cyan,
  drain: Colors.Green,
  hose: Colors.Magenta,
  shaft: Colors.Yellow,
  rod: Colors.Yellow,
  symbols: Colors.White,
  lettering: Colors.White,
  frame: Colors.White,
}
/** Colour numbers of pens. */
const penColourOf: Readonly<Record<PenColour, number>> = {
  red: 1,
  blue: 5,
  green: 3,
  orange: 30,
  violet: 200,
  brown: 34,
}
/** Line widths of DXF, in hundredths of a millimetre. */
const WEIGHTS = [13, 15, 18, 20, 25, 30, 35, 40, 50, 53, 60, 70, 80, 90, 100]
/** Width of the stroke of a pen, modules. */
const PEN_WIDTH = 0.4
/** The font of drawings as a TrueType file; a program that does not have it takes another. */
const FONT_FILE = 'BarlowSemiCondensed-Regular.ttf'
const DESIGNATION = 'DESIGNATION'

type Target = DxfWriter | DxfBlock

/** What the format would take for control sequences, written out. */
const escaped = (text: string) =>
  text.replaceAll('\\', '\\U+005C').replaceAll('%%', '%\\U+0025').replaceAll('^', '\\U+005E')

/** Draws in millimetres, y upwards. */
class Pen {
  /** @param unit millimetres to one of the drawing @param at where its (0, 0) lies */
  constructor(
    private readonly unit: number,
    private readonly at: XY,
  ) {}

  place = ([x, y]: XY): XY => [this.at[0] + x * this.unit, this.at[1] - y * this.unit]
  point = (p: XY) => {
    const [x, y] = this.place(p)
    return point3d(x, y)
  }

  draw(target: Target, ink: DrawnShape, layerName: string): void {
    const { point, unit } = this
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
        if (ink.shape === 'polygon' && ink.fill === 'ink') this.fill(target, ink.points, layerName)
        return
      }
      case 'circle':
        target.addCircle(point(ink.at), ink.r * unit, options)
        if (ink.fill === 'ink') this.fill(target, ring(ink.at, ink.r), layerName)
        return
      case 'arc': {
        // clockwise from the right as seen; DXF goes anticlockwise
        const [from, to] = ink.to > ink.from ? [-ink.to, -ink.from] : [-ink.from, -ink.to]
        const turn = (a: number) => ((a % 360) + 360) % 360
        target.addArc(point(ink.at), ink.r * unit, turn(from), turn(to), options)
        return
      }
      case 'letters':
        target.addText(point(ink.at), ink.size * unit * CAPITALS, escaped(ink.text), {
          layerName,
          ...this.alignment(ink),
        })
    }
  }

  alignment(ink: Letters) {
    const horizontal = {
      start: TextHorizontalAlignment.Left,
      middle: TextHorizontalAlignment.Center,
      end: TextHorizontalAlignment.Right,
    }[ink.anchor]
    return {
      horizontalAlignment: horizontal,
      verticalAlignment: ink.on === 'middle' ? TextVerticalAlignment.Middle : TextVerticalAlignment.BaseLine,
      ...(ink.anchor === 'start' && ink.on === 'baseline'
        ? {}
        : { secondAlignmentPoint: this.point(ink.at) }),
    }
  }

  private fill(target: Target, points: readonly XY[], layerName: string): void {
    const outline = new HatchPolylineBoundary()
    for (const [x, y] of points.map(this.place)) outline.add(vertex(x, y))
    const paths = new HatchBoundaryPaths()
    paths.addPolylineBoundary(outline)
    target.addHatch(paths, pattern({ name: HatchPredefinedPatterns.SOLID }), { layerName })
  }
}

const ring = (at: XY, r: number) =>
  Array.from({ length: 24 }, (_, i): XY => {
    const a = (i / 24) * 2 * Math.PI
    return [at[0] + r * Math.cos(a), at[1] + r * Math.sin(a)]
  })

/** The writer has no width of lines for its layers: their records are given one. @param millimetres width of the lines */
function setWidth(layer: DxfLayer, millimetres: number): void {
  const width = WEIGHTS.reduce((best, w) =>
    Math.abs(w - 100 * millimetres) < Math.abs(best - 100 * millimetres) ? w : best,
  )
  const write = layer.dxfy.bind(layer)
  layer.dxfy = (dx) => {
    const push = dx.push.bind(dx)
    dx.push = (code, value) => push(code, code === 370 ? width : value)
    write(dx)
    dx.push = push
  }
}

export function sheetToDxf(sheet: Sheet, show: Show, options: PlotOptions = {}): string {
  const plot = plotSheet(sheet, show, options)
  const page = pageOf(sheet, plot.boxes)
  const unit = MODULE * page.scale
  const dxf = new DxfWriter()
  dxf.setUnits(Units.Millimeters)
  dxf.setVariable('$EXTMIN', { 10: 0, 20: 0, 30: 0 })
  dxf.setVariable('$EXTMAX', { 10: page.width, 20: page.height, 30: 0 })
  dxf.setVariable('$LWDISPLAY', { 290: 1 })
  for (const style of dxf.document.tables.styleTable.records) style.fontFileName = FONT_FILE
  /** Marks are positive, gaps negative. */
  const signed = (lengths: readonly number[]) => lengths.map((length, i) => (i % 2 ? -length : length) * unit)
  dxf.addLType(lineTypes.pilot, 'pilot lines', signed(dashes.pilot))
  dxf.addLType(lineTypes.drain, 'drain lines', signed(dashes.drain))
  dxf.addLType(lineTypes.chain, 'enclosures and rods', signed(dashes.chain))
  for (const name of layers)
    if (name !== 'pens')
      setWidth(dxf.addLayer(name, colourOf[name], lineTypeOf[name] ?? 'Continuous'), THIN * unit)
  const drawing = new Pen(unit, [page.origin[0], page.height - page.origin[1]])
  const around = new Pen(1, [0, page.height])
  // a block has its size at scale 1, and each insert brings it to that of the page
  const block = new Pen(MODULE, [0, 0])
  const scaleFactor = point3d(page.scale, page.scale, page.scale)

  // lines of one width are one layer of the frame
  for (const { points, width } of page.lines) {
    const name = `frame-${Math.round(100 * width)}`
    if (!dxf.document.tables.layerTable.exist(name))
      setWidth(dxf.addLayer(name, colourOf.frame, 'Continuous'), width)
    around.draw(dxf, { shape: 'line', points }, name)
  }
  for (const letters of page.letters) if (letters.text) around.draw(dxf, letters, 'lettering')

  const designations = new Map(
    plot.symbols.flatMap(({ component, designation }) => (designation ? [[designation, component]] : [])),
  )
  // the strokes of each pen are a layer, which can be switched off
  const penLayer = (colour: string) => {
    const pen = (Object.keys(PEN_INKS) as PenColour[]).find((name) => PEN_INKS[name] === colour) ?? 'red'
    const name = `pen-${pen}`
    if (!dxf.document.tables.layerTable.exist(name))
      setWidth(dxf.addLayer(name, penColourOf[pen], 'Continuous'), PEN_WIDTH * unit)
    return name
  }
  for (const { layer, ink, colour } of plot.strokes)
    if (layer === 'pens') drawing.draw(dxf, ink, penLayer(colour!))
    else if (ink.shape !== 'letters' || !designations.has(ink)) drawing.draw(dxf, ink, layer)
  for (const [name, inks] of plot.blocks) {
    const own = dxf.addBlock(name)
    for (const ink of visibleParts(inks)) block.draw(own, ink, 'symbols')
    own.addAttdef(point3d(0, 0), MODULE * CAPITALS, DESIGNATION, '', { layerName: 'lettering' })
  }
  for (const { block: name, x, y, designation } of plot.symbols) {
    const insert = dxf.addInsert(name, drawing.point([x, y]), { layerName: 'symbols', scaleFactor })
    if (designation)
      dxf.addAttrib(
        drawing.point(designation.at),
        designation.size * unit * CAPITALS,
        DESIGNATION,
        escaped(designation.text),
        insert,
        { layerName: 'lettering', ...drawing.alignment(designation) },
      )
  }
  return dxf.stringify()
}
