import { parseArgs } from 'node:util'
import { localDay } from '../core/calendar'
import { isNeutral } from '../shared/neutral'
import { findTimeZone } from '../server/repositories/staff'
import { EXPORTS, writeExport, type ExportFormat } from '../server/exchange/exports'
import { makeOwnFile } from '../server/exchange/own-file'
import { findClient } from '../server/repositories/clients'
import { printRequest } from '../server/take-home/print-request'
import { atStore, shownProgress, type AtStore } from './at-store'

const USAGE = `npm run export -- ${Object.keys(EXPORTS).join('|')} FILE [--client ID] [--data FOLDER]
npm run export -- own FILE --client ID [--figures REASON] [--data FOLDER]`

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    client: { type: 'string' },
    figures: { type: 'string' },
    data: { type: 'string', default: process.env.DATA_DIR ?? '.data/studio' },
  },
})
const [format = '', file] = positionals
const clientId = values.client ?? null

function refuse(why: string): void {
  console.error(why)
  process.exitCode = 2
}

/** Everything about one client, to hand over; noted in the record as when it is made on the screen. */
async function own({ store, photos, who, change }: AtStore, path: string): Promise<boolean> {
  const client = who && clientId && (await findClient(store.database, who, clientId))
  if (!client) return false
  const today = localDay(Date.now(), await findTimeZone(store.database, who))
  const bare = isNeutral(client, today) && !values.figures
  await change({ kind: 'client.exported', clientId: client.id }, () => Promise.resolve())
  await makeOwnFile(path, { store, photos, who, client, print: printRequest, bare }, shownProgress)
  return true
}

if (!(format in EXPORTS || format === 'own') || !file || (format === 'own' && !clientId)) refuse(USAGE)
else
  await atStore(values.data, async (at) => {
    const { store, photos, who } = at
    if (!who) return refuse('There is no studio here yet.')
    if (format !== 'own')
      await writeExport(format as ExportFormat, file, { store, photos, who, clientId }, shownProgress)
    else if (!(await own(at, file))) return refuse('There is no client with this id in the studio.')
    console.error(`\nWritten: ${file}`)
  })
