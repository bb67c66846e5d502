import { hoursToMilliseconds } from 'date-fns'
import type { H3Event } from 'h3'
import { change } from '../write/use-change'
import { actorOf } from './actor'
import { signedInAs } from './signed-in'

/** Looking again within an hour is one look. */
const ONE_LOOK_MS = hoursToMilliseconds(1)
const MOST_KEPT = 20_000

/** When somebody was last noted to look at something, in this process. */
const noted = new Map<string, number>()

/** Notes in the record that somebody looked, before they are shown anything; once an hour for each person and client. */
export async function noteLook(
  event: H3Event,
  kind: 'client.seen' | 'photo.seen' | 'record.seen',
  clientId?: string,
): Promise<void> {
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
