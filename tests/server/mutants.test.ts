import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { count, eq } from 'drizzle-orm'
import ExcelJS from 'exceljs'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Store } from '../../server/db/database'
import { client, staff } from '../../server/db/schema'
import { readHere } from '../../server/exchange/file-reader'
import { bringFile, type Through } from '../../server/exchange/bring-file'
import { writeExport } from '../../server/exchange/exports'
import { UNWATCHED } from '../../server/exchange/progress'
import { sentenceOf } from '../../server/exchange/sentences'
import { archivedTables } from '../../server/exchange/tables'
import { memoryBus } from '../../server/ports/bus'
import { memoryShelf } from '../../server/ports/shelf'
import type { PhotoStore } from '../../server/ports/photo-store'
import type { SignedIn } from '../../server/repositories/staff'
import { changeIn } from '../../server/write/change'
import { seededStore } from '../support/database'
import { mutants } from '../support/mutants'

/** FUZZ=10000 tries as many of each kind; some for every day. */
const COUNT = Number(process.env.FUZZ ?? 25)
const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-mutants-'))
const NONE: PhotoStore = {
  put: () => Promise.resolve(),
  get: () => Promise.resolve(null),
  remove: () => Promise.resolve(),
  list: () => Promise.resolve([]),
}

let store: Store
let who: SignedIn
let through: Through
const originals = new Map<string, Buffer>()

beforeAll(async () => {
  store = await seededStore()
  const [lead] = await store.database.select().from(staff).where(eq(staff.role, 'lead'))
  who = { staffId: lead?.id ?? '', studioId: lead?.studioId ?? '', role: 'lead', sessionId: '' }
  for (const format of ['archive', 'readings', 'fhir'] as const) {
    const path = join(folder, format)
    const [one] = await store.database.select({ id: client.id }).from(client).limit(1)
    await writeExport(format, path, { store, photos: NONE, who, clientId: one?.id ?? null }, UNWATCHED)
    // Under another name, so that there is something to bring in.
    const text = readFileSync(path)
    originals.set(
      format,
      format === 'archive' ? text : Buffer.from(text.toString().replaceAll(/(Oskar|Maren|Ida) \w+/g, 'Fuzzed Rower')),
    )
  }
  const rows = [
    ['Date', 'Name', 'Sex', 'DOB', 'Weight kg', 'Triceps 1', 'Triceps 2', 'Thigh mm', 'Waist cm', 'Note'],
    ['3/4/2025', 'Hanne Alder', 'F', '12/3/1989', '68.4', '14.5', '15', '24', '74', 'after rowing'],
    ['17/4/2025', 'Hanne Alder', 'F', '12/3/1989', '68.1', '14', '14.5', '23,5', '73.5', '"quoted", and more'],
    ['18/4/2025', 'Joris Fen', 'M', '1/2/1978', '80', '10', '10', '16', '85', ''],
  ]
  originals.set(
    'csv',
    Buffer.from(rows.map((cells) => cells.map((cell) => `"${cell.replaceAll('"', '""')}"`).join(';')).join('\r\n')),
  )
  const book = new ExcelJS.Workbook()
  const sheet = book.addWorksheet('Log')
  for (const cells of rows) sheet.addRow(cells)
  originals.set('xlsx', Buffer.from(await book.xlsx.writeBuffer()))
  through = {
    db: store.database,
    photos: NONE,
    reader: readHere,
    change: (what, work) =>
      changeIn({ store, ports: { bus: memoryBus(), shelf: memoryShelf() } }, { kind: 'staff', ...who }, what, work),
  }
}, 60_000)
afterAll(async () => {
  await store.close()
  rmSync(folder, { recursive: true })
})

async function rowsNow(): Promise<number> {
  let all = 0
  for (const { table } of archivedTables())
    all += (await store.database.select({ rows: count() }).from(table))[0]?.rows ?? 0
  return all
}

describe(`files with something wrong in them, ${COUNT} of each kind`, () => {
  it.each(['csv', 'xlsx', 'readings', 'fhir', 'archive'])(
    '%s: each is brought in whole or refused with a sentence, and nothing is stored by halves',
    { timeout: 60_000 + COUNT * 400 },
    async (kind) => {
      const original = originals.get(kind) ?? Buffer.alloc(0)
      const path = join(folder, `mutant-${kind}`)
      const seen = { refused: 0, brought: 0 }
      let before = await rowsNow()
      let place = 0
      for (const mutant of mutants(original, COUNT, 20261126)) {
        place += 1
        writeFileSync(path, mutant)
        const error = await bringFile(through, who, { path, name: kind, id: uuid(), plan: null }, UNWATCHED).then(
          () => null,
          (failure: unknown) => failure,
        )
        if (error === null) {
          seen.brought += 1
          before = await rowsNow()
          continue
        }
        seen.refused += 1
        // A failure of ours: the file is kept for whoever looks into it.
        if (!sentenceOf(error)) {
          writeFileSync(join(tmpdir(), `oak-pinch-mutant-${kind}-${place}`), mutant)
          throw error
        }
        if (place % 20 === 0) expect(await rowsNow(), `${kind} ${place}`).toBe(before)
      }
      expect(await rowsNow()).toBe(before)
      // Most have something wrong; some changes do no harm.
      expect(seen.refused).toBeGreaterThan(COUNT / 4)
    },
  )
})
