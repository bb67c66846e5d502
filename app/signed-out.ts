import { isOutside } from '~/locking'
import { isLeaving } from '~/storage/leaving'

/** Whether this page knows somebody to be signed in. */
let known = false

export function noteSomebody(isHere: boolean): void {
  known = isHere
}

/** Somebody is typing: a page that asks for its facts by itself takes nobody away from a field. */
const isTyping = () => document.activeElement?.matches('input, textarea, select') ?? false

/**
 * The session has ended without this page: by hours, by a closed account, from another device. Whoever reads on is led to
 * sign in, and back. Not out of the log sheet: what is measured there waits on the device, and says so.
 */
export function askToSignIn(): void {
  const { pathname } = location
  if (!known || isLeaving() || isOutside(pathname) || pathname.startsWith('/measure/') || isTyping()) return
  known = false
  location.assign(`/sign-in?${new URLSearchParams({ ended: '1', next: pathname })}`)
}
