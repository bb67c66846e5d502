import { useDatabase } from '../../db/use-database'
import { atLinkOf, ownRecord } from '../../http/at-link'
import { ownHome } from '../../http/own-home'
import { defineRoute } from '../../http/route'
import { findHistory } from '../../repositories/history'
import { findEnergySince } from '../../repositories/staff'
import { sendTakeHome } from '../../take-home/take-home'

/** The client's own page to take home: the last two check-ins. */
export default defineRoute({ access: 'link', scope: 'take-home' }, async (event) => {
  const { studioId } = atLinkOf(event)
  const client = await ownRecord(event)
  const db = await useDatabase()
  const home = await ownHome(event, client)
  return sendTakeHome(event, client, await findHistory(db, { studioId }, client), {
    studioId,
    studio: home.studioName,
    units: home.units,
    fromId: null,
    toId: null,
    today: home.today,
    energyOffered: (await findEnergySince(db, { studioId })) !== null,
    neutral: home.neutral,
  })
})
