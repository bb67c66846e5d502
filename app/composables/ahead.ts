import type { ClientHistory } from '#shared/schemas/following'
import { clients } from '~/calls'

/** Milliseconds for which an answer asked for ahead is taken; later, the facts may have changed. */
const FRESH = 5000

/** Answers on their way for a page that is still to come. */
const onTheirWay = new Map<string, { facts: Promise<ClientHistory>; since: number }>()

function asked(clientId: string): Promise<ClientHistory> | null {
  const ahead = onTheirWay.get(clientId)
  return ahead && Date.now() - ahead.since < FRESH ? ahead.facts : null
}

/** Asks for what the client page at this address needs, facts and chart, before the page itself has arrived. */
export function askAhead(path: string): void {
  const clientId = /^\/clients\/([\da-f-]{36})(?:\/(?!edit|measure|paper)|$)/.exec(path)?.[1]
  if (!clientId || asked(clientId)) return
  const facts = clients.history(clientId)
  // Said where the answer is taken; nobody may come for it.
  facts.catch(() => undefined)
  onTheirWay.set(clientId, { facts, since: Date.now() })
  import('~/components/span/SpanChart.vue').catch(() => undefined)
}

/** Every fact about a client: what was asked for ahead, taken once, or asked for now. */
export async function historyOf(clientId: string): Promise<ClientHistory> {
  const ahead = asked(clientId)
  onTheirWay.delete(clientId)
  return ahead ?? clients.history(clientId)
}
