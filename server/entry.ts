import '#nitro-internal-pollyfills'
import { createServer } from 'node:http'
import { toNodeListener } from 'h3'
import { useNitroApp } from 'nitropack/runtime'
import { useStore } from './db/use-database'
import { FolderDamaged } from './db/data-folder'
import { FolderInUse } from './db/folder-lock'
import { noteEnding } from './http/ending'
import { liveStreams } from './http/live-streams'
import { errorFacts, log } from './http/log'
import { noteStopped } from './http/out-of-order'

/** Ended because the database has: whoever started this process may start it again (sysexits.h: EX_TEMPFAIL). */
const TRY_AGAIN = 75
/** What is being answered when the process has to end gets this long, ms. */
const LAST_ANSWERS_MS = 2_000

const app = useNitroApp()
const server = createServer(toNodeListener(app.h3App))
const port = Number(process.env.PORT || 3000)
const host = process.env.HOST

function giveUp(sentence: string): never {
  console.error(sentence)
  process.exit(1)
}

/** Opens the database first: nobody is answered before it is there. */
async function open(): Promise<void> {
  try {
    const store = await useStore()
    store.whenGone((reason) => {
      log.fatal({ what: 'database gone', reason: reason.replace(/"[^"]*"/g, '""') })
      noteStopped()
      setTimeout(() => process.exit(TRY_AGAIN), LAST_ANSWERS_MS)
    })
  } catch (error) {
    if (error instanceof FolderInUse || error instanceof FolderDamaged) giveUp(error.message)
    log.fatal({ what: 'database not opened', ...errorFacts(error) })
    process.exit(TRY_AGAIN)
  }
}

function listen(): Promise<void> {
  return new Promise((listening) => {
    server.once('error', (error: NodeJS.ErrnoException) =>
      giveUp(
        error.code === 'EADDRINUSE'
          ? `Port ${port} is taken by another program. Stop that one first, or start with another PORT.`
          : `Oak Pinch cannot listen on port ${port}: ${error.message}.`,
      ),
    )
    server.listen({ port, host }, listening)
  })
}

let ending = false

/** Ends in order: no new requests, streams closed, what is under way answered, the database closed. */
async function end(): Promise<void> {
  if (ending) return
  ending = true
  noteEnding()
  const closed = new Promise((done) => server.close(done))
  liveStreams.closeAll()
  server.closeIdleConnections()
  setTimeout(() => server.closeAllConnections(), LAST_ANSWERS_MS).unref()
  await closed
  await app.hooks.callHook('close')
  process.exit(0)
}

process.on('unhandledRejection', (error) => log.error({ what: 'unhandled', ...errorFacts(error) }))
process.on('uncaughtException', (error) => log.error({ what: 'uncaught', ...errorFacts(error) }))
process.on('SIGTERM', () => void end())
process.on('SIGINT', () => void end())

/** Resolves once the application answers; whoever imports this waits for it. */
export const ready = open().then(listen)

export default {}
