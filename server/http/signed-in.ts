import type { H3Event } from 'h3'
import type { AtWork } from '../repositories/staff'
import type { AtDevice } from './locked'
import { failure } from './failure'

/** The person this request comes from. The middleware has refused everyone else already. */
export function signedInAs(event: H3Event): AtWork {
  if (!event.context.signedIn) throw failure(401, 'Please sign in.')
  return event.context.signedIn
}

/** The same, for what also answers while the device is locked. */
export function lockedOrSignedIn(event: H3Event): AtDevice {
  if (!event.context.atDevice) throw failure(401, 'Please sign in.')
  return event.context.atDevice
}

/** The same, for what only a lead coach may do. */
export function signedInAsLead(event: H3Event): AtWork {
  const person = signedInAs(event)
  if (person.role !== 'lead') throw failure(403, 'Only the lead coach can do this.')
  return person
}
