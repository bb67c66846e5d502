import { afterAll, describe, expect, it } from 'vitest'
import type { Store } from '../../server/db/database'
import { memoryAttempts, type Attempts } from '../../server/ports/attempts'
import { serverAttempts } from '../../server/ports/server-attempts'
import { testStore } from '../support/database'

const stores: Store[] = []
afterAll(() => Promise.all(stores.map((store) => store.close())))

async function inDatabase(): Promise<Attempts> {
  const store = await testStore()
  stores.push(store)
  if (!store.server) throw new Error('needs a PostgreSQL server')
  return serverAttempts(store.server)
}

type Kind = [name: string, make: () => Promise<Attempts>]
const KINDS: Kind[] = [
  ['memory', () => Promise.resolve(memoryAttempts())],
  ...(process.env.TEST_POSTGRES ? [['the database', inDatabase] satisfies Kind] : []),
]

const pace = { free: 5, firstMs: 1000, longestMs: 300_000 }
const account = (key: string, real = true) => [{ key, pace, real }]

describe.each(KINDS)('attempts to get in, counted in %s', (_, make) => {
  it('are counted before they are tried: of sixty sent together five are', async () => {
    const attempts = await make()
    const waits = await Promise.all(Array.from({ length: 60 }, () => attempts.begin(account('runa'), 0)))
    expect(waits.filter((wait) => wait === 0)).toHaveLength(5)
  })

  it('wait for a second after the fifth, then twice as long each time, up to five minutes and never for good', async () => {
    const attempts = await make()
    for (let i = 0; i < 5; i += 1) await attempts.begin(account('runa'), 0)
    const waited: number[] = []
    let now = 0
    for (let i = 0; i < 12; i += 1) {
      const wait = await attempts.begin(account('runa'), now)
      waited.push(wait)
      now += wait
      expect(await attempts.begin(account('runa'), now)).toBe(0)
    }
    expect(waited.slice(0, 5)).toEqual([1000, 2000, 4000, 8000, 16_000])
    expect(Math.max(...waited)).toBe(300_000)
  })

  it('leave a known device and another account alone, and a right password clears its own', async () => {
    const attempts = await make()
    for (let i = 0; i < 50; i += 1) await attempts.begin(account('account runa'), 0)
    expect(await attempts.begin(account('device 1 runa'), 0)).toBe(0)
    expect(await attempts.begin(account('account ivo'), 0)).toBe(0)
    await attempts.succeeded('account runa', true)
    expect(await attempts.begin(account('account runa'), 0)).toBe(0)
  })
})

describe('attempts in memory', () => {
  it('of a real account are not pushed out by thirty thousand made-up ones', async () => {
    const attempts = memoryAttempts()
    for (let i = 0; i < 6; i += 1) await attempts.begin(account('runa'), 0)
    for (let i = 0; i < 30_000; i += 1) await attempts.begin(account(`made up ${i}`, false), 0)
    expect(await attempts.begin(account('runa'), 0)).toBe(1000)
  })
})
