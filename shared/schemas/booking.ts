import { z } from 'zod'
import { daysBetween } from '../../core/calendar/day'
import type { Flag } from '../../core/cautions/flags'
import {
  BOOKING_MINUTES,
  BOOKING_STATES,
  type Absence,
  type BookingState,
  type Proposal,
} from '../../core/schedule/bookings'
import type { NextDate } from '../../core/schedule/dates'
import type { ClientFigure } from './client'
import { day, instant } from './dates'

const id = z.uuid('This needs an id made by the device.')
const place = z.string({ error: 'Say where, or leave it empty.' }).trim().max(60, 'A place has at most 60 characters.')
const minutes = z
  .int({ error: 'A whole number of minutes.' })
  .min(BOOKING_MINUTES.low, `A visit takes ${BOOKING_MINUTES.low} minutes or more.`)
  .max(BOOKING_MINUTES.high, 'A visit takes four hours at most.')
const assessorId = z.uuid('This person does not work here.').nullable()
const protocolId = z.string({ error: 'Choose a set of sites.' }).max(60, 'Choose a set of sites.').nullable()

/** Visits agreed on together, such as one and its repetitions: all are stored or none. */
export const bookingsInput = z.strictObject({
  clientId: z.uuid('There is no such client.'),
  assessorId,
  place: place.default(''),
  protocolId: protocolId.default(null),
  minutes,
  visits: z
    .array(z.strictObject({ id, startsAt: instant }))
    .min(1, 'Give a time.')
    .max(26, 'At most 26 visits at once.'),
})
export type BookingsInput = z.output<typeof bookingsInput>

/** A change of a booking, on the one that was seen: `sequence` says which. */
export const bookingChange = z.strictObject({
  sequence: z.int('This needs the count of changes.').min(0).max(100_000),
  startsAt: instant.optional(),
  minutes: minutes.optional(),
  assessorId: assessorId.optional(),
  place: place.optional(),
  state: z.enum(BOOKING_STATES, { error: 'Booked, no-show or cancelled.' }).optional(),
})
export type BookingChange = z.output<typeof bookingChange>

/** Days of bookings asked for at once. */
const MOST_DAYS = 370

/** Which days of bookings are asked for, both included. */
export const bookingsQuery = z
  .object({ from: day('Give the first day.'), to: day('Give the last day.') })
  .refine(({ from, to }) => from <= to && daysBetween(from, to) <= MOST_DAYS, 'A year of bookings at most.')

/** A booking as lists show it. */
export interface BookingLine {
  id: string
  clientId: string
  clientName: string
  assessorId: string | null
  place: string
  protocolId: string | null
  startsAt: string
  minutes: number
  state: BookingState
  /** When it was first to be, where it was moved. */
  movedFrom: string | null
  sequence: number
  /** The check-in of that day; null: they have not been measured on it. */
  checkin: { id: string; finished: boolean } | null
}

/** Bookings of some days with who is away in them. */
export interface BookingBoard {
  bookings: BookingLine[]
  absences: Absence[]
  /** What to know of who is booked. */
  briefs: VisitBrief[]
}

/** What a coach walks up to a client with. */
export interface VisitBrief {
  clientId: string
  flags: Flag[]
  minor: boolean
  neutral: boolean
  /** The check-in before. */
  last: { day: string; protocolId: string; conditions: Record<string, string> } | null
  change: ClientFigure['change']
  figure: 'sum' | 'fat' | null
}

/** A visit as it is proposed. */
export interface BookingProposal extends Proposal {
  minutes: number
  /** Whether the length is the studio's own median, or the usual one. */
  minutesFrom: 'studio' | 'usual'
  assessorId: string | null
  place: string
  protocolId: string | null
  next: NextDate
}

/** For whom a calendar's address is made. */
export const calendarLinkInput = z.strictObject({
  of: z.enum(['me', 'studio'], { error: 'Yours or the whole studio’s.' }),
})

/** A calendar's address, without what makes it secret. */
export interface CalendarLinkRecord {
  id: string
  of: 'me' | 'studio'
  by: string
  at: string
}
