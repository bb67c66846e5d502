import { defineEventHandler } from 'h3'
import { failure } from '../http/failure'

/** What no other route takes: an unknown address, or a known one asked in a way it does not answer. */
export default defineEventHandler((event) => {
  throw event.method === 'GET' || event.method === 'HEAD'
    ? failure(404, 'There is nothing at this address.')
    : failure(405, `This address does not take ${event.method}.`)
})
