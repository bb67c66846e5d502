import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { addDays, subDays } from 'date-fns'
import { eq, sql } from 'drizzle-orm'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { bundled } from '../../scripts/lib/bundle.mjs'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { layTemplate } from '../../scripts/lib/template.mjs'
import { migrationsCount, openStore, type Store } from '../../server/db/database'
import { DEMO_PASSWORD } from '../../server/db/demo-people'
import { client, photo, staff, studio } from '../../server/db/schema'
import { openArchive, verifyArchive } from '../../server/exchange/archive-read'
import { checkReferences } from '../../server/exchange/backup-checks'
import { changeBackupState, readBackupState } from '../../server/exchange/backup-state'
import { goneBy, keptOf, listBackups, makeBackup, removeOld } from '../../server/exchange/backups'
import { eraseClient } from '../../server/exchange/one-client'
import { restoreTrial } from '../../server/exchange/restore-trial'
import { archivedTables } from '../../server/exchange/tables'
import { progressOf, UNWATCHED } from '../../server/exchange/progress'
import { backupStatus, backupWhenDue } from '../../server/jobs/nightly-backup'
import { tryRestoreWhenDue } from '../../server/jobs/try-restore'
import { folderPhotos } from '../../server/ports/photo-store'
import { recordEnd } from '../../server/repositories/record-chain'
import { removeDuePhotos, retentionDue } from '../../server/repositories/retention'
import type { DataJob, DataPage } from '../../shared/schemas/data'
import type { Floor } from '../../shared/schemas/checkin'
import type { ClientPage } from '../../shared/schemas/client'
import { Caller, LEAD } from '../support/api'
import { broughtFile, endOf } from '../support/data'
import { seededStore } from '../support/database'
import { until } from '../support/until'

const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-kept-'))
const photos = folderPhotos(join(folder, 'photos'))
let store: Store
let archive = ''
beforeAll(async () => {
  store = await seededStore()
  const { name } = await makeBackup(store, photos, join(folder, 'first'), UNWATCHED, new Date('2026-11-26T02:00:00Z'))
  archive = join(folder, 'first', name)
}, 60_000)
afterAll(async () => {
  await store.close()
  rmSync(folder, { recursive: true })
})

