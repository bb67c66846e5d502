import { defineNitroPlugin } from 'nitropack/runtime'
import { closeDatabase, useDatabase } from '../db/use-database'

/** Opens the database at start, so that the first request does not wait for it. */
export default defineNitroPlugin((nitro) => {
  useDatabase().catch((error: unknown) => {
    console.error('The database could not be opened:', error)
    process.exit(1)
  })
  nitro.hooks.hook('close', closeDatabase)
})
