import { createEventStream, defineEventHandler } from 'h3'
import { liveStreams } from '../../../http/live-streams'
import { checkinAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { usePorts } from '../../../ports'

const HEARTBEAT_MS = 15_000

/** A running check-in as it happens, as server-sent events: what any screen stores, every other one hears. */
export default defineEventHandler(async (event) => {
  const { id } = await checkinAt(event)
  const { sessionId } = signedInAs(event)
  const { bus } = usePorts()
  const stream = createEventStream(event)
  let count = 0
  // Counted: two messages alike in a row are two messages.
  const leave = bus.subscribe(`checkin:${id}`, (message) => {
    count += 1
    void stream.push(JSON.stringify({ ...message, count }))
  })
  const close = liveStreams.open(() => void stream.close())
  // Whoever is signed out hears nothing more.
  const leaveSession = bus.subscribe(`session:${sessionId}`, () => void stream.close())
  // A silent line now and then, so that a dead connection is noticed.
  const heartbeat = setInterval(() => void stream.push({ event: 'beat', data: '' }), HEARTBEAT_MS)
  stream.onClosed(async () => {
    clearInterval(heartbeat)
    leave()
    leaveSession()
    close()
    await stream.close()
  })
  void stream.push({ event: 'beat', data: '' })
  return stream.send()
})
