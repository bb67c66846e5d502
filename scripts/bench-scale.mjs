/**
 * npm run bench:scale: a PostgreSQL of its own with a thousand and with ten thousand clients (12 million readings): what a
 * coach asks all day, p95 and how it grows. SCALE=1000,2000 takes other sizes.
 */
import { bundled } from './lib/bundle.mjs'
import { ensureInstalled } from './lib/prepare.mjs'
import { startPostgres } from './lib/postgres.mjs'

ensureInstalled()
const server = await startPostgres({ durable: true })
if (!server) {
  console.error('There is no PostgreSQL on this machine: name its programs in POSTGRES_BIN.')
  process.exit(1)
}
process.env.BENCH_POSTGRES = server.url
try {
  await import(await bundled('bench/scale.ts'))
} finally {
  await server.stop()
}
