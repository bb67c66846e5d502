/**
 * The built application as one process, without building, installing or starting again: what `npm start`, `npm run demo`
 * and tests run. DATA_DIR and PORT say where; DEMO=1 fills an empty folder with the demo data.
 */
import { serve } from './lib/serve.mjs'

// Started by a supervisor that is gone, however it went: nobody would start this again or stop it.
process.on('disconnect', () => process.kill(process.pid, 'SIGTERM'))

const demo = process.env.DEMO === '1'
const dataDir = process.env.DATA_DIR || '.data/studio'
const address = await serve({ dataDir, demo, ...(demo ? { host: '127.0.0.1' } : {}) })
console.log(
  demo
    ? `
Oak Pinch, demo, is ready: ${address}
Sign in:  runa@reedwater.example  (lead coach)   or   ivo@reedwater.example  (coach)
Password: reeds-and-oars
`
    : `\nOak Pinch is ready: ${address}\nData folder: ${dataDir}\n`,
)
