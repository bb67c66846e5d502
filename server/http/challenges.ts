import type { H3Event } from 'h3'
import type { ChallengeFacts } from '../../shared/schemas/challenge'
import { useDatabase } from '../db/use-database'
import { findChallengeFacts } from '../repositories/challenge-facts'
import { findChallenge, type StoredChallenge } from '../repositories/challenges'
import { todayAt } from './days'
import { failure } from './failure'
import { idParam } from './params'
import { signedInAs } from './signed-in'

/** The challenge this address names. Throws 404 when there is none here. */
export async function challengeAt(event: H3Event): Promise<StoredChallenge> {
  const sentence = 'There is no such challenge.'
  const found = await findChallenge(await useDatabase(), signedInAs(event), idParam(event, sentence))
  if (!found) throw failure(404, sentence, [{ field: 'id', message: sentence }])
  return found
}

/** As it stands now, for a coach. */
export async function challengeFacts(event: H3Event): Promise<ChallengeFacts> {
  return findChallengeFacts(await useDatabase(), signedInAs(event), await challengeAt(event), todayAt(event))
}
