import { createReadStream } from 'node:fs'
import { pipeline } from 'node:stream/promises'
import Papa from 'papaparse'
import { answers, HeaderProblem, rowReader, type RowReader } from './rows'

/** Header of the answer. */
const HEADER = 'id,equation,status,percent_fat,body_density,fat_kg,fat_free_kg,see_percent,reason'

/** Rows are written together, so that a person does not cost a system call. */
const WRITE_AT = 1 << 16

async function* estimateRows(rows: AsyncIterable<string[]>): AsyncGenerator<string> {
  let reader: RowReader | null = null
  let line = 1
  let text = `${HEADER}\n`
  for await (const cells of rows) {
    if (!reader) reader = rowReader(cells)
    else if (cells.length > 1 || cells[0]?.trim()) text += answers(reader, cells, line)
    line += 1
    if (text.length < WRITE_AT) continue
    yield text
    text = ''
  }
  if (!reader) throw new HeaderProblem('The input is empty: a header row is needed.')
  yield text
}

async function main(path: string | undefined): Promise<void> {
  const input = path && path !== '-' ? createReadStream(path) : process.stdin
  const parser = Papa.parse(Papa.NODE_STREAM_INPUT, { skipEmptyLines: false, delimiter: ',' })
  const read = pipeline(input, parser)
  await Promise.all([read, pipeline(estimateRows(parser as AsyncIterable<string[]>), process.stdout, { end: false })])
}

// A reader that has seen enough (head) closes the pipe: that is no failure.
process.stdout.on('error', (error: NodeJS.ErrnoException) => process.exit(error.code === 'EPIPE' ? 0 : 1))

main(process.argv[2]).catch((error: unknown) => {
  const known = error instanceof HeaderProblem || (error instanceof Error && 'code' in error)
  process.stderr.write(`${known ? (error as Error).message : String((error as Error).stack)}\n`)
  process.exit(2)
})
