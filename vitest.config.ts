import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'
import { scratchInMemory } from './scripts/lib/scratch.mjs'

scratchInMemory()

const alias = {
  '#core': fileURLToPath(new URL('./core', import.meta.url)),
  '#shared': fileURLToPath(new URL('./shared', import.meta.url)),
  '~': fileURLToPath(new URL('./app', import.meta.url)),
}

/** Properties are tried from one seed, so that a fault found elsewhere is found here too; SEED=n tries others. */
const setupFiles = ['tests/support/properties.ts']

/** Files that put others in the place of Node's own modules: each loads everything for itself. */
const APART = ['tests/server/log-first.test.ts']

const server = (...names: string[]) => names.map((name) => `tests/server/${name}.test.ts`)

/** What is about the embedded database and its folder, or about no database at all. */
const EMBEDDED = server(
  'data-folder',
  'durability',
  'local-days',
  'migrations',
  'pieces',
  'prepared-statements',
  'proxy',
  'schemas',
  'synced',
)

/**
 * What does not hang on which database it is: fuzzing, passwords and proofs, files and the commands about them. These run
 * on the embedded one.
 */
const EITHER = server(
  'accounts',
  'bad-input',
  'devices',
  'every-route',
  'guarded',
  'hostile',
  'kept',
  'long-answers',
  'mutants',
  'photographs',
  's3',
  'sealed',
  'second-factor',
)

/** Everything on both databases; else each file runs once, on the server where it says more there and there is one. */
const everything = Boolean(process.env.EVERYTHING)
/** Said by scripts/test.mjs: the other tests of the server run on a PostgreSQL server. */
const othersElsewhere = !everything && process.env.OTHERS_ON === 'postgres'

const CORE = ['tests/core/**/*.test.ts', 'tests/cli/**/*.test.ts', 'tests/app/**/*.test.ts']
const SERVER = othersElsewhere ? [...EMBEDDED, ...EITHER] : ['tests/server/**/*.test.ts']
const BROWSER = ['tests/browser/**/*.test.ts']
const NOT_ON_SERVER = [...APART, 'tests/server/processes.test.ts']

/** What every project but the few apart shares: what a file starts it ends, and imports take 3 s of computation a file. */
const SHARED = { setupFiles, isolate: false }
const PREPARED = { globalSetup: 'tests/support/prepare.ts' }
/** Short-lived databases: their code is not worth optimising. */
const SHORT_LIVED = { execArgv: ['--liftoff-only'] }

/** One by one, for every day. */
const BY_KIND = [
  { ...SHARED, name: 'core', include: CORE, testTimeout: 60_000 },
  {
    ...SHARED,
    ...PREPARED,
    ...SHORT_LIVED,
    name: 'server',
    include: SERVER,
    exclude: NOT_ON_SERVER,
    testTimeout: 60_000,
    hookTimeout: 120_000,
  },
  { ...SHARED, ...PREPARED, name: 'browser', include: BROWSER, testTimeout: 180_000, hookTimeout: 180_000 },
]
/** The same as one (scripts/test.mjs): every project transforms and reads the modules for itself. */
const TOGETHER = [
  {
    ...SHARED,
    ...PREPARED,
    ...SHORT_LIVED,
    name: 'together',
    include: [...CORE, ...SERVER, ...BROWSER],
    exclude: NOT_ON_SERVER,
    testTimeout: 180_000,
    hookTimeout: 180_000,
  },
]
const REST = [
  {
    ...SHARED,
    // The same tests on a real PostgreSQL server of their own.
    name: 'postgres',
    setupFiles: [...setupFiles, 'tests/support/on-postgres.ts'],
    include: ['tests/server/**/*.test.ts'],
    exclude: [...APART, ...EMBEDDED, ...(everything ? [] : EITHER)],
    globalSetup: 'tests/support/prepare-postgres.ts',
    testTimeout: 60_000,
    hookTimeout: 120_000,
  },
  { ...SHORT_LIVED, name: 'apart', setupFiles, include: APART, testTimeout: 60_000, hookTimeout: 120_000 },
]

export default defineConfig({
  resolve: { alias },
  test: {
    // Two cores: one file waits for its browser or server while the others compute.
    maxWorkers: 3,
    projects: [...(process.env.TOGETHER ? TOGETHER : BY_KIND), ...REST].map((test) => ({ resolve: { alias }, test })),
  },
})
