import { useRuntimeConfig } from 'nitropack/runtime'
import { openStore, type Queryable, type Store } from './database'
import { usePorts } from '../ports'
import { seedDemoPhotos } from './demo-photos'
import { seedDemo } from './seed-demo'

let opened: Promise<Store> | null = null

/** The data folder of this process. */
export function dataFolder(): string {
  return useRuntimeConfig().dataDir || '.data/dev'
}

async function open(): Promise<Store> {
  const store = await openStore(dataFolder())
  if (useRuntimeConfig().demo) {
    await seedDemo(store.database, hashPassword)
    await seedDemoPhotos(store.database, (id, bytes) => usePorts().photos.put(id, bytes))
    await store.settle()
  }
  return store
}

/** The store of this process; opened, migrated and (for the demo) seeded on first use. Writing goes through server/write. */
export function useStore(): Promise<Store> {
  opened ??= open()
  return opened
}

/** The database of this process, for reading. */
export async function useDatabase(): Promise<Queryable> {
  return (await useStore()).database
}

/** Closes the store if it was opened. */
export async function closeStore(): Promise<void> {
  if (opened) await (await opened).close()
  opened = null
}
