import type { Board, ChallengeFacts, ChallengeInput, ChallengeRecord, EntryInput } from '#shared/schemas/challenge'
import type {
  BookingBoard,
  BookingChange,
  BookingLine,
  BookingProposal,
  BookingsInput,
  CalendarLinkRecord,
} from '#shared/schemas/booking'
import type {
  FromHome,
  LineInput,
  LineRecord,
  LinkChange,
  LinkInput,
  RemindersInput,
  ReminderRecord,
} from '#shared/schemas/link'
import { call } from '~/calls'

/** What the coach's week asks of the server: visits, calendars, clients from afar. As `~/calls`. */

export const bookings = {
  list: (from: string, to: string) => call<BookingBoard>('GET', '/api/bookings', undefined, { query: { from, to } }),
  propose: (clientId: string) => call<BookingProposal>('GET', `/api/clients/${clientId}/booking-proposal`),
  add: (visits: BookingsInput) => call<BookingLine[]>('POST', '/api/bookings', visits),
  change: (id: string, change: BookingChange) => call<BookingLine>('PATCH', `/api/bookings/${id}`, change),
}

export const calendarLinks = {
  list: () => call<CalendarLinkRecord[]>('GET', '/api/calendar-links'),
  make: (of: 'me' | 'studio') => call<{ link: string }>('POST', '/api/calendar-links', { of }),
  revoke: (id: string) => call<CalendarLinkRecord[]>('DELETE', `/api/calendar-links/${id}`),
}

export const fromHome = {
  read: (clientId: string) => call<FromHome>('GET', `/api/clients/${clientId}/from-home`),
  makeLink: (clientId: string, link: LinkInput) =>
    call<{ link: string; fromHome: FromHome }>('POST', `/api/clients/${clientId}/links`, link),
  changeLink: (clientId: string, id: string, change: LinkChange) =>
    call<FromHome>('PATCH', `/api/clients/${clientId}/links/${id}`, change),
  revokeLink: (clientId: string, id: string) => call<FromHome>('DELETE', `/api/clients/${clientId}/links/${id}`),
  seen: (clientId: string, week: string) => call<unknown>('POST', `/api/clients/${clientId}/hand-ins/${week}`, {}),
  write: (clientId: string, line: LineInput) => call<LineRecord[]>('POST', `/api/clients/${clientId}/lines`, line),
  setReminders: (clientId: string, reminders: RemindersInput) =>
    call<ReminderRecord>('PUT', `/api/clients/${clientId}/reminders`, reminders),
  removePhoto: (id: string) => call<unknown>('DELETE', `/api/home-photos/${id}`),
}

export const challenges = {
  list: () => call<ChallengeRecord[]>('GET', '/api/challenges'),
  make: (challenge: ChallengeInput) => call<ChallengeRecord[]>('POST', '/api/challenges', challenge),
  read: (id: string) => call<ChallengeFacts>('GET', `/api/challenges/${id}`),
  enter: (id: string, entry: EntryInput) => call<ChallengeFacts>('POST', `/api/challenges/${id}/entries`, entry),
  leave: (id: string, entry: string) => call<ChallengeFacts>('DELETE', `/api/challenges/${id}/entries/${entry}`),
  makeBoard: (id: string) => call<{ link: string }>('POST', `/api/challenges/${id}/board`, {}),
  close: (id: string) => call<ChallengeFacts>('POST', `/api/challenges/${id}/close`, {}),
  board: (token: string) => call<Board>('POST', '/api/board', { token }),
}
