import type { Readable } from 'node:stream'
import { SaxesParser, type SaxesTagPlain } from 'saxes'
import { openZipIn, ZipRefused, type ZipIn } from '../archive/zip-in'
import { LIMITS, TableRefused, type Cell, type TableRow } from './cells'
import { cellDate, isDateFormat } from './sheet-dates'

const MB = 1024 ** 2
/** A workbook of a million cells unpacks to some tens of megabytes; what unpacks a thousandfold is a bomb. */
const ZIP_LIMITS = { parts: 2_000, partBytes: 600 * MB, allBytes: 1_000 * MB, ratio: 400 }
/** Words of all cells together, characters; and how many of them. */
const SHARED_TEXT = 60 * MB
const SHARED_STRINGS = 2_000_000
/** Characters of one piece of XML (a tag with its attributes, a text): a cell has at most two thousand. */
const LONGEST_TOKEN = 256 * 1024
/** Elements within each other: a sheet has five. */
const DEEPEST = 64
/** Styles of cells (a spreadsheet has at most 65,490), sheets, and cells of a sheet. */
const STYLES = 65_490
const SHEETS = 1_000
const CELLS = 20_000_000

const NO_WORKBOOK = 'This file is no workbook that can be read here: please save it as .xlsx or .csv.'

/** A workbook opened for reading: its sheets by name, each read row by row. */
export interface Workbook {
  sheets: readonly string[]
  rows: (sheet: string) => AsyncGenerator<TableRow>
  close: () => void
}

interface Handlers {
  open?: (tag: SaxesTagPlain) => void
  text?: (text: string) => void
  close?: (name: string) => void
}

/** Name of an element without its prefix. */
const local = (name: string) => name.slice(name.indexOf(':') + 1)

/** An XML part through its handlers, piece by piece; `after` is asked after each piece. */
async function* parsePart(stream: Readable, handlers: Handlers): AsyncGenerator<void> {
  const parser = new SaxesParser()
  let fault: Error | null = null
  // The parser holds a piece of XML until it ends: without these bounds one attribute could fill the memory.
  let depth = 0
  let sinceToken = 0
  const isToken = () => (sinceToken = 0)
  parser.on('error', (error) => (fault ??= error))
  // A document type could define text that grows without end: none of these files has one.
  parser.on('doctype', () => (fault ??= new Error('doctype')))
  parser.on('opentag', (tag) => {
    isToken()
    depth += 1
    if (depth > DEEPEST) fault ??= new Error('depth')
    handlers.open?.(tag)
  })
  parser.on('text', (text) => {
    isToken()
    handlers.text?.(text)
  })
  parser.on('closetag', (tag) => {
    isToken()
    depth -= 1
    handlers.close?.(local(tag.name))
  })
  const decoder = new TextDecoder('utf-8')
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    sinceToken += chunk.length
    parser.write(decoder.decode(chunk, { stream: true }))
    if (sinceToken > LONGEST_TOKEN + chunk.length) fault ??= new Error('token')
    if (fault) throw new TableRefused(NO_WORKBOOK)
    yield
  }
}

async function parseWhole(zip: ZipIn, path: string, handlers: Handlers): Promise<void> {
  if (!zip.paths.includes(path)) return
  // Every piece has been handled when the last one has.
  for await (const _ of parsePart(await zip.read(path), handlers)) void _
}

const attribute = (tag: SaxesTagPlain, name: string) =>
  Object.entries(tag.attributes).find(([key]) => local(key) === name)?.[1] ?? ''

async function sharedStrings(zip: ZipIn): Promise<string[]> {
  const strings: string[] = []
  let current = ''
  let inText = false
  let phonetic = false
  let all = 0
  await parseWhole(zip, 'xl/sharedStrings.xml', {
    open({ name }) {
      const tag = local(name)
      if (tag === 'si') current = ''
      if (tag === 'rPh') phonetic = true
      inText = tag === 't'
    },
    text(text) {
      if (inText && !phonetic) current += text
    },
    close(name) {
      inText = false
      if (name === 'rPh') phonetic = false
      if (name !== 'si') return
      strings.push(current.slice(0, LIMITS.cell + 1))
      all += current.length
      if (all > SHARED_TEXT || strings.length > SHARED_STRINGS)
        throw new TableRefused('This workbook holds more words than any log: it is refused.')
    },
  })
  return strings
}

/** Which styles of cells show a number as a date. */
async function dateStyles(zip: ZipIn): Promise<boolean[]> {
  const formats = new Map<number, string>()
  const styles: boolean[] = []
  let inCells = false
  await parseWhole(zip, 'xl/styles.xml', {
    open(tag) {
      const name = local(tag.name)
      if (name === 'numFmt') formats.set(Number(attribute(tag, 'numFmtId')), attribute(tag, 'formatCode'))
      if (name === 'cellXfs') inCells = true
      if (name === 'xf' && inCells) {
        const id = Number(attribute(tag, 'numFmtId'))
        styles.push(isDateFormat(id, formats.get(id)))
      }
      if (styles.length > STYLES || formats.size > STYLES) throw new TableRefused(NO_WORKBOOK)
    },
    close(name) {
      if (name === 'cellXfs') inCells = false
    },
  })
  return styles
}

