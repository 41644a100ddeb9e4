/** An SVG as a PNG without a browser: its letters become outlines, since the renderer reads no packed fonts. */
import fontkit, { type Font } from '@pdf-lib/fontkit'
import { Resvg } from '@resvg/resvg-js'
import { SaxesParser } from 'saxes'
import { letteringFonts } from './fonts'

let faces: Promise<{ font: Font; letters: ReadonlySet<number> }[]> | undefined
const loaded = () =>
  (faces ??= Promise.all(
    letteringFonts.map(async ({ plain }) => {
      const font = fontkit.create(await plain())
      return { font, letters: new Set(font.characterSet) }
    }),
  ))

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;')

/** A text as paths, from (x, y) on its baseline. */
function outlines(
  known: Awaited<ReturnType<typeof loaded>>,
  text: string,
  attributes: Readonly<Record<string, string>>,
): string {
  const size = Number(attributes['font-size'])
  const glyphs = [...text].map((letter) => {
    const code = letter.codePointAt(0)!
    const { font } = known.find(({ letters }) => letters.has(code)) ?? known[0]
    return { glyph: font.glyphForCodePoint(code), scale: size / font.unitsPerEm }
  })
  const width = glyphs.reduce((sum, { glyph, scale }) => sum + glyph.advanceWidth * scale, 0)
  const anchor = attributes['text-anchor']
  let x = Number(attributes.x) - (anchor === 'middle' ? width / 2 : anchor === 'end' ? width : 0)
  return glyphs
    .map(({ glyph, scale }) => {
      const path = `<path fill="#000" stroke="none" transform="translate(${x} ${attributes.y}) scale(${scale} ${-scale})" d="${glyph.path.toSVG()}"/>`
      x += glyph.advanceWidth * scale
      return path
    })
    .join('')
}

/** The same picture with each text as outlines. */
async function withOutlines(svg: string): Promise<string> {
  const known = await loaded()
  const out: string[] = []
  /** The text that is being read. */
  let written: { attributes: Record<string, string>; text: string } | undefined
  const parser = new SaxesParser()
  parser.on('opentag', ({ name, attributes }) => {
    if (name === 'text') written = { attributes, text: '' }
    else
      out.push(
        `<${name}${Object.entries(attributes)
          .map(([key, value]) => ` ${key}="${escaped(value)}"`)
          .join('')}>`,
      )
  })
  // what is no part of the picture is left out: title, sheet, style
  parser.on('text', (text) => {
    if (written) written.text += text
  })
  parser.on('closetag', ({ name }) => {
    if (name !== 'text') out.push(`</${name}>`)
    else if (written) {
      out.push(outlines(known, written.text, written.attributes))
      written = undefined
    }
  })
  parser.write(svg).close()
  return out.join('')
}

/** @param dots to a millimetre */
async function rendered(svg: string, dots: number) {
  const millimetres = Number(/ width="([\d.]+)mm"/.exec(svg)![1])
  const picture = new Resvg(await withOutlines(svg), {
    fitTo: { mode: 'width', value: Math.round(millimetres * dots) },
    font: { loadSystemFonts: false },
  })
  return picture.render()
}

/** @param dots to a millimetre, of the module of 2.5 mm */
export async function rasterize(svg: string, dots: number): Promise<{ png: Uint8Array; dots: number }> {
  return { png: new Uint8Array((await rendered(svg, dots)).asPng()), dots }
}

/** The picture as red, green, blue and opacity of each point, row by row. */
export async function pixelsOf(svg: string, dots: number) {
  const { width, height, pixels } = await rendered(svg, dots)
  return { width, height, pixels: new Uint8Array(pixels) }
}