describe('backups that are kept', () => {
  it('of two years of nights are the newest of 7 days, 4 weeks and 12 months', () => {
    const nights = Array.from({ length: 730 }, (_, i) => subDays(new Date('2026-11-26T02:00:00Z'), i).toISOString())
    const kept = [...keptOf(nights)].sort().reverse()
    expect(kept.slice(0, 7)).toEqual(nights.slice(0, 7))
    // Newest of ISO weeks (ending on Sundays) and of months.
    expect(kept).toContain('2026-11-22T02:00:00.000Z')
    expect(kept).toContain('2026-11-15T02:00:00.000Z')
    for (const month of ['2026-10-31', '2026-09-30', '2026-02-28', '2025-12-31'])
      expect(kept).toContain(`${month}T02:00:00.000Z`)
    expect(kept.at(-1)?.slice(0, 7)).toBe('2025-12')
    expect(kept.length).toBeLessThanOrEqual(7 + 4 + 12)
  })

  /** A folder with empty files by these names, made in this order. */
  async function folderOf(name: string, instants: readonly string[]) {
    const into = join(folder, name)
    mkdirSync(into, { recursive: true })
    const names = instants.map((at) => `oak-pinch-${at.slice(0, 19).replaceAll(':', '')}Z.oakpinch.zip`)
    for (const one of names) writeFileSync(join(into, one), '')
    await changeBackupState(into, { order: names })
    return {
      into,
      add: async (at: string) => {
        const one = `oak-pinch-${at.slice(0, 19).replaceAll(':', '')}Z.oakpinch.zip`
        writeFileSync(join(into, one), '')
        const { order } = await readBackupState(into)
        await changeBackupState(into, { order: [...order, one] })
        const before = (await listBackups(into)).length
        await removeOld(into)
        return before - (await listBackups(into)).length
      },
    }
  }

  it('night after night lose one at most, never one of the last seven, and cover a year', async () => {
    const { into, add } = await folderOf('nights-of-two-years', [])
    for (let i = 0; i < 500; i += 1) {
      const night = addDays(new Date('2025-01-01T02:00:00Z'), i).toISOString()
      expect(await add(night)).toBeLessThanOrEqual(1)
      const all = await listBackups(into)
      expect(all[0]?.at).toBe(night)
      expect(all.slice(0, 7).map(({ at }) => at.slice(0, 10))).toEqual(
        Array.from({ length: Math.min(7, i + 1) }, (_, back) =>
          subDays(new Date(night), back).toISOString().slice(0, 10),
        ),
      )
    }
    const all = await listBackups(into)
    expect(new Set(all.map(({ at }) => at.slice(0, 7))).size).toBeGreaterThanOrEqual(12)
    expect(all.length).toBeLessThanOrEqual(24)
    expect(goneBy({ at: '2026-11-26T02:00:00.000Z' })).toBe('2027-11-26')
  })

  it('lose one, not all, to a backup made under a clock years ahead, which stays in its place', async () => {
    const nights = Array.from({ length: 20 }, (_, i) => addDays(new Date('2026-11-01T02:00:00Z'), i).toISOString())
    const { into, add } = await folderOf('clock-ahead', nights)
    const before = (await listBackups(into)).length
    expect(await add('2031-03-03T02:00:00.000Z')).toBeLessThanOrEqual(1)
    expect((await listBackups(into)).length).toBeGreaterThanOrEqual(before)
    // Set right again: the next one is the last one, whatever its name says.
    await add('2026-11-21T02:00:00.000Z')
    expect((await listBackups(into))[0]?.at).toBe('2026-11-21T02:00:00.000Z')
    expect((await listBackups(into)).slice(0, 7).map(({ at }) => at.slice(0, 10))).toEqual([
      '2026-11-21',
      '2031-03-03',
      '2026-11-20',
      '2026-11-19',
      '2026-11-18',
      '2026-11-17',
      '2026-11-16',
    ])
  })

  it('dated in the future are said, and count as missed', async () => {
    const { into } = await folderOf('clock-said', ['2031-03-03T02:00:00.000Z'])
    const at = { store, folder: into }
    expect(await backupStatus(at, Date.parse('2026-11-26T12:00:00Z'))).toMatchObject({ missed: true, ahead: true })
    expect(await backupStatus(at, Date.parse('2031-03-03T12:00:00Z'))).toMatchObject({ missed: false, ahead: false })
  })

  it('are verified: given up or cut off, there is none', async () => {
    const into = join(folder, 'given-up')
    const stop = new AbortController()
    const progress = progressOf(stop.signal, ({ done, total }) => {
      if (done > total / 2) stop.abort()
    })
    await expect(makeBackup(store, photos, into, progress)).rejects.toThrow('given up')
    expect(readdirSync(into)).toEqual([])
    mkdirSync(into, { recursive: true })
    // What a kill leaves has no name of a backup.
    writeFileSync(join(into, 'oak-pinch-2026-11-26T020000Z.oakpinch.zip.77.part'), 'half')
    expect(await listBackups(into)).toEqual([])
  })
})

describe('the backup of the night', () => {
  const into = join(folder, 'nights')
  const names = async () => (await listBackups(into)).map(({ at }) => at)
  const tryRestore = restoreTrial
  const look = (at: string) => backupWhenDue({ store, photos, folder: into, tryRestore }, new Date(at))

  it('is made once a day, after two where the studio is', { timeout: 60_000 }, async () => {
    await store.database.update(studio).set({ timeZone: 'Pacific/Auckland' })
    // Thirteen hours ahead of UTC: 01:50 and 02:10 on the 27th.
    await look('2026-11-26T12:50:00Z')
    expect(await names()).toEqual([])
    await look('2026-11-26T13:10:00Z')
    await look('2026-11-26T13:20:00Z')
    await look('2026-11-27T10:50:00Z')
    expect(await names()).toEqual(['2026-11-26T13:10:00.000Z'])
    // The next day begins at eleven in the morning of UTC; a night that was slept through is made up for when it is noticed.
    await look('2026-11-28T05:00:00Z')
    expect(await names()).toEqual(['2026-11-28T05:00:00.000Z', '2026-11-26T13:10:00.000Z'])
  })

  it('fails into the log, and is made by the next look', { timeout: 60_000 }, async () => {
    const away = { ...store, snapshot: () => Promise.reject(new Error('The disk is away.')) }
    await backupWhenDue({ store: away, photos, folder: into, tryRestore }, new Date('2026-11-29T05:00:00Z'))
    expect(await names()).not.toContain('2026-11-29T05:00:00.000Z')
    expect(readdirSync(into).filter((name) => name.endsWith('.part'))).toEqual([])
    await look('2026-11-29T05:10:00Z')
    expect(await names()).toContain('2026-11-29T05:10:00.000Z')
  })
})

