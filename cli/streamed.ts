import { createReadStream } from 'node:fs'
import { pipeline } from 'node:stream/promises'
import Papa from 'papaparse'
import { HeaderProblem } from '../exchange/header'

/** Rows are written together, so that a person does not cost a system call. */
const WRITE_AT = 1 << 16

/** How a table is answered row by row: from its header a reader, from each row some text. */
export interface RowByRow<Reader> {
  /** Header of the answer. */
  header: string
  /** @throws HeaderProblem */
  readerOf: (header: readonly string[]) => Reader
  answer: (reader: Reader, cells: readonly string[], line: number) => string
}

async function* answered<Reader>(
  rows: AsyncIterable<string[]>,
  { header, readerOf, answer }: RowByRow<Reader>,
): AsyncGenerator<string> {
  let reader: Reader | null = null
  let line = 1
  let text = `${header}\n`
  for await (const cells of rows) {
    if (reader === null) reader = readerOf(cells)
    else if (cells.length > 1 || cells[0]?.trim()) text += answer(reader, cells, line)
    line += 1
    if (text.length < WRITE_AT) continue
    yield text
    text = ''
  }
  if (reader === null) throw new HeaderProblem('The input is empty: a header row is needed.')
  yield text
}

/** What every command does with its streams and its failures: a closed pipe is none, a known one is a sentence and 2. */
export function runCommand(main: (path: string | undefined) => Promise<void>): void {
  // A reader that has seen enough (head) closes the pipe: that is no failure.
  process.stdout.on('error', (error: NodeJS.ErrnoException) => process.exit(error.code === 'EPIPE' ? 0 : 1))
  main(process.argv[2]).catch((error: unknown) => {
    const known = error instanceof HeaderProblem || (error instanceof Error && 'code' in error)
    process.stderr.write(`${known ? (error as Error).message : String((error as Error).stack)}\n`)
    process.exit(2)
  })
}

/** A command that answers a table row by row, from a file or standard input: memory does not grow with it. */
export function runStreamed<Reader>(how: RowByRow<Reader>): void {
  runCommand(async (path) => {
    const input = path && path !== '-' ? createReadStream(path) : process.stdin
    const parser = Papa.parse(Papa.NODE_STREAM_INPUT, { skipEmptyLines: false, delimiter: ',' })
    const read = pipeline(input, parser)
    const said = pipeline(answered(parser as AsyncIterable<string[]>, how), process.stdout, { end: false })
    await Promise.all([read, said])
  })
}
