import { defineEventHandler, getRequestURL, setHeader } from 'h3'
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import { addressOf } from '../http/address'
import { failure } from '../http/failure'
import { logOf } from '../http/log'

/** A coach at work sends some hundred requests in five minutes; a gym of fifty stands behind one address. */
const PERSON = new RateLimiterMemory({ keyPrefix: 'person', points: 6_000, duration: 300 })
/** A client hands in a weight a day and a week in ten minutes. */
const LINK = new RateLimiterMemory({ keyPrefix: 'link', points: 600, duration: 300 })
const STRANGER = new RateLimiterMemory({ keyPrefix: 'address', points: 1_200, duration: 300 })

/** Holds up who asks too often: a person by who they are, an address only where nobody is signed in. */
export default defineEventHandler(async (event) => {
  if (!getRequestURL(event).pathname.startsWith('/api/')) return
  const person = event.context.signedIn
  const link = event.context.atLink
  try {
    if (person) await PERSON.consume(person.staffId)
    else if (link) await LINK.consume(link.linkId)
    else await STRANGER.consume(addressOf(event))
  } catch (refused) {
    if (!(refused instanceof RateLimiterRes)) throw refused
    const seconds = Math.ceil(refused.msBeforeNext / 1000)
    setHeader(event, 'retry-after', seconds)
    logOf(event).warn({ what: 'refused', why: 'too many requests', staff: person?.staffId })
    throw failure(429, `Too many requests from here. Please wait ${seconds} seconds.`)
  }
})
