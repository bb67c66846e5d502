import ExcelJS from 'exceljs'

/** A value of a cell: real numbers and real dates; text is never a formula. */
export type CellValue = string | number | Date | null

/** A sheet: its columns, each with its unit in the heading where it has one, and its rows. */
export interface SheetFacts {
  name: string
  columns: readonly { heading: string; width?: number; format?: 'day' | 'whole' | 'one' | 'two' }[]
  rows: AsyncIterable<readonly CellValue[]> | Iterable<readonly CellValue[]>
}

const FORMATS = { day: 'yyyy-mm-dd', whole: '0', one: '0.0', two: '0.00' } as const

/** A calendar day as a spreadsheet's date: no zone moves it. */
export const dayCell = (day: string): Date => new Date(`${day}T00:00:00Z`)

/**
 * Writes a workbook to a file, row by row: first row frozen and bold, columns filterable, numbers and dates as such.
 * @param path where it is written
 */
export async function writeWorkbook(path: string, sheets: readonly SheetFacts[]): Promise<void> {
  const workbook = new ExcelJS.stream.xlsx.WorkbookWriter({ filename: path, useStyles: true, useSharedStrings: false })
  workbook.creator = 'Oak Pinch'
  for (const { name, columns, rows } of sheets) {
    const sheet = workbook.addWorksheet(name, { views: [{ state: 'frozen', ySplit: 1 }] })
    sheet.columns = columns.map(({ heading, width = Math.max(10, heading.length + 2), format }) => ({
      header: heading,
      width,
      ...(format ? { style: { numFmt: FORMATS[format] } } : {}),
    }))
    const first = sheet.getRow(1)
    first.font = { bold: true }
    first.commit()
    sheet.autoFilter = { from: { row: 1, column: 1 }, to: { row: 1, column: columns.length } }
    for await (const cells of rows) sheet.addRow([...cells]).commit()
    sheet.commit()
  }
  await workbook.commit()
}
