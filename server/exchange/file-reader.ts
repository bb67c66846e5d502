import { incomingBundle } from '../../exchange/fhir/bundle-in'
import type { IncomingRow, Tell } from '../../exchange/incoming'
import { incomingReadings } from '../../exchange/readings-csv'
import { readCsv } from '../../exchange/table/read-csv'
import { openWorkbook } from '../../exchange/table/read-xlsx'
import { incomingTable, shapeOf, type TableFile } from '../../exchange/table/source'
import type { TablePlan } from '../../exchange/table/visits'

/** Rows of a file, by what it is. */
export type RowSource =
  | { type: 'readings' | 'fhir'; path: string }
  | { type: 'table'; file: TableFile; plan: TablePlan }

/** Reads files people bring. What is in them is anybody's: on a server it is read in a thread of its own. */
export interface FileReader {
  /** Sheets of a workbook. @throws TableRefused */
  sheets: (path: string) => Promise<string[]>
  /** What a table looks like. @throws TableRefused */
  shape: typeof shapeOf
  /** Check-ins and weights, one after another. @throws TableRefused, HeaderProblem, FhirRefused */
  rows: (source: RowSource, tell: Tell) => AsyncIterable<IncomingRow>
}

/** Reads on this thread: for commands, which are processes of their own. */
export const readHere: FileReader = {
  async sheets(path) {
    const workbook = await openWorkbook(path)
    workbook.close()
    return [...workbook.sheets]
  },
  shape: shapeOf,
  rows(source, tell) {
    switch (source.type) {
      case 'readings':
        return incomingReadings(readCsv(source.path), tell)
      case 'fhir':
        return incomingBundle(source.path, tell)
      case 'table':
        return incomingTable(source.file, source.plan, tell)
    }
  },
}
