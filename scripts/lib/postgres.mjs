import { spawn, spawnSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { once } from 'node:events'
import { chownSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const DEBIAN = '/usr/lib/postgresql'

/** Folder of a PostgreSQL's programs on this machine: POSTGRES_BIN, or Debian's newest. Null when there is none. */
export function findPostgres() {
  if (process.env.POSTGRES_BIN)
    return existsSync(join(process.env.POSTGRES_BIN, 'initdb')) ? process.env.POSTGRES_BIN : null
  if (!existsSync(DEBIAN)) return null
  const newest = readdirSync(DEBIAN).sort((a, b) => Number(b) - Number(a))
  return newest.map((version) => join(DEBIAN, version, 'bin')).find((bin) => existsSync(join(bin, 'initdb'))) ?? null
}

/** Finds PostgreSQL, installing it as root on Debian. @returns null where it can be neither found nor installed */
export function ensurePostgres() {
  if (findPostgres() || process.getuid?.() !== 0 || !existsSync('/etc/debian_version')) return findPostgres()
  console.log('Installing PostgreSQL from Debian’s packages ...')
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  // Where there is no way to the packages this gives up in time.
  const bounded = { stdio: /** @type {const} */ ('ignore'), env, timeout: 180_000 }
  spawnSync('apt-get', ['update', '-qq'], bounded)
  spawnSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'postgresql'], bounded)
  return findPostgres()
}

/** PostgreSQL refuses to run as root: whom it runs as there. */
function unprivileged() {
  if (process.getuid?.() !== 0) return {}
  const id = (flag) => Number(spawnSync('id', [flag, 'postgres'], { encoding: 'utf8' }).stdout.trim())
  return { uid: id('-u'), gid: id('-g') }
}

/**
 * A PostgreSQL of its own: a new cluster in a temporary folder, on a free port of this machine, gone when it is stopped.
 * Nothing is synced to the disk: it lives no longer than the tests.
 * @returns {Promise<{ url: string, crash: () => Promise<void>, start: () => Promise<void>, stop: () => Promise<void> } | null>} null where there is no PostgreSQL
 */
export async function startPostgres({ durable = false } = {}) {
  const bin = ensurePostgres()
  if (!bin) return null
  const { freePort } = await import('./server-process.mjs')
  const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-postgres-'))
  const as = unprivileged()
  if (as.uid) chownSync(folder, as.uid, as.gid)
  const data = join(folder, 'data')
  const initdb = ['-D', data, '-U', 'oak', '-A', 'trust', '-E', 'UTF8', '--locale=C.UTF-8', '--no-sync']
  const made = spawnSync(join(bin, 'initdb'), initdb, { ...as, encoding: 'utf8', cwd: folder })
  if (made.status !== 0) throw new Error(`initdb: ${made.stderr}`)
  const port = await freePort()
  const settings = {
    port,
    listen_addresses: '127.0.0.1',
    unix_socket_directories: folder,
    max_connections: 200,
    shared_buffers: durable ? '1GB' : '128MB',
    ...(durable ? { max_wal_size: '4GB' } : { fsync: 'off', synchronous_commit: 'off', full_page_writes: 'off' }),
  }
  const flags = Object.entries(settings).flatMap(([name, value]) => ['-c', `${name}=${value}`])
  /** @type {import('node:child_process').ChildProcess} */
  let server
  /** @type {Promise<unknown>} */
  let ended
  async function start() {
    server = spawn(join(bin ?? '', 'postgres'), ['-D', data, ...flags], {
      ...as,
      cwd: folder,
      stdio: ['ignore', 'ignore', 'pipe'],
    })
    let said = ''
    await new Promise((ready, failed) => {
      server.stderr?.on('data', (chunk) => {
        said += chunk
        if (/ready to accept connections/.test(said)) ready(undefined)
      })
      server.once('exit', () => failed(new Error(`PostgreSQL ended:\n${said}`)))
    })
    ended = once(server, 'exit')
  }
  await start()
  return {
    url: `postgres://oak@127.0.0.1:${port}/postgres`,
    /** Ends it at once without writing anything more, as a crash does; `start` recovers it from its log. */
    async crash() {
      server.kill('SIGQUIT')
      await ended
    },
    start,
    async stop() {
      server.kill('SIGINT')
      await ended
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

async function atServer(work) {
  const { default: pg } = await import('pg')
  const client = new pg.Client({ connectionString: process.env.TEST_POSTGRES })
  await client.connect()
  return work(client).finally(() => client.end())
}

function addressOf(name) {
  const url = new URL(process.env.TEST_POSTGRES ?? '')
  url.pathname = `/${name}`
  return url.href
}

const templateOf = (filled) => `oak_${filled}`
/** Photographs of the demo lie in a folder beside its database. */
const folderOf = (filled) => join(process.env.TEST_POSTGRES_FOLDER ?? '', templateOf(filled))

/**
 * A new database of the tests' server, made from a template.
 * @param {import('./template.mjs').Filling} filled
 */
export async function databaseFrom(filled) {
  const name = `oak_${randomUUID().replaceAll('-', '')}`
  await atServer((client) => client.query(`create database ${name} template ${templateOf(filled)}`))
  return { url: addressOf(name), folder: folderOf(filled) }
}

export async function dropDatabase(url) {
  await atServer((client) => client.query(`drop database if exists ${new URL(url).pathname.slice(1)} with (force)`))
}

/** Makes the databases tests copy: an empty one at the current schema, one with a new studio, one with the demo data. */
export async function makeTemplates() {
  const { FILLINGS, makeTemplate } = await import('./template.mjs')
  for (const filled of FILLINGS)
    await atServer((client) => client.query(`create database ${templateOf(filled)} template template0`))
  await Promise.all(
    FILLINGS.map((filled) => {
      mkdirSync(folderOf(filled), { recursive: true })
      return makeTemplate(filled, { DATA_DIR: folderOf(filled), DATABASE_URL: addressOf(templateOf(filled)) })
    }),
  )
}
