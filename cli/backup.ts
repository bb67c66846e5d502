import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { DamageFound } from '../server/exchange/backup-checks'
import { changeBackupState } from '../server/exchange/backup-state'
import { makeBackup } from '../server/exchange/backups'
import { atStore, shownProgress } from './at-store'

const { values } = parseArgs({
  options: {
    data: { type: 'string', default: process.env.DATA_DIR ?? '.data/studio' },
    to: { type: 'string' },
    // After damage was found: takes the database as it is.
    accept: { type: 'boolean', default: false },
  },
})
await atStore(values.data, async ({ store, photos, folder }) => {
  const into = values.to ?? process.env.BACKUP_DIR ?? join(folder, 'backups')
  if (values.accept) await changeBackupState(into, { damage: null, accepted: true })
  const made = await makeBackup(store, photos, into, shownProgress).catch((error: unknown) => {
    if (!(error instanceof DamageFound)) throw error
    console.error(`\n${error.message} No older backup was removed. To take the database as it is: --accept`)
    process.exitCode = 1
    return null
  })
  if (!made) return
  const { name, bytes, missing } = made
  console.error(`\nBackup written and read back: ${join(into, name)}, ${bytes} bytes.`)
  if (missing > 0) console.error(`${missing} photographs have a row and no bytes: they are not in it.`)
})
