import { defineEventHandler } from 'h3'
import type { ChallengeRecord } from '../../../shared/schemas/challenge'
import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { listChallenges } from '../../repositories/challenges'

/** A studio's challenges. */
export default defineEventHandler(async (event): Promise<ChallengeRecord[]> =>
  listChallenges(await useDatabase(), signedInAs(event)),
)
