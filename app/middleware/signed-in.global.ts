import { askAhead } from '~/composables/ahead'
import { problemOf } from '~/composables/useApi'
import { isLeaving } from '~/storage/leaving'
import { useMe } from '~/stores/me'

const OPEN = ['/sign-in', '/welcome', '/new-password', '/hand-in', '/stop', '/board']

/** Pages other than sign-in, the first run and a new password need somebody signed in. */
export default defineNuxtRouteMiddleware(async (to, from) => {
  if (OPEN.includes(to.path)) return
  const known = useMe().isHere()
  // The page's code and its facts set out behind the question who is signed in, and do not wait for its answer.
  if (!isLeaving()) {
    void preloadRouteComponents(to.fullPath)
    // The first page comes from nowhere.
    askAhead(to.path, from.matched.length > 0 ? from.path : '')
  }
  try {
    if (await known) return
  } catch (error) {
    throw createError({ message: problemOf(error).message, fatal: true })
  }
  return navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { next: to.path } })
})
