/** The fonts of drawings from their packages. */
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { fontFamilies, letteringScripts, type LetteringFont } from '../formats/lettering-fonts'

const require = createRequire(import.meta.url)

export const letteringFonts: readonly LetteringFont[] = letteringScripts.map(([family, script, range]) => {
  const folder = dirname(require.resolve(`@fontsource/${family}/package.json`))
  const ranges = JSON.parse(readFileSync(join(folder, 'unicode.json'), 'utf8')) as Record<string, string>
  const file = (ending: string) => {
    const path = join(folder, 'files', `${family}-${script}-400-normal.${ending}`)
    return Promise.resolve(new Uint8Array(readFileSync(path)))
  }
  return {
    family: fontFamilies[family],
    range: range ?? ranges[script],
    plain: () => file('woff'),
    packed: () => file('woff2'),
  }
})
