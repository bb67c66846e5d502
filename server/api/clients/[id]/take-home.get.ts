import { getQuery } from 'h3'
import { localDay } from '../../../../core/calendar'
import { takeHomeQuery } from '../../../../shared/schemas/following'
import { unitsOf } from '../../../../shared/units-of'
import { useDatabase } from '../../../db/use-database'
import { parsed } from '../../../http/body'
import { failure } from '../../../http/failure'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { findHistory } from '../../../repositories/history'
import { findMe } from '../../../repositories/staff'
import { sendTakeHome } from '../../../take-home/take-home'

/** The page to take home, as PDF. */
export default defineRoute({ access: 'coach', proof: 'second', looked: 'client' }, async (event) => {
  const client = await clientAt(event)
  const query = parsed(takeHomeQuery, getQuery(event))
  const who = signedInAs(event)
  const db = await useDatabase()
  const me = await findMe(db, who)
  if (!me) throw failure(401, 'Please sign in.')
  return sendTakeHome(event, client, await findHistory(db, who, client), {
    studioId: who.studioId,
    studio: me.studio.name,
    units: unitsOf(me),
    figure: query.figure,
    fromId: query.from ?? null,
    toId: query.to ?? null,
    today: localDay(Date.now(), me.studio.timeZone),
    energyOffered: me.energySince !== null,
    neutral: query.neutral === 'true',
  })
})
