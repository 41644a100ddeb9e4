/** The paper: a frame after ISO 5457 and a title block after ISO 7200 around a drawing, in millimetres. */
import type { Rect, XY } from '../sheet/geometry'
import type { Sheet } from '../sheet/schema'
import { MODULE, type Letters } from './plot'

/** ISO 216, mm, long side first. */
const PAPER = { A4: [297, 210], A3: [420, 297], A2: [594, 420], A1: [841, 594] } as const
/** Margins, mm: the left one is for binding. */
const BINDING = 20
const MARGIN = 10
const BLOCK = { width: 180, height: 32 }
/** Space kept between frame and drawing, mm. */
const CLEAR = 4
/** Scales of ISO 5455 that a drawing may be reduced to. */
const SCALES = [1, 1 / 2, 1 / 5, 1 / 10, 1 / 20, 1 / 50]

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
}

/** The page of a sheet with its drawing in the middle, at the largest scale of ISO 5455 that fits it. @param bounds of the drawing, modules */
export function pageOf(sheet: Sheet, bounds: Rect): Page {
  const { page } = sheet
  const [long, short] = PAPER[page.size]
  const [width, height] = page.upright ? [short, long] : [long, short]
  const frame = { x: BINDING, y: MARGIN, w: width - BINDING - MARGIN, h: height - 2 * MARGIN }
  const block = {
    x: frame.x + frame.w - Math.min(BLOCK.width, frame.w),
    y: frame.y + frame.h - BLOCK.height,
    w: Math.min(BLOCK.width, frame.w),
    h: BLOCK.height,
  }
  const room = { w: frame.w - 2 * CLEAR, h: frame.h - BLOCK.height - 2 * CLEAR }
  const fits = (s: number) => bounds.w * MODULE * s <= room.w && bounds.h * MODULE * s <= room.h
  const scale = SCALES.find(fits) ?? SCALES[SCALES.length - 1]
  const size = MODULE * scale
  const origin: XY = [
    frame.x + CLEAR + (room.w - bounds.w * size) / 2 - bounds.x * size,
    frame.y + CLEAR + (room.h - bounds.h * size) / 2 - bounds.y * size,
  ]
  const box = (r: Rect): XY[] => [
    [r.x, r.y],
    [r.x + r.w, r.y],
    [r.x + r.w, r.y + r.h],
    [r.x, r.y + r.h],
    [r.x, r.y],
  ]
  const half = block.y + block.h / 2
  const columns = [0.4, 0.6, 0.8].map((share) => block.x + share * block.w)
  const cell = (x: number, y: number, label: string, value: string, tall = 3.5): Letters[] => [
    { shape: 'letters', at: [x + 2, y + 3.5], text: label, size: 2.2, anchor: 'start', on: 'baseline' },
    { shape: 'letters', at: [x + 2, y + 11], text: value, size: tall, anchor: 'start', on: 'baseline' },
  ]
  const words = `1:${Math.round(1 / scale)}`
  return {
    width,
    height,
    scale,
    origin,
    lines: [
      { points: box(frame), width: 0.7 },
      { points: box(block), width: 0.5 },
      {
        points: [
          [block.x, half],
          [block.x + block.w, half],
        ],
        width: 0.25,
      },
      ...columns.map((x) => ({
        points: [
          [x, block.y],
          [x, block.y + block.h],
        ] as XY[],
        width: 0.25,
      })),
    ],
    letters: [
      ...cell(block.x, block.y, 'Title', sheet.title, 4.5),
      ...cell(block.x, half, 'Drawing number', page.number, 4.5),
      ...cell(columns[0], block.y, 'Drawn by', page.drawnBy),
      ...cell(columns[0], half, 'Approved by', page.approvedBy),
      ...cell(columns[1], block.y, 'Date of issue', page.date),
      ...cell(columns[1], half, 'Issue', page.issue),
      ...cell(columns[2], block.y, 'Scale (1 M = 2.5 mm)', words),
      ...cell(columns[2], half, 'Size', `${page.size}${page.upright ? ' upright' : ''}`),
      {
        shape: 'letters',
        at: [frame.x + 2, frame.y + frame.h - 2],
        text: 'Symbols ISO 1219-1. Results support and never replace the judgement of a qualified person.',
        size: 2.2,
        anchor: 'start',
        on: 'baseline',
      },
    ],
  }
}
