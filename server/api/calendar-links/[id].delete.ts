import type { CalendarLinkRecord } from '../../../shared/schemas/booking'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { failure } from '../../http/failure'
import { idParam } from '../../http/params'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { listCalendarLinks, revokeCalendarLink } from '../../repositories/calendar-links'
import { change } from '../../write/use-change'

/** Ends a calendar address. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<CalendarLinkRecord[]> => {
  const sentence = 'There is no such calendar address.'
  const id = idParam(event, sentence)
  const who = signedInAs(event)
  await change(actorOf(event), { kind: 'calendar.revoked', subjectId: id }, async (tx) => {
    if (!(await revokeCalendarLink(tx, who, id))) throw failure(404, sentence)
  })
  return listCalendarLinks(await useDatabase(), who)
})
