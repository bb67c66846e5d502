import { bookingChange, type BookingLine } from '../../../../shared/schemas/booking'
import { actorOf } from '../../../http/actor'
import { bookingAt, refusePast, refuseStranger } from '../../../http/bookings'
import { readJson } from '../../../http/body'
import { conflict } from '../../../http/failure'
import { defineRoute } from '../../../http/route'
import { changeBooking } from '../../../repositories/bookings'
import { change } from '../../../write/use-change'

/** Moves a booking, or notes that nobody came; answers with it as it stands. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<BookingLine> => {
  const line = await bookingAt(event)
  const input = await readJson(event, bookingChange)
  // One that stays where it is may have passed: that is when a no-show is noted.
  if (input.startsAt && Date.parse(input.startsAt) !== Date.parse(line.startsAt))
    refusePast({ startsAt: input.startsAt })
  await refuseStranger(event, input.assessorId)
  const about = { clientId: line.clientId, subjectId: line.id }
  await change(actorOf(event), { kind: 'booking.changed', ...about }, async (tx) => {
    if (!(await changeBooking(tx, line, input)))
      throw conflict('Somebody has changed this booking meanwhile: look again.', line)
  })
  return bookingAt(event)
})
