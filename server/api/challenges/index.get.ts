import type { ChallengeRecord } from '../../../shared/schemas/challenge'
import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { listChallenges } from '../../repositories/challenges'

/** A studio's challenges. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<ChallengeRecord[]> =>
  listChallenges(await useDatabase(), signedInAs(event)),
)
