import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Database, Store } from '../../server/db/database'
import { audit, caliper, client, studio } from '../../server/db/schema'
import { memoryBus } from '../../server/ports/bus'
import { memoryShelf } from '../../server/ports/shelf'
import { changeIn, type Actor, type Change } from '../../server/write/change'
import { testStore } from '../support/database'

const SERVER = fileURLToPath(new URL('../../server', import.meta.url))

/** Source files of the server by their path in it. */
function sources(): Map<string, string> {
  const names = readdirSync(SERVER, { recursive: true, encoding: 'utf8' }).filter((name) => name.endsWith('.ts'))
  return new Map(names.map((name) => [name, readFileSync(join(SERVER, name), 'utf8')]))
}

describe('every write', () => {
  // Seeds fill an empty database before anybody can ask for anything.
  const seeds = /^db\/(seed-|demo-)/
  const files = [...sources()].filter(([name]) => !seeds.test(name))

  it('goes through the door: nothing else opens a transaction', () => {
    const opening = files.filter(([, text]) => /\.transaction\(/.test(text)).map(([name]) => name)
    // The embedded client hands its own ones on. A server is read at one moment, and read only, for archives.
    const own = [join('db', 'guarded-client.ts'), join('db', 'server-store.ts')]
    // A trial fills a database of its own, in a folder that is thrown away.
    const trial = join('exchange', 'restore-trial.ts')
    expect(opening).toEqual([...own, trial, join('write', 'change.ts')])
    expect(sources().get(join('db', 'server-store.ts'))).toMatch(/\.transaction\([^}]*accessMode: 'read only'/)
  })

  it('takes the transaction of the door: no repository writes with anything else, no route writes at all', () => {
    const writing = /\b(\w+)\s*\.(insert|update|delete)\(/g
    const found = files.flatMap(([name, text]) =>
      [...text.matchAll(writing)]
        .filter(
          ([, on = '']) =>
            ![
              'tx',
              'map',
              'real',
              'madeUp',
              'where',
              'written',
              'open',
              'waiting',
              'known',
              'stops',
              'recent',
              'noted',
              'cipher',
              'opener',
            ].includes(on),
        )
        .map(([match, on = '']) => `${name}: ${on}: ${match}`),
    )
    // Hashes and maps have methods of these names too; what is left must be none.
    expect(found.filter((one) => !/createHash|set\.|Set\(|added|hash/i.test(one))).toEqual([])
    const routes = files.filter(
      ([name, text]) => name.startsWith('api') && /\btx\s*\.(insert|update|delete|execute)/.test(text),
    )
    expect(routes.map(([name]) => name)).toEqual([])
  })

  it('of the interface is a change: each route that is no GET calls it', () => {
    const routes = files.filter(([name]) => /^api\/.*\.(post|put|patch|delete)\.ts$/.test(name))
    expect(routes.length).toBeGreaterThan(25)
    // Secrets travel in bodies and not in addresses: these two read. Mail is sent by its job, which goes through the door.
    const reading = [
      'api/board.post.ts',
      // A file is kept beside the database until it is brought in; work is given up by a word to whoever does it.
      'api/data/files/[id]/look.post.ts',
      'api/data/files/index.post.ts',
      'api/data/jobs/[id]/index.delete.ts',
      'api/link/open.post.ts',
      'api/mail/send.post.ts',
      // Passkeys are asked and proved, and sessions begun, by what several routes share: those call it.
      'api/me/confirm/begin.post.ts',
      'api/me/passkeys/begin.post.ts',
      'api/sign-in/passkey/begin.post.ts',
      'api/sign-in/passkey/index.post.ts',
      'api/staff/index.post.ts',
      'api/staff/invite.post.ts',
    ]
    expect(
      routes
        .filter(([, text]) => !/\bchange\(/.test(text))
        .map(([name]) => name)
        .sort(),
    ).toEqual(reading)
    expect(files.find(([name]) => name === 'jobs/reminders.ts')?.[1]).toContain('changeIn(')
    for (const shared of ['http/passkeys.ts', 'http/begin-session.ts', 'http/invite.ts'])
      expect(files.find(([name]) => name === shared)?.[1], shared).toMatch(/\bchange\(/)
  })
})

describe('a change', () => {
  let opened: Store
  let db: Database
  const studioId = uuid()
  const clientId = uuid()
  beforeAll(async () => {
    opened = await testStore()
    db = opened.database
    await db.insert(studio).values({ id: studioId, name: 'Reedwater' })
    await db
      .insert(client)
      .values({ id: clientId, studioId, name: 'Maren Osk', sex: 'female', birthDate: '1992-03-14' })
  })
  afterAll(() => opened.close())

  const done: string[] = []
  const bus = memoryBus()
  const shelf = memoryShelf()
  const actor: Actor = { kind: 'system', studioId }
  const store = () => ({
    database: db,
    settle: async () => void done.push('settled'),
  })
  const run = <Result>(what: Change, work: Parameters<typeof changeIn<Result>>[3]) =>
    changeIn({ store: store(), ports: { bus, shelf } }, actor, what, work)
  const rows = async () => (await db.select().from(audit)).map(({ kind, clientId: on }) => [kind, on])
  const touched = async () => (await db.select({ at: client.touchedAt }).from(client))[0]?.at

  it('touches, records once, settles, and only then tells and forgets', async () => {
    const checkinId = uuid()
    shelf.put('errors', studioId, 'learnt')
    const leave = bus.subscribe(`checkin:${checkinId}`, ({ kind }) => done.push(`told ${kind}`))
    const before = await touched()
    const result = await run({ kind: 'checkin.finished', clientId, checkinId }, async (_, unit) => {
      unit.publish({ kind: 'changed' })
      unit.publish({ kind: 'changed' })
      done.push('worked')
      return 'result'
    })
    leave()
    expect(result).toBe('result')
    expect(done).toEqual(['worked', 'settled', 'told changed', 'told changed'])
    expect(await rows()).toEqual([['checkin.finished', clientId]])
    expect(await touched()).not.toBe(before)
    expect(shelf.get('errors', studioId)).toBeUndefined()
  })

  it('leaves errors that take long to learn as they are for their ten minutes', async () => {
    const kept = { at: Date.now(), tookMs: 5_000, errors: Promise.resolve([]) }
    shelf.put('errors', studioId, kept)
    await run({ kind: 'checkin.facts', clientId }, () => Promise.resolve())
    expect(shelf.get('errors', studioId)).toBe(kept)
    shelf.put('errors', studioId, { ...kept, tookMs: 20 })
    await run({ kind: 'checkin.facts', clientId }, () => Promise.resolve())
    expect(shelf.get('errors', studioId)).toBeUndefined()
  })

  it('that fails leaves nothing: no fact, no row, no touch, no news', async () => {
    const before = [await rows(), await touched()]
    const told: string[] = []
    const leave = bus.subscribe('checkin:x', () => told.push('told'))
    const failing = run({ kind: 'caliper.added', clientId, checkinId: 'x' }, async (tx, unit) => {
      await tx.insert(caliper).values({ id: uuid(), studioId, name: 'Lost' })
      unit.publish({ kind: 'changed' })
      throw new Error('half way')
    })
    await expect(failing).rejects.toThrow('half way')
    leave()
    expect([await rows(), await touched()]).toEqual(before)
    expect(await db.select().from(caliper)).toEqual([])
    expect(told).toEqual([])
  })

  it('that changes nothing is not recorded, yet waits for the disk: what it found may be a moment old', async () => {
    const before = await rows()
    done.length = 0
    await run({ kind: 'client.changed', clientId }, async (_, unit) => unit.unchanged())
    expect(await rows()).toEqual(before)
    expect(done).toEqual(['settled'])
  })
})
