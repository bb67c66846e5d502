import type { Client } from '../../shared/schemas/client'
import type { ClientHistory } from '../../shared/schemas/following'
import type { Queryable } from '../db/database'
import { findErrors } from './assessor-errors'
import { listCalipers } from './calipers'
import { listCheckins, listVoided } from './checkins'
import { listChoices } from './choices'
import { listPhotos } from './photos'
import { listPlans } from './plans'
import { noisesFor } from './client-lines'
import { listPins } from './pins'
import type { SignedIn } from './staff'
import { listWeighIns } from './weigh-ins'
import { findWorthwhile } from './worthwhile'

/** Every fact the client page works from. Errors are those of the assessors who measured this client. */
export async function findHistory(db: Queryable, who: SignedIn, client: Client): Promise<ClientHistory> {
  const checkins = await listCheckins(db, who, client.id)
  const assessors = new Set(checkins.map(({ assessorId }) => assessorId))
  const errors = await findErrors(db, who.studioId)
  const days = checkins.filter(({ finishedAt }) => finishedAt !== null).map(({ day }) => day)
  days.sort()
  return {
    client,
    checkins,
    choices: await listChoices(db, client.id),
    errors: errors.filter(({ assessorId }) => assessors.has(assessorId)),
    calipers: await listCalipers(db, who),
    weighIns: await listWeighIns(db, client.id),
    photos: await listPhotos(db, client.id),
    plans: await listPlans(db, client.id),
    pins: await listPins(db, client.id),
    noises: await noisesFor(db, who, client.id, days),
    worthwhile: await findWorthwhile(db, client.id),
    voided: await listVoided(db, who, client.id),
  }
}
