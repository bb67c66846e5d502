import { setResponseStatus } from 'h3'
import { v7 as uuid } from 'uuid'
import { calendarLinkInput } from '../../../shared/schemas/booking'
import { actorOf } from '../../http/actor'
import { ownOrigin } from '../../http/address'
import { readJson } from '../../http/body'
import { hashOf, randomToken } from '../../http/tokens'
import { signedInAs, signedInAsLead } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { addCalendarLink } from '../../repositories/calendar-links'
import { change } from '../../write/use-change'

/** Makes a secret address calendars read; the one before stops working. It is shown here and never again. */
export default defineRoute({ access: 'coach', proof: 'fresh' }, async (event) => {
  const { of } = await readJson(event, calendarLinkInput)
  const who = of === 'studio' ? signedInAsLead(event) : signedInAs(event)
  const token = randomToken()
  const id = uuid()
  await change(actorOf(event), { kind: 'calendar.linked', subjectId: id }, (tx) =>
    addCalendarLink(tx, who, { id, of, tokenHash: hashOf(token) }),
  )
  setResponseStatus(event, 201)
  return { link: `${ownOrigin(event)}/feed/${token}.ics` }
})
