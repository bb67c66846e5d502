/** Where an address says to go on: only a path of this application. "//elsewhere" and full addresses are not followed. */
export function nextPathOf(next: unknown): string {
  const path = typeof next === 'string' ? next : '/'
  return /^\/(?![/\\])/.test(path) ? path : '/'
}
