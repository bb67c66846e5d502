import { createEventStream, type H3Event } from 'h3'
import { usePorts } from '../ports'
import type { Channel } from '../ports/bus'
import { liveStreams } from './live-streams'
import { signedInAs } from './signed-in'

const HEARTBEAT_MS = 15_000

/**
 * What is published on a channel, as server-sent events, until the screen or its session goes.
 * @param askAgain closes after a change of the record itself: the screen connects again, and its access is checked anew
 */
export function streamOf(event: H3Event, channel: Channel, { askAgain = false } = {}) {
  const { sessionId } = signedInAs(event)
  const { bus } = usePorts()
  const stream = createEventStream(event)
  let count = 0
  // Counted: two messages alike in a row are two messages.
  const leave = bus.subscribe(channel, (message) => {
    count += 1
    const pushed = stream.push(JSON.stringify({ ...message, count }))
    if (askAgain && message.kind === 'changed') void pushed.then(() => stream.close())
  })
  const close = liveStreams.open(() => void stream.close())
  // A session that has ended receives nothing more.
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
}
