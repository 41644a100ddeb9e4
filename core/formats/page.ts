/**
 * The paper: borders, centring marks and a grid reference after ISO 5457, a title block after ISO 7200 and a revision table around a
 * drawing, in millimetres. A circuit diagram has no scale: it is drawn as large as the paper allows, up to letters of 3.5 mm.
 */
import { CAPITALS } from '../catalogue/text-width'
import type { Rect, XY } from '../sheet/geometry'
import { LETTERING } from '../sheet/annotations'
import type { PageSettings, Sheet } from '../sheet/schema'
import { fitText, LINE } from './fit-text'
import { around, MODULE, type Letters } from './plot'

/** ISO 216 and ASME Y14.1, mm, long side first. */
const PAPER: Readonly<Record<PageSettings['size'], readonly [number, number]>> = {
  A4: [297, 210],
  A3: [420, 297],
  A2: [594, 420],
  A1: [841, 594],
  'ANSI A': [279.4, 215.9],
  'ANSI B': [431.8, 279.4],
  'ANSI C': [558.8, 431.8],
  'ANSI D': [863.6, 558.8],
}
/** Each paper and the next larger one of its series. */
const LARGER: Readonly<Partial<Record<PageSettings['size'], PageSettings['size']>>> = {
  A4: 'A3',
  A3: 'A2',
  A2: 'A1',
  'ANSI A': 'ANSI B',
  'ANSI B': 'ANSI C',
  'ANSI C': 'ANSI D',
}
/** Margins, mm: the left one is for binding. */
const BINDING = 20
const MARGIN = 10
/** Grid reference: length of its fields along the frame, and width of its border, mm. */
const FIELD = 50
const BORDER = 5
const GRID_LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ'
/** How far a centring mark reaches into the frame, mm. */
const CENTRING = 5
/** Space kept between drawing and frame or title block, mm. */
const CLEAR = 4
/** Space kept between drawing and centring marks, mm. */
const CLEAR_OF_MARKS = 1
/** Height of letters, mm: the least that ISO 3098 has, and what suffices. */
export const LEAST_LETTERS = 1.8
const LARGEST_LETTERS = 3.5
/** Letters of a drawing at scale 1, mm. */
const DRAWN_LETTERS = LETTERING * CAPITALS * MODULE
/** Sizes of letters in fields, mm: 3.5, 2.5 and 1.8 high. */
const SIZES = [3.5, 2.5, 1.8].map((height) => height / CAPITALS)
const LABEL = 1.8 / CAPITALS
const [WIDE, FINE, BOLD] = [0.35, 0.18, 0.7]
const ROW = 12
const NOTE = 'Symbols: ISO 1219-1. Results support and never replace the judgement of a qualified person.'

export interface Page {
  /** mm */
  readonly width: number
  readonly height: number
  /** Outlines in mm: a closed or open run of points, and how wide it is drawn, mm. */
  readonly lines: readonly { readonly points: readonly XY[]; readonly width: number }[]
  readonly letters: readonly Letters[]
  /** Millimetres of paper to one of the drawing, and where the drawing's (0, 0) lies. */
  readonly scale: number
  readonly origin: XY
  /** Title block and revision table. */
  readonly reserved: readonly Rect[]
  /** Height of the capitals of the drawing, mm. */
  readonly letterHeight: number
  /** The smallest paper of the series on which the letters are high enough, where this one is too small. */
  readonly proposal?: PageSettings['size']
  /** Fields that hold more than there is room for. */
  readonly cut: readonly string[]
}

interface Cell {
  readonly label: string
  readonly value: string
  /** Share of the row. */
  readonly share: number
}

const box = (r: Rect): XY[] => [
  [r.x, r.y],
  [r.x + r.w, r.y],
  [r.x + r.w, r.y + r.h],
  [r.x, r.y + r.h],
  [r.x, r.y],
]
const grown = ({ x, y, w, h }: Rect, by: number): Rect => ({
  x: x - by,
  y: y - by,
  w: w + 2 * by,
  h: h + 2 * by,
})
/** The rectangle that two points span. */
const spanned = ([[x1, y1], [x2, y2]]: readonly XY[]): Rect => ({
  x: Math.min(x1, x2),
  y: Math.min(y1, y2),
  w: Math.abs(x2 - x1),
  h: Math.abs(y2 - y1),
})
const overlap = (a: Rect, b: Rect) => a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h
const segment = (a: XY, b: XY, width: number) => ({ points: [a, b], width })
const written = (at: XY, text: string, size: number, anchor: Letters['anchor'] = 'start'): Letters => ({
  shape: 'letters',
  at,
  text,
  size,
  anchor,
  on: 'baseline',
})

