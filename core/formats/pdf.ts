/** A sheet as PDF on its paper, with frame and title block: vectors, and text that can be searched. */
import { PDFDocument, rgb, type PDFPage, type RGB } from 'pdf-lib'
import type { Show } from '../catalogue/kind'
import type { XY } from '../sheet/geometry'
import type { Sheet } from '../sheet/schema'
import { Faces, type PdfFile } from './faces'
import type { LetteringFont } from './lettering-fonts'
import { pageOf, smallLetters } from './page'
import {
  allStrokes,
  dashes,
  MODULE,
  plotSheet,
  type DrawnShape,
  type Letters,
  type PlotOptions,
} from './plot'

/** Points to a millimetre. */
export const POINT = 72 / 25.4
const INK = rgb(0, 0, 0)
const PAPER = rgb(1, 1, 1)
/** What lies under the stroke of a pen shows through. */
const PEN_OPACITY = 0.6
export const inkOf = (colour: string | undefined) => {
  if (!colour) return INK
  const part = (at: number) => parseInt(colour.slice(at, at + 2), 16) / 255
  return rgb(part(1), part(3), part(5))
}
interface Look {
  readonly dash?: number[]
  readonly fill?: 'ink' | 'paper' | 'none'
  readonly colour?: RGB
}
/** A circle as four cubic pieces: the length of their handles. */
const KAPPA = 0.5522847498

/** @param fonts those that its letters may need */
export async function sheetToPdf(
  sheet: Sheet,
  show: Show,
  fonts: readonly LetteringFont[],
  options: PlotOptions = {},
): Promise<PdfFile> {
  const plot = plotSheet(sheet, show, options)
  const page = pageOf(sheet, plot.boxes)
  const strokes = allStrokes(plot)
  const document = await PDFDocument.create()
  describe(document, sheet)
  const letters = [...strokes.map(({ ink }) => ink), ...page.letters]
  const text = letters.map((ink) => (ink.shape === 'letters' ? ink.text : '')).join('')
  const faces = await Faces.embed(document, fonts, text)
  const paper = document.addPage([page.width * POINT, page.height * POINT])
  const pen = new PdfPen(paper, faces, page)
  for (const { ink, width, colour } of strokes) pen.draw(ink, width * MODULE * page.scale, inkOf(colour))
  for (const { points, width } of page.lines) pen.path(points, width, {})
  for (const each of page.letters) pen.write(each, each.at, each.size)
  return {
    bytes: await document.save(),
    missing: [...faces.missing],
    cut: page.cut,
    smallLetters: smallLetters(page),
  }
}

/** Title, number, issue and author among the properties of the file. */
export function describe(document: PDFDocument, { title, page }: Sheet, prefix = ''): void {
  document.setTitle(prefix + title, { showInWindowTitleBar: true })
  const subject = [page.documentType, page.number, page.issue && `issue ${page.issue}`].filter(Boolean)
  document.setSubject(subject.join(', '))
  if (page.number || page.issue) document.setKeywords([page.number, page.issue].filter(Boolean))
  if (page.drawnBy || page.owner) document.setAuthor([page.drawnBy, page.owner].filter(Boolean).join(', '))
  document.setCreator('Oar Bench')
  document.setLanguage('en')
}

/** Where a drawing lies on a page. */
export interface Placement {
  /** Height of the page, mm. */
  readonly height: number
  /** Millimetres of paper to one of the drawing, and where the drawing's (0, 0) lies, mm from the upper left corner. */
  readonly scale: number
  readonly origin: XY
}

/** Draws strokes on a page. */
export class PdfPen {
  private readonly size: number
  constructor(
    private readonly paper: PDFPage,
    private readonly faces: Faces,
    private readonly page: Placement,
  ) {
    this.size = MODULE * page.scale
  }

  /** Millimetres on the paper of a point of the drawing. */
  private at = ([x, y]: XY): XY => [this.page.origin[0] + x * this.size, this.page.origin[1] + y * this.size]

  /** @param colour of a pen; black where none is given */
  draw(ink: DrawnShape, width: number, colour = INK): void {
    const dash = 'dash' in ink && ink.dash ? dashes[ink.dash].map((length) => length * this.size) : undefined
    const fill = 'fill' in ink ? ink.fill : 'none'
    switch (ink.shape) {
      case 'line':
        return this.path(ink.points.map(this.at), width, { dash, colour })
      case 'polygon':
        return this.path([...ink.points, ink.points[0]].map(this.at), width, { dash, fill, colour })
      case 'circle':
      case 'arc': {
        const [from, to] = ink.shape === 'arc' ? [ink.from, ink.to] : [0, 360]
        return this.curve(this.at(ink.at), ink.r * this.size, from, to, width, { dash, fill, colour })
      }
      case 'letters':
        return this.write(ink, this.at(ink.at), ink.size * this.size)
    }
  }

  path(points: readonly XY[], width: number, look: Look): void {
    const [first, ...rest] = points
    const text = `M${first.join(' ')} ${rest.map((p) => `L${p.join(' ')}`).join(' ')}`
    this.svg(text, width, look)
  }

  /** An arc in cubic pieces of at most a quarter, degrees clockwise as seen. */
  private curve([x, y]: XY, r: number, from: number, to: number, width: number, look: Look): void {
    const pieces = Math.max(1, Math.ceil(Math.abs(to - from) / 90))
    const step = ((to - from) / pieces) * (Math.PI / 180)
    const handle = (KAPPA * r * Math.tan(Math.abs(step) / 4) * Math.sign(step)) / Math.tan(Math.PI / 8)
    let a = (from * Math.PI) / 180
    let text = `M${x + r * Math.cos(a)} ${y + r * Math.sin(a)}`
    for (let i = 0; i < pieces; i++) {
      const b = a + step
      text += ` C${x + r * Math.cos(a) - handle * Math.sin(a)} ${y + r * Math.sin(a) + handle * Math.cos(a)} ${
        x + r * Math.cos(b) + handle * Math.sin(b)
      } ${y + r * Math.sin(b) - handle * Math.cos(b)} ${x + r * Math.cos(b)} ${y + r * Math.sin(b)}`
      a = b
    }
    this.svg(text, width, look)
  }

  /** An SVG path in millimetres from the upper left corner. */
  private svg(text: string, width: number, look: Look): void {
    this.paper.drawSvgPath(text, {
      x: 0,
      y: this.page.height * POINT,
      scale: POINT,
      borderColor: look.colour ?? INK,
      ...(look.colour && look.colour !== INK ? { borderOpacity: PEN_OPACITY } : {}),
      borderWidth: width,
      ...(look.dash ? { borderDashArray: look.dash } : {}),
      ...(look.fill === 'ink' ? { color: INK } : look.fill === 'paper' ? { color: PAPER } : {}),
    })
  }

  /** @param size height of the letters, mm */
  write(letters: Letters, [x, y]: XY, size: number): void {
    if (!letters.text) return
    const width = letters.anchor === 'start' ? 0 : this.faces.widthOf(letters.text, size)
    const start = x - (letters.anchor === 'middle' ? width / 2 : width)
    const base = y + (letters.on === 'middle' ? 0.35 * size : 0)
    this.faces.write(
      this.paper,
      letters.text,
      start * POINT,
      (this.page.height - base) * POINT,
      size * POINT,
      INK,
    )
  }
}
