import { setHeader, type H3Event } from 'h3'
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import { addressOf } from './address'
import { failure } from './failure'
import { logOf } from './log'

/** `usual`: what people at work need. `secret`: addresses that are a secret themselves, read by machines a few times an hour. */
export type Pace = 'usual' | 'secret'

const SECONDS = 300
/** A coach at work sends about a hundred requests in five minutes. */
const PERSON = new RateLimiterMemory({ keyPrefix: 'person', points: 6_000, duration: SECONDS })
/** A client hands in a weight a day and a week in ten minutes. */
const LINK = new RateLimiterMemory({ keyPrefix: 'link', points: 600, duration: SECONDS })
/** A gym of fifty people has one address. */
const ADDRESS = new RateLimiterMemory({ keyPrefix: 'address', points: 1_200, duration: SECONDS })
const SECRET = new RateLimiterMemory({ keyPrefix: 'secret', points: 60, duration: SECONDS })

/** Who asks: a person, a link, or just an address where nobody is signed in. */
function limiterFor(event: H3Event, pace: Pace): [RateLimiterMemory, string] {
  if (pace === 'secret') return [SECRET, addressOf(event)]
  const { signedIn, atDevice, atLink } = event.context
  const person = signedIn ?? atDevice
  if (person) return [PERSON, person.staffId]
  return atLink ? [LINK, atLink.linkId] : [ADDRESS, addressOf(event)]
}

/** Counts a request. Throws 429 with the seconds to wait when there were too many. */
export async function keepPace(event: H3Event, pace: Pace = 'usual'): Promise<void> {
  const [limiter, key] = limiterFor(event, pace)
  try {
    await limiter.consume(key)
  } catch (refused) {
    if (!(refused instanceof RateLimiterRes)) throw refused
    const seconds = Math.ceil(refused.msBeforeNext / 1000)
    setHeader(event, 'retry-after', seconds)
    logOf(event).warn({ what: 'refused', why: 'too many requests', staff: event.context.signedIn?.staffId })
    throw failure(429, `Too many requests from here. Please wait ${seconds} seconds.`)
  }
}
