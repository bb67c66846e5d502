import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { addDays, subDays } from 'date-fns'
import { eq, sql } from 'drizzle-orm'
import { strFromU8, unzipSync } from 'fflate'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { bundled } from '../../scripts/lib/bundle.mjs'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { layTemplate } from '../../scripts/lib/template.mjs'
import { openStore, type Store } from '../../server/db/database'
import { client, photo, staff, studio } from '../../server/db/schema'
import { openArchive, verifyArchive } from '../../server/exchange/archive-read'
import { goneBy, keptOf, listBackups, makeBackup } from '../../server/exchange/backups'
import { progressOf, UNWATCHED } from '../../server/exchange/progress'
import { backupWhenDue } from '../../server/jobs/nightly-backup'
import { folderPhotos } from '../../server/ports/photo-store'
import { recordEnd } from '../../server/repositories/record-chain'
import { removeDuePhotos, retentionDue } from '../../server/repositories/retention'
import type { DataJob, DataPage } from '../../shared/schemas/data'
import type { ClientPage } from '../../shared/schemas/client'
import { Caller, LEAD } from '../support/api'
import { broughtFile } from '../support/data'
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
    const now = new Date('2026-11-26T03:00:00Z')
    const nights = Array.from({ length: 730 }, (_, i) => subDays(new Date('2026-11-26T02:00:00Z'), i).toISOString())
    const kept = [...keptOf(nights, now)].sort().reverse()
    expect(kept.slice(0, 7)).toEqual(nights.slice(0, 7))
    // Newest of ISO weeks (ending on Sundays) and of months.
    expect(kept).toContain('2026-11-22T02:00:00.000Z')
    expect(kept).toContain('2026-11-15T02:00:00.000Z')
    for (const month of ['2026-10-31', '2026-09-30', '2026-02-28', '2025-12-31'])
      expect(kept).toContain(`${month}T02:00:00.000Z`)
    expect(kept.at(-1)?.slice(0, 7)).toBe('2025-11')
    expect(kept.length).toBeLessThanOrEqual(7 + 4 + 13)
  })

  it('night after night lose the right ones, and one that was made is never the one that goes', () => {
    let all: string[] = []
    for (let i = 0; i < 500; i += 1) {
      const night = addDays(new Date('2025-01-01T02:00:00Z'), i)
      all = [...keptOf([...all, night.toISOString()], night)]
      expect(all).toContain(night.toISOString())
    }
    const months = new Set(all.map((one) => one.slice(0, 7)))
    expect(months.size).toBeGreaterThanOrEqual(12)
    expect(all.length).toBeLessThanOrEqual(24)
    expect(goneBy({ at: '2026-11-26T02:00:00.000Z' })).toBe('2027-11-26')
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
  const look = (at: string) => backupWhenDue({ store, photos, folder: into }, new Date(at))

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
    await backupWhenDue({ store: away, photos, folder: into }, new Date('2026-11-29T05:00:00Z'))
    expect(await names()).not.toContain('2026-11-29T05:00:00.000Z')
    expect(readdirSync(into).filter((name) => name.endsWith('.part'))).toEqual([])
    await look('2026-11-29T05:10:00Z')
    expect(await names()).toContain('2026-11-29T05:10:00.000Z')
  })
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
    expect(opened.manifest.tables.find(({ table }) => table === 'client')?.rows).toBe(8)
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
      const day = new Date(Date.UTC(1960, 0, 1) + Math.floor(i / 50) * 86_400_000).toISOString().slice(0, 10)
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
    expect(later.clients.every(({ lastOn }) => lastOn >= '2026-01-01' || lastOn === '2020-01-01')).toBe(true)
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
