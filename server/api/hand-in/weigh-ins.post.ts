import { addDays } from '../../../core/calendar'
import { homeWeighIn, type ClientHome } from '../../../shared/schemas/link'
import { atLinkOf, linkActor, ownRecord } from '../../http/at-link'
import { readJson } from '../../http/body'
import { failure } from '../../http/failure'
import { ownHome, todayAtLink } from '../../http/own-home'
import { defineRoute } from '../../http/route'
import { addHomeWeighIn } from '../../repositories/hand-ins'
import { change } from '../../write/use-change'

/** How far behind a phone may be, days: it may have been without a network. */
const LATE_DAYS = 60

/** Takes a morning's weight; answers with what the phone shows. `counts`: false for a further one of its day. */
export default defineRoute(
  { access: 'link', scope: 'weigh-ins' },
  async (event): Promise<{ home: ClientHome; counts: boolean }> => {
    const { clientId } = atLinkOf(event)
    const input = await readJson(event, homeWeighIn)
    const today = await todayAtLink(event)
    const message =
      input.day > today ? 'This day is still to come.' : 'That is long ago: please tell your coach about this one.'
    if (input.day > today || input.day < addDays(today, -LATE_DAYS))
      throw failure(422, message, [{ field: 'day', message }])
    const { counts } = await change(
      linkActor(event),
      { kind: 'weighins.added', clientId, subjectId: input.id },
      async (tx, unit) => {
        const stored = await addHomeWeighIn(tx, clientId, input)
        if (!stored.added) unit.unchanged()
        return stored
      },
    )
    return { home: await ownHome(event, await ownRecord(event)), counts }
  },
)
