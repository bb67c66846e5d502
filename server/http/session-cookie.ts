import { getCookie, getHeader, setCookie, type H3Event } from 'h3'
import { v7 as uuid } from 'uuid'
import type { Transaction } from '../db/database'
import { rememberDevice, startSession } from '../repositories/sessions'
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

/**
 * Starts a session for a person and remembers their device, in the transaction given.
 * @returns what `sealSession` puts into the cookies once that is stored
 */
export async function openSession(event: H3Event, tx: Transaction, staffId: string) {
  const id = uuid()
  const device = randomToken()
  await startSession(tx, { id, staffId, device: deviceWords(getHeader(event, 'user-agent') ?? '') })
  await rememberDevice(tx, uuid(), staffId, hashOf(device))
  return { id, device }
}

/** Seals a session's id into the cookie; marked Secure whenever the request came over https. */
export async function sealSession(event: H3Event, { id, device }: { id: string; device: string }): Promise<void> {
  const cookie = { secure: isSecure(event), sameSite: 'lax', httpOnly: true } as const
  await replaceUserSession(event, { user: { sessionId: id } }, { cookie })
  setCookie(event, DEVICE_COOKIE, device, { ...cookie, path: '/', maxAge: DEVICE_SECONDS })
}
