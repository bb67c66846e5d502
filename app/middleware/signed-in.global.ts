import { askAhead } from '~/composables/ahead'
import { problemOf } from '~/composables/useApi'
import { isLocked, lockPage } from '~/locking'
import { isLockedHere } from '~/storage/lock-marks'
import { isLeaving } from '~/storage/leaving'
import { useMe } from '~/stores/me'

const OPEN = ['/locked', '/sign-in', '/welcome', '/new-password', '/hand-in', '/stop', '/board']

/** Pages other than sign-in, the first run and a new password need somebody signed in, and an open device. */
export default defineNuxtRouteMiddleware(async (to, from) => {
  if (to.path === '/locked' && !isLocked() && !isLockedHere()) return navigateTo('/')
  if (OPEN.includes(to.path)) return
  // A page opened while the device is locked shows nothing but the lock; one that was locked stays as it is behind it.
  const locked = { path: '/locked', query: to.path === '/' ? {} : { next: to.fullPath } }
  const isFresh = !useMe().me
  if (isLockedHere() && isFresh) {
    void lockPage()
    return navigateTo(locked)
  }
  const known = useMe().isHere()
  // The page's code and its facts set out behind the question who is signed in, and do not wait for its answer.
  if (!isLeaving()) {
    void preloadRouteComponents(to.fullPath)
    // The first page comes from nowhere.
    askAhead(to.path, from.matched.length > 0 ? from.path : '')
  }
  try {
    if (await known) {
      // Until there is a second proof where a studio asks for one, nothing but one's own account answers.
      const account = '/studio/account'
      return useMe().me?.lacksSecond && to.path !== account ? navigateTo(account) : undefined
    }
  } catch (error) {
    if (isLocked()) return isFresh ? navigateTo(locked) : abortNavigation()
    throw createError({ message: problemOf(error).message, fatal: true })
  }
  return navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { next: to.path } })
})
