import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextPathOf } from '~/composables/nextPath'

const MINUTE = 60_000
let kept = new Map<string, string>()
beforeEach(() => {
  kept = new Map()
  vi.resetModules()
  vi.useFakeTimers({ now: Date.parse('2026-11-27T08:00:00Z') })
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
/** As a page that was opened just now has it. */
const page = () => import('~/storage/lock-marks')

describe('a device nobody touches', () => {
  it('is left after its studio’s minutes, and never where it has none', async () => {
    const { isLeft, noteLockMinutes, noteTouched } = await page()
    vi.advanceTimersByTime(600 * MINUTE)
    expect(isLeft()).toBe(false)
    noteLockMinutes(5)
    expect(isLeft()).toBe(false)
    vi.advanceTimersByTime(5 * MINUTE)
    expect(isLeft()).toBe(false)
    vi.advanceTimersByTime(1_000)
    expect(isLeft()).toBe(true)
    noteTouched()
    expect(isLeft()).toBe(false)
  })

  it('is left too for a page opened much later, and is not for one beside another that is used', async () => {
    const first = await page()
    first.noteLockMinutes(5)
    vi.advanceTimersByTime(30 * MINUTE)
    vi.resetModules()
    const later = await page()
    expect(later.isLeft()).toBe(true)
    first.noteTouched()
    expect(later.isLeft()).toBe(false)
  })

  it('is locked for every page of it, until one is opened; that counts as a touch', async () => {
    const [first, beside] = [await page(), (vi.resetModules(), await page())]
    first.noteLockMinutes(5)
    first.noteLocked(true)
    expect(beside.isLockedHere()).toBe(true)
    vi.advanceTimersByTime(60 * MINUTE)
    beside.noteLocked(false)
    expect([beside.isLockedHere(), beside.isLeft()]).toEqual([false, false])
  })

  it('holds for one page where nothing can be kept', async () => {
    vi.stubGlobal('localStorage', undefined)
    const { isLeft, isLockedHere, noteLockMinutes, noteLocked, noteTouched } = await page()
    noteLockMinutes(2)
    noteTouched(true)
    vi.advanceTimersByTime(3 * MINUTE)
    expect(isLeft()).toBe(true)
    noteLocked(true)
    expect(isLockedHere()).toBe(true)
  })
})

describe('where an address says to go on', () => {
  it('is a path of this application', () => {
    expect(nextPathOf('/clients?q=maren')).toBe('/clients?q=maren')
    for (const elsewhere of ['//elsewhere.example', '/\\elsewhere', 'https://elsewhere.example', '', undefined, ['/a']])
      expect(nextPathOf(elsewhere)).toBe('/')
  })
})
