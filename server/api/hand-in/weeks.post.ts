import { setResponseStatus } from 'h3'
import { addDays } from '../../../core/calendar'
import { handInInput, type ClientHome } from '../../../shared/schemas/link'
import { atLinkOf, linkActor, ownRecord } from '../../http/at-link'
import { readJson } from '../../http/body'
import { failure } from '../../http/failure'
import { ownHome, todayAtLink } from '../../http/own-home'
import { defineRoute } from '../../http/route'
import { addHandIn } from '../../repositories/hand-ins'
import { change } from '../../write/use-change'

/** How far behind a phone may be, days. */
const LATE_DAYS = 60

/** Takes a week; answers with what the phone shows. */
export default defineRoute({ access: 'link' }, async (event): Promise<ClientHome> => {
  const { clientId, linkId, scope } = atLinkOf(event)
  const input = await readJson(event, handInInput)
  const today = await todayAtLink(event)
  if (input.day > today || input.day < addDays(today, -LATE_DAYS)) {
    const message = input.day > today ? 'This day is still to come.' : 'That is long ago: please tell your coach.'
    throw failure(422, message, [{ field: 'day', message }])
  }
  if (input.girths.length > 0 && !scope.includes('girths'))
    throw failure(403, 'This link was not made for girths. Please ask your coach.')
  const about = { clientId, subjectId: input.id }
  await change(linkActor(event), { kind: 'handin.received', ...about }, async (tx, unit) => {
    if ((await addHandIn(tx, { clientId, linkId }, input)) === 0) unit.unchanged()
  })
  setResponseStatus(event, 201)
  return ownHome(event, await ownRecord(event))
})