describe('a backup of the embedded database', () => {
  it('is one moment: clients erased meanwhile are in it whole or not at all', { timeout: 120_000 }, async () => {
    const other = await seededStore()
    const db = other.database
    const all = await db.select({ id: client.id }).from(client)
    let erasing: Promise<unknown> = Promise.resolve()
    // The first row of a table that names clients has been read: now they go.
    const progress = progressOf(new AbortController().signal, ({ done }) => {
      if (done > 0 && all.length > 0) {
        const gone = all.splice(0, 2)
        erasing = erasing.then(async () => {
          for (const { id } of gone) await db.transaction((tx) => eraseClient(tx, id))
        })
      }
    })
    const into = join(folder, 'one-moment')
    const { name } = await makeBackup(other, photos, into, progress)
    await erasing
    expect(await db.select({ id: client.id }).from(client)).toEqual([])
    mkdirSync(join(folder, 'one-moment-scratch'))
    const trial = await restoreTrial(join(into, name), join(folder, 'one-moment-scratch'))
    expect(trial).toMatchObject({ fault: null })
    // Deleted rows are no lost ones: the next backup is good as well.
    await makeBackup(other, photos, into, UNWATCHED, new Date(Date.now() + 5_000))
    expect((await readBackupState(into)).damage).toBeNull()
    await other.close()
  })

  it('is refused by its references where rows are named and missing', async () => {
    const torn = join(folder, 'torn.zip')
    const parts = unzipSync(new Uint8Array(readFileSync(archive)))
    const lines = strFromU8(parts['tables/client.jsonl'] ?? new Uint8Array()).split('\n')
    parts['tables/client.jsonl'] = strToU8(lines.slice(1).join('\n'))
    writeFileSync(torn, zipSync(parts))
    const opened = await openArchive(torn)
    await expect(checkReferences(opened, UNWATCHED)).rejects.toThrow(/1 rows of client are named and missing/)
    opened.zip.close()
  })

  it(
    'stops where rows are gone that nobody deleted: no older one goes, and it is said',
    { timeout: 120_000 },
    async () => {
      const other = await seededStore()
      const into = join(folder, 'damaged')
      await makeBackup(other, photos, into, UNWATCHED, new Date('2026-11-20T02:00:00Z'))
      // As zeros over a page leave it: rows are gone, and no trigger saw them go.
      await other.database.execute(sql`alter table weigh_in disable trigger user`)
      await other.database.execute(sql`delete from weigh_in where id in (select id from weigh_in limit 3)`)
      await other.database.execute(sql`alter table weigh_in enable trigger user`)
      const at = { store: other, photos, folder: into, tryRestore: restoreTrial }
      await backupWhenDue(at, new Date('2026-11-21T05:00:00Z'))
      const status = await backupStatus(at, Date.parse('2026-11-21T05:00:00Z'))
      expect(status.damage?.sentence).toBe(
        'Rows of the table “weigh in” are gone that nobody deleted: 3 of those in the last backup.',
      )
      expect((await listBackups(into)).map(({ at: made }) => made)).toEqual(['2026-11-20T02:00:00.000Z'])
      // The newest rows are kept beside, in case the disk goes as well; it is not tried again that day.
      expect(readdirSync(into)).toContain('doubtful.oakpinch.zip')
      rmSync(join(into, 'doubtful.oakpinch.zip'))
      await backupWhenDue(at, new Date('2026-11-21T06:00:00Z'))
      expect(readdirSync(into)).not.toContain('doubtful.oakpinch.zip')
      // Accepted by a lead: the next one counts, and compares from then on.
      await changeBackupState(into, { damage: null, accepted: true })
      await makeBackup(other, photos, into, UNWATCHED, new Date('2026-11-22T02:00:00Z'))
      expect(await readBackupState(into)).toMatchObject({ damage: null, accepted: false })
      await other.close()
    },
  )

  it('is restored as a trial once a week and after a migration', { timeout: 60_000 }, async () => {
    const into = join(folder, 'trials')
    mkdirSync(into)
    writeFileSync(join(into, 'oak-pinch-2026-11-20T020000Z.oakpinch.zip'), '')
    const tried: string[] = []
    const look = (at: string, fault: string | null = null) =>
      tryRestoreWhenDue(
        into,
        (_, scratch) => {
          tried.push(at)
          expect(existsSync(scratch)).toBe(true)
          return Promise.resolve({ schema: migrationsCount(), rows: 7, fault })
        },
        new Date(at),
      )
    await look('2026-11-20T03:00:00Z', 'The disk is away.')
    await look('2026-11-21T03:00:00Z')
    await look('2026-11-27T03:00:00Z')
    await look('2026-11-28T03:30:00Z')
    expect(tried.map((at) => at.slice(0, 10))).toEqual(['2026-11-20', '2026-11-21', '2026-11-28'])
    const { trial } = await readBackupState(into)
    if (trial) await changeBackupState(into, { trial: { ...trial, schema: migrationsCount() - 1 } })
    await look('2026-11-29T03:00:00Z')
    expect(tried).toHaveLength(4)
    expect(readdirSync(into).filter((name) => name.startsWith('trial-'))).toEqual([])
  })

  it('counts every table’s deleted rows, and has checksums on its pages', async () => {
    const { rows } = await store.database.execute(
      sql`select tgrelid::regclass::text as name from pg_trigger where tgname = 'deleted_counted'`,
    )
    expect(rows.map(({ name }) => name).sort()).toEqual(
      archivedTables()
        .map(({ name }) => name)
        .sort(),
    )
    if (!process.env.TEST_POSTGRES) {
      const [sums] = (await store.database.execute(sql`show data_checksums`)).rows
      expect(sums).toEqual({ data_checksums: 'on' })
    }
  })
})

