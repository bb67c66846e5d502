import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { askAhead, historyOf } from '../../app/composables/ahead'

vi.mock('~/components/span/SpanChart.vue', () => ({ default: {} }))

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`
const asked = vi.fn<(path: string) => Promise<{ from: string }>>()
let made = 0
const client = () => id((made += 1))

beforeEach(() => {
  vi.useFakeTimers()
  asked.mockReset().mockImplementation((path) => Promise.resolve({ from: path }))
  vi.stubGlobal('$fetch', asked)
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('facts asked for ahead', () => {
  it('are asked for once and taken once', async () => {
    const one = client()
    askAhead(`/clients/${one}`)
    askAhead(`/clients/${one}`)
    expect(asked).toHaveBeenCalledTimes(1)
    expect(await historyOf(one)).toEqual({ from: `/api/clients/${one}/history` })
    expect(asked).toHaveBeenCalledTimes(1)
    await historyOf(one)
    expect(asked).toHaveBeenCalledTimes(2)
  })

  it('are those of the client asked for', async () => {
    const [one, other] = [client(), client()]
    askAhead(`/clients/${one}`)
    expect(await historyOf(other)).toEqual({ from: `/api/clients/${other}/history` })
    expect(asked).toHaveBeenCalledTimes(2)
  })

  it('are not taken when they are old: they may have changed', async () => {
    const one = client()
    askAhead(`/clients/${one}`)
    vi.advanceTimersByTime(4999)
    askAhead(`/clients/${one}`)
    expect(asked).toHaveBeenCalledTimes(1)
    vi.advanceTimersByTime(2)
    await historyOf(one)
    expect(asked).toHaveBeenCalledTimes(2)
  })

  it('are asked for by a client’s own page and no other', () => {
    for (const path of ['/', '/clients', '/clients/new', `/clients/${client()}/measure`, `/measure/${client()}`]) {
      askAhead(path)
    }
    expect(asked).not.toHaveBeenCalled()
    askAhead(`/clients/${client()}/`)
    expect(asked).toHaveBeenCalledTimes(1)
  })

  it('that fail say so where they are taken, and nowhere else', async () => {
    const one = client()
    asked.mockImplementation(() => Promise.reject(new Error('no network')))
    askAhead(`/clients/${one}`)
    await expect(historyOf(one)).rejects.toThrow('no network')
    // Nobody comes for this one: no unhandled rejection may fail the run.
    askAhead(`/clients/${client()}`)
    await vi.advanceTimersByTimeAsync(10)
  })
})
