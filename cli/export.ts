import { parseArgs } from 'node:util'
import { EXPORTS, writeExport, type ExportFormat } from '../server/exchange/exports'
import { atStore, shownProgress } from './at-store'

const USAGE = `npm run export -- ${Object.keys(EXPORTS).join('|')} FILE [--client ID] [--data FOLDER]`

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { client: { type: 'string' }, data: { type: 'string', default: process.env.DATA_DIR ?? '.data/studio' } },
})
const [format = '', file] = positionals
if (!(format in EXPORTS) || !file) {
  console.error(USAGE)
  process.exit(2)
}
await atStore(values.data, async ({ store, photos, who }) => {
  if (!who) {
    console.error('There is no studio here yet.')
    process.exitCode = 2
    return
  }
  await writeExport(
    format as ExportFormat,
    file,
    { store, photos, who, clientId: values.client ?? null },
    shownProgress,
  )
  console.error(`\nWritten: ${file}`)
})
