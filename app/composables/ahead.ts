import type { ClientHistory } from '#shared/schemas/following'
import { FRESH_MS } from '~/asked-first'
import { clients } from '~/calls'

/** Answers on their way for a page that is still to come. */
const onTheirWay = new Map<string, { facts: Promise<ClientHistory>; since: number }>()

function asked(clientId: string): Promise<ClientHistory> | null {
  const ahead = onTheirWay.get(clientId)
  return ahead && Date.now() - ahead.since < FRESH_MS ? ahead.facts : null
}

/** Whose record an address shows; null for any other page, a client's form and preparing among them. */
export function recordAt(path: string): string | null {
  return /^\/clients\/([\da-f-]{36})(?:\/(?!edit|measure|paper)|$)/.exec(path)?.[1] ?? null
}

/**
 * Asks for what the client page at this address needs, facts and chart, before the page itself has arrived.
 * @param from the page one is on: within one record nothing is fetched anew, and an answer kept for later would be stale
 */
export function askAhead(path: string, from = ''): void {
  const clientId = recordAt(path)
  if (!clientId || clientId === recordAt(from) || asked(clientId)) return
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
