import { join } from 'node:path'
import { dataFolder } from '../db/use-database'
import { usePorts } from '../ports'
import { DataJobs } from './data-jobs'

let jobs: DataJobs | null = null

/** The long work of this process. */
export function useDataJobs(): DataJobs {
  jobs ??= new DataJobs(join(dataFolder(), 'work'), () => usePorts().bus)
  return jobs
}

/** Where backups lie: BACKUP_DIR, or a folder of the data folder. */
export function backupFolder(): string {
  return process.env.BACKUP_DIR || join(dataFolder(), 'backups')
}
