const WINDOW_MS = 15 * 60 * 1000
const ALLOWED = 8
const REMEMBERED = 10_000

interface Attempts {
  since: number
  failed: number
}

/**
 * Failed sign-ins by account, so that one account cannot be guessed at from many addresses. In memory: a restart
 * forgets them, and the limit by address (nuxt-security) stands beside it.
 */
const byAccount = new Map<string, Attempts>()

/** Minutes this account has to wait, or 0. */
export function minutesToWait(account: string, now = Date.now()): number {
  const attempts = byAccount.get(account)
  if (!attempts || attempts.failed < ALLOWED) return 0
  const left = attempts.since + WINDOW_MS - now
  if (left > 0) return Math.ceil(left / 60_000)
  byAccount.delete(account)
  return 0
}

/** Notes a failed sign-in. */
export function noteFailure(account: string, now = Date.now()): void {
  const attempts = byAccount.get(account)
  const fresh = !attempts || attempts.since + WINDOW_MS < now
  if (fresh && byAccount.size >= REMEMBERED) byAccount.clear()
  byAccount.set(account, fresh ? { since: now, failed: 1 } : { ...attempts, failed: attempts.failed + 1 })
}

/** Forgets an account's failures after a good sign-in. */
export function forgetFailures(account: string): void {
  byAccount.delete(account)
}
