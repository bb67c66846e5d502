import { subDays } from 'date-fns'
import { setResponseStatus } from 'h3'
import { bookingsInput, type BookingLine } from '../../../shared/schemas/booking'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { refusePast, refuseStranger } from '../../http/bookings'
import { readJson } from '../../http/body'
import { zoneOf } from '../../http/days'
import { failure } from '../../http/failure'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { addBookings, comingBookings } from '../../repositories/bookings'
import { findClient } from '../../repositories/clients'
import { change } from '../../write/use-change'

/** Books a visit, or one and its repetitions; answers with what the client has coming up. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<BookingLine[]> => {
  const input = await readJson(event, bookingsInput)
  const who = signedInAs(event)
  const db = await useDatabase()
  const client = await findClient(db, who, input.clientId)
  const sentence = 'There is no such client.'
  if (!client) throw failure(422, sentence, [{ field: 'clientId', message: sentence }])
  if (client.archived) throw failure(409, 'This client is archived. Bring them back before booking.')
  refusePast(Object.fromEntries(input.visits.map(({ startsAt }, i) => [`visits.${i}.startsAt`, startsAt])))
  await refuseStranger(event, input.assessorId)
  const [first] = input.visits
  const about = { clientId: client.id, subjectId: first?.id }
  await change(actorOf(event), { kind: 'booking.added', ...about }, async (tx, unit) => {
    if ((await addBookings(tx, who, input)) === 0) unit.unchanged()
  })
  setResponseStatus(event, 201)
  return comingBookings(db, who, client.id, subDays(new Date(), 1).toISOString(), zoneOf(event))
})
