import { randomBytes } from 'node:crypto'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { checkPinHere, forgetDeviceKey, forgetPinHere, isKeyed, rememberPin, takeDeviceKey } from '~/storage/device-key'
import { openRows, sealRow, type SealedRow } from '~/storage/sealed-rows'

const FACT = { id: 'one', checkinId: 'visit', savedAt: 7, clientId: 'maren', reading: { site: 'triceps', value: 12.5 } }
const KEY = randomBytes(32).toString('base64')

beforeEach(() => {
  const kept = new Map<string, string>()
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  })
})
afterEach(async () => {
  await forgetDeviceKey({ all: true })
  vi.unstubAllGlobals()
})

describe('a row on the device', () => {
  it('is sealed but for what it is found by, and opens as it was', async () => {
    await takeDeviceKey(KEY)
    const row = (await sealRow(FACT)) as SealedRow
    expect(Object.keys(row).sort()).toEqual(['checkinId', 'id', 'iv', 'savedAt', 'sealed'])
    expect(JSON.stringify(row)).not.toMatch(/triceps|12\.5|maren/)
    expect(await openRows<typeof FACT>([row])).toEqual({ rows: [FACT], plain: [], unread: 0 })
    // The same fact sealed again looks another.
    expect(((await sealRow(FACT)) as SealedRow).sealed).not.toBe(row.sealed)
  })

  it('does not open changed, under another id, with another key, or without one: it stays, and is counted', async () => {
    await takeDeviceKey(KEY)
    const row = (await sealRow(FACT)) as SealedRow
    const [first = ''] = row.sealed
    const bent = [
      { ...row, id: 'two' },
      { ...row, sealed: (first === 'A' ? 'B' : 'A') + row.sealed.slice(1) },
    ]
    expect(await openRows<typeof FACT>(bent)).toEqual({ rows: [], plain: [], unread: 2 })
    await takeDeviceKey(randomBytes(32).toString('base64'))
    expect((await openRows<typeof FACT>([row])).unread).toBe(1)
    await forgetDeviceKey({ all: true })
    expect((await openRows<typeof FACT>([row])).unread).toBe(1)
    await takeDeviceKey(KEY)
    expect((await openRows<typeof FACT>([row])).rows).toEqual([FACT])
  })

  it('lies as it is where there is no key, and where the browser cannot seal: nothing is lost for that', async () => {
    expect(await sealRow(FACT)).toBe(FACT)
    expect(await openRows<typeof FACT>([FACT])).toEqual({ rows: [FACT], plain: [FACT], unread: 0 })
    vi.stubGlobal('crypto', {})
    expect(isKeyed()).toBe(true)
    await takeDeviceKey(KEY)
    expect(await sealRow(FACT)).toBe(FACT)
  })
})

describe('a PIN without the server', () => {
  it('is checked by a PIN that was right on this page, until it was wrong too often', async () => {
    await takeDeviceKey(KEY)
    // What the server knows does not come here: without a PIN used on this page nothing can be checked.
    expect(await checkPinHere('2846')).toBeNull()
    rememberPin('2846')
    expect([await checkPinHere('2846'), await checkPinHere('2847')]).toEqual([true, false])
    // Off the device while it is locked; this page still knows.
    await forgetDeviceKey({ all: false })
    expect(await checkPinHere('2846')).toBe(true)
    forgetPinHere()
    expect(await checkPinHere('2846')).toBeNull()
  })
})
