/** A sheet as SVG, true to its module of 2.5 mm, with the sheet file inside so that nothing is lost. */
import { SaxesParser } from 'saxes'
import { arcData } from '../catalogue/symbol'
import type { Show } from '../catalogue/kind'
import { outline, polyline } from '../sheet/geometry'
import { readSheetText, type ReadResult } from '../sheet/read'
import type { Sheet } from '../sheet/schema'
import { withDiameter } from './lettering-fonts'
import { pageOf, type Page } from './page'
import {
  allStrokes,
  dashes,
  MODULE,
  plotSheet,
  THIN,
  type DrawnShape,
  type Plot,
  type PlotOptions,
} from './plot'

const NAMESPACE = 'urn:oar-bench:sheet'
/** Space around the drawing, modules. */
const BORDER = 2

export interface SvgOptions extends PlotOptions {
  /** Fonts to embed, so that every viewer shows the same letters; without any the viewer's own is used. */
  readonly fonts?: readonly {
    readonly family: string
    readonly range: string
    readonly woff2Base64: string
  }[]
  /** Components and pipes to highlight: colour by id. */
  readonly marks?: ReadonlyMap<string, string>
}

const escape = (text: string) =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')
const number = (x: number) => String(Number(x.toFixed(4)))
const pair = ([x, y]: readonly [number, number]) => `${number(x)},${number(y)}`

function element(ink: DrawnShape): string {
  const dash = 'dash' in ink && ink.dash ? ` stroke-dasharray="${dashes[ink.dash].join(' ')}"` : ''
  const fill = 'fill' in ink ? { ink: ' fill="#000"', paper: ' fill="#fff"', none: '' }[ink.fill] : ''
  switch (ink.shape) {
    case 'line':
      return `<polyline points="${ink.points.map(pair).join(' ')}"${dash}/>`
    case 'polygon':
      return `<polygon points="${ink.points.map(pair).join(' ')}"${fill}${dash}/>`
    case 'circle':
      return `<circle cx="${number(ink.at[0])}" cy="${number(ink.at[1])}" r="${number(ink.r)}"${fill}${dash}/>`
    case 'arc':
      return `<path d="${arcData(ink, number)}"${dash}/>`
    case 'letters': {
      // half the height of capitals puts the middle on the line without relying on the viewer's baselines
      const y = ink.at[1] + (ink.on === 'middle' ? 0.35 * ink.size : 0)
      const anchor = ink.anchor === 'start' ? '' : ` text-anchor="${ink.anchor}"`
      return `<text x="${number(ink.at[0])}" y="${number(y)}" font-size="${number(ink.size)}"${anchor}>${escape(withDiameter(ink.text))}</text>`
    }
  }
}

export function sheetToSvg(sheet: Sheet, show: Show, options: SvgOptions = {}): string {
  return plotToSvg({ ...plotSheet(sheet, show, options), title: sheet.title }, options, {
    head: [`<metadata><sheet xmlns="${NAMESPACE}">${escape(JSON.stringify(sheet))}</sheet></metadata>`],
    ground: marksOf(sheet, options),
  })
}

/** A plot with space around it, on white. @param more elements before everything, and on the ground under the strokes */
export function plotToSvg(
  plot: Plot,
  { fonts }: Pick<SvgOptions, 'fonts'> = {},
  more: { readonly head?: readonly string[]; readonly ground?: readonly string[] } = {},
): string {
  const { x, y, w, h } = plot.bounds
  const [width, height] = [w + 2 * BORDER, h + 2 * BORDER]
  const family = familyOf({ fonts })
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${number(width * MODULE)}mm" height="${number(height * MODULE)}mm" viewBox="${[x - BORDER, y - BORDER, width, height].map(number).join(' ')}" font-family="${escape(family)}">`,
    `<title>${escape(plot.title)}</title>`,
    ...(more.head ?? []),
    ...faceOf({ fonts }),
    `<rect x="${number(x - BORDER)}" y="${number(y - BORDER)}" width="${number(width)}" height="${number(height)}" fill="#fff"/>`,
    ...(more.ground ?? []),
    ...layered(plot, family),
    '</svg>',
    '',
  ].join('\n')
}

/** Coloured ground under what is highlighted. */
function marksOf(sheet: Sheet, { marks }: SvgOptions): string[] {
  if (!marks?.size) return []
  const colour = (id: string) => escape(marks.get(id)!)
  const bodies = sheet.components.filter((c) => marks.has(c.id)).map((c) => ({ id: c.id, ...outline(c) }))
  const lines = sheet.pipes.filter((p) => marks.has(p.id))
  return [
    '<g id="marks" opacity="0.35">',
    ...bodies.map(
      ({ id, x, y, w, h }) =>
        `<rect data-mark="${escape(id)}" x="${number(x - 1)}" y="${number(y - 1)}" width="${number(w + 2)}" height="${number(h + 2)}" rx="1" fill="${colour(id)}"/>`,
    ),
    ...lines.map(
      (p) =>
        `<polyline data-mark="${escape(p.id)}" points="${polyline(sheet, p).map(pair).join(' ')}" fill="none" stroke="${colour(p.id)}" stroke-width="1.2"/>`,
    ),
    '</g>',
  ]
}

