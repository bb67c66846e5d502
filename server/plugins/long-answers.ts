import { promisify } from 'node:util'
import { gzip } from 'node:zlib'
import { appendResponseHeader, getHeader, setHeader } from 'h3'
import { defineNitroPlugin } from 'nitropack/runtime'

const zipped = promisify(gzip)

/** Characters from which facts are zipped: less travels in a few packets as it is. */
const LONG = 16_384
/** A history of years shrinks to less than a third in some milliseconds; harder costs more than it saves. */
const LEVEL = 4

/** Facts: what a handler returns to be sent as JSON, not a file, a stream or a page. */
function areFacts(body: unknown): body is object {
  if (typeof body !== 'object' || body === null) return false
  return Array.isArray(body) || Object.getPrototypeOf(body) === Object.prototype
}

/**
 * Long facts travel zipped to whoever reads that: a history of years over a gym's network. What is secret (a device's key,
 * codes) is short and stays apart from what others wrote, so that a length tells nothing of it.
 */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('beforeResponse', async (event, response) => {
    if (!areFacts(response.body)) return
    appendResponseHeader(event, 'vary', 'accept-encoding')
    if (!/\bgzip\b(?!;q=0(?:\.0*)?(?:,|$))/.test(getHeader(event, 'accept-encoding') ?? '')) return
    const text = JSON.stringify(response.body)
    setHeader(event, 'content-type', 'application/json')
    if (text.length < LONG) {
      response.body = text
      return
    }
    setHeader(event, 'content-encoding', 'gzip')
    response.body = await zipped(text, { level: LEVEL })
  })
})
