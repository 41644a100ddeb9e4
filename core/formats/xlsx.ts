/** Rows as a workbook of one sheet. */
import writeExcelFile from 'write-excel-file/universal'

/** @param widths of the columns, in letters */
export async function workbook(
  rows: readonly (readonly (string | number)[])[],
  name: string,
  widths: readonly number[],
) {
  const data = rows.map((row, i) =>
    row.map((value) => (i === 0 ? { value, fontWeight: 'bold' as const } : { value })),
  )
  return writeExcelFile(data, {
    sheet: name,
    columns: widths.map((width) => ({ width })),
    stickyRowsCount: 1,
  }).toBlob()
}