/** Draws fields and keeps what has no room. */
class Fields {
  readonly lines: Page['lines'][number][] = []
  readonly letters: Letters[] = []
  readonly cut: string[] = []

  /** A row of fields with their labels over them. */
  row(x: number, y: number, w: number, cells: readonly Cell[]): void {
    let left = x
    cells.forEach(({ label, value, share }, i) => {
      const width = share * w
      if (i) this.lines.push(segment([left, y], [left, y + ROW], FINE))
      this.letters.push(written([left + 1.2, y + 2.6], label, LABEL))
      const fitted = fitText(value, width - 2.4, ROW - 3.4, SIZES)
      if (fitted.cut) this.cut.push(label)
      fitted.lines.forEach((line, k) =>
        this.letters.push(
          written([left + 1.2, y + 3.2 + fitted.size * (0.85 + LINE * k)], line, fitted.size),
        ),
      )
      left += width
    })
  }
}

/** The drawing on its paper. @param boxes what is drawn, modules: nothing of it lies on title block or revision table */
export function pageOf(sheet: Sheet, boxes: readonly Rect[]): Page {
  const laid = layOut(sheet, sheet.page.size, boxes)
  if (laid.letterHeight >= LEAST_LETTERS - 1e-6) return laid
  let size = LARGER[sheet.page.size]
  while (size && layOut(sheet, size, boxes).letterHeight < LEAST_LETTERS - 1e-6) size = LARGER[size]
  return size ? { ...laid, proposal: size } : laid
}

/** What to do about letters that are too small to be read; nothing where they are high enough. */
export function smallLetters({ letterHeight, proposal }: Page): string | undefined {
  if (letterHeight >= LEAST_LETTERS - 1e-6) return undefined
  const enlarged = Math.ceil((100 * LEAST_LETTERS) / letterHeight)
  return `The letters of the drawing are ${letterHeight.toFixed(1)} mm high; ISO 3098 asks for ${LEAST_LETTERS} mm. ${proposal ? `Take paper of the size ${proposal}` : 'Draw the symbols closer together'}, print it enlarged to ${enlarged} %, or divide the circuit over two sheets.`
}

function layOut(sheet: Sheet, size: PageSettings['size'], boxes: readonly Rect[]): Page {
  const { page } = sheet
  const [long, short] = PAPER[size]
  const [width, height] = page.upright ? [short, long] : [long, short]
  const frame = { x: BINDING, y: MARGIN, w: width - BINDING - MARGIN, h: height - 2 * MARGIN }
  const fields = new Fields()
  const small = long < 300
  const grid = gridReference(width, height, frame, small)
  const block = titleBlock(sheet, size, frame, fields)
  const table = revisionTable(page, block, fields)
  const reserved = table ? [block, table] : [block]
  const marks = centringMarks(width, height, frame, reserved)
  const lines = [{ points: box(frame), width: BOLD }, ...marks]
  const kept = [
    ...reserved.map((r) => grown(r, CLEAR)),
    ...marks.map(({ points }) => grown(spanned(points), CLEAR_OF_MARKS)),
  ]
  const { scale, origin } = place(boxes, frame, kept, reserved)
  return {
    width,
    height,
    scale,
    origin,
    reserved,
    letterHeight: DRAWN_LETTERS * scale,
    lines: [...lines, ...grid.lines, ...fields.lines],
    letters: [...grid.letters, ...fields.letters],
    cut: fields.cut,
  }
}

