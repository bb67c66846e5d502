import { spawnSync } from 'node:child_process'
import {
  chmodSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { createServer } from 'node:net'
import { once } from 'node:events'
import { hostname, tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest'
import { freePort, runProgram, startServer } from '../../scripts/lib/server-process.mjs'
import { layTemplate } from '../../scripts/lib/template.mjs'
import { FolderInUse, lockFolder } from '../../server/db/folder-lock'
import type { ClientPage } from '../../shared/schemas/client'
import { Caller, LEAD, type Server, someClient } from '../support/api'

/** Runs another server on these settings and gives what it said and how it ended. */
async function endsBy(env: Record<string, string>): Promise<{ code: number | null; said: string }> {
  const program = runProgram('scripts/serve.mjs', env)
  const code = await program.ended
  return { code, said: program.said() }
}

/** A data folder nobody has: making its database anew takes seconds. */
function newFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-new-'))
  layTemplate('empty', folder)
  return folder
}

describe('two servers', () => {
  let server: Server
  let coach: Caller
  beforeAll(async () => {
    server = await startServer({ filled: 'studio' })
    coach = new Caller(server)
    await coach.signIn(LEAD)
  })
  afterAll(() => server.remove())

  it('cannot share a data folder: the second ends with a sentence, and nothing of the first is lost', async () => {
    const second = await endsBy({ ...server.env, PORT: String(await freePort()) })
    expect(second.code).toBe(1)
    expect(second.said).toMatch(/data folder .* is in use by another Oak Pinch \(process \d+/)
    expect(second.said).not.toContain('ready')
    const added = await Promise.all(
      Array.from({ length: 10 }, (_, i) => coach.send('POST', '/api/clients', someClient({ name: `Rower ${i}` }))),
    )
    expect(added.map(({ status }) => status)).toEqual(Array(10).fill(201))
    await server.kill()
    await server.start()
    expect((await coach.send<ClientPage>('GET', '/api/clients')).body.total).toBe(10)
  })

  it('cannot share a port: the second says which one is taken and ends', async () => {
    const other = newFolder()
    const second = await endsBy({ ...server.env, DATA_DIR: other })
    expect(second.code).toBe(1)
    expect(second.said).toContain(`Port ${server.env.PORT} is taken`)
    expect(second.said).not.toContain('ready')
    rmSync(other, { recursive: true })
    expect((await coach.send('GET', '/api/me')).status).toBe(200)
  })

  it('closed by the system or by hand end in order, an open stream or not', async () => {
    const client = someClient()
    await coach.send('POST', '/api/clients', client)
    const { body } = await coach.send<{ id: string }>('POST', `/api/clients/${client.id}/checkins`, {
      id: someClient().id,
      protocolId: 'laboratory-7',
      startedAt: new Date().toISOString(),
    })
    const stream = await coach.open(`/api/checkins/${body.id}/stream`)
    expect(stream.status).toBe(200)
    // Waited for: an open stream used to hold the end up until the system killed it.
    expect(await server.end()).toBe(0)
    expect(existsSync(join(server.dataDir, 'lock'))).toBe(false)
    await server.start()
  })

  it('keep everything they hold from other accounts of the machine, whatever stood there', async () => {
    await server.kill()
    for (const name of ['session-secret', 'postgres/PG_VERSION']) chmodSync(join(server.dataDir, name), 0o644)
    chmodSync(server.dataDir, 0o755)
    await server.start()
    await coach.send('POST', '/api/clients', someClient())
    const open = [
      server.dataDir,
      ...readdirSync(server.dataDir, { recursive: true, encoding: 'utf8' }).map((name) => join(server.dataDir, name)),
    ].filter((path) => (statSync(path).mode & 0o077) !== 0)
    expect(open).toEqual([])
  })
})

describe('a data folder that held a database', () => {
  let server: Server
  let coach: Caller
  let database: string
  beforeAll(async () => {
    server = await startServer({ filled: 'studio' })
    database = join(server.dataDir, 'postgres')
    coach = new Caller(server)
    await coach.signIn(LEAD)
    await server.kill()
  })
  afterAll(() => server.remove())

  it.each(['PG_VERSION', 'global/pg_control', 'pg_wal'])(
    'is refused without its %s, and not laid over',
    async (part) => {
      const away = join(server.dataDir, 'away')
      renameSync(join(database, part), away)
      const before = readdirSync(database)
      const again = await endsBy(server.env)
      expect(again.code).toBe(1)
      expect(again.said).toContain(part)
      expect(readdirSync(database)).toEqual(before)
      renameSync(away, join(database, part))
    },
  )

  it('is refused when the whole database is gone, and opens when it is all back', async () => {
    const away = join(server.dataDir, 'away')
    renameSync(database, away)
    expect((await endsBy(server.env)).code).toBe(1)
    rmSync(database, { recursive: true, force: true })
    renameSync(away, database)
    await server.start()
    expect((await coach.send('GET', '/api/me')).status).toBe(200)
    await server.kill()
  })

  it('and cannot be opened is tried once more by npm start, which then says so and ends', async () => {
    const control = join(database, 'global/pg_control')
    writeFileSync(control, Buffer.alloc(statSync(control).size))
    const program = runProgram('scripts/start.mjs', server.env)
    expect(await program.ended).toBe(75)
    expect(program.said().match(/Starting it once more/g)).toHaveLength(1)
    expect(program.said()).toContain('is not started a third time')
  }, 60_000)
})

describe('the lock of a data folder', () => {
  const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-lock-'))
  const lock = join(folder, 'lock')
  afterEach(() => rmSync(lock, { force: true }))
  afterAll(() => rmSync(folder, { recursive: true }))

  it('names its owner, holds against a second taking and goes when it is given back', () => {
    const unlock = lockFolder(folder)
    expect(JSON.parse(readFileSync(lock, 'utf8'))).toMatchObject({ pid: process.pid, host: hostname() })
    expect(() => lockFolder(folder)).toThrow(FolderInUse)
    unlock()
    expect(readdirSync(folder)).toEqual([])
  })

  it('of a process that has ended is taken over', () => {
    const { pid } = spawnSync(process.execPath, ['-e', ''])
    writeFileSync(lock, JSON.stringify({ pid, started: 'a boot/12345', host: hostname() }))
    lockFolder(folder)()
  })

  it('of a process whose number another has got since is taken over', () => {
    writeFileSync(lock, JSON.stringify({ pid: process.pid, started: 'an earlier boot/1', host: hostname() }))
    lockFolder(folder)()
  })

  it('of another machine holds while it is touched, and not for ever after', async () => {
    writeFileSync(lock, JSON.stringify({ pid: 1, started: 'x', host: 'elsewhere' }))
    expect(() => lockFolder(folder)).toThrow(/elsewhere/)
    const { utimes } = await import('node:fs/promises')
    await utimes(lock, new Date(0), new Date(0))
    lockFolder(folder)()
  })

  it('that cannot be read is taken over', () => {
    writeFileSync(lock, '{"pid":')
    lockFolder(folder)()
  })
})

describe('a taken port', () => {
  it('is said in a sentence when another program has it', async () => {
    const other = createServer().listen(0, '127.0.0.1')
    await once(other, 'listening')
    const { port } = other.address() as { port: number }
    const folder = newFolder()
    const { code, said } = await endsBy({ DATA_DIR: folder, PORT: String(port), DEMO: '0' })
    other.close()
    rmSync(folder, { recursive: true })
    expect(code).toBe(1)
    expect(said).toContain(`Port ${port} is taken by another program.`)
  })
})
