/**
 * npm test: installs what is missing, then build, lint, format, types and every test, side by side where they do not
 * need each other; ends with one line of counts.
 */
import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureChromium } from './lib/chromium.mjs'
import { ensurePostgres } from './lib/postgres.mjs'
import { ensureInstalled, ROOT } from './lib/prepare.mjs'

let passed = 0
let failed = 0
const began = Date.now()

const since = (from) => `${((Date.now() - from) / 1000).toFixed(0)} s`

/** Runs an action that fails by throwing; what it says is told when it has ended. */
async function check(name, action) {
  const from = Date.now()
  try {
    await action()
    passed += 1
    console.log(`${name}: passed (${since(from)})`)
  } catch (error) {
    failed += 1
    console.error(`${name}: failed. ${error.message}`)
  }
}

/** Runs a command; its output is shown in one piece, and only where it is wanted or something failed. */
function ended(command, args, { shown = false } = {}) {
  return new Promise((done, problem) => {
    // Plain text: colours by the dot would fill a log.
    const env = { ...process.env, NO_COLOR: '1' }
    const child = spawn(command, args, { cwd: ROOT, env, stdio: ['ignore', 'pipe', 'pipe'] })
    const said = []
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => said.push(chunk))
    child.once('error', problem)
    child.once('close', (code) => {
      if (shown || code !== 0) process.stdout.write(Buffer.concat(said))
      if (code === 0) done(undefined)
      else problem(new Error(`${command} ${args.join(' ')} ended with ${code}`))
    })
  })
}

/** Runs test projects and counts what they say. */
async function vitest(name, projects, ...flags) {
  const report = join(ROOT, `.cache/test-report-${projects[0]}.json`)
  mkdirSync(join(ROOT, '.cache'), { recursive: true })
  rmSync(report, { force: true })
  const chosen = projects.flatMap((project) => ['--project', project])
  await check(name, async () => {
    let problem = null
    await ended(
      'npx',
      ['vitest', 'run', ...chosen, ...flags, '--reporter=dot', '--reporter=json', `--outputFile.json=${report}`],
      { shown: true },
    ).catch((error) => (problem = error))
    const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(report, 'utf8'))
    passed += numPassedTests
    failed += numFailedTests
    if (problem) throw problem
  })
}

async function inTurn(...checks) {
  for (const one of checks) await check(...one)
}

// What Debian's packages bring comes while npm's do: this process waits for those.
const programs = ended('node', [
  '--input-type=module',
  '-e',
  "(await import('./scripts/lib/chromium.mjs')).ensureChromium(); (await import('./scripts/lib/postgres.mjs')).ensurePostgres()",
]).catch(() => undefined)
ensureInstalled()
await programs
await check('Chromium', ensureChromium)
// In a process of its own: it holds its thread while it builds.
const build = check('Build', () =>
  ended('node', ['--input-type=module', '-e', "(await import('./scripts/lib/prepare.mjs')).ensureBuilt()"]),
)
let isBuilt = false
void build.then(() => (isBuilt = true))
const reading = inTurn(
  ['Lint', () => ended('npm', ['run', '--silent', 'lint'])],
  ['Format', () => ended('npm', ['run', '--silent', 'format:check'])],
  [
    'Types',
    async () => {
      // The build writes what pages and routes are called when it begins.
      while (!isBuilt && !existsSync(join(ROOT, '.nuxt/tsconfig.app.json')))
        await new Promise((wake) => setTimeout(wake, 500))
      await ended('node', ['scripts/types.mjs', '--built'])
    },
  ],
)
// Needs no build: it has the core that the end of the build and the templates of the others leave free.
const computing = reading.then(() => vitest('Tests without a server', ['core'], '--maxWorkers=2'))
await build
const onServer = ensurePostgres()
// What is tried on a server is not tried on the embedded database too, which every other file and every browser stands on.
if (onServer) process.env.OTHERS_ON = 'postgres'
else
  console.log('Tests of the server on PostgreSQL: left out, there is none on this machine and none can be installed.')
// All in one run: a file that waits for its browser or server leaves the cores to one that computes.
await Promise.all([
  computing,
  vitest('Tests with a server', ['server', 'apart', 'browser', ...(onServer ? ['postgres'] : [])]),
])
console.log(`${passed} passed, ${failed} failed (${since(began)})`)
process.exitCode = failed === 0 ? 0 : 1
