import { useStore } from '../db/use-database'
import { usePorts } from '../ports'
import type { BackingUp } from './nightly-backup'
import { tryRestoreApart } from './try-restore'
import { backupFolder } from './use-data'

/** This process's own store, pictures and folder of backups. */
export async function ownBackups(): Promise<BackingUp> {
  return { store: await useStore(), photos: usePorts().photos, folder: backupFolder(), tryRestore: tryRestoreApart }
}
