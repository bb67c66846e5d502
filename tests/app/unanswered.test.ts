import { createFetch } from 'ofetch'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { checkins } from '~/calls'
import { problemOf } from '~/composables/useApi'
import { home } from '~/home-calls'
import { everythingWaits } from '~/storage/deliver'

/** A network that takes a request and says nothing until it is given up. */
const deaf = (_: unknown, init?: RequestInit) =>
  new Promise<Response>((_answer, problem) => {
    init?.signal?.addEventListener('abort', () => problem(init.signal?.reason))
  })

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('$fetch', createFetch({ fetch: deaf as typeof fetch }))
})
afterEach(() => {
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

/** What is kept on the device goes out in order: one request without an answer would hold up all behind it. */
describe('a request nobody answers', () => {
  const picture = { id: 'a', handInId: 'b', pose: 'front', takenAt: '2026-01-10T06:00:00Z' } as const
  it.each([
    ['readings', 30, () => checkins.send('a', { readings: [], strikes: [], skips: [], remarks: [] })],
    ['a weight', 30, () => home.weigh({ id: 'a', day: '2026-01-10', value: 71, unit: 'kg' })],
    ['a picture', 180, () => home.addPhoto(picture, new Blob(['x']))],
  ])('is given up, and its facts wait: %s, %d s', async (_, seconds, send) => {
    let given: unknown = null
    const sent = (send() as Promise<unknown>).catch((error: unknown) => (given = error))
    await vi.advanceTimersByTimeAsync(seconds * 1000 - 100)
    expect(given).toBeNull()
    await vi.advanceTimersByTimeAsync(200)
    await sent
    expect(everythingWaits(problemOf(given).status)).toBe(true)
  })
})
