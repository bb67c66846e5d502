import type { ClientHome, HandInInput, HomeWeighIn, LinkDoor } from '#shared/schemas/link'
import type { Pose } from '#shared/schemas/photo'
import { call } from '~/calls'

/**
 * For calls whose caller tries again by itself, in its own time. A request that nobody answers (a phone between two
 * networks) is given up after `timeout` ms: what waits behind it must not wait for ever.
 */
const ONCE = { retry: 0, timeout: 30_000 } as const
/** A picture over a slow network takes its time. */
const PICTURE = { retry: 0, timeout: 180_000 } as const

/** What a client's phone asks of the server. As `~/calls`. */
export const home = {
  open: (token: string) => call<LinkDoor>('POST', '/api/link/open', { token }),
  givePin: (token: string, pin: string) => call<unknown>('POST', '/api/link/pin', { token, pin }),
  read: () => call<ClientHome>('GET', '/api/hand-in', undefined, ONCE),
  weigh: (weighIn: HomeWeighIn) =>
    call<{ home: ClientHome; counts: boolean }>('POST', '/api/hand-in/weigh-ins', weighIn, ONCE),
  handIn: (week: HandInInput) => call<ClientHome>('POST', '/api/hand-in/weeks', week, ONCE),
  addPhoto: (facts: { id: string; handInId: string; pose: Pose; takenAt: string }, picture: Blob) =>
    call<unknown>('POST', '/api/hand-in/photos', picture, {
      ...PICTURE,
      query: facts,
      headers: { 'content-type': 'application/octet-stream' },
    } as object),
  stopReminders: () => call<ClientHome>('POST', '/api/hand-in/reminders', {}),
  leaveChallenge: (entryId: string) => call<ClientHome>('POST', '/api/hand-in/leave-challenge', { entryId }),
  leave: () => call<unknown>('POST', '/api/hand-in/leave', {}),
}
