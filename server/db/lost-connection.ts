import type pg from 'pg'

/** The server ended or refused the connection (PostgreSQL's class 08 and 57P; the system's own codes). */
const LOST = new Set([
  '57P01',
  '57P02',
  '57P03',
  '08000',
  '08001',
  '08003',
  '08006',
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
])

/** What the driver says of a connection that broke, which has no code. */
const LOST_WORDS = /^(Connection terminated|Client has encountered a connection error)/

/** Whether a failure, or what caused it, is a connection to the database that was lost or cannot be had. */
export function isConnectionLost(error: unknown): boolean {
  for (let one = error; one instanceof Error; one = one.cause) {
    const { code } = one as { code?: unknown }
    if ((typeof code === 'string' && LOST.has(code)) || LOST_WORDS.test(one.message)) return true
  }
  return false
}

/**
 * Questions outside of a transaction are asked once more on another connection when theirs was lost: a server that was
 * restarted, or a proxy that closed what nobody used, costs nobody an answer. Writes are tried again by the unit of work.
 */
export function askAgain(pool: pg.Pool): void {
  const ask = pool.query.bind(pool) as (...given: unknown[]) => unknown
  pool.query = ((...given: unknown[]) => {
    const asked = ask(...given)
    // With a callback there is no promise to look at.
    if (!(asked instanceof Promise)) return asked
    return asked.catch((error: unknown) => {
      if (!isConnectionLost(error)) throw error
      return ask(...given)
    })
  }) as typeof pool.query
}
