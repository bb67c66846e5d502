import type { SignedIn } from '../repositories/staff'

/** Whoever's session a device holds, locked or not. */
export interface AtDevice extends SignedIn {
  /** ISO instant; null: it is open. */
  lockedAt: string | null
}

/** What answers while a device is locked: who can open it, locking it, and opening it. */
const LOCK_ROUTES: ReadonlySet<string> = new Set(['GET /api/lock', 'POST /api/lock', 'POST /api/lock/open'])

/** Whether a route is about the lock itself: it answers locked or not, and to everybody who is signed in. */
export const isAboutLock = (route: string) => LOCK_ROUTES.has(route)

const ID = '[\\da-f-]{36}'

/** What answers to somebody who still has to set a second proof up: their own account. */
const OWN_ACCOUNT: readonly RegExp[] = [
  /^GET \/api\/me(\/(second-factor|passkeys|sessions|device-key))?$/,
  /^POST \/api\/me\/(confirm|second-factor)(\/\w+)?$/,
  /^POST \/api\/me\/passkeys(\/begin)?$/,
  /^PUT \/api\/me\/(password|pin)$/,
  new RegExp(`^DELETE /api/me/sessions(/${ID})?$`),
]

/** Whether a route is what somebody needs to set a second proof up. */
export const isOwnAccount = (route: string) => OWN_ACCOUNT.some((one) => one.test(route))
