import { getCookie, getHeader, setCookie, type H3Event } from 'h3'
import { v7 as uuid } from 'uuid'
import type { Queryable, Transaction } from '../db/database'
import { isDeviceOf, knowsDevices, isKnownDevice, rememberDevice } from '../repositories/known-devices'
import { startSession } from '../repositories/sessions'
import { ownOrigin } from './address'
import { hashOf, randomToken } from './tokens'

const DEVICE_COOKIE = 'oak-pinch-device'
const DEVICE_SECONDS = 400 * 24 * 60 * 60

function isSecure(event: H3Event): boolean {
  return ownOrigin(event).startsWith('https:')
}

/** The hash of the token this browser keeps since somebody signed in on it; null on a new one. */
export function deviceHash(event: H3Event): string | null {
  const token = getCookie(event, DEVICE_COOKIE)
  return token && /^[\w-]{43}$/.test(token) ? hashOf(token) : null
}

/** A browser in a few words: "Chromium on Linux". */
export function deviceWords(agent: string): string {
  const browser =
    [
      ['Edg/', 'Edge'],
      ['Firefox/', 'Firefox'],
      ['Chrome/', 'Chromium'],
      ['Safari/', 'Safari'],
    ].find(([sign = '']) => agent.includes(sign))?.[1] ?? 'A browser'
  const system =
    [
      ['iPad', 'iPad'],
      ['iPhone', 'iPhone'],
      ['Android', 'Android'],
      ['Windows', 'Windows'],
      ['Mac OS', 'macOS'],
      ['CrOS', 'ChromeOS'],
      ['Linux', 'Linux'],
    ].find(([sign = '']) => agent.includes(sign))?.[1] ?? null
  return system ? `${browser} on ${system}` : browser
}

const wordsOf = (event: H3Event) => deviceWords(getHeader(event, 'user-agent') ?? '')

/** A browser as somebody signs in on it. */
interface Device {
  /** Its token: one that others of the studio know it by already, or a new one. */
  token: string
  /** This person has signed in on others, and never on this one. */
  strange: boolean
}

/** How a browser stands to a person. A device that others of the studio sign in on keeps its token, and stays known to all. */
export async function deviceOf(
  event: H3Event,
  db: Queryable,
  { staffId, studioId }: { staffId: string; studioId: string },
): Promise<Device> {
  const hash = deviceHash(event)
  const shared = hash !== null && (await isDeviceOf(db, studioId, hash))
  const known = hash !== null && (await isKnownDevice(db, staffId, hash))
  return {
    token: (shared ? getCookie(event, DEVICE_COOKIE) : null) ?? randomToken(),
    strange: !known && (await knowsDevices(db, staffId)),
  }
}

/**
 * Starts a session for a person and remembers their device, in the transaction given.
 * @returns what `sealSession` puts into the cookies once that is stored
 */
export async function openSession(event: H3Event, tx: Transaction, staffId: string, { token, strange }: Device) {
  const id = uuid()
  const device = wordsOf(event)
  await startSession(tx, { id, staffId, device, strange, provedAt: null })
  await rememberDevice(tx, uuid(), staffId, hashOf(token))
  return { id, device: token, words: device }
}

/** Starts a session for somebody who went on at a device by PIN. It is as old as their last sign-in there. */
export async function sessionByPin(event: H3Event, tx: Transaction, staffId: string, provedAt: string) {
  const id = uuid()
  await startSession(tx, { id, staffId, device: wordsOf(event), strange: false, provedAt })
  return { id, device: getCookie(event, DEVICE_COOKIE) ?? randomToken() }
}

/** Seals a session's id into the cookie; marked Secure whenever the request came over https. */
export async function sealSession(event: H3Event, { id, device }: { id: string; device: string }): Promise<void> {
  const cookie = { secure: isSecure(event), sameSite: 'lax', httpOnly: true } as const
  await replaceUserSession(event, { user: { sessionId: id } }, { cookie })
  setCookie(event, DEVICE_COOKIE, device, { ...cookie, path: '/', maxAge: DEVICE_SECONDS })
}
