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
import { hasWrittenIn } from '../repositories/written-in'
import { findClient } from '../repositories/clients'
import type { HomePhoto } from '../../shared/schemas/link'
import { findHomePhoto } from '../repositories/hand-ins'
import { findPhoto } from '../repositories/photos'
import { failure } from './failure'
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
  return found
}

/**
 * What a recorder's device could not send before, and the sheet they have written themselves, stay within their reach for
 * so long after its end, hours.
 */
const RECORDERS_HOURS = 24

/** Whether a check-in has ended for a recorder. */
async function endedFor(event: H3Event, { id, finishedAt }: CheckinHead): Promise<boolean> {
  const { role, staffId } = signedInAs(event)
  if (role !== 'recorder' || finishedAt === null) return false
  if (Date.now() - Date.parse(finishedAt) > hoursToMilliseconds(RECORDERS_HOURS)) return true
  return event.method !== 'POST' && !(await hasWrittenIn(await useDatabase(), staffId, id))
}

/** The check-in this address names. Throws 404 when there is none in this studio, or for a recorder none that is theirs to write. */
export const checkinAt = (event: H3Event): Promise<CheckinRecord> => atCheckin(event, findCheckin)

/** The same without its facts. */
export const checkinHeadAt = (event: H3Event): Promise<CheckinHead> => atCheckin(event, findCheckinHead)

async function atCheckin<Found extends CheckinHead>(
  event: H3Event,
  find: (db: Queryable, who: SignedIn, id: string) => Promise<Found | null>,
): Promise<Found> {
  const sentence = 'There is no such check-in.'
  const found = await find(await useDatabase(), signedInAs(event), idParam(event, sentence))
  if (!found || (await endedFor(event, found))) throw failure(404, sentence, [{ field: 'id', message: sentence }])
  return found
}

/** The photograph from home this address names. Throws 404 when there is none in this studio. */
export async function homePhotoAt(event: H3Event): Promise<HomePhoto & { clientId: string }> {
  const sentence = 'There is no such photograph.'
  const found = await findHomePhoto(await useDatabase(), signedInAs(event), idParam(event, sentence))
  if (!found) throw failure(404, sentence, [{ field: 'id', message: sentence }])
  return found
}

/** The photograph this address names. Throws 404 when there is none in this studio. */
export async function photoAt(event: H3Event): Promise<Photo & { clientId: string }> {
  const sentence = 'There is no such photograph.'
  const found = await findPhoto(await useDatabase(), signedInAs(event), idParam(event, sentence))
  if (!found) throw failure(404, sentence, [{ field: 'id', message: sentence }])
  return found
}
