import { getQuery } from 'h3'
import { bookingsQuery, type BookingBoard } from '../../../shared/schemas/booking'
import { boardOf } from '../../http/bookings'
import { parsed } from '../../http/body'
import { defineRoute } from '../../http/route'

/** Bookings of some days of the studio, with who is away. */
export default defineRoute({ access: 'coach', proof: 'second' }, (event): Promise<BookingBoard> =>
  boardOf(event, parsed(bookingsQuery, getQuery(event))),
)
