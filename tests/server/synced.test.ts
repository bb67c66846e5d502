import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it, onTestFailed } from 'vitest'
import { runProgram, startServer } from '../../scripts/lib/server-process.mjs'
import { openStore, type Store } from '../../server/db/database'
import { caliper, studio } from '../../server/db/schema'
import { memoryBus } from '../../server/ports/bus'
import { memoryShelf } from '../../server/ports/shelf'
import { changeIn } from '../../server/write/change'
import { Caller, LEAD, someReading, startedCheckin } from '../support/api'

describe('a change that is answered', () => {
  const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-sync-'))
  const studioId = uuid()
  let store: Store
  beforeAll(async () => {
    store = await openStore(folder)
    await store.database.insert(studio).values({ id: studioId, name: 'Reedwater' })
    await store.settle()
  })
  afterAll(async () => {
    await store.close()
    rmSync(folder, { recursive: true })
  })

  const add = (name: string) =>
    changeIn(
      { store, ports: { bus: memoryBus(), shelf: memoryShelf() } },
      { kind: 'system', studioId },
      { kind: 'caliper.added' },
      (tx) => tx.insert(caliper).values({ id: uuid(), studioId, name }),
    )

  it('has its log synced to the disk before, one sync each when they come one by one', async () => {
    const before = store.syncs()
    for (let i = 0; i < 20; i += 1) await add(`Caliper ${i}`)
    expect(store.syncs() - before).toBe(20)
  })

  it('shares a sync with those that come together', async () => {
    const before = store.syncs()
    await Promise.all(Array.from({ length: 50 }, (_, i) => add(`Together ${i}`)))
    const syncs = store.syncs() - before
    expect(syncs).toBeGreaterThanOrEqual(1)
    expect(syncs).toBeLessThan(50)
  })

  it('runs in a database that writes through, pages whole', async () => {
    const { rows } = await store.database.execute<{ name: string; setting: string }>(
      sql`select name, setting from pg_settings where name in ('fsync', 'synchronous_commit', 'full_page_writes')`,
    )
    expect(Object.fromEntries(rows.map(({ name, setting }) => [name, setting]))).toEqual({
      fsync: 'on',
      synchronous_commit: 'on',
      full_page_writes: 'on',
    })
  })

  it('leaves nothing to sync when it reads only', async () => {
    const before = store.syncs()
    await store.database.execute(sql`select count(*) from caliper`)
    await store.settle()
    expect(store.syncs()).toBe(before)
  })
})

// Counted where it matters, by the operating system.
describe.skipIf(!existsSync('/usr/bin/strace') || spawnSync('/usr/bin/strace', ['true']).status !== 0)(
  'twenty acknowledged readings',
  () => {
    it('are twenty calls of fsync on the log and as many on its folder', async () => {
      const server = await startServer({ filled: 'studio' })
      const coach = new Caller(server)
      await coach.signIn(LEAD)
      const { checkinId } = await startedCheckin(coach)
      const trace = join(server.dataDir, '..', `trace-${uuid()}`)
      const { pid } = JSON.parse(readFileSync(join(server.dataDir, 'lock'), 'utf8')) as { pid: number }
      const { spawn } = await import('node:child_process')
      const strace = spawn('/usr/bin/strace', ['-f', '-y', '-e', 'trace=fsync', '-o', trace, '-p', String(pid)])
      await new Promise((attached) => strace.stderr.on('data', attached))
      for (let i = 0; i < 20; i += 1) {
        const body = { readings: [someReading({ value: 8 + i })], strikes: [] }
        expect((await coach.send('POST', `/api/checkins/${checkinId}/events`, body)).status).toBe(200)
      }
      strace.kill('SIGINT')
      await new Promise((gone) => strace.on('exit', gone))
      const calls = readFileSync(trace, 'utf8').split('\n')
      expect(calls.filter((line) => /fsync\(\d+<[^>]*pg_wal\/[\dA-F]{24}>/.test(line)).length).toBeGreaterThanOrEqual(
        20,
      )
      expect(calls.filter((line) => /fsync\(\d+<[^>]*pg_wal>/.test(line)).length).toBeGreaterThanOrEqual(20)
      rmSync(trace)
      await server.remove()
    })
  },
)

// A file system of its own can only be made by root, where the machine allows it.
const small = join(tmpdir(), `oak-pinch-small-${process.pid}`)
const canMount = () =>
  spawnSync('mkdir', ['-p', small]).status === 0 &&
  spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=96m', 'tmpfs', small]).status === 0

describe.skipIf(process.getuid?.() !== 0 || !canMount())('a full disk', () => {
  afterAll(() => {
    spawnSync('umount', ['-l', small])
    rmSync(small, { recursive: true, force: true })
  })

  it('is answered with 503 and a sentence; the process ends itself, is started once more and says so', async () => {
    const { freePort } = await import('../../scripts/lib/server-process.mjs')
    const port = await freePort()
    const server = { address: `http://127.0.0.1:${port}` }
    const program = runProgram('scripts/start.mjs', { DATA_DIR: join(small, 'data'), PORT: String(port) })
    onTestFailed(() => void program.stop('SIGTERM'))
    await program.says(/ready: http/)
    const coach = new Caller(server)
    await coach.setUp()
    const { checkinId, clientId } = await startedCheckin(coach)
    const { statfs, writeFile } = await import('node:fs/promises')
    // Room for a little more, not for another file of the log.
    const { bavail, bsize } = await statfs(small)
    await writeFile(join(small, 'filler'), Buffer.alloc(Math.max(0, bavail * bsize - 2 * 1024 * 1024)))
    const acknowledged: string[] = []
    let refused = ''
    for (let i = 0; i < 4_000 && refused === ''; i += 1) {
      const readings = Array.from({ length: 100 }, () => someReading({ value: 9.5 }))
      const sent = coach.send('POST', `/api/checkins/${checkinId}/events`, { readings, strikes: [] })
      const answer = await sent.catch(() => null)
      if (answer?.status === 200) acknowledged.push(...readings.map(({ id }) => id))
      else {
        expect(answer?.status).toBe(503)
        refused = answer?.body.message ?? ''
      }
    }
    expect(refused).toMatch(/stored before is safe/)
    // With the log's own disk full the process cannot go on: its supervisor starts it again, with space back it works.
    rmSync(join(small, 'filler'))
    const healthy = async () => (await fetch(`${server.address}/api/health`).catch(() => null))?.ok === true
    const patience = Date.now() + 40_000
    while (!(await healthy()) && Date.now() < patience) await new Promise((wake) => setTimeout(wake, 100))
    expect(await healthy()).toBe(true)
    const { body } = await coach.send<{ checkin: { readings: { id: string }[] } }>('GET', `/api/checkins/${checkinId}`)
    const held = new Set(body.checkin.readings.map(({ id }) => id))
    expect(acknowledged.filter((id) => !held.has(id))).toEqual([])
    expect((await coach.send('GET', `/api/clients/${clientId}`)).status).toBe(200)
    await program.stop('SIGTERM')
  }, 180_000)
})
