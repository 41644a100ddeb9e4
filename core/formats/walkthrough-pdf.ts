/** The walkthrough of a run as pages: each state with its facts and a drawing with its path. */
import type { Show } from '../catalogue/kind'
import type { WalkthroughState } from '../explain/walkthrough'
import { instantText } from '../explain/words'
import type { PdfFile } from './faces'
import type { Sheet } from '../sheet/schema'
import { addPen } from '../sheet/pens'
import type { LetteringFont } from './lettering-fonts'
import { plotSheet } from './plot'
import { PageWriter, textDocument } from './pdf-pages'
import { repeatsText, sectionsOf, WALKTHROUGH_NOTE, type WalkthroughHeading } from './walkthrough-text'

/** Height of the drawing of a state, points. */
const DRAWING_HEIGHT = 260

/** @param fonts those that its letters may need */
export async function walkthroughToPdf(
  sheet: Sheet,
  states: readonly WalkthroughState[],
  { title, line }: WalkthroughHeading,
  fonts: readonly LetteringFont[],
  show: Show,
): Promise<PdfFile> {
  const { document, faces } = await textDocument(title, fonts, JSON.stringify([title, line, states, sheet]))
  const writer = new PageWriter(document, faces)
  writer.text(title, 18)
  writer.text(line)
  writer.text(WALKTHROUGH_NOTE)
  states.forEach((state, i) => {
    writer.heading(`${i + 1}. ${instantText(state.t, show)}: ${state.summary}`)
    writer.table(
      [0.2, 0.8],
      sectionsOf(state).map((section) => [
        section.title,
        section.sentences.map(({ text }) => text).join('\n'),
      ]),
    )
    const repeats = repeatsText(state, show)
    if (repeats) writer.text(repeats)
    if (state.path.length) {
      const drawn = addPen({ ...sheet, pens: [] }, `State ${i + 1}`, new Map(state.path))
      writer.drawing(plotSheet(drawn, show, { settings: false }), DRAWING_HEIGHT)
    }
  })
  writer.numberPages()
  return { bytes: await document.save(), missing: [...faces.missing] }
}
