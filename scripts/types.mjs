/**
 * npm run typecheck: the types of everything. Pages and what they import are checked by vue-tsc, all else by TypeScript's
 * native compiler, at a fifth of the work. `--built`: a build has just written what pages and routes are called.
 * `--tests`: the tests alone, with core and the commands.
 */
import { spawnSync } from 'node:child_process'
import { ensureInstalled, ROOT, run } from './lib/prepare.mjs'

const native = (project) => ['node', 'node_modules/typescript-native/bin/tsc', '--noEmit', '-p', project]

const TESTS = native('tsconfig.tests.json')
const OTHERS = ['server', 'shared', 'node'].map((part) => native(`.nuxt/tsconfig.${part}.json`))
const PAGES = ['npx', 'vue-tsc', '--noEmit', '-p', '.nuxt/tsconfig.app.json']

const [testsOnly, built] = ['--tests', '--built'].map((flag) => process.argv.includes(flag))

ensureInstalled()
if (!testsOnly && !built) run('npx', ['nuxt', 'prepare', '--logLevel', 'silent'])
// One after another: each takes the cores it finds. All are asked, so that all that is wrong is said.
const codes = (testsOnly ? [TESTS] : [TESTS, ...OTHERS, PAGES]).map(
  ([command, ...args]) => spawnSync(command, args, { cwd: ROOT, stdio: 'inherit' }).status,
)
process.exitCode = codes.every((code) => code === 0) ? 0 : 1
