import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { makeBackup } from '../server/exchange/backups'
import { atStore, shownProgress } from './at-store'

const { values } = parseArgs({
  options: {
    data: { type: 'string', default: process.env.DATA_DIR ?? '.data/studio' },
    to: { type: 'string' },
  },
})
await atStore(values.data, async ({ store, photos, folder }) => {
  const into = values.to ?? process.env.BACKUP_DIR ?? join(folder, 'backups')
  const { name, bytes, missing } = await makeBackup(store, photos, into, shownProgress)
  console.error(`\nBackup written and read back: ${join(into, name)}, ${bytes} bytes.`)
  if (missing > 0) console.error(`${missing} photographs have a row and no bytes: they are not in it.`)
})
