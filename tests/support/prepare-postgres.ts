import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { makeTemplates, startPostgres } from '../../scripts/lib/postgres.mjs'

/** Before the tests on a real PostgreSQL: a server of their own, with databases to copy. */
export default async function prepare(): Promise<() => Promise<void>> {
  const server = await startPostgres()
  if (!server) throw new Error('There is no PostgreSQL on this machine: name its programs in POSTGRES_BIN.')
  const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-templates-'))
  process.env.TEST_POSTGRES = server.url
  process.env.TEST_POSTGRES_FOLDER = folder
  await makeTemplates()
  return async () => {
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
