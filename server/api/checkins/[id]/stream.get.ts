import { createEventStream, defineEventHandler } from 'h3'
import { subscribe } from '../../../http/live'
import { checkinAt } from '../../../http/params'

const HEARTBEAT_MS = 15_000

/** A running check-in as it happens, as server-sent events: what any screen stores, every other one hears. */
export default defineEventHandler(async (event) => {
  const { id } = await checkinAt(event)
  const stream = createEventStream(event)
  const leave = subscribe(id, (message) => void stream.push(JSON.stringify(message)))
  // A silent line now and then, so that a dead connection is noticed.
  const heartbeat = setInterval(() => void stream.push({ event: 'beat', data: '' }), HEARTBEAT_MS)
  stream.onClosed(async () => {
    clearInterval(heartbeat)
    leave()
    await stream.close()
  })
  void stream.push({ event: 'beat', data: '' })
  return stream.send()
})
