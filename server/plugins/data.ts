import { hoursToMilliseconds, minutesToMilliseconds } from 'date-fns'
import { defineNitroPlugin, useRuntimeConfig } from 'nitropack/runtime'
import { useDatabase } from '../db/use-database'
import { errorFacts, log } from '../http/log'
import { backupWhenDue, logRecordEnd } from '../jobs/nightly-backup'
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
    .then(async () => logRecordEnd(await ownBackups()))
    .catch(tell)
  const sweeping = setInterval(() => void useDataJobs().sweep().catch(tell), SWEEP_EVERY_MS)
  const look = () =>
    void ownBackups()
      .then(async (own) => {
        await logRecordEnd(own)
        await backupWhenDue(own)
      })
      .catch(tell)
  const looking = useRuntimeConfig().demo ? null : setInterval(look, LOOK_EVERY_MS)
  sweeping.unref()
  looking?.unref()
  nitro.hooks.hook('close', () => {
    clearInterval(sweeping)
    if (looking) clearInterval(looking)
  })
})
