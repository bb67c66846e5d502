import { useRuntimeConfig } from 'nitropack/runtime'
import { join } from 'node:path'
import { openDatabase, type Database } from './database'
import { photoKey, photoStorage } from '../http/photo-storage'
import { seedDemoPhotos } from './demo-photos'
import { seedDemo } from './seed-demo'

let opened: Promise<Database> | null = null

async function open(): Promise<Database> {
  const config = useRuntimeConfig()
  const database = await openDatabase(join(config.dataDir || '.data/dev', 'postgres'))
  if (config.demo) {
    await seedDemo(database, hashPassword)
    await seedDemoPhotos(database, (id, bytes) => photoStorage().setItemRaw(photoKey(id), bytes))
  }
  return database
}

/** The one database of this process; opened, migrated and (for the demo) seeded on first use. */
export function useDatabase(): Promise<Database> {
  opened ??= open()
  return opened
}

/** Closes the database if it was opened. */
export async function closeDatabase(): Promise<void> {
  if (opened) await (await opened).$client.close()
  opened = null
}
