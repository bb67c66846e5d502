import { parseArgs } from 'node:util'
import { checkRecord } from '../server/repositories/record-chain'
import { atStore } from './at-store'

const USAGE = 'npm run check-record -- [--data FOLDER] [--noted ENTRY:HASH]'

const { values } = parseArgs({
  options: { data: { type: 'string', default: process.env.DATA_DIR ?? '.data/studio' }, noted: { type: 'string' } },
})
const noted = /^(\d{1,9}):([\da-f]{64})$/.exec(values.noted ?? '')

if (values.noted !== undefined && !noted) {
  console.error(USAGE)
  process.exitCode = 2
} else
  await atStore(values.data, async ({ store, who }) => {
    if (!who) {
      console.error('There is no studio here yet.')
      process.exitCode = 2
      return
    }
    const anchor = noted ? { seq: Number(noted[1]), hash: noted[2] ?? '' } : null
    const { entries, last, fault } = await checkRecord(store.database, who, anchor)
    console.log(`${entries} entries are as they were written.${last ? ` Note elsewhere: ${entries}:${last}` : ''}`)
    if (!fault) return
    console.log(fault)
    process.exitCode = 1
  })
