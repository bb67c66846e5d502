/** One segment of a path as we write it: no percent signs, no backslashes, nothing that a proxy may read otherwise. */
const SEGMENT = /^[\w.~-]+$/
const DOTS_ONLY = /^\.+$/

/**
 * Whether a request's path is spelled as this application spells it: every segment plain and not empty, no slash at the
 * end, and under /api no capital letters, because ids are lowercase there. Any other spelling could mean one thing to a
 * proxy, a log or a cache and another to the router.
 * @param target of the request line, with its query
 * @example isCanonical('/api/clients?q=Osk') // true
 * @example isCanonical('/%61pi/clients') // false
 */
export function isCanonical(target: string): boolean {
  const [path = ''] = target.split('?')
  if (path === '/') return true
  const [before, ...segments] = path.split('/')
  if (before !== '' || segments.length === 0 || segments.some((one) => !SEGMENT.test(one) || DOTS_ONLY.test(one)))
    return false
  return segments[0]?.toLowerCase() !== 'api' || path === path.toLowerCase()
}
