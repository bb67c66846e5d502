import { randomUUID } from 'node:crypto'
import { defineEventHandler, getHeader, setHeader, type H3Event } from 'h3'
import { ownOrigin } from '../http/address'
import { isCanonical } from '../http/canonical'
import { failure } from '../http/failure'
import { logOf } from '../http/log'
import { countAnswer } from '../http/metrics'

declare module 'h3' {
  interface H3EventContext {
    requestId: string
  }
}

const READING = new Set(['GET', 'HEAD', 'OPTIONS'])

/** Whether a write comes from a page of our own. Browsers set these headers themselves; other programs have to send them. */
function isOwn(event: H3Event): boolean {
  const origin = getHeader(event, 'origin')
  if (origin !== undefined) return origin.toLowerCase() === ownOrigin(event)
  return getHeader(event, 'sec-fetch-site') === 'same-origin'
}

/** What every request passes first, before anyone is identified. */
export default defineEventHandler((event) => {
  event.context.requestId = randomUUID()
  const began = performance.now()
  event.node.res.once('close', () =>
    countAnswer(event.method, event.node.res.statusCode, (performance.now() - began) / 1000),
  )
  setHeader(event, 'x-request-id', event.context.requestId)
  if (!isCanonical(event.node.req.url ?? '')) throw failure(404, 'There is nothing at this address.')
  if (READING.has(event.method) || isOwn(event)) return
  logOf(event).warn({ what: 'refused', why: 'foreign origin' })
  throw failure(403, 'This can only be sent from Oak Pinch itself.')
})
