import { spawn } from 'node:child_process'
import { randomInt } from 'node:crypto'
import { once } from 'node:events'
import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { databaseFrom, dropDatabase } from './postgres.mjs'
import { ROOT } from './prepare.mjs'
import { layTemplate } from './template.mjs'

/** Passwords of people who do not exist: hashed at a hundredth of the cost, so that tests do not wait for it. */
export const QUICK_HASHES = { NUXT_HASH_SCRYPT_COST: '1024' }

/** Ports no system gives to a connection of its own (those begin at 32768) and no browser refuses (10080 is the last). */
const PORTS = { from: 10_100, count: 21_900 }

export async function freePort() {
  for (;;) {
    const port = PORTS.from + randomInt(PORTS.count)
    const probe = createServer()
    const free = await new Promise((told) => {
      probe.once('error', () => told(false))
      probe.listen(port, '127.0.0.1', () => probe.close(() => told(true)))
    })
    if (free) return port
  }
}

/**
 * One of the project's programs as a child: what it says, whether it is ready, how it ended.
 * @param {string} script path in the project
 * @param {Record<string, string | undefined>} env
 */
export function runProgram(script, env) {
  // Tests start many short-lived servers: the database's code is not worth optimising for them (1.5 s of work each).
  const quick = process.env.VITEST ? ['--liftoff-only'] : []
  const child = spawn(process.execPath, [...quick, join(ROOT, script)], {
    cwd: ROOT,
    env: { ...process.env, NODE_ENV: 'production', HOST: '127.0.0.1', ...env },
  })
  let said = ''
  /** @type {(() => void)[]} */
  const listeners = []
  const listen = (chunk) => {
    said += chunk
    for (const heard of listeners) heard()
  }
  child.stdout.on('data', listen)
  child.stderr.on('data', listen)
  const ended = once(child, 'exit').then(([code]) => /** @type {number | null} */ (code))

  /** Resolves once what it says matches; fails when it ends before. */
  function says(pattern) {
    return new Promise((heard, failed) => {
      const look = () => pattern.test(said) && heard(undefined)
      listeners.push(look)
      look()
      void ended.then((code) => failed(new Error(`${script} ended with ${code}:\n${said}`)))
    })
  }

  return {
    child,
    ended,
    says,
    said: () => said,
    async stop(signal) {
      if (child.exitCode === null && child.signalCode === null) child.kill(signal)
      return ended
    },
  }
}

/**
 * The built application as a process of its own, in a data folder of its own: what tests and screenshots drive.
 * `kill` is kill -9; `start` after it starts again on the same folder and port; `remove` ends it for good.
 * `prepare` fills the data folder, which holds an empty database where one was made beforehand, before the first start.
 * @param {{ filled?: import('./template.mjs').Filling, prepare?: (dataDir: string, env: { DATABASE_URL: string | undefined }) => Promise<void>, env?: Record<string, string | undefined> }} options
 */
export async function startServer({ filled = 'empty', prepare, env = {} } = {}) {
  const dataDir = mkdtempSync(join(tmpdir(), 'oak-pinch-data-'))
  // On a PostgreSQL server (TEST_POSTGRES) each has a database of its own there, from the same templates.
  const onServer = process.env.TEST_POSTGRES && !('DATABASE_URL' in env) ? await databaseFrom(filled) : null
  if (!onServer) layTemplate(filled, dataDir)
  if (onServer?.folder) cpSync(onServer.folder, dataDir, { recursive: true })
  await prepare?.(dataDir, { DATABASE_URL: onServer?.url })
  const given = {
    DATA_DIR: dataDir,
    PORT: String(await freePort()),
    DEMO: filled === 'demo' ? '1' : '0',
    ...QUICK_HASHES,
    ...(onServer ? { DATABASE_URL: onServer.url } : {}),
    ...env,
  }
  /** @type {ReturnType<typeof runProgram> | null} */
  let program = null
  let before = ''

  async function start() {
    before += program?.said() ?? ''
    program = runProgram('scripts/serve.mjs', given)
    await program.says(/ready: http/)
  }

  /** Two tests may draw the same port in the same moment: the later one draws again. */
  async function startSomewhere(draws = 5) {
    try {
      await start()
    } catch (fault) {
      if (draws === 0 || !/is taken by another program/.test(program?.said() ?? '')) throw fault
      given.PORT = String(await freePort())
      await startSomewhere(draws - 1)
    }
  }

  await startSomewhere()
  return {
    address: `http://127.0.0.1:${given.PORT}`,
    dataDir,
    env: given,
    start,
    /** Of the process there is now. */
    pid: () => program?.child.pid,
    kill: () => program?.stop('SIGKILL'),
    /** Ends in order; gives the code it ended with. */
    end: () => program?.stop('SIGTERM'),
    /** Everything it has said since the first start. */
    said: () => before + (program?.said() ?? ''),
    async remove() {
      await program?.stop('SIGKILL')
      if (onServer) await dropDatabase(onServer.url)
      // What a server began may still be writing there for a moment.
      rmSync(dataDir, { recursive: true, force: true, maxRetries: 10, retryDelay: 200 })
    },
  }
}
