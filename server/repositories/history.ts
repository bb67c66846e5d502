import { localDay } from '../../core/calendar'
import type { Client } from '../../shared/schemas/client'
import type { ClientHistory } from '../../shared/schemas/following'
import type { Queryable } from '../db/database'
import { findErrors } from './assessor-errors'
import { listBroughtIn } from './brought-in'
import { everyCaliper } from './calipers'
import { listCheckins, listVoided } from './checkins'
import { listChoices } from './choices'
import { listPhotos } from './photos'
import { listPlans } from './plans'
import { listIntakes } from './intakes'
import { noisesFor, partsFor } from './studio-noise'
import { listPins } from './pins'
import { findSchedule } from './schedules'
import { findTimeZone, type InStudio } from './staff'
import { suspensionsOfClient } from './suspensions'
import { findStudied } from './study-facts'
import { listWeighIns } from './weigh-ins'
import { findWorthwhile } from './worthwhile'

/** Every fact the client page works from. Errors are those of the assessors who measured this client. */
export async function findHistory(db: Queryable, who: InStudio, client: Client): Promise<ClientHistory> {
  const checkins = await listCheckins(db, who, client.id)
  const assessors = new Set(checkins.map(({ assessorId }) => assessorId))
  const studied = await findStudied(db, who.studioId)
  const errors = await findErrors(db, who.studioId)
  const days = checkins.filter(({ finishedAt }) => finishedAt !== null).map(({ day }) => day)
  days.sort()
  return {
    client,
    checkins,
    choices: await listChoices(db, client.id),
    errors: errors.filter(({ assessorId }) => assessors.has(assessorId)),
    calipers: await everyCaliper(db, who),
    weighIns: await listWeighIns(db, client.id),
    intakes: await listIntakes(db, client.id),
    photos: await listPhotos(db, client.id),
    plans: await listPlans(db, client.id),
    suspensions: await suspensionsOfClient(db, who, client.id, localDay(Date.now(), await findTimeZone(db, who))),
    schedule: await findSchedule(db, client.id),
    pins: await listPins(db, client.id),
    parts: await partsFor(db, who, client.id),
    noises: await noisesFor(db, who, client.id, days),
    hands: studied.hands,
    studies: studied.studies,
    worthwhile: await findWorthwhile(db, client.id),
    voided: await listVoided(db, who, client.id),
    brought: await listBroughtIn(db, client.id),
  }
}
