import { localDay } from '../../core/calendar'
import { boardInput, type Board } from '../../shared/schemas/challenge'
import { useDatabase } from '../db/use-database'
import { readJson } from '../http/body'
import { failure } from '../http/failure'
import { countAttempt } from '../http/guessing'
import { hashOf } from '../http/tokens'
import { defineRoute } from '../http/route'
import { boardOf } from '../repositories/challenge-board'
import { findBoard, findChallenge } from '../repositories/challenges'

/** What a wall shows of a challenge: shares, places and chances of those who agreed to be shown. */
export default defineRoute({ access: 'open' }, async (event): Promise<Board> => {
  const { token } = await readJson(event, boardInput)
  const db = await useDatabase()
  const found = await findBoard(db, hashOf(token))
  const challenge = found && (await findChallenge(db, found, found.id))
  if (!found || !challenge) {
    await countAttempt(event, { account: 'challenge boards', real: false, knownDevice: null })
    throw failure(404, 'This board is not shown any more. Please ask for its new address.')
  }
  return boardOf(db, found, challenge, localDay(Date.now(), found.timeZone))
})
