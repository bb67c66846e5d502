import { cpSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fingerprint, isCurrent, ROOT, setCurrent } from './prepare.mjs'

/** The demo's dates are counted back from today: its data folder holds for a day. */
function printOf(demo) {
  const print = fingerprint(['server/db', 'core/simulate', 'package-lock.json'])
  return demo ? `${print} ${new Date().toISOString().slice(0, 10)}` : print
}

const folderOf = (demo) => join(ROOT, '.cache', demo ? 'template-demo' : 'template-empty')
const nameOf = (demo) => (demo ? 'templated-demo' : 'templated-empty')

/** A data folder made beforehand, to be copied: making a database takes some seconds each time. Null when there is none. */
export function currentTemplate(demo) {
  return isCurrent(nameOf(demo), printOf(demo)) && existsSync(folderOf(demo)) ? folderOf(demo) : null
}

/**
 * Lays a data folder made beforehand into another, where there is one.
 * @param {boolean} demo
 * @param {string} folder
 */
export function layTemplate(demo, folder) {
  const template = currentTemplate(demo)
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

/** Makes the data folders tests copy, when they are not current. */
export async function ensureTemplates() {
  const { freePort, QUICK_HASHES, runProgram } = await import('./server-process.mjs')
  await Promise.all(
    [false, true].map(async (demo) => {
      if (currentTemplate(demo)) return
      const folder = folderOf(demo)
      rmSync(folder, { recursive: true, force: true })
      mkdirSync(folder, { recursive: true })
      const env = { DATA_DIR: folder, PORT: String(await freePort()), DEMO: demo ? '1' : '0', ...QUICK_HASHES }
      const program = runProgram('scripts/serve.mjs', env)
      await program.says(/ready: http/)
      await program.stop('SIGTERM')
      rmSync(join(folder, 'session-secret'))
      lighten(join(folder, 'postgres/postgresql.conf'))
      setCurrent(nameOf(demo), printOf(demo))
    }),
  )
}
