import { getHeader, useSession, type H3Event } from 'h3'
import { useRuntimeConfig } from 'nitropack/runtime'
import { subHours } from 'date-fns'
import { localDay } from '../../core/calendar'
import type { Client } from '../../shared/schemas/client'
import type { LinkScope } from '../../shared/schemas/link'
import { useDatabase } from '../db/use-database'
import { findClient } from '../repositories/clients'
import { findLinkSession, noteLinkOpened, type AtLink, type LinkState } from '../repositories/client-links'
import { findTimeZone } from '../repositories/staff'
import { countedScope, safetyFactsOf } from '../repositories/suspensions'
import type { Actor } from '../write/change'
import { change } from '../write/use-change'
import { ownOrigin } from './address'
import { failure } from './failure'
import { deviceWords } from './session-cookie'

export type { AtLink }

/** A phone stays signed in to its link this long, seconds; the link's own end comes first where it is nearer. */
const SECONDS = 400 * 24 * 60 * 60

/** Why a link does not open, for the client. */
export const LINK_SENTENCES: Readonly<Record<Exclude<LinkState, 'works'> | 'unknown', string>> = {
  expired: 'This link has run out. Please ask your coach to renew it. Nothing you have handed in is lost.',
  revoked: 'This link was ended. Please ask your coach for a new one. Nothing you have handed in is lost.',
  locked: 'The PIN was wrong five times. The link is locked until your coach renews it.',
  unknown: 'This link is not known here. Please open it again from the message, or ask your coach for a new one.',
}

function cookieOf(event: H3Event) {
  const { password } = useRuntimeConfig().session
  return useSession<{ sessionId?: string }>(event, {
    name: 'oak-pinch-link',
    password,
    maxAge: SECONDS,
    // Nothing of a client's own ever comes from another site.
    cookie: { secure: ownOrigin(event).startsWith('https:'), sameSite: 'strict', httpOnly: true, path: '/' },
  })
}

/** Seals a phone's session of a link into its cookie. */
export async function sealLink(event: H3Event, sessionId: string): Promise<void> {
  await (await cookieOf(event)).update({ sessionId })
}

/** Takes it out again. */
export async function clearLink(event: H3Event): Promise<void> {
  await (await cookieOf(event)).clear()
}

/** The phone's own words, as sessions keep them. */
export function phoneOf(event: H3Event): string {
  return deviceWords(getHeader(event, 'user-agent') ?? '')
}

/** Whose link this phone is signed in to. Throws 401 with the reason when it does not work any more. */
export async function linkSessionOf(event: H3Event): Promise<AtLink | null> {
  const { sessionId } = (await cookieOf(event)).data
  const found = sessionId ? await findLinkSession(await useDatabase(), sessionId) : null
  if (!found) return null
  const { state, reasonFor, ...atLink } = found
  if (state !== 'works') throw failure(401, LINK_SENTENCES[state])
  // What the gate has come up against since it was made does not count until a coach decides.
  const db = await useDatabase()
  const today = localDay(Date.now(), await findTimeZone(db, atLink))
  const facts = await safetyFactsOf(db, atLink, atLink.clientId, today)
  return { ...atLink, scope: facts ? countedScope(facts, atLink.scope, reasonFor) : [] }
}

/** Throws 403 unless a link was made for what a route does. */
export function requireScope({ scope }: AtLink, needs?: LinkScope): void {
  if (needs && !scope.includes(needs)) throw failure(403, 'This link was not made for that. Please ask your coach.')
}

/** The client this request comes from. `defineRoute` has refused everyone else already. */
export function atLinkOf(event: H3Event): AtLink {
  const found = event.context.atLink
  if (!found) throw failure(401, LINK_SENTENCES.unknown)
  return found
}

/** Their record. */
export async function ownRecord(event: H3Event): Promise<Client> {
  const { clientId, studioId } = atLinkOf(event)
  const client = await findClient(await useDatabase(), { studioId }, clientId)
  if (!client) throw failure(401, LINK_SENTENCES.revoked)
  return client
}

/** As the door for writes records them. */
export function linkActor(event: H3Event): Actor {
  const { clientId, studioId } = atLinkOf(event)
  return { kind: 'link', clientId, studioId }
}

/** Notes once an hour that the link was used. */
export async function noteOpened(event: H3Event): Promise<void> {
  const { linkId } = atLinkOf(event)
  await change(linkActor(event), { kind: 'link.opened', subjectId: linkId }, async (tx, unit) => {
    if (!(await noteLinkOpened(tx, linkId, subHours(new Date(), 1).toISOString()))) unit.unchanged()
  })
}
