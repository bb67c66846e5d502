import { parseArgs } from 'node:util'
import { sealAll } from '../server/ports/sealed-photos'
import { dataKeys } from '../server/sealed/keys'
import { atStore } from './at-store'

const { values } = parseArgs({
  options: { data: { type: 'string', default: process.env.DATA_DIR ?? '.data/studio' } },
})
await atStore(values.data, async ({ kept }) => {
  const keys = dataKeys()
  if (!keys.current) {
    console.error('There is no key to seal with: name it in DATA_KEY or DATA_KEY_FILE.')
    process.exitCode = 2
    return
  }
  console.log(`${await sealAll(kept, keys)} photographs sealed with the key of today.`)
})
