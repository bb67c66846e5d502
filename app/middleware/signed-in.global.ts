import { problemOf } from '~/composables/useApi'
import { useMe } from '~/stores/me'

const OPEN = ['/sign-in', '/welcome']

/** Pages other than sign-in and the first run need somebody signed in. */
export default defineNuxtRouteMiddleware(async (to) => {
  const store = useMe()
  if (OPEN.includes(to.path) || store.me) return
  try {
    await store.load()
  } catch (error) {
    if (problemOf(error).status !== 401) throw createError({ message: problemOf(error).message, fatal: true })
    return navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { next: to.path } })
  }
})
