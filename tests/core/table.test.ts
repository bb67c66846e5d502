import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buffer } from 'node:stream/consumers'
import ExcelJS from 'exceljs'
import fc from 'fast-check'
import Papa from 'papaparse'
import { afterAll, describe, expect, it } from 'vitest'
import { ZipFile } from 'yazl'
import { SITES, type SiteId } from '../../core/sites'
import { columnLetters, textOf, type Cell, type TableRow } from '../../exchange/table/cells'
import { readHeading, recognise } from '../../exchange/table/headings'
import { readCsv } from '../../exchange/table/read-csv'
import { openWorkbook } from '../../exchange/table/read-xlsx'
import { cellDate, isDateFormat } from '../../exchange/table/sheet-dates'
import { incomingTable, openQuestions, shapeOf, tableRows } from '../../exchange/table/source'
import { SITE_SPELLINGS } from '../../exchange/table/spellings'
import { readValue } from '../../exchange/table/values'
import { orderOfDates, readVisit, type TablePlan } from '../../exchange/table/visits'
import type { CellProblem } from '../../exchange/incoming'

const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-table-'))
afterAll(() => rmSync(folder, { recursive: true }))
let made = 0
function file(content: string | Buffer, ending = 'csv'): string {
  made += 1
  const path = join(folder, `${made}.${ending}`)
  writeFileSync(path, content)
  return path
}
async function all<Item>(items: AsyncIterable<Item>): Promise<Item[]> {
  const found: Item[] = []
  for await (const item of items) found.push(item)
  return found
}
const words = (rows: TableRow[]) => rows.map(({ cells }) => cells.map(textOf))

describe('headings', () => {
  it.each([
    ['Triceps SF #2 (mm)', { bare: 'triceps', unit: 'mm', trial: 2, kind: 'fold' }],
    ['tri2', { bare: 'tri', unit: null, trial: 2 }],
    ['Thigh_3', { bare: 'thigh', trial: 3 }],
    ['Weight, lbs', { bare: 'weight', unit: 'lb' }],
    ['Wt/kg', { bare: 'wt', unit: 'kg' }],
    ['Waist (in)', { bare: 'waist', unit: 'in' }],
    ['Chest girth cm', { bare: 'chest', unit: 'cm', kind: 'girth' }],
    ['Check-in', { bare: 'check in', unit: null }],
    ['Triceps avg', { bare: 'triceps', mean: true }],
    ['Pli: Sùbscápular', { bare: 'pli subscapular' }],
  ])('%s is taken apart', (text, wanted) => {
    expect(readHeading(text)).toMatchObject(wanted)
  })

  it('are recognised in common spellings, each site by every one of its own', () => {
    for (const [id, spellings] of Object.entries(SITE_SPELLINGS) as [SiteId, string[]][]) {
      const unit = SITES[id].kind === 'fold' ? 'mm' : 'cm'
      for (const spelling of spellings)
        expect(recognise([`${spelling} (${unit})`], [[]])[0], `${spelling} ${unit}`).toMatchObject({ means: id, unit })
    }
  })

  it('tell a fold from a girth of the same name by the unit, the word or the size', () => {
    const of = (heading: string, ...cells: Cell[]) => recognise([heading], [cells])[0]?.means
    expect([of('Thigh mm'), of('Thigh (in)'), of('Thigh circ'), of('Thigh skinfold')]).toEqual([
      'thigh',
      'thigh-girth',
      'thigh-girth',
      'thigh',
    ])
    // 24 could be inches as well as millimetres: among folds it is one, alone it is asked.
    expect([of('Thigh', 24, 22.5), of('Thigh', 55, '56,5')]).toEqual([null, 'thigh-girth'])
    expect(recognise(['Triceps', 'Thigh'], [[12], [24]])[1]?.means).toBe('thigh')
  })

  it('leave out what follows from the rest, take repeats as readings, and ask where nothing tells', () => {
    const known = recognise(
      ['Date', 'Client', 'Tri 1', 'Tri 2', 'Tri avg', 'BF%', 'Sum of 7', 'Moon', 'Weight', 'Waist'],
      [[], [], [12], [12], [12], [18], [120], ['full'], [71], [30]],
    )
    expect(known.map(({ means }) => means)).toEqual([
      'date',
      'client',
      'triceps',
      'triceps',
      'left-out',
      'left-out',
      'left-out',
      null,
      'weight',
      'waist',
    ])
    expect(known[3]?.trial).toBe(2)
    // 71 could be pounds of a child: it is asked; a waist of 30 is inches.
    expect([known[8]?.unit, known[9]?.unit]).toEqual([null, 'in'])
  })

  it('are known again once somebody has said what they mean', () => {
    const remembered = new Map([['moon', { means: 'note' as const, unit: null }]])
    expect(recognise(['Moon'], [[]], remembered)[0]?.means).toBe('note')
  })
})

