import type { H3Event } from 'h3'
import type { AtWork } from '../repositories/staff'
import type { AtDevice } from './admit'
import { failure } from './failure'

/** The person this request comes from. `defineRoute` has refused everyone else already. */
export function signedInAs(event: H3Event): AtWork {
  if (!event.context.signedIn) throw failure(401, 'Please sign in.')
  return event.context.signedIn
}

/** The same, for routes that also answer while the device is locked. */
export function lockedOrSignedIn(event: H3Event): AtDevice {
  if (!event.context.atDevice) throw failure(401, 'Please sign in.')
  return event.context.atDevice
}

/** The same, where only some answers of a route are for leads. A route for leads alone declares it. */
export function signedInAsLead(event: H3Event): AtWork {
  const person = signedInAs(event)
  if (person.role !== 'lead') throw failure(403, 'Only the lead coach can do this.')
  return person
}
