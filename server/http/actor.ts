import type { H3Event } from 'h3'
import type { Actor } from '../write/change'
import { signedInAs } from './signed-in'

/** The person a request comes from, as the door for writes records them. */
export function actorOf(event: H3Event): Actor {
  const { staffId, studioId } = signedInAs(event)
  return { kind: 'staff', staffId, studioId }
}