describe('cells', () => {
  it.each([
    ['triceps', '12,5 mm', 'mm', { value: 12.5, unit: 'mm' }],
    ['waist', '34 3/4', 'in', { value: 34.75, unit: 'in' }],
    ['height', '1.78', 'm', { value: 178, unit: 'cm' }],
    ['height', '5 ft 10', 'cm', { value: 70, unit: 'in' }],
    ['weight', '11 st 4 lb', 'kg', { value: 158, unit: 'lb' }],
    ['weight', 71.5, 'kg', { value: 71.5, unit: 'kg' }],
    ['triceps', '', 'mm', null],
    ['triceps', '-', 'mm', null],
  ] as const)('%s %s in %s', (site, cell, unit, wanted) => {
    expect(readValue(site, cell, unit)).toEqual(wanted)
  })

  it('say what is wrong with what no body has', () => {
    for (const [site, cell, unit, sentence] of [
      ['triceps', 212, 'mm', /212 is outside/],
      ['triceps', 'n/a', 'mm', /is no fold/],
      ['weight', '7l.5', 'kg', /7l.5/],
      ['waist', { day: '2025-03-04', minute: null }, 'cm', /is a date/],
    ] as const)
      expect((readValue(site, cell, unit) as { wrong: string }).wrong).toMatch(sentence)
  })

  it('are dates as spreadsheets count them (ECMA-376: 1900-03-01 is 61, 2025-01-01 is 45658)', () => {
    expect(cellDate(61)?.day).toBe('1900-03-01')
    expect(cellDate(45658)).toEqual({ day: '2025-01-01', minute: null })
    expect(cellDate(45658.75)).toEqual({ day: '2025-01-01', minute: 1080 })
    expect(cellDate(45658 - 1462, true)?.day).toBe('2025-01-01')
    expect([isDateFormat(14, undefined), isDateFormat(164, 'dd/mm/yyyy'), isDateFormat(165, '0.0 "days"')]).toEqual([
      true,
      true,
      false,
    ])
  })

  it('of dates tell their order by the whole column, or ask', () => {
    expect(orderOfDates(['3/4/2025', '17/4/2025'])).toEqual({ order: 'day-first', asks: false })
    expect(orderOfDates(['3/4/2025', '4/17/2025'])).toEqual({ order: 'month-first', asks: false })
    expect(orderOfDates(['3/4/2025', '5/6/2025'])).toEqual({ order: null, asks: true })
    expect(orderOfDates(['2025-04-03', '4 Apr 2025', '3/3/2025'])).toEqual({ order: null, asks: false })
  })

  it('stand under letters', () => {
    expect([0, 25, 26, 701, 702].map(columnLetters)).toEqual(['A', 'Z', 'AA', 'ZZ', 'AAA'])
  })
})

describe('a file of separated values', () => {
  it('is read whatever its mark, its ends of line, its quotes', async () => {
    for (const [mark, end] of [
      [',', '\n'],
      [';', '\r\n'],
      ['\t', '\r\n'],
      ['|', '\n'],
    ] as const) {
      const rows = [
        ['Date', 'Client', 'Note'],
        ['2025-04-03', 'Alder, Hanne', 'says "fine"\nsecond line'],
        ['2025-04-04', '', 'x'],
      ]
      const text = Papa.unparse(rows, { delimiter: mark, newline: end })
      expect(words(await all(readCsv(file(text)))), JSON.stringify(mark)).toEqual(rows)
    }
  })

  it('in any of the encodings spreadsheets save it in', async () => {
    const text = 'Client,Note\nÅsa Fjäll,größer\n'
    for (const bytes of [
      Buffer.from(text),
      Buffer.from(`\uFEFF${text}`),
      Buffer.from(`\uFEFF${text}`, 'utf16le'),
      Buffer.from(text, 'latin1'),
    ])
      expect(words(await all(readCsv(file(bytes))))[1]).toEqual(['Åsa Fjäll', 'größer'])
  })

  it('of many pieces comes out as another reader has it', async () => {
    const arbitrary = fc.array(fc.array(fc.string({ maxLength: 12 }), { minLength: 3, maxLength: 3 }), {
      minLength: 2,
      maxLength: 20,
    })
    await fc.assert(
      fc.asyncProperty(arbitrary, async (some) => {
        const rows = Array.from({ length: 1_500 }, (_, n) => some.map((cells) => [`row ${n}`, ...cells])).flat()
        const text = Papa.unparse(rows, { delimiter: ',' })
        const read = words(await all(readCsv(file(text))))
        const wanted = Papa.parse<string[]>(text, { delimiter: ',' }).data.map((cells) =>
          cells.map((cell) => cell.trim()),
        )
        expect(read).toEqual(wanted)
      }),
      { numRuns: 15 },
    )
  })

  it('is refused with a sentence where it is none', async () => {
    await expect(all(readCsv(file(Buffer.from([0x89, 0x50, 0, 0, 1]))))).rejects.toThrow('no text')
    await expect(all(readCsv(file(`a,"${'x'.repeat(6_000_000)}`)))).rejects.toThrow('quotation mark')
    await expect(all(readCsv(file(`${'a,'.repeat(500)}\n`)))).rejects.toThrow('more than 400 columns')
  })
})

