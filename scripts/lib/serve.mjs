import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { ROOT } from './prepare.mjs'

/** The secret that seals sessions: from the environment, or made once and kept in the data folder for its owner only. */
function sessionSecret(dataDir) {
  if (process.env.NUXT_SESSION_PASSWORD) return process.env.NUXT_SESSION_PASSWORD
  const file = join(dataDir, 'session-secret')
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600, flag: 'wx' })
  return readFileSync(file, 'utf8').trim()
}

async function untilReady(address) {
  for (;;) {
    try {
      if ((await fetch(`${address}/api/health`)).ok) return
    } catch {
      // Not listening yet.
    }
    await new Promise((wake) => setTimeout(wake, 50))
  }
}

/** Starts the built application in this process and returns its address once it answers. */
export async function serve({ dataDir, demo = false, host }) {
  const folder = resolve(ROOT, dataDir)
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  process.env.NUXT_SESSION_PASSWORD = sessionSecret(folder)
  process.env.NUXT_DATA_DIR = folder
  process.env.NUXT_DEMO = String(demo)
  process.env.PORT ||= '3000'
  if (host) process.env.HOST ||= host
  await import(pathToFileURL(join(ROOT, '.output/server/index.mjs')).href)
  const address = `http://localhost:${process.env.PORT}`
  await untilReady(address.replace('localhost', '127.0.0.1'))
  return address
}
