/** Running text and tables on the pages of a PDF. */
import { PDFDocument, rgb, type PDFPage } from 'pdf-lib'
import { Faces } from './faces'
import type { LetteringFont } from './lettering-fonts'
import { plainText, type TextPiece } from './indices'
import { inkOf, PdfPen, POINT } from './pdf'
import { allStrokes, MODULE, type Plot } from './plot'

/** A4 upright, points. */
const [WIDTH, HEIGHT] = [595.3, 841.9]
const MARGIN = 50
const SIZE = 9
const LINE = 12
const GAP = 6
const INK = rgb(0, 0, 0)
/** Size and drop of an index, as shares of the size of the text. */
const INDEX_SIZE = 0.72
const INDEX_DROP = 0.2
const SOFT = rgb(0.6, 0.6, 0.6)
/** A document of running text, with its title. @param fonts those that its letters may need @param words all that is written in it */
export async function textDocument(
  title: string,
  fonts: readonly LetteringFont[],
  words: string,
  author?: string,
): Promise<{ document: PDFDocument; faces: Faces }> {
  const document = await PDFDocument.create()
  document.setTitle(title, { showInWindowTitleBar: true })
  if (author) document.setAuthor(author)
  document.setCreator('Oar Bench')
  document.setLanguage('en')
  return { document, faces: await Faces.embed(document, fonts, words) }
}

/** Writes down the page, and goes on to the next where one is full. */
export class PageWriter {
  private paper!: PDFPage
  private y = 0
  constructor(
    private readonly document: PDFDocument,
    private readonly faces: Faces,
    /** How a text divides into what stands on the line and what is lowered. */
    private readonly pieces: (text: string) => TextPiece[] = plainText,
  ) {
    this.turn()
  }

  private turn(): void {
    this.paper = this.document.addPage([WIDTH, HEIGHT])
    this.y = HEIGHT - MARGIN
  }
  private room(height: number): void {
    if (this.y - height < MARGIN) this.turn()
  }
  /** The lines of a text within a width; a word that is wider by itself is broken. */
  private wrapped(text: string, width: number, size = SIZE): string[] {
    const fits = (line: string) => this.widthOf(line, size) <= width
    return text.split('\n').flatMap((paragraph) => {
      const lines = ['']
      for (const word of paragraph.split(' ')) {
        const line = lines[lines.length - 1]
        if (fits(line ? `${line} ${word}` : word)) {
          lines[lines.length - 1] = line ? `${line} ${word}` : word
          continue
        }
        if (line) lines.push('')
        for (const letter of word) {
          if (!fits(lines[lines.length - 1] + letter)) lines.push('')
          lines[lines.length - 1] += letter
        }
      }
      return lines
    })
  }
  private put(line: string, x: number, y: number, size: number): void {
    for (const { text, lowered } of this.pieces(line)) {
      const own = lowered ? INDEX_SIZE * size : size
      this.faces.write(this.paper, text, x, lowered ? y - INDEX_DROP * size : y, own, INK)
      x += this.faces.widthOf(text, own)
    }
  }
  private widthOf(line: string, size: number): number {
    return this.pieces(line).reduce(
      (sum, { text, lowered }) => sum + this.faces.widthOf(text, lowered ? INDEX_SIZE * size : size),
      0,
    )
  }

  text(text: string, size = SIZE): void {
    const height = (LINE * size) / SIZE
    for (const line of this.wrapped(text, WIDTH - 2 * MARGIN, size)) {
      this.room(height)
      this.y -= height
      this.put(line, MARGIN, this.y, size)
    }
  }
  heading(text: string): void {
    this.room(5 * LINE)
    this.y -= 2 * GAP
    this.text(text, 12)
    this.y -= GAP / 2
  }
  table(shares: readonly number[], rows: readonly (readonly string[])[]): void {
    const width = WIDTH - 2 * MARGIN
    rows.forEach((row, r) => {
      let x = MARGIN
      const cells = shares.map((share, i) => {
        const cell = { x, lines: this.wrapped(row[i] ?? '', share * width - GAP) }
        x += share * width
        return cell
      })
      const height = Math.max(...cells.map((c) => c.lines.length)) * LINE + GAP / 2
      this.room(Math.min(height, HEIGHT - 2 * MARGIN))
      for (let k = 0; cells.some((cell) => k < cell.lines.length); k++) {
        this.room(LINE)
        this.y -= LINE
        for (const cell of cells) if (cell.lines[k]) this.put(cell.lines[k], cell.x, this.y, SIZE)
      }
      this.y -= GAP / 2
      this.paper.drawLine({
        start: { x: MARGIN, y: this.y },
        end: { x: WIDTH - MARGIN, y: this.y },
        thickness: r === 0 ? 0.8 : 0.3,
        color: r === 0 ? INK : SOFT,
      })
    })
  }
  /** A drawing in the width of the text, at most so high. @param height points */
  drawing(plot: Plot, height: number): void {
    const { x, y, w, h } = plot.bounds
    const [width, most] = [(WIDTH - 2 * MARGIN) / POINT, height / POINT]
    const scale = Math.min(1, width / (w * MODULE), most / (h * MODULE))
    const size = MODULE * scale
    this.room(h * size * POINT + 2 * GAP)
    this.y -= GAP
    const pen = new PdfPen(this.paper, this.faces, {
      height: HEIGHT / POINT,
      scale,
      origin: [MARGIN / POINT - x * size, (HEIGHT - this.y) / POINT - y * size],
    })
    for (const { ink, width: thick, colour } of allStrokes(plot)) pen.draw(ink, thick * size, inkOf(colour))
    this.y -= h * size * POINT + GAP
  }
  numberPages(): void {
    const pages = this.document.getPages()
    pages.forEach((page, i) => {
      const text = `${i + 1} of ${pages.length}`
      const x = WIDTH - MARGIN - this.faces.widthOf(text, SIZE)
      this.faces.write(page, text, x, MARGIN / 2, SIZE, INK)
    })
  }
}
