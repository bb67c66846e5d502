import { hoursToMilliseconds } from 'date-fns'
import type { H3Event } from 'h3'
import { change } from '../write/use-change'
import { actorOf } from './actor'
import { signedInAs } from './signed-in'

/** Looks within an hour count as one. */
const ONE_LOOK_MS = hoursToMilliseconds(1)
const MOST_KEPT = 20_000

/** When a person was last noted looking at something, in this process. */
const noted = new Map<string, number>()

/** What a route may declare as looked at. */
export type Look = 'client' | 'photo' | 'record'

/**
 * Notes the look the matched route declares, before anything is shown; once an hour for each person and client. Called
 * where the client in the address is found (server/http/params.ts), and at admission for looks at no client.
 */
export async function noteLook(event: H3Event, clientId?: string): Promise<void> {
  const { access } = event.context
  if (!access || !('looked' in access) || !access.looked) return
  const kind = `${access.looked}.seen` as const
  const { staffId } = signedInAs(event)
  const key = `${kind} ${staffId} ${clientId ?? ''}`
  const now = Date.now()
  if (now - (noted.get(key) ?? -Infinity) < ONE_LOOK_MS) return
  noted.delete(key)
  noted.set(key, now)
  const [oldest] = noted.keys()
  if (noted.size > MOST_KEPT && oldest !== undefined) noted.delete(oldest)
  try {
    await change(actorOf(event), { kind, clientId }, () => Promise.resolve())
  } catch (error) {
    noted.delete(key)
    throw error
  }
}
