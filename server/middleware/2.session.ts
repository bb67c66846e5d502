import { defineEventHandler, getRequestURL, sendRedirect, type H3Event } from 'h3'
import { refreshSession, watchingSession } from '../http/refresh-session'
import { failure, locked, unconfirmed, withoutSecond } from '../http/failure'
import { logOf } from '../http/log'
import { noteAddress } from '../http/address'
import { linkSessionOf, type AtLink } from '../http/at-link'
import { isAboutLock, isOwnAccount, type AtDevice } from '../http/locked'
import { LINK_ROUTES, mayUse, OPEN_PAGES, OPEN_ROUTES, SECRET_ADDRESSES } from '../http/open-routes'
import { isFresh, isGuarded } from '../http/guarded-routes'
import type { FoundSession } from '../repositories/sessions'
import type { AtWork } from '../repositories/staff'

declare module 'h3' {
  interface H3EventContext {
    signedIn?: AtWork
    /** Whoever's session the device holds, locked or not. */
    atDevice?: AtDevice
    /** A client at their own link. */
    atLink?: AtLink
  }
}

/** Built files carry no data: the shell, its scripts, fonts and the mark. */
function isBuiltFile(path: string): boolean {
  return (
    path.startsWith('/_nuxt/') ||
    /^\/(mark\.svg|favicon\.ico|robots\.txt|sw\.js|kept-sealed\.js|workbox-\w+\.js|manifest\.webmanifest|hand-in\.webmanifest)$/.test(
      path,
    )
  )
}

/** How far long work is, and giving it up: answered from memory while that work keeps the database busy. */
const WATCHING = /^(GET|DELETE) \/api\/data\/jobs\/[\da-f-]{36}$/

async function signedIn(event: H3Event, route: string): Promise<FoundSession | null> {
  const { user } = await getUserSession(event)
  // A cookie sealed by an earlier version holds no session.
  if (!user?.sessionId) return null
  return WATCHING.test(route) ? watchingSession(user.sessionId) : refreshSession(user.sessionId)
}

/** What a client's link opens answers to a phone that has given its PIN, and to nobody else: also not to a coach. */
async function enterByLink(event: H3Event, route: string): Promise<void> {
  const found = LINK_ROUTES.some((one) => one.test(route)) ? await linkSessionOf(event) : null
  if (!found) throw failure(401, 'This phone is not signed in to the link any more. Please open the link again.')
  event.context.atLink = found
}

/** Lets somebody in, or says why not. `route`: null for a page, which carries nothing of the studio. */
function enter(event: H3Event, found: FoundSession, route: string | null): void {
  const { stale: _, confirmedAt: __, lacksSecond, lockedAt, ...person } = found
  if (route !== null && isAboutLock(route)) {
    event.context.atDevice = { ...person, lockedAt }
    return
  }
  if (lockedAt !== null) {
    if (route !== null) throw locked()
    return
  }
  if (route !== null) {
    if (!mayUse(person.role, route)) {
      logOf(event).warn({ what: 'refused', why: 'role', staff: person.staffId })
      throw failure(403, 'A recorder writes readings down and nothing else. Please ask a coach.')
    }
    if (lacksSecond && !isOwnAccount(route)) throw withoutSecond()
    if (isGuarded(route) && !isFresh(found)) throw unconfirmed()
  }
  event.context.signedIn = person
  noteAddress(event)
}

/** Closed by default: without a session only the listed routes and pages answer. */
export default defineEventHandler(async (event) => {
  const { pathname } = getRequestURL(event)
  if (isBuiltFile(pathname)) return
  const isApi = pathname.startsWith('/api/') || pathname === '/api'
  if (isApi && OPEN_ROUTES.includes(`${event.method} ${pathname}`)) return
  if (!isApi && (OPEN_PAGES.includes(pathname) || SECRET_ADDRESSES.some((one) => one.test(pathname)))) return
  if (pathname.startsWith('/api/hand-in')) return enterByLink(event, `${event.method} ${pathname}`)
  const person = await signedIn(event, `${event.method} ${pathname}`)
  if (person) return enter(event, person, isApi ? `${event.method} ${pathname}` : null)
  if (isApi) throw failure(401, 'Please sign in.')
  const next = pathname === '/' ? '' : `?next=${encodeURIComponent(pathname)}`
  return sendRedirect(event, `/sign-in${next}`)
})
