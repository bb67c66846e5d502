/** npm start: the application for real data. DATA_DIR and PORT change where it keeps them and listens. */
import { ensureBuilt, ensureInstalled } from './lib/prepare.mjs'
import { supervise } from './lib/supervise.mjs'

ensureInstalled()
ensureBuilt()
supervise({ DATA_DIR: process.env.DATA_DIR || '.data/studio', DEMO: '0' })
