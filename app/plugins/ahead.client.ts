import { askAhead } from '~/composables/ahead'

/** A finger going down on a link to a client asks for the facts: a press takes a tenth of a second until it is released. */
export default defineNuxtPlugin(() => {
  // A client page opened by its address: its facts are asked for before the router has found the page.
  askAhead(location.pathname)
  useEventListener(document, 'pointerdown', ({ target, button }) => {
    const link = target instanceof Element ? target.closest<HTMLAnchorElement>('a[href^="/clients/"]') : null
    if (!link || button !== 0) return
    askAhead(link.pathname, location.pathname)
    void preloadRouteComponents(link.pathname)
  })
})
