import { setHeader, type H3Event } from 'h3'
import { usePorts } from '../ports'
import type { Pace } from '../ports/attempts'
import { addressOf } from './address'
import { failure } from './failure'
import { logOf } from './log'

/** A person mistypes a few times; a guesser is slowed down to a crawl, and nobody is locked out for long. */
const ACCOUNT: Pace = { free: 5, firstMs: 1_000, longestMs: 5 * 60_000 }
/** A gym has one address for everybody in it. */
const ADDRESS: Pace = { free: 30, firstMs: 1_000, longestMs: 15 * 60_000 }

/** What a password is tried for. */
interface Tried {
  account: string
  /** Whether there is such an account. */
  real: boolean
  /** The device, where this person has signed in on it before: strangers elsewhere do not keep it waiting. */
  knownDevice: string | null
}

function keysOf(event: H3Event, { account, knownDevice }: Tried) {
  return {
    account: knownDevice ? `device ${knownDevice} ${account}` : `account ${account}`,
    address: `address ${addressOf(event)}`,
  }
}

/** Counts an attempt before it is tried. Throws 429 with how long to wait when there were too many. */
export async function countAttempt(event: H3Event, tried: Tried): Promise<void> {
  const { account, address } = keysOf(event, tried)
  const wait = await usePorts().attempts.begin([
    { key: account, pace: ACCOUNT, real: tried.real },
    { key: address, pace: ADDRESS, real: false },
  ])
  if (wait === 0) return
  const seconds = Math.ceil(wait / 1000)
  logOf(event).warn({ what: 'refused', why: 'too many attempts', real: tried.real, seconds })
  setHeader(event, 'retry-after', seconds)
  throw failure(
    429,
    `Too many wrong passwords. Please wait ${seconds < 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`}.`,
  )
}

/** Takes a right password off the counts. */
export async function attemptSucceeded(event: H3Event, tried: Tried): Promise<void> {
  const { account, address } = keysOf(event, tried)
  await usePorts().attempts.succeeded(account, true)
  await usePorts().attempts.succeeded(address, false)
}