describe('a database whose file is damaged', () => {
  it.skipIf(process.env.TEST_POSTGRES)(
    'by zeros over a page, or by a page that cannot be read, stops the backup and says so',
    { timeout: 240_000 },
    async () => {
      const server = await startServer({ filled: 'demo', env: { DEMO: '0', DATABASE_URL: '' } })
      const lead = new Caller(server)
      await lead.signIn({ email: 'runa@reedwater.example', password: DEMO_PASSWORD })
      const backUp = async () => endOf(lead, await lead.send<DataJob>('POST', '/api/data/backups', {}))
      expect((await backUp()).state).toBe('done')
      const { trial } = (await lead.send<DataPage>('GET', '/api/data')).body.backup
      expect(trial).toMatchObject({ fault: null })
      await server.end()
      const opened = await openStore(server.dataDir)
      const [{ path } = { path: '' }] = (
        await opened.database.execute(sql`select pg_relation_filepath('weigh_in') as path`)
      ).rows as { path: string }[]
      await opened.close()
      const file = join(server.dataDir, 'postgres', path)
      const whole = readFileSync(file)
      for (const [damage, said] of [
        [Buffer.alloc(8192), /Rows of the table “weigh in” are gone that nobody deleted/],
        [Buffer.alloc(8192, 7), /cannot be read/],
      ] as const) {
        writeFileSync(file, Buffer.concat([damage, whole.subarray(8192)]))
        await server.start()
        const after = new Caller(server)
        after.takeCookies(lead)
        const job = await endOf(after, await after.send<DataJob>('POST', '/api/data/backups', {}))
        expect([job.state, job.sentence]).toEqual(['failed', expect.stringMatching(said)])
        expect((await after.send('GET', '/api/health')).status).toBe(503)
        expect((await after.send('GET', '/api/ready')).status).toBe(200)
        const { body } = await after.send<Floor>('GET', '/api/floor')
        expect(body.damage ?? '').toMatch(said)
        expect(server.said()).toMatch(/"what":"damage found"/)
        expect(
          readdirSync(join(server.dataDir, 'backups')).filter((name) => name.startsWith('oak-pinch')),
        ).toHaveLength(1)
        await server.end()
      }
      await server.remove()
    },
  )
})

