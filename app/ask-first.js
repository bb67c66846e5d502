/*
 * In the page itself, before any code of the application: a client's record opened by its address is asked for while that
 * code is still being read, unless this device is locked or somebody is leaving. `app/asked-first.ts` takes the answers.
 */
{
  const client = /^\/clients\/([\da-f-]{36})(?:\/(?!edit|measure|paper)|$)/.exec(location.pathname)?.[1]
  const noted = (name) => {
    try {
      return localStorage.getItem(`oak-pinch-${name}`) !== null
    } catch {
      return false
    }
  }
  if (client && !noted('locked') && !noted('leaving')) {
    // In this order: the second takes the server longer.
    globalThis.askedFirst = Object.fromEntries(
      ['/api/me', `/api/clients/${client}/history`].map((path) => {
        const answer = fetch(path, { headers: { accept: 'application/json' } })
          .then((response) => (response.ok ? response.json() : undefined))
          // Said where it is asked for again.
          .catch(() => undefined)
        return [path, answer]
      }),
    )
  }
}
