import { fork } from 'node:child_process'
import { join } from 'node:path'
import { ROOT } from './prepare.mjs'

/** The application ended because it could not go on and might after a new start (server/entry.ts). */
const TRY_AGAIN = 75

/**
 * Runs the application as a child of this process. When it ends itself because its database has (a full disk, say), it is
 * started again once; should that end the same way, this says so and ends too.
 * @param {Record<string, string>} env
 */
export function supervise(env) {
  let restarted = false
  let child = start()

  function start() {
    const started = fork(join(ROOT, 'scripts/serve.mjs'), { cwd: ROOT, env: { ...process.env, ...env } })
    started.once('exit', (code, signal) => ended(code ?? (signal ? 1 : 0)))
    return started
  }

  function ended(code) {
    if (code === TRY_AGAIN && !restarted) {
      restarted = true
      console.error('Oak Pinch has stopped because its database could not go on. Starting it once more ...')
      child = start()
      return
    }
    if (code === TRY_AGAIN) {
      console.error(
        'Oak Pinch has stopped again and is not started a third time. Is the disk full? What was stored before is safe.',
      )
    }
    process.exitCode = code
  }

  for (const signal of ['SIGTERM', 'SIGINT']) process.on(signal, () => child.kill(signal))
}
