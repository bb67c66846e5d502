import { cpSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fingerprint, isCurrent, ROOT, setCurrent } from './prepare.mjs'

/**
 * What a data folder holds from the start: nobody; a new studio with its lead coach; the demo data.
 * @typedef {'empty' | 'studio' | 'demo'} Filling
 */
export const FILLINGS = /** @type {const} */ (['empty', 'studio', 'demo'])

/** Who leads the studio of tests. */
export const LEAD = { email: 'lead@reedwater.example', password: 'a-long-oar-story' }

/** The first run of that studio, as its form would send it. */
export const SETUP = {
  studioName: 'Reedwater Rowing Club',
  name: 'Runa Bexley',
  ...LEAD,
  massUnit: 'kg',
  lengthUnit: 'cm',
  timeZone: 'UTC',
}

/** What a folder is made by. The demo's dates are counted back from today: its data folder holds for a day. */
function printOf(filled) {
  const print = fingerprint(['server', 'core/simulate', 'package-lock.json', 'scripts/lib/template.mjs'])
  return filled === 'demo' ? `${print} ${new Date().toISOString().slice(0, 10)}` : print
}

const folderOf = (filled) => join(ROOT, '.cache', `template-${filled}`)
const nameOf = (filled) => `templated-${filled}`

/**
 * A data folder made beforehand, to be copied: making a database takes some seconds each time. Null when there is none.
 * @param {Filling} filled
 */
export function currentTemplate(filled) {
  return isCurrent(nameOf(filled), printOf(filled)) && existsSync(folderOf(filled)) ? folderOf(filled) : null
}

/**
 * Lays a data folder made beforehand into another, where there is one.
 * @param {Filling} filled
 * @param {string} folder
 */
export function layTemplate(filled, folder) {
  const template = currentTemplate(filled)
  if (template) cpSync(template, folder, { recursive: true })
}

/**
 * A database that is there for seconds takes 16 MB of memory for its pages instead of the 128 it takes for a studio: making
 * room is a tenth of the work of a start.
 */
function lighten(settings) {
  const said = readFileSync(settings, 'utf8')
  const lighter = said.replace(/^shared_buffers = \S+/m, 'shared_buffers = 16MB')
  if (lighter === said) throw new Error(`No shared_buffers in ${settings}.`)
  writeFileSync(settings, lighter)
}

/**
 * Starts the application on a folder or database, fills it, and ends the application in order.
 * @param {Filling} filled
 * @param {Record<string, string>} where environment of the server: DATA_DIR, and DATABASE_URL on a server
 */
export async function makeTemplate(filled, where) {
  const { freePort, QUICK_HASHES, runProgram } = await import('./server-process.mjs')
  const port = String(await freePort())
  const env = { ...where, PORT: port, DEMO: filled === 'demo' ? '1' : '0', ...QUICK_HASHES }
  const program = runProgram('scripts/serve.mjs', env)
  await program.says(/ready: http/)
  if (filled === 'studio') {
    const origin = `http://127.0.0.1:${port}`
    const { ok, status } = await fetch(`${origin}/api/setup`, {
      method: 'POST',
      headers: { origin, 'content-type': 'application/json' },
      body: JSON.stringify(SETUP),
    })
    if (!ok) throw new Error(`The studio of a template was answered with ${status}.`)
  }
  await program.stop('SIGTERM')
  rmSync(join(where.DATA_DIR, 'session-secret'), { force: true })
}

/** Makes the data folders tests copy, when they are not current. */
export async function ensureTemplates() {
  await Promise.all(
    FILLINGS.map(async (filled) => {
      if (currentTemplate(filled)) return
      const folder = folderOf(filled)
      rmSync(folder, { recursive: true, force: true })
      mkdirSync(folder, { recursive: true })
      await makeTemplate(filled, { DATA_DIR: folder })
      lighten(join(folder, 'postgres/postgresql.conf'))
      setCurrent(nameOf(filled), printOf(filled))
    }),
  )
}
