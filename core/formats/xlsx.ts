/** Rows as a workbook of one sheet: wrapped, as wide as it needs, and printed on upright pages' breadth with its heading on each. */
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import writeExcelFile from 'write-excel-file/universal'
import type { Rows } from './csv'

/** Widths of columns, in letters. */
const [NARROWEST, WIDEST] = [8, 48]
/** So many rows are looked at for the width of a column. */
const LOOKED_AT = 500
const WORKSHEET = 'xl/worksheets/sheet1.xml'
const WORKBOOK = 'xl/workbook.xml'

export async function workbook(rows: Rows, name: string): Promise<Uint8Array> {
  const data = rows.map((row, i) =>
    row.map((value) => ({
      value,
      wrap: typeof value === 'string',
      alignVertical: 'top' as const,
      ...(i === 0 ? { fontWeight: 'bold' as const } : {}),
    })),
  )
  const longest = (column: number) =>
    Math.max(...rows.slice(0, LOOKED_AT).map((row) => String(row[column] ?? '').length))
  const columns = (rows[0] ?? []).map((_, i) => ({
    width: Math.min(WIDEST, Math.max(NARROWEST, longest(i) + 2)),
  }))
  const file = await writeExcelFile(data, {
    sheet: name,
    columns,
    stickyRowsCount: 1,
    orientation: 'landscape',
  }).toBlob()
  return withPrintSetup(new Uint8Array(await file.arrayBuffer()), name)
}

/** The writer has no print set-up: the page is as wide as the table, and the heading is repeated (ECMA-376, 18.3.1.63 and 18.2.5). */
function withPrintSetup(file: Uint8Array, name: string): Uint8Array {
  const parts = unzipSync(file)
  const change = (part: string, work: (text: string) => string) => {
    if (!parts[part]) throw new Error(`The workbook has no ${part}.`)
    parts[part] = strToU8(work(strFromU8(parts[part])))
  }
  change(WORKSHEET, (text) =>
    text
      .replace(/(<worksheet[^>]*>)/, '$1<sheetPr><pageSetUpPr fitToPage="1"/></sheetPr>')
      .replace(/<pageSetup[^>]*\/>/, '<pageSetup paperSize="9" orientation="landscape" fitToHeight="0"/>'),
  )
  const titles = `<definedNames><definedName name="_xlnm.Print_Titles" localSheetId="0">'${name.replace(/'/g, "''")}'!$1:$1</definedName></definedNames>`
  change(WORKBOOK, (text) => text.replace('<definedNames/>', '').replace('</sheets>', `</sheets>${titles}`))
  return zipSync(parts)
}
