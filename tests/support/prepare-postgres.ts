import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { makeTemplates, startPostgres } from '../../scripts/lib/postgres.mjs'

declare module 'vitest' {
  interface ProvidedContext {
    /** A PostgreSQL server for tests: its address, and the folder with the files of its template databases. */
    postgres: { url: string; folder: string }
  }
}

/** Before the tests on a real PostgreSQL: a server of their own, with databases to copy. */
export default async function prepare({ provide }: TestProject): Promise<() => Promise<void>> {
  const server = await startPostgres()
  if (!server) throw new Error('There is no PostgreSQL on this machine: name its programs in POSTGRES_BIN.')
  const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-templates-'))
  // For the templates alone: the other tests of the same run stand on the embedded database.
  process.env.TEST_POSTGRES = server.url
  process.env.TEST_POSTGRES_FOLDER = folder
  try {
    await makeTemplates()
  } finally {
    delete process.env.TEST_POSTGRES
    delete process.env.TEST_POSTGRES_FOLDER
  }
  provide('postgres', { url: server.url, folder })
  return async () => {
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
