import type { H3Event } from 'h3'
import { useDatabase } from '../db/use-database'
import { findEnergySince } from '../repositories/staff'
import { failure } from './failure'
import { signedInAs } from './signed-in'

/** Refuses what a studio does not offer: energy and macros, before its lead has accepted the page on scope of practice. */
export async function requireEnergy(event: H3Event): Promise<void> {
  if ((await findEnergySince(await useDatabase(), signedInAs(event))) === null)
    throw failure(403, 'This studio does not offer energy and macros: its lead decides, under Studio.')
}