function titleBlock(sheet: Sheet, size: PageSettings['size'], frame: Rect, fields: Fields): Rect {
  const { page } = sheet
  const w = Math.min(180, frame.w)
  const h = 3 * ROW + 4
  const block = { x: frame.x + frame.w - w, y: frame.y + frame.h - h, w, h }
  const { x, y } = block
  fields.lines.push({ points: box(block), width: BOLD })
  for (let i = 1; i <= 3; i++) fields.lines.push(segment([x, y + i * ROW], [x + w, y + i * ROW], WIDE))
  fields.row(x, y, w, [
    { label: 'Legal owner', value: page.owner, share: 0.35 },
    { label: 'Title', value: sheet.title, share: 0.65 },
  ])
  fields.row(x, y + ROW, w, [
    { label: 'Document type', value: page.documentType, share: 0.35 },
    { label: 'Created by', value: page.drawnBy, share: 0.325 },
    { label: 'Approved by', value: page.approvedBy, share: 0.325 },
  ])
  fields.row(x, y + 2 * ROW, w, [
    { label: 'Document number', value: page.number, share: 0.35 },
    { label: 'Issue', value: page.issue, share: 0.15 },
    { label: 'Date of issue', value: page.date, share: 0.2 },
    { label: 'Sheet', value: `${page.sheetNumber} of ${page.sheets}`, share: 0.15 },
    { label: 'Size', value: size, share: 0.15 },
  ])
  fields.letters.push(written([x + 1.2, y + 3 * ROW + 2.9], NOTE, LABEL))
  return block
}

/** Over the title block, the latest change at the top. */
function revisionTable(page: PageSettings, block: Rect, fields: Fields): Rect | undefined {
  if (!page.changes.length) return undefined
  const { x, w } = block
  const columns = [0.1, 0.56, 0.17, 0.17]
  const heads = ['Issue', 'Change', 'Date', 'By']
  const rows = [...page.changes].reverse().map(({ issue, change, date, by }) => {
    const cells = [issue, change, date, by].map((text, i) => fitText(text, columns[i] * w - 2.4, 9, [LABEL]))
    cells.forEach((cell, i) => {
      if (cell.cut) fields.cut.push(`${heads[i]} of the revision table`)
    })
    return { cells, h: Math.max(...cells.map((c) => c.lines.length), 1) * LINE * LABEL + 1.2 }
  })
  const head = LINE * LABEL + 1.2
  const h = rows.reduce((sum, row) => sum + row.h, head)
  const table = { x, y: block.y - h, w, h }
  fields.lines.push({ points: box(table), width: WIDE })
  let y = table.y
  const textAt = (column: number) => x + 1.2 + w * columns.slice(0, column).reduce((s, c) => s + c, 0)
  for (const row of rows) {
    row.cells.forEach((cell, i) =>
      cell.lines.forEach((text, k) =>
        fields.letters.push(written([textAt(i), y + 0.6 + LABEL * (0.85 + LINE * k)], text, LABEL)),
      ),
    )
    y += row.h
    fields.lines.push(segment([x, y], [x + w, y], FINE))
  }
  heads.forEach((text, i) => {
    fields.letters.push(written([textAt(i), y + 0.6 + LABEL * 0.85], text, LABEL))
    if (i) fields.lines.push(segment([textAt(i) - 1.2, table.y], [textAt(i) - 1.2, table.y + h], FINE))
  })
  return table
}

/** Lines at the middle of each side, from the border of the grid reference into the frame, or up to it where a field lies there. */
function centringMarks(width: number, height: number, frame: Rect, reserved: readonly Rect[]) {
  const [cx, cy] = [width / 2, height / 2]
  const [right, bottom] = [frame.x + frame.w, frame.y + frame.h]
  const mark = (outer: XY, edge: XY, inner: XY) => {
    const within = spanned([edge, inner])
    return segment(outer, reserved.some((r) => overlap(grown(r, BOLD), within)) ? edge : inner, BOLD)
  }
  return [
    mark([cx, frame.y - BORDER], [cx, frame.y], [cx, frame.y + CENTRING]),
    mark([cx, bottom + BORDER], [cx, bottom], [cx, bottom - CENTRING]),
    mark([frame.x - BORDER, cy], [frame.x, cy], [frame.x + CENTRING, cy]),
    mark([right + BORDER, cy], [right, cy], [right - CENTRING, cy]),
  ]
}

