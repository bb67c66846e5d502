import { effectScope, nextTick } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
// The library takes a place without a window for a server, where nothing is heard.
vi.hoisted(() => Object.assign(globalThis, { window: globalThis, document: { createElement: () => ({}) } }))

import { useLive } from '../../app/composables/useLive'

/** The browser's stream of events, worked by hand. */
class Stream extends EventTarget {
  static last: Stream | null = null
  readyState = 1
  onopen: (() => void) | null = null
  onmessage: ((event: MessageEvent) => void) | null = null
  constructor() {
    super()
    Stream.last = this
  }
  close() {
    this.readyState = 2
  }
  say(message: unknown) {
    const event = new MessageEvent('message', { data: JSON.stringify(message) })
    this.onmessage?.(event)
    this.dispatchEvent(event)
  }
}

beforeEach(() => vi.stubGlobal('EventSource', Stream))
afterEach(() => vi.unstubAllGlobals())

describe('news of a check-in', () => {
  it('is heard each, also when several alike come at once', async () => {
    const heard = { events: vi.fn(), changed: vi.fn(), discarded: vi.fn() }
    const scope = effectScope()
    scope.run(() => useLive('some-checkin', heard))
    await nextTick()
    for (const count of [1, 2, 3]) Stream.last?.say({ kind: 'changed', count })
    Stream.last?.say({ kind: 'events', events: { readings: [] }, count: 4 })
    Stream.last?.say({ kind: 'discarded', count: 5 })
    expect(heard.changed).toHaveBeenCalledTimes(3)
    expect(heard.events).toHaveBeenCalledTimes(1)
    expect(heard.discarded).toHaveBeenCalledTimes(1)
    scope.stop()
  })
})
