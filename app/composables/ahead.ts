import type { ClientHistory } from '#shared/schemas/following'

/** Answers on their way for a page that is still being fetched. */
const onTheirWay = new Map<string, Promise<ClientHistory>>()

/** Parsed as the JSON it is: guessing what else so long an answer might be takes as long again. */
const fetchHistory = (clientId: string) =>
  $fetch<ClientHistory>(`/api/clients/${clientId}/history`, { parseResponse: JSON.parse })

/** Asks for what the client page at this address needs, facts and chart, before the page itself has arrived. */
export function askAhead(path: string): void {
  const clientId = /^\/clients\/([\da-f-]{36})\/?$/.exec(path)?.[1]
  if (!clientId) return
  const facts = fetchHistory(clientId)
  // Said where the answer is taken; nobody may come for it.
  facts.catch(() => undefined)
  onTheirWay.set(clientId, facts)
  import('~/components/span/SpanChart.vue').catch(() => undefined)
}

/** Every fact about a client: what was asked for ahead, taken once, or asked for now. */
export async function historyOf(clientId: string): Promise<ClientHistory> {
  const ahead = onTheirWay.get(clientId)
  onTheirWay.delete(clientId)
  return ahead ?? fetchHistory(clientId)
}