/** A command as a process of its own, killed as soon as what it says matches. */
async function killedAt(entry: string, args: string[], at: RegExp): Promise<string> {
  const child = spawn(process.execPath, ['--liftoff-only', await bundled(entry), ...args], {
    env: { ...process.env, DATABASE_URL: '' },
  })
  let said = ''
  return new Promise((ended) => {
    child.stderr.on('data', (chunk) => {
      said += chunk
      if (at.test(said)) child.kill('SIGKILL')
    })
    child.stdout.on('data', (chunk) => (said += chunk))
    child.on('exit', () => ended(said))
  })
}

describe('a kill in the middle', () => {
  it('of a restore leaves nothing; the next one brings everything', { timeout: 240_000 }, async () => {
    const all = (await store.database.select().from(client)).length
    for (const [i, at] of [/\b\d+ of \d+ rows/, /1\d\d\d of \d+ rows/].entries()) {
      const killed = join(folder, `restored-${i}`)
      // Into an empty database made beforehand; below into no folder at all.
      layTemplate('empty', killed)
      await killedAt('cli/import.ts', [archive, '--data', killed], at)
      const found = await openStore(killed)
      // Nothing, or everything where the kill came too late: never a part.
      const studios = (await found.database.select().from(studio)).length
      expect((await found.database.select().from(client)).length).toBe(studios * all)
      await found.close()
    }
    const data = join(folder, 'restored')
    const said = await killedAt('cli/import.ts', [archive, '--data', data], /never/)
    expect(said).toContain('Restored:')
    const whole = await openStore(data)
    expect((await whole.database.select().from(client)).length).toBe(all)
    await whole.close()
    // The record came with its chain, which a command holds against what was noted before.
    const [own] = await store.database.select({ studioId: studio.id }).from(studio)
    const end = await recordEnd(store.database, own ?? { studioId: '' })
    const check = (noted: string) => killedAt('cli/check-record.ts', ['--data', data, '--noted', noted], /never/)
    expect(await check(`${end?.seq}:${end?.hash}`)).toContain(`${end?.seq} entries are as they were written.`)
    expect(await check(`2:${'0'.repeat(64)}`)).toContain('does not have the hash that was noted')
    expect(await check('2:none')).toContain('npm run check-record')
  })

  it('of a backup leaves none that looks like one', { timeout: 120_000 }, async () => {
    const data = join(folder, 'restored')
    const into = join(folder, 'killed')
    await killedAt('cli/backup.ts', ['--data', data, '--to', into], /\b\d+ of \d+ rows/)
    // What has a name of a backup is one.
    for (const { name } of await listBackups(into)) {
      const one = await openArchive(join(into, name))
      await verifyArchive(one, UNWATCHED)
      one.zip.close()
    }
    const said = await killedAt('cli/backup.ts', ['--data', data, '--to', into], /never/)
    expect(said).toContain('written and read back')
    const [made] = await listBackups(into)
    const opened = await openArchive(join(into, made?.name ?? ''))
    expect(opened.manifest.tables.find(({ table }) => table === 'client')?.rows).toBe(15)
    opened.zip.close()
  })

  it(
    'a client’s own file is made by command too, with its page; nobody’s by an unknown id',
    { timeout: 120_000 },
    async () => {
      const data = join(folder, 'restored')
      const [one] = await store.database.select().from(client).where(eq(client.name, 'Maren Osk'))
      const file = join(folder, 'maren.zip')
      expect(
        await killedAt('cli/export.ts', ['own', file, '--client', one?.id ?? '', '--data', data], /never/),
      ).toContain('Written')
      const parts = unzipSync(new Uint8Array(readFileSync(file)))
      expect(strFromU8(parts['take-home.pdf']?.slice(0, 5) ?? new Uint8Array())).toBe('%PDF-')
      expect(strFromU8(parts['tables/client.jsonl'] ?? new Uint8Array())).toContain('Maren Osk')
      expect(
        strFromU8(parts['tables/client.jsonl'] ?? new Uint8Array())
          .trim()
          .split('\n'),
      ).toHaveLength(1)
      const none = await killedAt('cli/export.ts', ['own', `${file}.2`, '--client', uuid(), '--data', data], /never/)
      expect(none).toContain('no client with this id')
      expect(existsSync(`${file}.2`)).toBe(false)
    },
  )

  it('of a long import leaves not one row of it', { timeout: 240_000 }, async () => {
    const server = await startServer({ filled: 'studio' })
    const lead = new Caller(server)
    await lead.signIn(LEAD)
    const rows = Array.from({ length: 20_000 }, (_, i) => {
      const day = new Date(Date.UTC(2015, 0, 1) + Math.floor(i / 50) * 86_400_000).toISOString().slice(0, 10)
      return `Rower ${i % 50},F,1950-01-01,${day},${10 + (i % 20)}`
    })
    const file = await broughtFile(lead, 'long.csv', `Name,Sex,DOB,Date,Triceps mm\n${rows.join('\n')}\n`)
    const begun = await lead.send<DataJob>('POST', `/api/data/files/${file}/import`, { id: uuid(), plan: null })
    // Storing has begun when the embedded database answers nobody, or a server's counts a second time.
    let seen = 0
    await until(
      async () => {
        const asked = lead.send<DataJob>('GET', `/api/data/jobs/${begun.body.id}`).catch(() => null)
        return Promise.race([asked, new Promise<'busy'>((told) => setTimeout(told, 600, 'busy'))])
      },
      (answer) => {
        if (answer === 'busy' || answer === null) return true
        const done = answer.body.step?.done ?? 0
        const again = done < seen
        seen = Math.max(seen, done)
        return answer.body.state !== 'running' || (again && done > 3_000)
      },
    )
    await server.kill()
    await server.start()
    const after = new Caller(server)
    after.takeCookies(lead)
    const there = await after.send<ClientPage>('GET', '/api/clients')
    const { imports } = (await after.send<DataPage>('GET', '/api/data')).body
    // All of it where it was stored before the kill, else nothing.
    expect([there.status, there.body.total]).toEqual([200, imports.length * 50])
    expect(imports.every(({ checkins }) => checkins === 20_000)).toBe(true)
    await server.remove()
  })
})

