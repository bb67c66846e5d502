/** npm run demo: the application with the rowing club's demo data. `-- --fresh` starts the data over. */
import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBuilt, ensureInstalled, ROOT } from './lib/prepare.mjs'
import { serve } from './lib/serve.mjs'

ensureInstalled()
ensureBuilt()
const dataDir = process.env.DATA_DIR || '.data/demo'
if (process.argv.includes('--fresh')) rmSync(join(ROOT, dataDir), { recursive: true, force: true })
const address = await serve({ dataDir, demo: true, host: '127.0.0.1' })
console.log(`
Oak Pinch, demo, is ready: ${address}
Sign in:  runa@reedwater.example  (lead coach)   or   ivo@reedwater.example  (coach)
Password: reeds-and-oars
`)
