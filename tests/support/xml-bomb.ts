import { buffer } from 'node:stream/consumers'
import { Readable } from 'node:stream'
import { ZipFile } from 'yazl'

const MB = 1024 ** 2

/** Parts every workbook has, but for its sheet. */
const PARTS: Readonly<Record<string, string>> = {
  'xl/workbook.xml': '<workbook xmlns:r="r"><sheets><sheet name="Log" sheetId="1" r:id="rId1"/></sheets></workbook>',
  'xl/_rels/workbook.xml.rels':
    '<Relationships><Relationship Id="rId1" Target="worksheets/sheet1.xml"/></Relationships>',
}

function* repeated(before: string, text: string, megabytes: number, after: string): Generator<Buffer> {
  yield Buffer.from(before)
  const piece = Buffer.from(text.repeat(Math.ceil(MB / text.length)).slice(0, MB))
  for (let i = 0; i < megabytes; i += 1) yield piece
  yield Buffer.from(after)
}

/** A workbook whose sheet unpacks to `text` over and over: some kilobytes a hundred megabytes. */
export function sheetOf(before: string, text: string, megabytes: number, after = ''): Promise<Buffer> {
  const zip = new ZipFile()
  for (const [path, content] of Object.entries(PARTS)) zip.addBuffer(Buffer.from(content), path)
  zip.addReadStream(Readable.from(repeated(before, text, megabytes, after)), 'xl/worksheets/sheet1.xml')
  // Bytes that do not pack keep the file from looking like a bomb by its ratio.
  zip.end()
  return buffer(zip.outputStream as Readable)
}
