import { parentPort } from 'node:worker_threads'
import { expose } from 'comlink'
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs'
import { learnSet, type CustomSet } from '../../core/protocols'
import { HeaderProblem } from '../../exchange/header'
import { FhirRefused } from '../../exchange/fhir/refused'
import type { CellProblem, IncomingRow } from '../../exchange/incoming'
import { TableRefused } from '../../exchange/table/cells'
import { readHere, type RowSource } from './file-reader'

const BATCH = 500

/** What a question gives: a value, or the sentence with which a file is refused. */
export type Said<Value> = { value: Value } | { refused: string } | { broken: string }

/** Rows of one file as far as they were asked for, with what was wrong among them. */
export interface RowBatch {
  rows: IncomingRow[]
  problems: CellProblem[]
  done: boolean
}

async function said<Value>(work: () => Promise<Value>): Promise<Said<Value>> {
  try {
    return { value: await work() }
  } catch (error) {
    const isRefusal = [TableRefused, HeaderProblem, FhirRefused].some((kind) => error instanceof kind)
    const words = error instanceof Error ? error.message : String(error)
    return isRefusal ? { refused: words } : { broken: words }
  }
}

let rows: AsyncIterator<IncomingRow> | null = null
let problems: CellProblem[] = []

/** What the main thread asks of this one; one file at a time. */
const reader = {
  learn: (sets: readonly CustomSet[]) => sets.forEach(learnSet),
  sheets: (path: string) => said(() => readHere.sheets(path)),
  shape: (...given: Parameters<typeof readHere.shape>) => said(() => readHere.shape(...given)),
  open: (source: RowSource) =>
    said(async () => {
      problems = []
      rows = readHere.rows(source, (problem) => problems.push(problem))[Symbol.asyncIterator]()
    }),
  next: () =>
    said(async (): Promise<RowBatch> => {
      const batch: RowBatch = { rows: [], problems: [], done: false }
      while (batch.rows.length + problems.length < BATCH && !batch.done) {
        const next = await rows?.next()
        if (!next || next.done) batch.done = true
        else batch.rows.push(next.value)
      }
      batch.problems = problems.splice(0)
      return batch
    }),
}
export type ReaderThread = typeof reader

if (parentPort) expose(reader, nodeEndpoint(parentPort))
