import { setResponseStatus } from 'h3'
import { actorOf } from '../../../http/actor'
import { ownOrigin } from '../../../http/address'
import { challengeAt } from '../../../http/challenges'
import { hashOf, randomToken } from '../../../http/tokens'
import { defineRoute } from '../../../http/route'
import { setBoard } from '../../../repositories/challenges'
import { change } from '../../../write/use-change'

/** Makes a secret address for a wall's screen; the one before stops working. */
export default defineRoute({ access: 'coach', proof: 'fresh' }, async (event) => {
  const { id } = await challengeAt(event)
  const token = randomToken()
  await change(actorOf(event), { kind: 'challenge.board', subjectId: id }, (tx) => setBoard(tx, id, hashOf(token)))
  setResponseStatus(event, 201)
  return { link: `${ownOrigin(event)}/board#${token}` }
})
