import { defineEventHandler, getRequestURL, sendRedirect } from 'h3'
import { sessionOf } from '../http/admit'

/** Pages that show without a session. */
const OPEN_PAGES: readonly string[] = ['/sign-in', '/welcome', '/new-password', '/hand-in', '/stop', '/board']

/** Addresses that are no pages: routes decide for themselves (server/http/route.ts), built files carry no data. */
const NO_PAGE = /^\/(api|feed|_nuxt)(\/|$)|\.\w+$/

/**
 * Sends people without a session from a page to the sign-in. Every page is the same empty shell: what it shows it asks
 * routes for, so nothing depends on this for safety.
 */
export default defineEventHandler(async (event) => {
  const { pathname } = getRequestURL(event)
  if (NO_PAGE.test(pathname) || OPEN_PAGES.includes(pathname) || (await sessionOf(event))) return
  const next = pathname === '/' ? '' : `?next=${encodeURIComponent(pathname)}`
  return sendRedirect(event, `/sign-in${next}`)
})