async function sheetPaths(zip: ZipIn): Promise<{ paths: Map<string, string>; since1904: boolean }> {
  const targets = new Map<string, string>()
  await parseWhole(zip, 'xl/_rels/workbook.xml.rels', {
    open(tag) {
      if (local(tag.name) !== 'Relationship') return
      const target = attribute(tag, 'Target')
      targets.set(attribute(tag, 'Id'), target.startsWith('/') ? target.slice(1) : `xl/${target}`)
      if (targets.size > SHEETS * 4) throw new TableRefused(NO_WORKBOOK)
    },
  })
  const paths = new Map<string, string>()
  let since1904 = false
  await parseWhole(zip, 'xl/workbook.xml', {
    open(tag) {
      const name = local(tag.name)
      if (name === 'workbookPr') since1904 = /^(1|true)$/.test(attribute(tag, 'date1904'))
      if (name !== 'sheet') return
      const path = targets.get(
        Object.entries(tag.attributes).find(([key]) => key !== 'sheetId' && local(key) === 'id')?.[1] ?? '',
      )
      if (path && zip.paths.includes(path)) paths.set(attribute(tag, 'name').slice(0, 100), path)
      if (paths.size > SHEETS) throw new TableRefused(NO_WORKBOOK)
    },
  })
  return { paths, since1904 }
}

/** Place of a column from a cell's address: "C7" is 2. */
function placeOf(address: string): number | null {
  const letters = /^([A-Z]{1,3})\d+$/.exec(address)?.[1]
  if (!letters) return null
  let place = 0
  for (const letter of letters) place = place * 26 + letter.charCodeAt(0) - 64
  return place - 1
}

interface Knows {
  strings: readonly string[]
  dates: readonly boolean[]
  since1904: boolean
}

function cellOf(type: string, style: number, text: string, { strings, dates, since1904 }: Knows): Cell {
  if (text === '') return null
  if (type === 's') return strings[Number(text)] ?? null
  if (type === 'b') return text === '1' ? 'yes' : 'no'
  if (type === 'd') return cellDate(text) ?? text
  if (type !== '' && type !== 'n') return text
  const number = Number(text)
  if (!Number.isFinite(number)) return text
  return dates[style] ? (cellDate(number, since1904) ?? number) : number
}

async function* readSheet(zip: ZipIn, path: string, knows: Knows): AsyncGenerator<TableRow> {
  const ready: TableRow[] = []
  let row: TableRow | null = null
  let place = 0
  let type = ''
  let style = 0
  let text = ''
  let takes = false
  let lines = 0
  let cells = 0
  const part = parsePart(await zip.read(path), {
    open(tag) {
      const name = local(tag.name)
      if (name === 'row') {
        const line = Number(attribute(tag, 'r')) || (ready.at(-1)?.line ?? 0) + 1
        row = { line, cells: [] }
        place = -1
      } else if (name === 'c') {
        cells += 1
        if (cells > CELLS) throw new TableRefused('This sheet has more cells than any log: please bring it in parts.')
        place = placeOf(attribute(tag, 'r')) ?? place + 1
        type = attribute(tag, 't')
        style = Number(attribute(tag, 's')) || 0
        text = ''
      } else takes = name === 'v' || name === 't'
    },
    text(more) {
      if (takes) text += more
      if (text.length > LIMITS.cell)
        throw new TableRefused(`Row ${row?.line ?? 0} holds a cell of more than ${LIMITS.cell} characters.`)
    },
    close(name) {
      takes = false
      if (name === 'c' && row && text !== '') {
        if (place >= LIMITS.columns) throw new TableRefused(`Row ${row.line} has more than ${LIMITS.columns} columns.`)
        while (row.cells.length < place) row.cells.push(null)
        row.cells[place] = cellOf(type, style, text, knows)
      }
      if (name === 'row' && row) {
        lines += 1
        if (lines > LIMITS.rows)
          throw new TableRefused('This sheet has more than a million rows: please bring it in parts.')
        if (row.cells.some((cell) => cell !== null)) ready.push(row)
        row = null
      }
    },
  })
  for await (const _ of part) {
    void _
    yield* ready.splice(0)
  }
  yield* ready.splice(0)
}

/** What goes wrong in a damaged file is said as one sentence. */
async function said<Result>(work: Promise<Result>): Promise<Result> {
  return work.catch((error: unknown) => {
    if (error instanceof TableRefused) throw error
    throw new TableRefused(error instanceof ZipRefused ? error.message : NO_WORKBOOK)
  })
}

/**
 * Opens a workbook (Office Open XML). Sheets are read as a stream; only the words of cells are held.
 * @throws TableRefused with a sentence for what is none, is locked, damaged, or unpacks to too much
 */
export async function openWorkbook(file: string): Promise<Workbook> {
  const zip = await said(openZipIn(file, ZIP_LIMITS))
  try {
    const { paths, since1904 } = await said(sheetPaths(zip))
    if (paths.size === 0) throw new TableRefused(NO_WORKBOOK)
    const knows = { strings: await said(sharedStrings(zip)), dates: await said(dateStyles(zip)), since1904 }
    return {
      sheets: [...paths.keys()],
      async *rows(sheet) {
        const rows = readSheet(zip, paths.get(sheet) ?? '', knows)
        for (;;) {
          const next = await said(rows.next())
          if (next.done) return
          yield next.value
        }
      },
      close: zip.close,
    }
  } catch (error) {
    zip.close()
    throw error
  }
}
