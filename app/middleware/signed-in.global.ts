import { askAhead } from '~/composables/ahead'
import { problemOf } from '~/composables/useApi'
import { useMe } from '~/stores/me'

const OPEN = ['/sign-in', '/welcome']

/** Pages other than sign-in and the first run need somebody signed in. */
export default defineNuxtRouteMiddleware(async (to) => {
  if (OPEN.includes(to.path)) return
  const store = useMe()
  const known = store.me ? null : store.load()
  // The page's code and its facts set out behind the question who is signed in, and do not wait for its answer.
  void preloadRouteComponents(to.fullPath)
  askAhead(to.path)
  try {
    await known
  } catch (error) {
    if (problemOf(error).status !== 401) throw createError({ message: problemOf(error).message, fatal: true })
    return navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { next: to.path } })
  }
})
