import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ROOT } from './prepare.mjs'

async function freePort() {
  const probe = createServer().listen(0, '127.0.0.1')
  await once(probe, 'listening')
  const { port } = /** @type {import('node:net').AddressInfo} */ (probe.address())
  probe.close()
  await once(probe, 'close')
  return port
}

function untilReady(child) {
  return new Promise((ready, failed) => {
    let said = ''
    const listen = (chunk) => {
      said += chunk
      if (/ready: http/.test(said)) ready(undefined)
    }
    child.stdout.on('data', listen)
    child.stderr.on('data', listen)
    child.once('exit', (code) => failed(new Error(`The server ended with ${code}:\n${said}`)))
  })
}

/**
 * The built application as a process of its own, in a data folder of its own: what tests and screenshots drive.
 * `kill` is kill -9; `start` after it starts again on the same folder and port; `remove` ends it for good.
 * `prepare` fills the data folder before the first start.
 * @param {{ demo?: boolean, prepare?: (dataDir: string) => Promise<void> }} options
 */
export async function startServer({ demo = false, prepare } = {}) {
  const dataDir = mkdtempSync(join(tmpdir(), 'oak-pinch-data-'))
  await prepare?.(dataDir)
  const port = await freePort()
  const env = {
    ...process.env,
    DATA_DIR: dataDir,
    PORT: String(port),
    HOST: '127.0.0.1',
    DEMO: demo ? '1' : '0',
    NODE_ENV: 'production',
  }
  /** @type {import('node:child_process').ChildProcessWithoutNullStreams | null} */
  let child = null

  async function start() {
    child = spawn(process.execPath, [join(ROOT, 'scripts/serve.mjs')], { cwd: ROOT, env })
    await untilReady(child)
  }

  async function stop(signal) {
    if (!child || child.exitCode !== null || child.signalCode !== null) return
    const gone = once(child, 'exit')
    child.kill(signal)
    await gone
  }

  await start()
  return {
    address: `http://127.0.0.1:${port}`,
    dataDir,
    start,
    kill: () => stop('SIGKILL'),
    async remove() {
      await stop('SIGKILL')
      rmSync(dataDir, { recursive: true, force: true })
    },
  }
}
