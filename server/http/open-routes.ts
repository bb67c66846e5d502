import type { Role } from '../../shared/schemas/account'

/** Routes that answer without a session. Everything else under /api is closed. */
export const OPEN_ROUTES: readonly string[] = [
  'GET /api/health',
  'GET /api/ready',
  // Closed in another way: nothing without the token of the environment.
  'GET /api/metrics',
  'GET /api/setup',
  'POST /api/setup',
  'POST /api/sign-in',
  'POST /api/sign-in/passkey/begin',
  'POST /api/sign-in/passkey',
  'POST /api/sign-out',
  'POST /api/password-reset',
  'POST /api/link/open',
  'POST /api/link/pin',
  'POST /api/stop-mail',
  'POST /api/board',
]

/** A client's own way in: what their link opens, and what a phone that has given its PIN may ask for. */
export const LINK_ROUTES: readonly RegExp[] = [
  /^GET \/api\/hand-in(\/take-home)?$/,
  /^POST \/api\/hand-in\/(weigh-ins|weeks|photos)$/,
  new RegExp(`^GET /api/hand-in/photos/[\\da-f-]{36}(/address)?$`),
  /^POST \/api\/hand-in\/leave(-challenge)?$/,
  /^POST \/api\/hand-in\/reminders$/,
]

/** Addresses that are secret themselves: a calendar's. */
export const SECRET_ADDRESSES: readonly RegExp[] = [/^\/feed\/[\w-]+\.ics$/]

/** Pages that show without a session. */
export const OPEN_PAGES: readonly string[] = ['/sign-in', '/welcome', '/new-password', '/hand-in', '/stop', '/board']

const ID = '[\\da-f-]{36}'

/** What a recorder may ask for: the sheet of a check-in under way, and their own account. Nothing else. */
const RECORDER_ROUTES: readonly RegExp[] = [
  /^GET \/api\/(me|floor|me\/sessions)$/,
  new RegExp(`^GET /api/checkins/${ID}(/stream)?$`),
  new RegExp(`^POST /api/checkins/${ID}/events$`),
  /^PATCH \/api\/me$/,
  /^PUT \/api\/me\/(habits|password)$/,
  new RegExp(`^DELETE /api/me/sessions(/${ID})?$`),
  /^(GET|POST|DELETE) \/api\/me\/second-factor$/,
  /^POST \/api\/me\/(confirm(\/begin)?|second-factor\/(confirm|codes)|passkeys(\/begin)?)$/,
  /^GET \/api\/me\/(device-key|passkeys)$/,
  /^(PUT|DELETE) \/api\/me\/pin$/,
  new RegExp(`^DELETE /api/me/passkeys/${ID}$`),
  new RegExp(`^POST /api/me/sessions/${ID}/known$`),
]

/** Whether somebody with this role may use a route at all; leads' own routes ask for more themselves. */
export function mayUse(role: Role, route: string): boolean {
  return role !== 'recorder' || RECORDER_ROUTES.some((one) => one.test(route))
}
