import { minutesToMilliseconds } from 'date-fns'

const ID = '[\\da-f-]{36}'

/**
 * What asks for a fresh proof of who it is, also from somebody signed in: who works here, what leaves the studio, what is
 * erased, and addresses that open something to whoever holds them.
 */
const GUARDED: readonly RegExp[] = [
  /^POST \/api\/staff(\/invite)?$/,
  new RegExp(`^PATCH /api/staff/${ID}$`),
  new RegExp(`^POST /api/staff/${ID}/password-link$`),
  new RegExp(`^DELETE /api/staff/${ID}/second-factor$`),
  /^POST \/api\/me\/second-factor(\/codes)?$/,
  /^DELETE \/api\/me\/second-factor$/,
  /^POST \/api\/data\/(exports|retention)$/,
  /^PUT \/api\/studio\/(retention|rules)$/,
  /^(PUT|DELETE) \/api\/me\/pin$/,
  /^POST \/api\/me\/passkeys(\/begin)?$/,
  new RegExp(`^DELETE /api/me/passkeys/${ID}$`),
  new RegExp(`^POST /api/clients/${ID}/own-file$`),
  new RegExp(`^DELETE /api/clients/${ID}$`),
  new RegExp(`^POST /api/clients/${ID}/links$`),
  /^POST \/api\/calendar-links$/,
  new RegExp(`^POST /api/challenges/${ID}/board$`),
]

/** Whether a route asks for a fresh proof. */
export const isGuarded = (route: string) => GUARDED.some((one) => one.test(route))

/** A proof is fresh for so long, minutes; CONFIRM_AFTER_MINUTES sets it. */
const freshMinutes = () => Number(process.env.CONFIRM_AFTER_MINUTES ?? 15) || 15

/** Whether somebody has proved lately who they are. */
export function isFresh({ confirmedAt }: { confirmedAt: string }, now = Date.now()): boolean {
  return now - Date.parse(confirmedAt) < minutesToMilliseconds(freshMinutes())
}
