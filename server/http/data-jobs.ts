import type { H3Event } from 'h3'
import { useDataJobs } from '../jobs/use-data'
import { failure } from './failure'
import { idParam } from './params'
import { signedInAs } from './signed-in'

/** The work a request is about. Throws 404 when it is not known any more. */
export function jobAt(event: H3Event) {
  const who = signedInAs(event)
  const sentence = 'This work is not known any more: please begin it again.'
  const found = useDataJobs().find(who, idParam(event, sentence))
  if (!found) throw failure(404, sentence)
  return found
}
