/** npm run demo: the application with the rowing club's demo data. `-- --fresh` starts the data over. */
import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBuilt, ensureInstalled, ROOT } from './lib/prepare.mjs'
import { supervise } from './lib/supervise.mjs'

ensureInstalled()
ensureBuilt()
const dataDir = process.env.DATA_DIR || '.data/demo'
if (process.argv.includes('--fresh')) rmSync(join(ROOT, dataDir), { recursive: true, force: true })
supervise({ DATA_DIR: dataDir, DEMO: '1' })
