/** The fonts of drawings as files of the application: each is fetched when its letters are used. */
import latinPlain from '@fontsource/barlow-semi-condensed/files/barlow-semi-condensed-latin-400-normal.woff?url'
import latinPacked from '@fontsource/barlow-semi-condensed/files/barlow-semi-condensed-latin-400-normal.woff2?url'
import latinExtPlain from '@fontsource/barlow-semi-condensed/files/barlow-semi-condensed-latin-ext-400-normal.woff?url'
import latinExtPacked from '@fontsource/barlow-semi-condensed/files/barlow-semi-condensed-latin-ext-400-normal.woff2?url'
import vietnamesePlain from '@fontsource/barlow-semi-condensed/files/barlow-semi-condensed-vietnamese-400-normal.woff?url'
import vietnamesePacked from '@fontsource/barlow-semi-condensed/files/barlow-semi-condensed-vietnamese-400-normal.woff2?url'
import greekPlain from '@fontsource/source-sans-3/files/source-sans-3-greek-400-normal.woff?url'
import greekPacked from '@fontsource/source-sans-3/files/source-sans-3-greek-400-normal.woff2?url'
import greekExtPlain from '@fontsource/source-sans-3/files/source-sans-3-greek-ext-400-normal.woff?url'
import greekExtPacked from '@fontsource/source-sans-3/files/source-sans-3-greek-ext-400-normal.woff2?url'
import cyrillicPlain from '@fontsource/source-sans-3/files/source-sans-3-cyrillic-400-normal.woff?url'
import cyrillicPacked from '@fontsource/source-sans-3/files/source-sans-3-cyrillic-400-normal.woff2?url'
import cyrillicExtPlain from '@fontsource/source-sans-3/files/source-sans-3-cyrillic-ext-400-normal.woff?url'
import cyrillicExtPacked from '@fontsource/source-sans-3/files/source-sans-3-cyrillic-ext-400-normal.woff2?url'
import mathPlain from '@fontsource/noto-sans-math/files/noto-sans-math-latin-400-normal.woff?url'
import mathPacked from '@fontsource/noto-sans-math/files/noto-sans-math-latin-400-normal.woff2?url'
import barlowRanges from '@fontsource/barlow-semi-condensed/unicode.json'
import sansRanges from '@fontsource/source-sans-3/unicode.json'
import { fontFamilies, letteringScripts, type LetteringFont } from '@oar-bench/core/formats/lettering-fonts'

/** Where each script is found, as WOFF and as WOFF2. */
const files: Readonly<Record<string, Readonly<Record<string, readonly [string, string]>>>> = {
  'barlow-semi-condensed': {
    latin: [latinPlain, latinPacked],
    'latin-ext': [latinExtPlain, latinExtPacked],
    vietnamese: [vietnamesePlain, vietnamesePacked],
  },
  'source-sans-3': {
    greek: [greekPlain, greekPacked],
    'greek-ext': [greekExtPlain, greekExtPacked],
    cyrillic: [cyrillicPlain, cyrillicPacked],
    'cyrillic-ext': [cyrillicExtPlain, cyrillicExtPacked],
  },
  'noto-sans-math': { latin: [mathPlain, mathPacked] },
}
const ranges: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  'barlow-semi-condensed': barlowRanges,
  'source-sans-3': sansRanges,
}

async function bytesOf(url: string): Promise<Uint8Array> {
  const answer = await fetch(url)
  if (!answer.ok) throw new Error('a font could not be read')
  return new Uint8Array(await answer.arrayBuffer())
}

export const letteringFonts: readonly LetteringFont[] = letteringScripts.map(([family, script, range]) => {
  const [plain, packed] = files[family][script]
  return {
    family: fontFamilies[family],
    range: range ?? ranges[family][script],
    plain: () => bytesOf(plain),
    packed: () => bytesOf(packed),
  }
})
