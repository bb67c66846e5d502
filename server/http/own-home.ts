import type { H3Event } from 'h3'
import { localDay } from '../../core/calendar'
import type { Client } from '../../shared/schemas/client'
import type { ClientHome } from '../../shared/schemas/link'
import { useDatabase } from '../db/use-database'
import { latestFinishedDay } from '../repositories/checkins'
import { findClientHome } from '../repositories/client-home'
import { findLinkPlace } from '../repositories/client-links'
import { findTimeZone } from '../repositories/staff'
import { atLinkOf } from './at-link'

/** What the phone of this request shows. */
export async function ownHome(event: H3Event, client: Client): Promise<ClientHome> {
  const atLink = atLinkOf(event)
  const db = await useDatabase()
  const place = await findLinkPlace(db, atLink.linkId)
  return findClientHome(db, atLink, client, {
    ...place,
    today: localDay(Date.now(), place.timeZone),
    takeHome: (await latestFinishedDay(db, client.id)) !== null,
  })
}

/** Today where the client's studio is. */
export async function todayAtLink(event: H3Event): Promise<string> {
  return localDay(Date.now(), await findTimeZone(await useDatabase(), atLinkOf(event)))
}
