import { hoursToMilliseconds, minutesToMilliseconds } from 'date-fns'
import { defineNitroPlugin, useRuntimeConfig } from 'nitropack/runtime'
import { useDatabase } from '../db/use-database'
import { errorFacts, log } from '../http/log'
import { backupWhenDue } from '../jobs/nightly-backup'
import { ownBackups } from '../jobs/own-backups'
import { useDataJobs } from '../jobs/use-data'

const LOOK_EVERY_MS = minutesToMilliseconds(10)
const SWEEP_EVERY_MS = hoursToMilliseconds(1)

/** Long work, and the backup of the night. The demo makes one only when it is asked for. */
export default defineNitroPlugin((nitro) => {
  const tell = (error: unknown) => log.error({ what: 'work not swept', ...errorFacts(error) })
  useDatabase()
    .then(() => {
      useDataJobs().listen()
      return useDataJobs().sweep()
    })
    .catch(tell)
  const sweeping = setInterval(() => void useDataJobs().sweep().catch(tell), SWEEP_EVERY_MS)
  const looking = useRuntimeConfig().demo
    ? null
    : setInterval(() => void ownBackups().then(backupWhenDue).catch(tell), LOOK_EVERY_MS)
  sweeping.unref()
  looking?.unref()
  nitro.hooks.hook('close', () => {
    clearInterval(sweeping)
    if (looking) clearInterval(looking)
  })
})
