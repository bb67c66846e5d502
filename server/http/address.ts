import { getHeader, type H3Event } from 'h3'
import { useRuntimeConfig } from 'nitropack/runtime'

/** Addresses of proxies whose forwarded headers are believed (NUXT_TRUSTED_PROXIES, comma-separated). */
function trusted(): string[] {
  return String(useRuntimeConfig().trustedProxies || '')
    .split(',')
    .map((address) => address.trim())
    .filter(Boolean)
}

function plain(address: string): string {
  return address.replace(/^::ffff:/, '')
}

function peerOf(event: H3Event): string {
  return plain(event.node.req.socket.remoteAddress ?? 'unknown')
}

/** Whether a request came through a proxy this studio has set up. */
function isForwarded(event: H3Event): boolean {
  return trusted().includes(peerOf(event))
}

/** Where a request comes from. What it says about that itself counts only behind a configured proxy. */
export function addressOf(event: H3Event): string {
  const peer = peerOf(event)
  if (!isForwarded(event)) return peer
  const proxies = trusted()
  const chain = (getHeader(event, 'x-forwarded-for') ?? '').split(',').map((one) => plain(one.trim()))
  // The nearest address no proxy of ours has.
  return chain.reverse().find((one) => one !== '' && !proxies.includes(one)) ?? peer
}

/** Scheme and host this application is reached under, as this request's browser says: for answers to that browser alone. */
export function ownOrigin(event: H3Event): string {
  const forwarded = isForwarded(event)
  const first = (name: string) => (forwarded ? getHeader(event, name)?.split(',')[0]?.trim() : undefined)
  const encrypted = (event.node.req.socket as { encrypted?: boolean }).encrypted === true
  const scheme = first('x-forwarded-proto') ?? (encrypted ? 'https' : 'http')
  const host = first('x-forwarded-host') ?? getHeader(event, 'host') ?? ''
  return `${scheme}://${host}`.toLowerCase()
}

/**
 * What links in mails begin with: the configured address (NUXT_ADDRESS), else the one a lead has confirmed, else none.
 * Never what a request says of itself: a stranger writes that.
 */
export function mailAddress(confirmed: string | null): string | null {
  return useRuntimeConfig().address || confirmed
}
