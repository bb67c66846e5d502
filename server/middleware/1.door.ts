import { randomUUID } from 'node:crypto'
import { defineEventHandler, getHeader, setHeader, type H3Event } from 'h3'
import { ownOrigin } from '../http/address'
import { failure } from '../http/failure'
import { logOf } from '../http/log'
import { countAnswer } from '../http/metrics'

declare module 'h3' {
  interface H3EventContext {
    requestId: string
  }
}

const READING = new Set(['GET', 'HEAD', 'OPTIONS'])

/** Addresses that could mean one thing here and another to whoever stands before: climbing, backslashes, hidden slashes. */
function isCrooked(url: string): boolean {
  const [path = ''] = url.split('?')
  return /\\|%5c|%2f|%00|(^|\/|%2f)(\.|%2e){1,2}(\/|%2f|$)/i.test(path)
}

/**
 * Whether a write comes from a page of our own. A browser says so itself and no page can make it say otherwise; what is
 * no browser has to say so too.
 */
function isOwn(event: H3Event): boolean {
  const origin = getHeader(event, 'origin')
  if (origin !== undefined) return origin.toLowerCase() === ownOrigin(event)
  return getHeader(event, 'sec-fetch-site') === 'same-origin'
}

/** What every request passes first, before anybody is asked who they are. */
export default defineEventHandler((event) => {
  event.context.requestId = randomUUID()
  const began = performance.now()
  event.node.res.once('close', () =>
    countAnswer(event.method, event.node.res.statusCode, (performance.now() - began) / 1000),
  )
  setHeader(event, 'x-request-id', event.context.requestId)
  if (isCrooked(event.node.req.url ?? '')) throw failure(400, 'This address is not written as one.')
  if (READING.has(event.method) || isOwn(event)) return
  logOf(event).warn({ what: 'refused', why: 'foreign origin' })
  throw failure(403, 'This can only be sent from Oak Pinch itself.')
})
