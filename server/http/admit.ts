import type { H3Event } from 'h3'
import type { FoundSession } from '../repositories/sessions'
import type { AtWork, SignedIn } from '../repositories/staff'
import { linkSessionOf, requireScope, type AtLink } from './at-link'
import { failure, locked, unconfirmed, withoutSecond } from './failure'
import { logOf } from './log'
import { noteLook } from './looked'
import { keepPace } from './pace'
import { isFresh } from './proof'
import { refreshSession, watchingSession } from './refresh-session'
import type { RouteAccess } from './route'

/** The person whose session a device holds, locked or not. */
export interface AtDevice extends SignedIn {
  /** ISO instant; null: the device is open. */
  lockedAt: string | null
}

declare module 'h3' {
  interface H3EventContext {
    /** What the matched route declares. */
    access?: RouteAccess
    signedIn?: AtWork
    atDevice?: AtDevice
    /** A client at their own link. */
    atLink?: AtLink
  }
}

type StaffAccess = Exclude<RouteAccess, { access: 'open' | 'link' }>

/** The session a cookie names, as long as it runs. */
export async function sessionOf(event: H3Event, remembered = false): Promise<FoundSession | null> {
  const { user } = await getUserSession(event)
  // A cookie sealed by an earlier version holds no session.
  if (!user?.sessionId) return null
  return remembered ? watchingSession(user.sessionId) : refreshSession(user.sessionId)
}

function note(event: H3Event, why: string, staff: string): void {
  logOf(event).warn({ what: 'refused', why, staff })
}

/** Throws unless a person's role and proof are what the route demands. */
function check(event: H3Event, found: FoundSession, wanted: StaffAccess): void {
  const { role, staffId } = found
  if ((wanted.access !== 'recorder' && role === 'recorder') || (wanted.access === 'lead' && role !== 'lead')) {
    note(event, 'role', staffId)
    throw failure(
      403,
      role === 'recorder'
        ? 'A recorder writes readings down and nothing else. Please ask a coach.'
        : 'Only the lead coach can do this.',
    )
  }
  if (wanted.proof === 'none') return
  if (found.lacksSecond && !wanted.beforeSecond) {
    note(event, 'no second factor', staffId)
    throw withoutSecond()
  }
  if (wanted.proof === 'fresh' && !isFresh(found)) {
    note(event, 'no fresh proof', staffId)
    throw unconfirmed()
  }
}

async function admitStaff(event: H3Event, wanted: StaffAccess): Promise<void> {
  const found = await sessionOf(event, wanted.session === 'remembered')
  const { context } = event
  if (!found) {
    await keepPace(event, wanted.pace)
    throw failure(401, 'Please sign in.')
  }
  const { stale: _, confirmedAt: __, lacksSecond: ___, lockedAt, ...person } = found
  context.atDevice = { ...person, lockedAt }
  await keepPace(event, wanted.pace)
  if (lockedAt !== null && !wanted.whenLocked) {
    note(event, 'locked', found.staffId)
    throw locked()
  }
  check(event, found, wanted)
  if (wanted.whenLocked) return
  context.signedIn = person
  if (wanted.looked === 'record') await noteLook(event)
}

async function admitLink(event: H3Event, { scope, pace }: Extract<RouteAccess, { access: 'link' }>): Promise<void> {
  const found = await linkSessionOf(event).catch(async (refused: unknown) => {
    await keepPace(event, pace)
    throw refused
  })
  if (found) event.context.atLink = found
  await keepPace(event, pace)
  if (!found) throw failure(401, 'This phone is not signed in to the link any more. Please open the link again.')
  requireScope(found, scope)
}

/** Lets a request pass to a route's handler, or throws the refusal. Called by `defineRoute` alone. */
export async function admit(event: H3Event, wanted: RouteAccess): Promise<void> {
  event.context.access = wanted
  switch (wanted.access) {
    case 'open':
      return keepPace(event, wanted.pace)
    case 'link':
      return admitLink(event, wanted)
    case 'recorder':
    case 'coach':
    case 'lead':
      return admitStaff(event, wanted)
  }
}
