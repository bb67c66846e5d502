import { createHash } from 'node:crypto'
import { createWriteStream, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { strFromU8, strToU8, unzipSync, zipSync, type Unzipped } from 'fflate'
import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { layTemplate } from '../../scripts/lib/template.mjs'
import { openStore, type Database, type Queryable, type Store, type Transaction } from '../../server/db/database'
import {
  audit,
  checkin,
  client,
  clientLink,
  dataImport,
  handIn,
  importedItem,
  pin,
  reading,
  staff,
  studio,
  weighIn,
} from '../../server/db/schema'
import { seedDemoBench } from '../../server/db/demo-bench'
import { seedDemoPhotos } from '../../server/db/demo-photos'
import { seedDemoWeek } from '../../server/db/demo-week'
import { compareArchive, importArchive } from '../../server/exchange/archive-in'
import { openArchive } from '../../server/exchange/archive-read'
import { MERGED, NEVER_MERGED, type MergedBy } from '../../server/exchange/archive-merge'
import { writeArchive } from '../../server/exchange/archive-out'
import { progressOf, UNWATCHED } from '../../server/exchange/progress'
import { folderPhotos } from '../../server/ports/photo-store'
import { archivedTables } from '../../server/exchange/tables'
import { listBroughtIn } from '../../server/repositories/brought-in'
import { listCheckins } from '../../server/repositories/checkins'
import { checkRecord } from '../../server/repositories/record-chain'
import { seededStore, testStore } from '../support/database'

const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-archive-'))
const first = join(folder, 'first.zip')
const photos = folderPhotos(join(folder, 'photos'))
let stores: Store[] = []
let full: Database
let empty: Database

const write = async (db: Queryable, file: string, store = photos) =>
  writeArchive({ snapshot: (read) => read(db) }, store, createWriteStream(file), UNWATCHED)

async function bring(
  tx: Transaction,
  file: string,
  store = folderPhotos(join(folder, 'other')),
  by: MergedBy | null = null,
) {
  const archive = await openArchive(file)
  try {
    return await importArchive(tx, archive, store, UNWATCHED, by)
  } finally {
    archive.zip.close()
  }
}

/** Merges an archive into the studio there, as its lead. */
async function merge(tx: Transaction, file: string) {
  const [lead] = await tx.select().from(staff).where(eq(staff.role, 'lead'))
  if (!lead) throw new Error('no lead')
  const who = { staffId: lead.id, studioId: lead.studioId, role: 'lead', sessionId: uuid() } as const
  const importId = uuid()
  const counts = { clients: 0, checkins: 0, readings: 0, weighIns: 0 }
  await tx.insert(dataImport).values({
    id: importId,
    studioId: who.studioId,
    kind: 'archive',
    fileName: 'a.zip',
    broughtBy: who.staffId,
    ...counts,
  })
  return { importId, ...(await bring(tx, file, folderPhotos(join(folder, 'other')), { who, importId })) }
}

/** Does something in a database that is empty before and after. */
async function inEmpty(work: (tx: Transaction) => Promise<void>): Promise<void> {
  const done = new Error('done')
  const end = empty.transaction(async (tx) => {
    await work(tx)
    throw done
  })
  await end.catch((error: unknown) => {
    if (error !== done) throw error
  })
}

/** The archive with its parts changed, its manifest changed along unless that is what is tried. */
function changed(name: string, change: (parts: Unzipped) => void): string {
  const parts = unzipSync(readFileSync(first))
  change(parts)
  const file = join(folder, name)
  writeFileSync(file, zipSync(parts, { level: 1 }))
  return file
}
/** Writes counts and hashes of its parts into the manifest, as a forger would. */
function restamp(parts: Unzipped): void {
  const manifest = JSON.parse(textOf(parts, 'manifest.json')) as { tables: { table: string }[] }
  manifest.tables = manifest.tables.map((one) => {
    const bytes = parts[`tables/${one.table}.jsonl`] ?? new Uint8Array()
    const rows = strFromU8(bytes).split('\n').length - 1
    return { ...one, rows, sha256: createHash('sha256').update(bytes).digest('hex') }
  })
  parts['manifest.json'] = strToU8(JSON.stringify(manifest))
}
const textOf = (parts: Unzipped, path: string) => strFromU8(parts[path] ?? new Uint8Array())

beforeAll(async () => {
  stores = [await seededStore(), await testStore()]
  const [one, other] = stores.map(({ database }) => database)
  if (!one || !other) throw new Error('no databases')
  full = one
  empty = other
  const keep = (id: string, bytes: Buffer) => photos.put(id, bytes)
  await seedDemoPhotos(full, keep)
  await seedDemoWeek(full, keep)
  await seedDemoBench(full)
  await write(full, first)
}, 60_000)
afterAll(async () => {
  for (const store of stores) await store.close()
  rmSync(folder, { recursive: true })
})

describe('an archive', () => {
  it('is a ZIP any reader opens: JSON lines by table, pictures, and a manifest that is true', async () => {
    const parts = unzipSync(readFileSync(first))
    const manifest = JSON.parse(textOf(parts, 'manifest.json')) as {
      tables: { table: string; rows: number; sha256: string }[]
      photos: { id: string; sha256: string; bytes: number }[]
    }
    const sha = (path: string) =>
      createHash('sha256')
        .update(parts[path] ?? '')
        .digest('hex')
    for (const { table, rows, sha256 } of manifest.tables) {
      expect(sha(`tables/${table}.jsonl`), table).toBe(sha256)
      expect(textOf(parts, `tables/${table}.jsonl`).split('\n').length - 1, table).toBe(rows)
    }
    expect(manifest.photos.length).toBeGreaterThan(3)
    for (const { id, sha256 } of manifest.photos) expect(sha(`photos/${id}.jpg`)).toBe(sha256)
    const all = await full.select({ id: reading.id }).from(reading)
    expect(manifest.tables.find(({ table }) => table === 'reading')?.rows).toBe(all.length)
    expect(Object.keys(parts).some((path) => path.includes('session'))).toBe(false)
  })

  it('goes into an empty studio and comes out again, byte for byte', async () => {
    await inEmpty(async (tx) => {
      const store = folderPhotos(join(folder, 'empty'))
      const archive = await openArchive(first)
      const standings = await compareArchive(tx, archive, null, UNWATCHED)
      expect(standings.every(({ same, conflict }) => same === 0 && conflict === 0)).toBe(true)
      archive.zip.close()
      await bring(tx, first, store)
      const second = join(folder, 'second.zip')
      await write(tx, second, store)
      expect(readFileSync(second).equals(readFileSync(first))).toBe(true)
      // What the product shows of it is the same as well.
      const [own] = await tx.select({ id: studio.id }).from(studio)
      const [maren] = await tx.select({ id: client.id }).from(client).where(eq(client.name, 'Maren Osk'))
      const who = { studioId: own?.id ?? '' }
      expect(await listCheckins(tx, who, maren?.id ?? '')).toEqual(await listCheckins(full, who, maren?.id ?? ''))
    })
  })

  it.runIf(process.env.TEST_POSTGRES)(
    'moves from a server to the embedded database and back, byte for byte',
    async () => {
      layTemplate('empty', join(folder, 'embedded-data'))
      const embedded = await openStore(join(folder, 'embedded-data'))
      const store = folderPhotos(join(folder, 'embedded'))
      await embedded.database.transaction((tx) => bring(tx, first, store))
      const there = join(folder, 'there.zip')
      await write(embedded.database, there, store)
      expect(readFileSync(there).equals(readFileSync(first))).toBe(true)
      await embedded.close()
      await inEmpty(async (tx) => {
        await bring(tx, there)
        const back = join(folder, 'back.zip')
        await write(tx, back, store)
        expect(readFileSync(back).equals(readFileSync(first))).toBe(true)
      })
    },
  )

  it('merges into a studio in use by id: what is there stays, what is not comes', async () => {
    await inEmpty(async (used) => {
      await bring(used, first)
      const [somebody] = await used.select().from(client).limit(1)
      await used
        .update(client)
        .set({ name: 'Another Name' })
        .where(eq(client.id, somebody?.id ?? ''))
      const [gone] = await used.select({ id: weighIn.id }).from(weighIn).limit(1)
      await used.delete(weighIn).where(eq(weighIn.id, gone?.id ?? ''))
      const archive = await openArchive(first)
      const [lead] = await used.select().from(staff).where(eq(staff.role, 'lead'))
      const who = { staffId: lead?.id ?? '', studioId: lead?.studioId ?? '', role: 'lead', sessionId: '' } as const
      const standings = await compareArchive(used, archive, who, UNWATCHED)
      archive.zip.close()
      const of = (name: string) => standings.find(({ table }) => table === name)
      expect(of('client')).toMatchObject({ fresh: 0, conflict: 1 })
      expect(of('weigh_in')).toMatchObject({ fresh: 1, conflict: 0 })
      // People, links, proofs, rules and the audit log of a studio in use are its own.
      for (const table of Object.keys(NEVER_MERGED)) expect(of(table), table).toBeUndefined()
      expect(of('reading')).toMatchObject({ fresh: 0, conflict: 0 })
      expect(await merge(used, first)).toMatchObject({ added: 1 })
      const [kept] = await used
        .select()
        .from(client)
        .where(eq(client.id, somebody?.id ?? ''))
      expect(kept?.name).toBe('Another Name')
    })
  })

  it('goes into another studio under that one’s name, without its people and its log, marked as brought in', async () => {
    await inEmpty(async (other) => {
      const [id, leadId] = ['01980000-0000-7000-8000-000000000001', '01980000-0000-7000-8000-00000000000a']
      await other.insert(studio).values({ id, name: 'Boathouse North' })
      await other.insert(staff).values({
        id: leadId,
        studioId: id,
        name: 'Ada North',
        email: 'ada@north.example',
        passwordHash: '',
        role: 'lead',
      })
      const { importId } = await merge(other, first)
      expect(await other.select({ name: studio.name }).from(studio)).toEqual([{ name: 'Boathouse North' }])
      const owners = await other.selectDistinct({ id: client.studioId }).from(client)
      expect(owners).toEqual([{ id }])
      expect(await other.select({ id: staff.id }).from(staff)).toEqual([{ id: leadId }])
      const log = await checkRecord(other, { studioId: id })
      expect([log.fault, log.entries, (await other.select().from(audit)).length]).toEqual([null, 0, 0])
      // Nobody here is made out to have measured what others measured.
      expect(await other.selectDistinct({ by: checkin.assessorId }).from(checkin)).toEqual([{ by: null }])
      expect(await other.selectDistinct({ by: client.coachId }).from(client)).toEqual([{ by: null }])
      const [one] = await other.select({ id: checkin.id, clientId: checkin.clientId }).from(checkin).limit(1)
      const brought = await listBroughtIn(other, one?.clientId ?? '')
      expect(brought).toContainEqual(
        expect.objectContaining({ checkinId: one?.id, by: 'Ada North', fileName: 'a.zip' }),
      )
      expect(brought.some(({ checkinId }) => checkinId === null)).toBe(true)
      const marks = await other.select().from(importedItem).where(eq(importedItem.importId, importId))
      expect(marks.filter(({ kind }) => kind === 'checkin').length).toBe((await other.select().from(checkin)).length)
      // Links stay out: what came in through them stays without one.
      expect(await other.select().from(clientLink)).toEqual([])
      expect((await other.select().from(handIn)).map(({ linkId }) => linkId)).toContain(null)
    })
  })

  it('says of every table whether it may come into a studio in use', () => {
    const names = archivedTables().map(({ name }) => name)
    expect([...MERGED, ...Object.keys(NEVER_MERGED)].sort()).toEqual(names.sort())
  })

  it('makes nobody a lead, forges no entry of the log and opens no link, whatever was written into it', async () => {
    const [runa] = await full.select().from(staff).where(eq(staff.role, 'lead'))
    const evil = uuid()
    const add = (parts: Unzipped, table: string, row: object) =>
      (parts[`tables/${table}.jsonl`] = strToU8(`${textOf(parts, `tables/${table}.jsonl`)}${JSON.stringify(row)}\n`))
    const forged = changed('forged.zip', (parts) => {
      const [somebody] = textOf(parts, 'tables/client.jsonl').split('\n')
      const clientId = (JSON.parse(somebody ?? '{}') as { id: string }).id
      const people = { id: evil, studio_id: runa?.studioId, name: 'Mal', email: 'mal@x.example', role: 'lead' }
      add(parts, 'staff', { ...people, password_hash: '$scrypt$', active: true })
      add(parts, 'pin', { staff_id: runa?.id, secret: 'x', tries: 0, set_at: '2026-11-25T10:00:00.000Z' })
      add(parts, 'client_link', {
        id: uuid(),
        client_id: clientId,
        token_hash: 'f'.repeat(64),
        scope: ['weigh-ins'],
        sites: [],
        expires_at: '2030-01-01T00:00:00.000Z',
        made_by: evil,
        at: '2026-11-25T10:00:00.000Z',
        wrong_pins: 0,
      })
      add(parts, 'audit', {
        id: uuid(),
        studio_id: runa?.studioId,
        at: '2026-11-25T10:00:00.000Z',
        actor: 'staff',
        staff_id: runa?.id,
        kind: 'client.erased',
        client_id: clientId,
      })
      restamp(parts)
    })
    await inEmpty(async (used) => {
      await bring(used, first)
      const count = async () => ({
        people: (await used.select().from(staff)).length,
        pins: (await used.select().from(pin)).length,
        links: (await used.select().from(clientLink)).length,
        log: (await used.select().from(audit)).length,
        chain: (await checkRecord(used, { studioId: runa?.studioId ?? '' })).fault,
      })
      const before = await count()
      await merge(used, forged)
      expect(await count()).toEqual(before)
    })
    // Nor into an empty installation: its log is not whole.
    await expect(empty.transaction((tx) => bring(tx, forged))).rejects.toThrow(/audit log of this archive is not whole/)
    expect(await empty.select().from(studio)).toEqual([])
  })

  it('is not merged by somebody of another studio, nor by nobody', async () => {
    await inEmpty(async (used) => {
      await bring(used, first)
      await expect(bring(used, first)).rejects.toThrow(/merged by a lead coach/)
    })
  })

  it('does not bring back a client whose record was erased here', async () => {
    const [somebody] = await full.select().from(client).where(eq(client.name, 'Maren Osk'))
    const [own] = await full.select().from(studio)
    await inEmpty(async (fresh) => {
      await fresh.insert(studio).values(own ?? { id: '', name: '' })
      const [lead] = await full.select().from(staff).where(eq(staff.role, 'lead'))
      if (lead) await fresh.insert(staff).values(lead)
      await fresh.insert(audit).values({
        id: '01980000-0000-7000-8000-000000000002',
        studioId: own?.id ?? '',
        at: '2026-11-25T10:00:00.000Z',
        actor: 'system',
        kind: 'client.erased',
        clientId: somebody?.id ?? '',
      })
      await merge(fresh, first)
      const names = (await fresh.select({ name: client.name }).from(client)).map(({ name }) => name)
      expect(names).not.toContain('Maren Osk')
      expect(names.length).toBe((await full.select().from(client)).length - 1)
    })
  })

  it('is given up in the middle when somebody says so, with nothing stored', async () => {
    const giveUp = new AbortController()
    const archive = await openArchive(first)
    const progress = progressOf(giveUp.signal, ({ of, done, total }) => {
      if (of === 'rows' && done > total / 2) giveUp.abort()
    })
    const store = folderPhotos(join(folder, 'given-up'))
    await expect(empty.transaction((tx) => importArchive(tx, archive, store, progress))).rejects.toThrow('given up')
    archive.zip.close()
    expect(await empty.select().from(studio)).toEqual([])
  })
})

describe('archives that are refused, with a sentence and nothing stored', () => {
  async function refused(file: string): Promise<string> {
    const said = await empty
      .transaction((tx) => bring(tx, file))
      .then(
        () => 'taken',
        (error: Error) => error.message,
      )
    expect(await empty.select().from(studio)).toEqual([])
    return said
  }
  const manifestWith = (change: (manifest: Record<string, unknown>) => void) => (parts: Unzipped) => {
    const manifest = JSON.parse(textOf(parts, 'manifest.json')) as Record<string, unknown>
    change(manifest)
    parts['manifest.json'] = strToU8(JSON.stringify(manifest))
  }

  it.each<[string, (parts: Unzipped) => void, RegExp]>([
    ['a newer form', manifestWith((one) => (one.format = 2)), /newer version/],
    ['a newer database', manifestWith((one) => (one.schema = 999)), /newer version/],
    ['no manifest', (parts) => Reflect.deleteProperty(parts, 'manifest.json'), /no manifest/],
    ['a manifest of something else', (parts) => (parts['manifest.json'] = strToU8('[1]')), /manifest/],
    ['a part missing', (parts) => Reflect.deleteProperty(parts, 'tables/reading.jsonl'), /parts are not those/],
    ['a part too many', (parts) => (parts['tables/more.jsonl'] = strToU8('')), /parts are not those/],
    [
      'a reading changed',
      (parts) =>
        (parts['tables/reading.jsonl'] = strToU8(textOf(parts, 'tables/reading.jsonl').replace('"mm"', '"cm"'))),
      /not what the manifest says|does not fit/,
    ],
    [
      'a picture changed',
      (parts) => {
        const path = Object.keys(parts).find((one) => one.startsWith('photos/')) ?? ''
        parts[path]?.set([1, 2, 3], 100)
      },
      /photos\/.* not what the manifest says/,
    ],
    ['a path that climbs', (parts) => (parts['../out.txt'] = strToU8('x')), /leads out of it/],
    [
      'a line that is not JSON',
      (parts) => (parts['tables/studio.jsonl'] = strToU8('{')),
      /studio.jsonl, line 1: this is not JSON/,
    ],
  ])('%s', async (name, change, sentence) => {
    expect(await refused(changed(`${name.replaceAll(' ', '-')}.zip`, change))).toMatch(sentence)
  })

  it('what is no ZIP, and a ZIP cut short', async () => {
    const none = join(folder, 'none.zip')
    writeFileSync(none, 'Dear diary')
    expect(await refused(none)).toMatch(/damaged, or no ZIP/)
    const cut = join(folder, 'cut.zip')
    writeFileSync(cut, readFileSync(first).subarray(0, 20_000))
    expect(await refused(cut)).toMatch(/damaged, or no ZIP/)
  })

  it('a bomb: far more inside than it can honestly hold', async () => {
    const bomb = join(folder, 'bomb.zip')
    writeFileSync(bomb, zipSync({ 'manifest.json': new Uint8Array(50 * 1024 * 1024) }, { level: 9 }))
    expect(await refused(bomb)).toMatch(/far more than it can honestly hold/)
  })
})
