import { defineEventHandler, getQuery } from 'h3'
import { bookingsQuery, type BookingBoard } from '../../../shared/schemas/booking'
import { boardOf } from '../../http/bookings'
import { parsed } from '../../http/body'

/** Bookings of some days of the studio, with who is away. */
export default defineEventHandler((event): Promise<BookingBoard> =>
  boardOf(event, parsed(bookingsQuery, getQuery(event))),
)
