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
  'attacked',
  'bad-input',
  'devices',
  'every-route',
  'every-spelling',
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

export default defineConfig({
  resolve: { alias },
  test: {
    // Two cores: one file waits for its browser or server while the others compute.
    maxWorkers: 3,
    projects: [
      {
        resolve: { alias },
        test: {
          name: 'core',
          setupFiles,
          // Pure functions: nothing one file does reaches another, and imports are worth keeping.
          isolate: false,
          include: ['tests/core/**/*.test.ts', 'tests/cli/**/*.test.ts', 'tests/app/**/*.test.ts'],
          testTimeout: 60_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'server',
          setupFiles,
          // As above: what a file starts it ends, and imports take 3 s of computation a file.
          isolate: false,
          include: othersElsewhere ? [...EMBEDDED, ...EITHER] : ['tests/server/**/*.test.ts'],
          exclude: [...APART, 'tests/server/processes.test.ts'],
          globalSetup: 'tests/support/prepare.ts',
          // Short-lived databases: their code is not worth optimising.
          execArgv: ['--liftoff-only'],
          testTimeout: 60_000,
          hookTimeout: 120_000,
        },
      },
      {
        resolve: { alias },
        test: {
          // The same tests on a real PostgreSQL server of their own.
          name: 'postgres',
          setupFiles: [...setupFiles, 'tests/support/on-postgres.ts'],
          isolate: false,
          include: ['tests/server/**/*.test.ts'],
          exclude: [...APART, ...EMBEDDED, ...(everything ? [] : EITHER)],
          globalSetup: 'tests/support/prepare-postgres.ts',
          testTimeout: 60_000,
          hookTimeout: 120_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'apart',
          setupFiles,
          include: APART,
          execArgv: ['--liftoff-only'],
          testTimeout: 60_000,
          hookTimeout: 120_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'browser',
          setupFiles,
          isolate: false,
          include: ['tests/browser/**/*.test.ts'],
          globalSetup: 'tests/support/prepare.ts',
          testTimeout: 180_000,
          hookTimeout: 180_000,
        },
      },
    ],
  },
})
