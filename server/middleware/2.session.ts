import { defineEventHandler, getRequestURL, sendRedirect, type H3Event } from 'h3'
import { refreshSession } from '../http/refresh-session'
import { failure } from '../http/failure'
import { logOf } from '../http/log'
import { mayUse, OPEN_PAGES, OPEN_ROUTES } from '../http/open-routes'
import type { SignedIn } from '../repositories/staff'

declare module 'h3' {
  interface H3EventContext {
    signedIn?: SignedIn
  }
}

/** Built files carry no data: the shell, its scripts, fonts and the mark. */
function isBuiltFile(path: string): boolean {
  return (
    path.startsWith('/_nuxt/') ||
    /^\/(mark\.svg|favicon\.ico|robots\.txt|sw\.js|workbox-\w+\.js|manifest\.webmanifest)$/.test(path)
  )
}

async function signedIn(event: H3Event): Promise<SignedIn | null> {
  const { user } = await getUserSession(event)
  // A cookie sealed by an earlier version holds no session.
  return user?.sessionId ? refreshSession(user.sessionId) : null
}

/** Closed by default: without a session only the listed routes and pages answer. */
export default defineEventHandler(async (event) => {
  const { pathname } = getRequestURL(event)
  if (isBuiltFile(pathname)) return
  const isApi = pathname.startsWith('/api/') || pathname === '/api'
  if (isApi && OPEN_ROUTES.includes(`${event.method} ${pathname}`)) return
  if (!isApi && OPEN_PAGES.includes(pathname)) return
  const person = await signedIn(event)
  if (person) {
    if (isApi && !mayUse(person.role, `${event.method} ${pathname}`)) {
      logOf(event).warn({ what: 'refused', why: 'role', staff: person.staffId })
      throw failure(403, 'A recorder writes readings down and nothing else. Please ask a coach.')
    }
    event.context.signedIn = person
    return
  }
  if (isApi) throw failure(401, 'Please sign in.')
  const next = pathname === '/' ? '' : `?next=${encodeURIComponent(pathname)}`
  return sendRedirect(event, `/sign-in${next}`)
})
