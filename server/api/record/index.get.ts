import { defineEventHandler, getQuery } from 'h3'
import { addDays, dayBegins } from '../../../core/calendar'
import { recordQuery, type RecordPage } from '../../../shared/schemas/record'
import { useDatabase } from '../../db/use-database'
import { parsed } from '../../http/body'
import { zoneOf } from '../../http/days'
import { noteLook } from '../../http/looked'
import { signedInAsLead } from '../../http/signed-in'
import { listRecord } from '../../repositories/audit'

/** Who did what, to whom, when: the newest first, a page at a time. */
export default defineEventHandler(async (event): Promise<RecordPage> => {
  const who = signedInAsLead(event)
  const { day, ...query } = parsed(recordQuery, getQuery(event))
  await noteLook(event, 'record.seen')
  const zone = zoneOf(event)
  const between = day ? { from: dayBegins(day, zone), to: dayBegins(addDays(day, 1), zone) } : null
  return listRecord(await useDatabase(), who, query, between)
})