/** Fields of 50 mm from the centring marks outwards: numerals along the top and the bottom, letters at the sides. */
function gridReference(width: number, height: number, frame: Rect, small: boolean) {
  const lines: Page['lines'][number][] = []
  const letters: Letters[] = []
  const [right, bottom] = [frame.x + frame.w, frame.y + frame.h]
  const outer = {
    x: frame.x - BORDER,
    y: frame.y - BORDER,
    w: frame.w + 2 * BORDER,
    h: frame.h + 2 * BORDER,
  }
  lines.push({ points: box(outer), width: WIDE })
  const size = LABEL * 1.2
  const divide = (from: number, to: number, middle: number) => {
    const count = Math.max(1, Math.round((to - from) / 2 / FIELD)) * 2
    return Array.from({ length: count + 1 }, (_, i) =>
      i === 0 ? from : i === count ? to : middle + (i - count / 2) * FIELD,
    )
  }
  // small paper has the grid reference at its top and its right side only
  const across = divide(frame.x, right, width / 2)
  const down = divide(frame.y, bottom, height / 2)
  across.forEach((x, i) => {
    if (i && i < across.length - 1 && x !== width / 2)
      for (const y of small ? [outer.y] : [outer.y, bottom])
        lines.push(segment([x, y], [x, y + BORDER], WIDE))
    if (!i) return
    const middle = (across[i - 1] + x) / 2
    for (const y of small ? [frame.y - 1.4] : [frame.y - 1.4, bottom + BORDER - 1.4])
      letters.push(written([middle, y], String(i), size, 'middle'))
  })
  down.forEach((y, i) => {
    if (i && i < down.length - 1 && y !== height / 2)
      for (const x of small ? [right] : [outer.x, right]) lines.push(segment([x, y], [x + BORDER, y], WIDE))
    if (!i) return
    const middle = (down[i - 1] + y) / 2 + 0.35 * size
    for (const x of small ? [right + BORDER / 2] : [outer.x + BORDER / 2, right + BORDER / 2])
      letters.push(written([x, middle], GRID_LETTERS[i - 1], size, 'middle'))
  })
  return { lines, letters }
}

/** Steps of the size that are tried between what fits beside everything and what fills the frame. */
const TRIES = 60

/**
 * The largest scale at which all boxes lie in the frame and none on what is kept free, and where the drawing lies then.
 * @param fields title block and revision table: above them there is room in any case
 */
function place(
  boxes: readonly Rect[],
  frame: Rect,
  kept: readonly Rect[],
  fields: readonly Rect[],
): { scale: number; origin: XY } {
  const bounds = around(boxes)
  const room = grown(frame, -CLEAR)
  const highest = LARGEST_LETTERS / DRAWN_LETTERS
  const largest = Math.min(room.w / (bounds.w * MODULE), room.h / (bounds.h * MODULE), highest)
  const top = Math.min(...fields.map((r) => r.y))
  const inside = grown(frame, -CENTRING - CLEAR_OF_MARKS)
  const above = { ...inside, h: top - CLEAR - inside.y }
  const sure = Math.min(above.w / (bounds.w * MODULE), above.h / (bounds.h * MODULE), highest)
  const originIn = (r: Rect, scale: number, sx: number, sy: number): XY => [
    r.x + sx * (r.w - bounds.w * MODULE * scale) - bounds.x * MODULE * scale,
    r.y + sy * (r.h - bounds.h * MODULE * scale) - bounds.y * MODULE * scale,
  ]
  const isFree = (scale: number, [ox, oy]: XY) => {
    const k = MODULE * scale
    return boxes.every((b) => {
      const drawn = { x: ox + b.x * k, y: oy + b.y * k, w: b.w * k, h: b.h * k }
      return !kept.some((r) => overlap(r, drawn))
    })
  }
  for (let i = 0; i < TRIES && largest > sure; i++) {
    const scale = largest - ((largest - sure) * i) / TRIES
    for (const [sx, sy] of [
      [0.5, 0.5],
      [0, 0.5],
      [0.5, 0],
      [0, 0],
      [0, 1],
    ]) {
      const origin = originIn(room, scale, sx, sy)
      if (isFree(scale, origin)) return { scale, origin }
    }
  }
  return { scale: sure, origin: originIn(above, sure, 0.5, 0.5) }
}
