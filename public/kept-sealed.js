/**
 * What the service worker keeps of the server's answers lies sealed on the device, with the key that is there while
 * somebody is signed in and the device is open (app/storage/device-key.ts). Without a key nothing is kept, and what was
 * sealed is not given out. Where a browser cannot seal at all there is no service worker either.
 */

/** The key; null: there is none now. */
function keyOfDevice() {
  return new Promise((give) => {
    const asked = indexedDB.open('oak-pinch-key')
    // Not there yet: it is the page that makes it.
    asked.onupgradeneeded = () => asked.transaction.abort()
    asked.onerror = () => give(null)
    asked.onsuccess = () => {
      const db = asked.result
      const found = db.transaction('keys').objectStore('keys').get('studio')
      found.onerror = () => give(null)
      found.onsuccess = () => give(found.result?.key ?? null)
      // Closed once that has answered: the page can go on using it.
      db.close()
    }
  })
}

self.keptSealed = {
  /** An answer as it is kept. */
  async seal(response) {
    const key = await keyOfDevice()
    if (!key || response.status !== 200) return null
    const iv = crypto.getRandomValues(new Uint8Array(12))
    const bytes = await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, key, await response.arrayBuffer())
    const headers = new Headers({ 'x-sealed': btoa(String.fromCharCode(...iv)) })
    for (const name of ['content-type', 'date']) headers.set(name, response.headers.get(name) ?? '')
    return new Response(bytes, { status: 200, headers })
  },

  /** A kept answer as screens are given it: it says that it was kept, and since when (useKeptAnswers). */
  async open(kept) {
    const iv = kept?.headers.get('x-sealed')
    const key = iv ? await keyOfDevice() : null
    if (!key) return null
    const opening = { name: 'AES-GCM', iv: Uint8Array.from(atob(iv), (sign) => sign.charCodeAt(0)) }
    const opened = await crypto.subtle.decrypt(opening, key, await kept.arrayBuffer()).catch(() => null)
    if (!opened) return null
    const headers = new Headers({ 'x-kept-since': kept.headers.get('date') ?? '' })
    headers.set('content-type', kept.headers.get('content-type') ?? '')
    return new Response(opened, { status: 200, headers })
  },
}