describe('a workbook', () => {
  async function workbook(): Promise<string> {
    const book = new ExcelJS.Workbook()
    const sheet = book.addWorksheet('Paper log')
    sheet.addRow(['Date', 'Client', 'Triceps', 'Sum', 'Done'])
    sheet.addRow([new Date(Date.UTC(2025, 3, 3)), 'Hanne Alder', 14.5, { formula: 'C2*7', result: 101.5 }, true])
    sheet.addRow([
      new Date(Date.UTC(2025, 3, 17, 18, 30)),
      { richText: [{ text: 'Hanne ' }, { text: 'Alder' }] },
      '14,5',
    ])
    sheet.getColumn(1).numFmt = 'dd/mm/yyyy hh:mm'
    book.addWorksheet('Empty')
    const path = file('', 'xlsx')
    await book.xlsx.writeFile(path)
    return path
  }

  it('is read as another library wrote it: days as days, formulas as what they last gave', async () => {
    const opened = await openWorkbook(await workbook())
    expect(opened.sheets).toEqual(['Paper log', 'Empty'])
    const rows = await all(opened.rows('Paper log'))
    expect(rows[1]?.cells).toEqual([{ day: '2025-04-03', minute: null }, 'Hanne Alder', 14.5, 101.5, 'yes'])
    expect(rows[2]?.cells).toEqual([{ day: '2025-04-17', minute: 1110 }, 'Hanne Alder', '14,5'])
    expect(await all(opened.rows('Empty'))).toEqual([])
    opened.close()
  })

  it('that is none, or a bomb, is refused', async () => {
    await expect(openWorkbook(file('PK nonsense', 'xlsx'))).rejects.toThrow('damaged, or no ZIP')
    const { zipSync, strToU8 } = await import('fflate')
    const bomb = new ZipFile()
    bomb.addBuffer(Buffer.alloc(200 * 1024 * 1024), 'xl/sharedStrings.xml')
    bomb.end()
    await expect(openWorkbook(file(await buffer(bomb.outputStream), 'xlsx'))).rejects.toThrow(
      'far more than it can honestly hold',
    )
    const laughs = '<!DOCTYPE lolz [<!ENTITY a "lol"><!ENTITY b "&a;&a;&a;">]><workbook>&b;</workbook>'
    const parts = { 'xl/workbook.xml': strToU8(laughs), 'xl/_rels/workbook.xml.rels': strToU8('<r/>') }
    await expect(openWorkbook(file(Buffer.from(zipSync(parts)), 'xlsx'))).rejects.toThrow(
      'no workbook that can be read',
    )
  })
})

