import { hoursToMilliseconds } from 'date-fns'
import { getRouterParam, type H3Event } from 'h3'
import { z } from 'zod'
import type { Client } from '../../shared/schemas/client'
import type { CheckinRecord } from '../../shared/schemas/checkin'
import type { Photo } from '../../shared/schemas/photo'
import { useDatabase } from '../db/use-database'
import type { Queryable } from '../db/database'
import { findCheckin, findCheckinHead, type CheckinHead } from '../repositories/checkins'
import type { SignedIn } from '../repositories/staff'
import { findClient } from '../repositories/clients'
import type { HomePhoto } from '../../shared/schemas/link'
import { findHomePhoto } from '../repositories/hand-ins'
import { findPhoto } from '../repositories/photos'
import { failure } from './failure'
import { noteLook } from './looked'
import { signedInAs } from './signed-in'

/** An id in the address. Throws 404 with the sentence when it is none. */
export function idParam(event: H3Event, sentence: string, name = 'id'): string {
  const id = z.uuid().safeParse(getRouterParam(event, name))
  if (!id.success) throw failure(404, sentence, [{ field: name, message: sentence }])
  return id.data
}

/** The client this address names. Throws 404 when there is none in this studio. */
export async function clientAt(event: H3Event): Promise<Client> {
  const sentence = 'There is no such client.'
  const found = await findClient(await useDatabase(), signedInAs(event), idParam(event, sentence))
  if (!found) throw failure(404, sentence, [{ field: 'id', message: sentence }])
  await noteLook(event, found.id)
  return found
}

/** Readings that a recorder's device could not send in time still arrive for this long after the end, hours. */
const LATE_HOURS = 24

/**
 * Whether a check-in is closed to the person asking. Recorders reach only the sheets they were called to, and only while
 * these are open; what they took before the end may arrive late (server/http/recorder.ts refuses anything else).
 */
function isClosedTo(event: H3Event, { recorderId, finishedAt }: CheckinHead): boolean {
  const { role, staffId } = signedInAs(event)
  if (role !== 'recorder') return false
  if (recorderId !== staffId) return true
  if (finishedAt === null) return false
  return event.method !== 'POST' || Date.now() - Date.parse(finishedAt) > hoursToMilliseconds(LATE_HOURS)
}

/** The check-in this address names. Throws 404 when there is none in this studio, or for a recorder none that they were called to. */
export const checkinAt = (event: H3Event): Promise<CheckinRecord> => atCheckin(event, findCheckin)

/** The same without its facts. */
export const checkinHeadAt = (event: H3Event): Promise<CheckinHead> => atCheckin(event, findCheckinHead)

async function atCheckin<Found extends CheckinHead>(
  event: H3Event,
  find: (db: Queryable, who: SignedIn, id: string) => Promise<Found | null>,
): Promise<Found> {
  const sentence = 'There is no such check-in.'
  const found = await find(await useDatabase(), signedInAs(event), idParam(event, sentence))
  if (!found || isClosedTo(event, found)) throw failure(404, sentence, [{ field: 'id', message: sentence }])
  await noteLook(event, found.clientId)
  return found
}

/** The photograph from home this address names. Throws 404 when there is none in this studio. */
export async function homePhotoAt(event: H3Event): Promise<HomePhoto & { clientId: string }> {
  const sentence = 'There is no such photograph.'
  const found = await findHomePhoto(await useDatabase(), signedInAs(event), idParam(event, sentence))
  if (!found) throw failure(404, sentence, [{ field: 'id', message: sentence }])
  await noteLook(event, found.clientId)
  return found
}

/** The photograph this address names. Throws 404 when there is none in this studio. */
export async function photoAt(event: H3Event): Promise<Photo & { clientId: string }> {
  const sentence = 'There is no such photograph.'
  const found = await findPhoto(await useDatabase(), signedInAs(event), idParam(event, sentence))
  if (!found) throw failure(404, sentence, [{ field: 'id', message: sentence }])
  await noteLook(event, found.clientId)
  return found
}