describe('what falls due', () => {
  it('is who has not been here for so long, and pictures older than that; nobody else', async () => {
    const [lead] = await store.database.select().from(staff).where(eq(staff.role, 'lead'))
    const who = { studioId: lead?.studioId ?? '' }
    const rules = { clientMonths: 24, photoMonths: 12 }
    // Added as long ago as the demo goes back: only what was done since counts.
    await store.database.update(client).set({ createdAt: '2020-01-01T00:00:00Z' })
    const now = await retentionDue(store.database, who, rules, new Date('2026-11-26T12:00:00Z'))
    // One who was added and never came.
    expect(now).toEqual({ clients: [expect.objectContaining({ lastOn: '2020-01-01' })], photos: 0 })
    const later = await retentionDue(store.database, who, rules, new Date('2028-12-26T12:00:00Z'))
    const all = await store.database.select({ id: client.id }).from(client)
    expect(later.clients.length).toBe(all.length)
    expect(later.clients.every(({ lastOn }) => lastOn >= '2025-06-01' || lastOn === '2020-01-01')).toBe(true)
    const kept = await retentionDue(
      store.database,
      who,
      { clientMonths: null, photoMonths: null },
      new Date('2040-01-01T00:00:00Z'),
    )
    expect(kept).toEqual({ clients: [], photos: 0 })
    const [{ count = 0 } = {}] = await store.database.select({ count: sql<number>`count(*)::int` }).from(photo)
    const gone = await store.database.transaction((tx) =>
      removeDuePhotos(tx, who, 12, new Date('2028-12-26T12:00:00Z')),
    )
    expect(gone).toHaveLength(count)
  })
})
