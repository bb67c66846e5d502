import { join } from 'node:path'
import { hoursToMilliseconds, minutesToMilliseconds } from 'date-fns'
import { defineNitroPlugin } from 'nitropack/runtime'
import { closeStore, dataFolder, useDatabase, useStore } from '../db/use-database'
import { errorFacts, log } from '../http/log'
import { alone } from '../jobs/alone'
import { setPorts, usePorts } from '../ports'
import { folderPhotos } from '../ports/photo-store'
import { s3FromEnvironment, s3Photos } from '../ports/s3-photos'
import { sealedPhotos } from '../ports/sealed-photos'
import { dataKeys } from '../sealed/keys'
import { warmClientLines } from '../repositories/client-lines'
import { keptHomePhotoIds } from '../repositories/hand-ins'
import { keptPhotoIds } from '../repositories/photos'

/** Bytes younger than this may be waiting for their row. */
const ORPHAN_AFTER_MS = minutesToMilliseconds(10)
const SWEEP_EVERY_MS = hoursToMilliseconds(6)

/** Takes away pictures no row speaks of: their upload was cut off, or their removal was. */
async function sweepPhotos(): Promise<void> {
  const { photos } = usePorts()
  const db = await useDatabase()
  const kept = new Set([...(await keptPhotoIds(db)), ...(await keptHomePhotoIds(db))])
  for (const { id, at } of await photos.list()) {
    if (!kept.has(id) && Date.now() - at > ORPHAN_AFTER_MS) await photos.remove(id)
  }
}

function tell(what: string) {
  return (error: unknown) => log.error({ what, ...errorFacts(error) })
}

async function sweep(): Promise<void> {
  await alone(await useStore(), 'sweeping', sweepPhotos)
}

/** Sets the ports, and does in the background what should not wait for the first request. */
export default defineNitroPlugin((nitro) => {
  const s3 = s3FromEnvironment(process.env)
  setPorts({ photos: sealedPhotos(s3 ? s3Photos(s3) : folderPhotos(join(dataFolder(), 'photos')), dataKeys()) })
  useDatabase()
    // Without it the list is composed when first asked for.
    .then(warmClientLines)
    .then(sweep)
    // What cannot be opened is told of where the server starts (server/entry.ts).
    .catch(tell('not warmed'))
  const sweeping = setInterval(() => void sweep().catch(tell('photos not swept')), SWEEP_EVERY_MS)
  sweeping.unref()
  nitro.hooks.hook('close', async () => {
    clearInterval(sweeping)
    await closeStore()
  })
})
