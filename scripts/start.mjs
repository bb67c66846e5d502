/** npm start: the application for real data. DATA_DIR and PORT change where it keeps them and listens. */
import { ensureBuilt, ensureInstalled } from './lib/prepare.mjs'
import { serve } from './lib/serve.mjs'

ensureInstalled()
ensureBuilt()
const dataDir = process.env.DATA_DIR || '.data/studio'
const address = await serve({ dataDir })
console.log(`\nOak Pinch is ready: ${address}\nData folder: ${dataDir}\n`)
