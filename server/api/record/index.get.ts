import { getQuery } from 'h3'
import { addDays, dayBegins } from '../../../core/calendar'
import { recordQuery, type RecordPage } from '../../../shared/schemas/record'
import { useDatabase } from '../../db/use-database'
import { parsed } from '../../http/body'
import { zoneOf } from '../../http/days'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { listRecord } from '../../repositories/audit'
import { endSaid, recordEnd } from '../../repositories/record-chain'

/** Who did what, to whom, when: the newest first, a page at a time. */
export default defineRoute(
  { access: 'lead', proof: 'second', looked: 'record' },
  async (event): Promise<RecordPage> => {
    const who = signedInAs(event)
    const { day, ...query } = parsed(recordQuery, getQuery(event))
    const zone = zoneOf(event)
    const between = day ? { from: dayBegins(day, zone), to: dayBegins(addDays(day, 1), zone) } : null
    const db = await useDatabase()
    return { ...(await listRecord(db, who, query, between)), end: endSaid(await recordEnd(db, who)) }
  },
)