describe('a paper log', () => {
  const plan = (more: Partial<TablePlan>): TablePlan => ({
    columns: [],
    headingLine: 1,
    dateOrder: 'day-first',
    client: null,
    protocolId: 'laboratory-7',
    timeZone: 'Europe/Oslo',
    today: '2026-11-26',
    ...more,
  })
  const LOG = `Paper log of the land gym
Date,Name,Sex,DOB,Weight kg,Triceps 1,Triceps 2,Thigh,Note
3/4/2025,Hanne Alder,F,12/3/1989,68.4,14.5,15,24,after rowing
17/4/2025,Hanne Alder,F,12/3/1989,68.1,14,14.5,212,
18/4/2025,Hanne Alder,F,12/3/1989,67.9,,,,
31/2/2025,Hanne Alder,F,12/3/1989,68,14,14,24,
1/1/2027,Hanne Alder,F,12/3/1989,68,14,14,24,
2/5/2025,,F,12/3/1989,68,14,14,24,
`

  it('finds its headings, its dates and what its columns hold', async () => {
    const shape = await shapeOf({ path: file(LOG), kind: 'csv', sheet: null }, new Map())
    expect(shape).toMatchObject({ layout: 'rows', headingLine: 2, dateOrder: 'day-first', asksOrder: false, rows: 6 })
    expect(openQuestions(shape, false)).toEqual([])
  })

  it('gives check-ins, weights alone, and every problem at its cell', async () => {
    const source = { path: file(LOG), kind: 'csv', sheet: null, layout: 'rows' } as const
    const shape = await shapeOf(source, new Map())
    const problems: CellProblem[] = []
    const visits = (await all(tableRows(source))).flatMap(
      (row) => readVisit(plan({ columns: shape.columns, headingLine: 2 }), row, (one) => problems.push(one)) ?? [],
    )
    expect(visits).toHaveLength(2)
    expect(visits[0]).toMatchObject({
      at: '2025-04-03T10:00:00.000Z',
      day: '2025-04-03',
      protocolId: 'laboratory-7',
      note: 'after rowing',
      client: { name: 'Hanne Alder', sex: 'female', birthDate: '1989-03-12' },
    })
    expect(visits[0]?.readings.map(({ site, round, value, unit }) => [site, round, value, unit])).toEqual([
      ['weight', 1, 68.4, 'kg'],
      ['triceps', 1, 14.5, 'mm'],
      ['triceps', 2, 15, 'mm'],
      ['thigh', 1, 24, 'mm'],
    ])
    expect(visits[1]).toMatchObject({ day: '2025-04-18', protocolId: null })
    expect(problems.map(({ line, column, message }) => [line, column, message.slice(0, 24)])).toEqual([
      [4, 7, '212 is outside of what t'],
      [6, 0, '“31/2/2025” is no date t'],
      [7, 0, '2027-01-01 is still to c'],
      [8, 1, 'Whose check-in is this? '],
    ])
  })

  it('that mixes kilograms with pounds is told so at the cell; a unit written there settles it', async () => {
    const log = (second: string, waist: string) => `Date,Name,Sex,DOB,Weight kg,Waist cm
3/4/2025,Hanne Alder,F,12/3/1989,72.5,81
17/4/2025,Hanne Alder,F,12/3/1989,${second},${waist}
18/4/2025,Joris Fen,M,1/2/1978,160,105
2/5/2025,Hanne Alder,F,12/3/1989,71.9,80.5
3/5/2027,Hanne Alder,F,12/3/1989,150,80
`
    const read = async (text: string) => {
      const source = { path: file(text), kind: 'csv', sheet: null, layout: 'rows' } as const
      const shape = await shapeOf(source, new Map())
      const problems: CellProblem[] = []
      const reading = plan({ columns: shape.columns, today: '2027-11-26' })
      const rows = await all(incomingTable(source, reading, (one) => problems.push(one)))
      return { rows: rows.length, told: problems.map(({ line, column, message }) => [line, column, message]) }
    }
    // Inches are no centimetres any waist has.
    expect((await read(log('72', '32'))).told).toHaveLength(1)
    expect(await read(log('160', '81'))).toEqual({
      rows: 4,
      told: [
        [
          3,
          4,
          '160.0 kg here and 72.5 kg before: does this column mix kilograms and pounds? Write the unit beside the number, such as “160 lb”.',
        ],
      ],
    })
    expect(await read(log('160 lb', '32 in'))).toEqual({ rows: 5, told: [] })
    // A heavier client is none of it, nor is what years have made of somebody.
    expect((await read(log('73', '81'))).told).toEqual([])
  })

  it('with a column a check-in is turned, and asks what it cannot know', async () => {
    const sideways = 'Date,3/4/2025,5/4/2025\nTriceps,14.5,14\nSubscap,11,11.5\nWeight (lb),150,151\nMood,good,so\n'
    const shape = await shapeOf({ path: file(sideways), kind: 'csv', sheet: null }, new Map())
    expect(shape).toMatchObject({ layout: 'columns', rows: 2, asksOrder: true })
    expect(shape.columns.map(({ means }) => means)).toEqual(['date', 'triceps', 'subscapular', 'weight', null])
    expect(openQuestions(shape, false).map(({ message }) => message.split(':')[0])).toEqual([
      'Which column holds the name? Or say whose log this is.',
      'Mood',
      'Is 3/4 the third of April or the fourth of March? These dates can be read both ways.',
    ])
  })
})
