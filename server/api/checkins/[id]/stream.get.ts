import { streamOf } from '../../../http/live'
import { checkinHeadAt } from '../../../http/params'
import { defineRoute } from '../../../http/route'
import { signedInAs } from '../../../http/signed-in'

/** A check-in as server-sent events while it is measured: what one screen stores, the others show. */
export default defineRoute({ access: 'recorder', proof: 'second', looked: 'client' }, async (event) => {
  const { id } = await checkinHeadAt(event)
  // A recorder stays only as long as they are called and the sheet is open.
  return streamOf(event, `checkin:${id}`, { askAgain: signedInAs(event).role === 'recorder' })
})
