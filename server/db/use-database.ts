import { useRuntimeConfig } from 'nitropack/runtime'
import { openStore, type Queryable, type Store } from './database'
import { usePorts } from '../ports'
import { joinOthers } from '../http/join-others'
import { learnSets } from '../repositories/sets'
import { seedDemoPhotos } from './demo-photos'
import { seedDemo } from './seed-demo'
import { seedDemoBench } from './demo-bench'
import { seedDemoWeek } from './demo-week'

let opened: Promise<Store> | null = null

/** The data folder of this process. */
export function dataFolder(): string {
  return useRuntimeConfig().dataDir || '.data/dev'
}

async function open(): Promise<Store> {
  const url = process.env.DATABASE_URL
  // Loaded only where it is wanted: most studios have no server.
  const store = url ? await (await import('./server-store')).openServerStore(url) : await openStore(dataFolder())
  if (useRuntimeConfig().demo) {
    await seedDemo(store.database, hashPassword)
    const keep = (id: string, bytes: Buffer) => usePorts().photos.put(id, bytes)
    await seedDemoPhotos(store.database, keep)
    await seedDemoWeek(store.database, keep)
    await seedDemoBench(store.database)
    await store.settle()
  }
  await learnSets(store.database)
  if (store.server) await joinOthers(store)
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
