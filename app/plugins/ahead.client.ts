import { askAhead, recordAt } from '~/composables/ahead'
import { isLeaving } from '~/storage/leaving'
import { isLockedHere } from '~/storage/lock-marks'
import { useMe } from '~/stores/me'

/** A finger going down on a link to a client asks for the facts: a press takes a tenth of a second until it is released. */
export default defineNuxtPlugin(() => {
  // A client page opened by its address: who is signed in and its facts are asked for, in this order because the second
  // takes the server longer, before the router has found the page.
  if (recordAt(location.pathname) && !isLockedHere() && !isLeaving()) {
    // Said by the middleware, which waits for the same answer.
    useMe()
      .isHere()
      .catch(() => undefined)
    askAhead(location.pathname)
  }
  useEventListener(document, 'pointerdown', ({ target, button }) => {
    const link = target instanceof Element ? target.closest<HTMLAnchorElement>('a[href^="/clients/"]') : null
    if (!link || button !== 0) return
    askAhead(link.pathname, location.pathname)
    void preloadRouteComponents(link.pathname)
  })
})
