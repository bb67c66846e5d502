import { join } from 'node:path'
import { defineNitroPlugin, useRuntimeConfig, useStorage } from 'nitropack/runtime'
import fsDriver from 'unstorage/drivers/fs-lite'
import { closeDatabase, useDatabase } from '../db/use-database'
import { warmClientLines } from '../repositories/client-lines'

/** Photographs lie in a folder beside the database. */
function mountPhotos(): void {
  const { dataDir } = useRuntimeConfig()
  useStorage().mount('photos', fsDriver({ base: join(dataDir || '.data/dev', 'photos') }))
}

/** Mounts the photographs and opens the database at start, so that the first request does not wait for it. */
export default defineNitroPlugin((nitro) => {
  mountPhotos()
  useDatabase()
    .catch((error: unknown) => {
      console.error('The database could not be opened:', error)
      process.exit(1)
    })
    // Without it the list is composed when first asked for.
    .then((database) => warmClientLines(database).catch(() => undefined))
  nitro.hooks.hook('close', closeDatabase)
})
