import type { Store } from '../db/database'
import { setPorts, usePorts } from '../ports'
import { serverAttempts } from '../ports/server-attempts'
import { sharedPorts } from '../ports/server-bus'
import { learnSets } from '../repositories/sets'
import { liveStreams } from './live-streams'
import { errorFacts, log } from './log'

/** Several processes on one database: news, forgetting and counting go through it. */
export async function joinOthers({ server, database }: Pick<Store, 'server' | 'database'>): Promise<void> {
  if (!server) return
  const relearn = () =>
    void learnSets(database).catch((error: unknown) => log.error({ what: 'sets not learnt', ...errorFacts(error) }))
  const { bus, shelf } = await sharedPorts(server, {
    // Screens open their streams again by themselves, and ask anew for what they show.
    hearsAgain() {
      liveStreams.closeAll()
      relearn()
    },
    failed: (error) => log.error({ what: 'other processes not heard', ...errorFacts(error) }),
  })
  setPorts({ bus, shelf, attempts: serverAttempts(server) })
  usePorts().bus.subscribe('sets', relearn)
}
