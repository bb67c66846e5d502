import { createHash, timingSafeEqual } from 'node:crypto'
import { getHeader, setHeader } from 'h3'
import { failure } from '../http/failure'
import { registry } from '../http/metrics'
import { defineRoute } from '../http/route'

const digest = (text: string) => createHash('sha256').update(text).digest()

/** Counts of this process, for who watches over it. Closed unless METRICS_TOKEN is set, and then to its bearer only. */
export default defineRoute({ access: 'open' }, (event) => {
  const token = process.env.METRICS_TOKEN
  const given = /^Bearer (.+)$/.exec(getHeader(event, 'authorization') ?? '')?.[1] ?? ''
  if (!token || !timingSafeEqual(digest(given), digest(token))) throw failure(404, 'There is nothing at this address.')
  setHeader(event, 'content-type', registry.contentType)
  return registry.metrics()
})
