import { createHash } from 'node:crypto'
import type { ServerDatabase } from '../db/server-store'
import { delayAfter, FORGOTTEN_AFTER_MS, type Attempts } from './attempts'

const hashOf = (key: string) => createHash('sha256').update(key).digest('hex')

interface Row {
  key_hash: string
  made: number
  next_at: string
}

/** One attempt in so many clears away what is forgotten. */
const CLEAR_EVERY = 200

/** Attempts counted in the database, for several processes together. Only hashes of who tries are kept. */
export function serverAttempts(server: ServerDatabase): Attempts {
  let begun = 0
  return {
    begin: (counted, now = Date.now()) =>
      // One after another by key, in one order: guesses sent to two processes at once count one by one too.
      server.inTurn(counted.map(({ key }) => `attempt ${key}`).sort(), async (client) => {
        begun += 1
        if (begun % CLEAR_EVERY === 0)
          await client.query('delete from attempt where next_at < $1', [new Date(now - FORGOTTEN_AFTER_MS)])
        const hashes = counted.map(({ key }) => hashOf(key))
        const { rows } = await client.query<Row>(
          'select key_hash, made, next_at from attempt where key_hash = any($1)',
          [hashes],
        )
        const found = new Map(rows.map((row) => [row.key_hash, { made: row.made, nextAt: +new Date(row.next_at) }]))
        const counts = hashes.map((hash) => {
          const count = found.get(hash)
          return count && now - count.nextAt < FORGOTTEN_AFTER_MS ? count : { made: 0, nextAt: now }
        })
        const wait = Math.max(0, ...counts.map(({ nextAt }) => nextAt - now))
        if (wait > 0) return wait
        for (const [i, { pace }] of counted.entries()) {
          const made = (counts[i]?.made ?? 0) + 1
          await client.query(
            'insert into attempt (key_hash, made, next_at) values ($1, $2, $3) on conflict (key_hash) do update set made = $2, next_at = $3',
            [hashes[i], made, new Date(now + delayAfter(made, pace))],
          )
        }
        return 0
      }),
    succeeded: (key, clear) =>
      server.inTurn([`attempt ${key}`], async (client) => {
        await client.query('delete from attempt where key_hash = $1 and ($2 or made <= 1)', [hashOf(key), clear])
        await client.query('update attempt set made = made - 1, next_at = now() where key_hash = $1', [hashOf(key)])
      }),
  }
}
