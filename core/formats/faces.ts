/** Text in a PDF with letters from several fonts. */
import fontkit from '@pdf-lib/fontkit'
import type { PDFDocument, PDFFont, PDFPage, RGB } from 'pdf-lib'
import { fontsFor, withDiameter, type LetteringFont } from './lettering-fonts'

/** Stands for a letter that is in no font. */
const UNKNOWN = '?'

export class Faces {
  private readonly sets: readonly { face: PDFFont; letters: ReadonlySet<number> }[]
  /** Letters that were asked for and are in no font. */
  readonly missing = new Set<string>()

  private constructor(faces: readonly PDFFont[]) {
    this.sets = faces.map((face) => ({ face, letters: new Set(face.getCharacterSet()) }))
  }

  /** Embeds those of the fonts that a text needs. */
  static async embed(document: PDFDocument, fonts: readonly LetteringFont[], text: string): Promise<Faces> {
    document.registerFontkit(fontkit)
    const faces: PDFFont[] = []
    for (const font of fontsFor(text, fonts).used)
      faces.push(await document.embedFont(await font.plain(), { subset: true }))
    return new Faces(faces)
  }

  /** A text in runs of letters from one font each. */
  private runs(text: string): { face: PDFFont; text: string }[] {
    const runs: { face: PDFFont; text: string }[] = []
    for (const letter of withDiameter(text)) {
      const own = this.sets.find(({ letters }) => letters.has(letter.codePointAt(0)!))
      if (!own) this.missing.add(letter)
      const { face } = own ?? this.sets[0]
      const last = runs[runs.length - 1]
      if (last?.face === face) last.text += own ? letter : UNKNOWN
      else runs.push({ face, text: own ? letter : UNKNOWN })
    }
    return runs
  }

  /** In the unit of the size. */
  widthOf(text: string, size: number): number {
    return this.runs(text).reduce((sum, run) => sum + run.face.widthOfTextAtSize(run.text, size), 0)
  }

  /** Writes a text from (x, y) on its baseline, in points. */
  write(paper: PDFPage, text: string, x: number, y: number, size: number, color: RGB): void {
    for (const run of this.runs(text)) {
      paper.drawText(run.text, { x, y, size, font: run.face, color })
      x += run.face.widthOfTextAtSize(run.text, size)
    }
  }
}

/** A finished PDF. */
export interface PdfFile {
  readonly bytes: Uint8Array
  /** Letters that are in no font and were written as question marks. */
  readonly missing: readonly string[]
  /** Fields of the title block that hold more than there is room for. */
  readonly cut?: readonly string[]
  /** What to do about letters that are too small to be read. */
  readonly smallLetters?: string
}