const familyOf = ({ fonts = [] }: SvgOptions) =>
  [...new Set(fonts.map(({ family }) => family)), 'sans-serif'].join(', ')
const faceOf = ({ fonts = [] }: SvgOptions) =>
  fonts.length
    ? [
        `<style>${fonts
          .map(
            ({ family, range, woff2Base64 }) =>
              `@font-face{font-family:"${escape(family)}";src:url(data:font/woff2;base64,${woff2Base64}) format("woff2");unicode-range:${range}}`,
          )
          .join('')}</style>`,
      ]
    : []

/** The strokes of a plot as a group for each layer, in modules. */
function layered(plot: Plot, family: string): string[] {
  const groups = new Map<string, string[]>()
  for (const { layer, ink, colour, width } of allStrokes(plot)) {
    if (!groups.has(layer)) groups.set(layer, [])
    const drawn = element(ink)
    groups
      .get(layer)!
      .push(colour ? `<g stroke="${escape(colour)}" stroke-width="${number(width)}">${drawn}</g>` : drawn)
  }
  return [...groups].map(([layer, elements]) => {
    const look =
      layer === 'lettering'
        ? `fill="#000" font-family="${escape(family)}"`
        : layer === 'pens'
          ? `fill="none" stroke-linejoin="round" stroke-linecap="round" opacity="0.6"`
          : `fill="none" stroke="#000" stroke-width="${THIN}" stroke-linejoin="round"`
    return `<g id="${layer}" ${look}>\n${elements.map(lettersInk).join('\n')}\n</g>`
  })
}

/** A small picture of a sheet: its lines and symbols without lettering, to be shown at any size. Empty for an empty sheet. */
export function sheetThumbnail(sheet: Sheet, show: Show): string {
  if (!sheet.components.length) return ''
  const plot = plotSheet(sheet, show)
  const strokes = allStrokes(plot).filter(({ ink }) => ink.shape !== 'letters')
  const { x, y, w, h } = plot.bounds
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${[x - 1, y - 1, w + 2, h + 2].map(number).join(' ')}" fill="none" stroke="#000" stroke-width="0.3">`,
    ...strokes.map(({ ink }) => element(ink)),
    '</svg>',
  ].join('\n')
}

/** The sheet on its paper with frame and title block, as it is printed: the page that the PDF has, in millimetres; and how it was laid out. */
export function pageToSvg(
  sheet: Sheet,
  show: Show,
  options: SvgOptions = {},
): { readonly svg: string; readonly page: Page } {
  const plot = plotSheet(sheet, show, options)
  const page = pageOf(sheet, plot.boxes)
  const family = familyOf(options)
  const svg = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${page.width}mm" height="${page.height}mm" viewBox="0 0 ${page.width} ${page.height}" font-family="${escape(family)}">`,
    `<title>${escape(sheet.title)}</title>`,
    ...faceOf(options),
    `<rect width="${page.width}" height="${page.height}" fill="#fff"/>`,
    `<g transform="translate(${page.origin.map(number).join(' ')}) scale(${number(MODULE * page.scale)})">`,
    ...layered(plot, family),
    '</g>',
    ...page.lines.map(
      ({ points, width }) =>
        `<polyline points="${points.map(pair).join(' ')}" fill="none" stroke="#000" stroke-width="${width}"/>`,
    ),
    ...page.letters.map((letters) => element(letters)),
    '</svg>',
    '',
  ].join('\n')
  return { svg, page }
}

/** Letters among strokes are filled, not stroked. */
const lettersInk = (text: string) =>
  text.startsWith('<text') ? text.replace('<text', '<text fill="#000" stroke="none"') : text

/**
 * The sheet inside an SVG that `sheetToSvg` wrote, wherever it lies and however it is prefixed. Only its text is taken: nothing of the
 * file is loaded or run, and entities that it defines itself are refused.
 */
export function readSvg(text: string): ReadResult {
  const parser = new SaxesParser({ xmlns: true })
  let depth = 0
  let found: string | undefined
  const isSheet = ({ uri, local }: { uri: string; local: string }) => uri === NAMESPACE && local === 'sheet'
  parser.on('opentag', (tag) => {
    if (depth || (isSheet(tag) && found === undefined)) depth++
    if (depth === 1) found = ''
  })
  parser.on('closetag', () => {
    if (depth) depth--
  })
  const take = (part: string) => {
    if (depth) found += part
  }
  parser.on('text', take)
  parser.on('cdata', take)
  let problem: string | undefined
  parser.on('error', (error) => {
    problem ??= error.message
  })
  parser.write(text).close()
  const refused = (message: string): ReadResult => ({
    ok: false,
    problems: [{ rule: 'file', severity: 'error', message, location: {} }],
  })
  if (problem) return refused(`This SVG is not well formed: ${problem}`)
  if (found === undefined) return refused('This SVG holds no Oar Bench sheet: it is a picture only.')
  return readSheetText(found)
}
