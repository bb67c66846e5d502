/**
 * The service worker keeps the shell of a page it was asked for, and it is not there yet when somebody comes for the first
 * time: their shell is kept here, so that the first visit already leaves behind what opens without a network.
 */
export default defineNuxtPlugin(() => {
  if (!('serviceWorker' in navigator)) return
  void navigator.serviceWorker.ready
    .then(async () => {
      const kept = await caches.open('shell')
      if (await kept.match('/shell')) return
      const shell = await fetch(location.pathname, { headers: { accept: 'text/html' } })
      if (shell.ok && !shell.redirected) await kept.put('/shell', shell)
    })
    // Without a network, or without room for it, the next visit does.
    .catch(() => undefined)
})
