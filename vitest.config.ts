import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const alias = {
  '#core': fileURLToPath(new URL('./core', import.meta.url)),
  '#shared': fileURLToPath(new URL('./shared', import.meta.url)),
  '~': fileURLToPath(new URL('./app', import.meta.url)),
}

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
          include: ['tests/server/**/*.test.ts'],
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
          name: 'browser',
          include: ['tests/browser/**/*.test.ts'],
          globalSetup: 'tests/support/prepare.ts',
          testTimeout: 180_000,
          hookTimeout: 180_000,
        },
      },
    ],
  },
})
