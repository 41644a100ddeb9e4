/** The states of a machine as rows of a table, and as pages. */
import type { Show } from '../catalogue/kind'
import type { StateTable } from '../explain/state-table'
import { cellText, metText, outcomeText } from '../explain/state-words'
import { fixedByShort } from '../explain/words'
import type { Sheet } from '../sheet/schema'
import type { Rows } from './csv'
import type { PdfFile } from './faces'
import type { LetteringFont } from './lettering-fonts'
import { PageWriter, textDocument } from './pdf-pages'
import type { WalkthroughHeading } from './walkthrough-text'

/** One row a state: what begins it, where it is met, each figure as read, and what sets each pressure. */
export function stateRows(sheet: Sheet, { columns, rows }: StateTable, show: Show): Rows {
  return [
    [
      'State',
      'Met in',
      ...columns.flatMap((c) => (c.group === 'pressures' ? [c.label, `${c.label} set by`] : [c.label])),
      'Remark',
    ],
    ...rows.map((row) => [
      row.title,
      metText(sheet, row, show),
      ...row.cells.flatMap((cell, i) => [
        cellText(cell, columns[i], show),
        ...(columns[i].group === 'pressures' ? [cell.fixedBy ? fixedByShort(sheet, cell.fixedBy) : ''] : []),
      ]),
      outcomeText(sheet, row),
    ]),
  ]
}

/** @param fonts those that its letters may need */
export async function statesToPdf(
  sheet: Sheet,
  table: StateTable,
  { title, line }: WalkthroughHeading,
  fonts: readonly LetteringFont[],
  show: Show,
): Promise<PdfFile> {
  const rows = stateRows(sheet, table, show)
  const { document, faces } = await textDocument(title, fonts, JSON.stringify([title, line, rows]))
  const writer = new PageWriter(document, faces)
  writer.text(title, 18)
  writer.text(line)
  const { columns } = table
  table.rows.forEach((row, i) => {
    writer.heading(`${i + 1}. ${row.title}`)
    const met = metText(sheet, row, show)
    if (met) writer.text(met)
    const remark = outcomeText(sheet, row)
    if (remark) writer.text(remark)
    writer.table(
      [0.3, 0.3, 0.4],
      row.cells.map((cell, k) => [
        columns[k].label,
        cellText(cell, columns[k], show),
        cell.fixedBy ? fixedByShort(sheet, cell.fixedBy) : '',
      ]),
    )
  })
  writer.numberPages()
  return { bytes: await document.save(), missing: [...faces.missing] }
}
