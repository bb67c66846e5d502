import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { addressedLock } from './addressed-lock.mjs'

/** The folder of the project. */
export const ROOT = fileURLToPath(new URL('../../', import.meta.url))

const CACHE = join(ROOT, '.cache')
const SOURCES = [
  'app',
  'core',
  'shared',
  'exchange',
  'server',
  'public',
  'nuxt.config.ts',
  'package.json',
  'package-lock.json',
]

function filesUnder(path) {
  if (!existsSync(path)) return []
  if (statSync(path).isFile()) return [path]
  return readdirSync(path)
    .sort()
    .flatMap((name) => filesUnder(join(path, name)))
}

/** A hash of these files and folders of the project. */
export function fingerprint(paths) {
  const hash = createHash('sha256')
  for (const file of paths.flatMap((path) => filesUnder(join(ROOT, path)))) {
    hash.update(file.slice(ROOT.length)).update('\0').update(readFileSync(file)).update('\0')
  }
  return hash.digest('hex')
}

/** True when what `name` stands for was last made from this fingerprint. */
export function isCurrent(name, print) {
  const stamp = join(CACHE, name)
  return existsSync(stamp) && readFileSync(stamp, 'utf8') === print
}

/** Notes that what `name` stands for is made from this fingerprint. */
export function setCurrent(name, print) {
  mkdirSync(dirname(join(CACHE, name)), { recursive: true })
  writeFileSync(join(CACHE, name), print)
}

/** Runs a command in the project; its output is shown. Throws with the command's name when it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', ...options })
  if (error) throw error
  if (status !== 0) throw new Error(`${command} ${args.join(' ')} ended with ${status}`)
}

/** npm prefers it to package-lock.json; it is there while packages are fetched, and never in the repository. */
const ADDRESSED = join(ROOT, 'npm-shrinkwrap.json')

/** In the small space for new things there is by default, a tenth of the work of unpacking and bundling is clearing it away. */
const roomy = (megabytes) => ({
  ...process.env,
  NODE_OPTIONS: `${process.env.NODE_OPTIONS ?? ''} --max-semi-space-size=${megabytes}`,
})

function npmCi() {
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    // Standard output belongs to whoever asked: `npm run --silent estimate` writes CSV there.
    stdio: ['inherit', process.stderr, 'inherit'],
    env: roomy(64),
  })
}

/** Installs by a lockfile with addresses beside ours. False where packages are not where this registry was expected to have them. */
function installedByAddress() {
  const { stdout } = spawnSync('npm', ['config', 'get', 'registry'], { cwd: ROOT, encoding: 'utf8' })
  const registry = stdout?.trim() ?? ''
  if (!URL.canParse(registry)) return false
  const lock = JSON.parse(readFileSync(join(ROOT, 'package-lock.json'), 'utf8'))
  writeFileSync(ADDRESSED, JSON.stringify(addressedLock(lock, registry)))
  try {
    npmCi()
    return true
  } catch {
    return false
  } finally {
    rmSync(ADDRESSED, { force: true })
  }
}

/** Installs the packages of the lockfile when they are missing or the lockfile has changed. */
export function ensureInstalled() {
  // Of an installation that was cut off.
  rmSync(ADDRESSED, { force: true })
  const print = fingerprint(['package-lock.json'])
  if (existsSync(join(ROOT, 'node_modules/nuxt/package.json')) && isCurrent('installed', print)) return
  console.error('Installing packages ...')
  if (!installedByAddress()) npmCi()
  setCurrent('installed', print)
}

/** Builds the application when its sources have changed since the last build. */
export function ensureBuilt() {
  const print = fingerprint(SOURCES)
  if (existsSync(join(ROOT, '.output/server/index.mjs')) && isCurrent('built', print)) return
  console.log('Building ...')
  run('npx', ['nuxt', 'build', '--logLevel', 'silent'], { env: roomy(128) })
  setCurrent('built', print)
}
