import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { ROOT } from './prepare.mjs'

/** The secret that seals sessions: from the environment, or made once and kept in the data folder for its owner only. */
function sessionSecret(dataDir) {
  if (process.env.NUXT_SESSION_PASSWORD) return process.env.NUXT_SESSION_PASSWORD
  const file = join(dataDir, 'session-secret')
  if (!existsSync(file)) {
    // Whole or not at all, should this process die here.
    const unfinished = `${file}.${process.pid}`
    writeFileSync(unfinished, randomBytes(32).toString('hex'), { mode: 0o600 })
    renameSync(unfinished, file)
  }
  return readFileSync(file, 'utf8').trim()
}

/**
 * Starts the built application in this process and returns its address once it answers. Where it cannot (the folder is in
 * use, the port is taken) the process ends with a sentence.
 */
export async function serve({ dataDir, demo = false, host }) {
  const folder = resolve(ROOT, dataDir)
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  process.env.NUXT_SESSION_PASSWORD = sessionSecret(folder)
  process.env.NUXT_DATA_DIR = folder
  process.env.NUXT_DEMO = String(demo)
  process.env.PORT ||= '3000'
  if (host) process.env.HOST ||= host
  process.env.OAK_PINCH_SERVER = join(ROOT, '.output/server/index.mjs')
  const { ready } = await import(pathToFileURL(process.env.OAK_PINCH_SERVER).href)
  await ready
  return `http://localhost:${process.env.PORT}`
}
