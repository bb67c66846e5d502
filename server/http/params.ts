import { getRouterParam, type H3Event } from 'h3'
import { z } from 'zod'
import type { Client } from '../../shared/schemas/client'
import type { CheckinRecord } from '../../shared/schemas/checkin'
import type { Photo } from '../../shared/schemas/photo'
import { useDatabase } from '../db/use-database'
import { findCheckin } from '../repositories/checkins'
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

/** The check-in this address names. Throws 404 when there is none in this studio. */
export async function checkinAt(event: H3Event): Promise<CheckinRecord> {
  const sentence = 'There is no such check-in.'
  const found = await findCheckin(await useDatabase(), signedInAs(event), idParam(event, sentence))
  if (!found) throw failure(404, sentence, [{ field: 'id', message: sentence }])
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
