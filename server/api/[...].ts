import { failure } from '../http/failure'
import { defineRoute } from '../http/route'

/** What no other route takes: an unknown address, or a known one asked in a way it does not answer. */
export default defineRoute({ access: 'recorder', proof: 'none' }, (event) => {
  throw event.method === 'GET' || event.method === 'HEAD'
    ? failure(404, 'There is nothing at this address.')
    : failure(405, `This address does not take ${event.method}.`)
})
