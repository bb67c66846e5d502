import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ROOT } from './prepare.mjs'
import { currentTemplate } from './template.mjs'

/** Passwords of people who do not exist: hashed at a hundredth of the cost, so that tests do not wait for it. */
export const QUICK_HASHES = { NUXT_HASH_SCRYPT_COST: '1024' }

export async function freePort() {
  const probe = createServer().listen(0, '127.0.0.1')
  await once(probe, 'listening')
  const { port } = /** @type {import('node:net').AddressInfo} */ (probe.address())
  probe.close()
  await once(probe, 'close')
  return port
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
 * `prepare` fills the data folder before the first start.
 * @param {{ demo?: boolean, prepare?: (dataDir: string) => Promise<void>, env?: Record<string, string | undefined> }} options
 */
export async function startServer({ demo = false, prepare, env = {} } = {}) {
  const dataDir = mkdtempSync(join(tmpdir(), 'oak-pinch-data-'))
  const template = prepare ? null : currentTemplate(demo)
  if (template) cpSync(template, dataDir, { recursive: true })
  await prepare?.(dataDir)
  const port = await freePort()
  const given = { DATA_DIR: dataDir, PORT: String(port), DEMO: demo ? '1' : '0', ...QUICK_HASHES, ...env }
  /** @type {ReturnType<typeof runProgram> | null} */
  let program = null
  let before = ''

  async function start() {
    before += program?.said() ?? ''
    program = runProgram('scripts/serve.mjs', given)
    await program.says(/ready: http/)
  }

  await start()
  return {
    address: `http://127.0.0.1:${port}`,
    dataDir,
    env: given,
    start,
    kill: () => program?.stop('SIGKILL'),
    /** Ends in order; gives the code it ended with. */
    end: () => program?.stop('SIGTERM'),
    /** Everything it has said since the first start. */
    said: () => before + (program?.said() ?? ''),
    async remove() {
      await program?.stop('SIGKILL')
      rmSync(dataDir, { recursive: true, force: true })
    },
  }
}
